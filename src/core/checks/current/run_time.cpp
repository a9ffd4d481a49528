#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::run_time {
namespace {

constexpr double kShort = 0.5;  // h
constexpr double kSecondsAnHour = 3600;

struct Lasting {
  Margin margin;
  const parts::Source* source;
  int device;
  Amps running;
  double hours;
};

std::vector<Lasting> measure(const SolvedBench& s) {
  std::vector<Lasting> out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    const auto capacity = body.capacity.typical();
    if (!capacity) continue;
    const auto running = largest(
        s, [](const OperatingPoint& p) { return steady(p) && p.corner() == Corner::Nominal; },
        [&](const OperatingPoint& p) { return p.element(pole.device, pole.element).value; });
    if (running.value <= 1e-3) continue;
    const double hours = *capacity / running.value;
    out.push_back({{.quantity = "time until empty",
                    .subjects = {idOf(s.bench, pole.device)},
                    .unit = Unit::Second,
                    .value = hours * kSecondsAnHour,
                    .limits = rising(atLeast(LimitKind::Recommended, Severity::Note, kShort * kSecondsAnHour, "half an hour")),
                    .at = running.point},
                   &body,
                   pole.device,
                   Amps{running.value},
                   hours});
  }
  return out;
}

}  // namespace

// How long a battery lasts with everything running.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Lasting& m) {
    const auto capacity = displayText(m.source->capacity);
    auto f = finding(fmt::format("{} lasts about {:.0f} min", called(s.bench, m.device), 60 * m.hours),
                     fmt::format("With {} {} gives {}: its {} last about {:.0f} minutes.", during(*m.margin.at), called(s.bench, m.device),
                                 show(m.running), capacity, 60 * m.hours),
                     m.margin.subjects);
    f.ways = {{fmt::format("For an hour it takes a pack of {:.2g} Ah.", m.running.value)}};
    f.formula = fmt::format("{} / {} = {:.2f} h", capacity, show(m.running), m.hours);
    f.args = {{"current", m.running}};
    f.sources = sourcesOf({&m.source->capacity});
    return f;
  });
}

Check check() {
  return {"run-time", "current", "A battery that lasts less than half an hour", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::run_time
