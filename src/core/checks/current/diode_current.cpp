#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"
#include "core/checks/queries.h"

namespace bold::checks::diode_current {
namespace {

constexpr double kBurns = 1.5;        // times its rating
constexpr double kOfInterest = 0.01;  // A: less is the leak of one that blocks

struct InTheWay {
  Margin margin;
  int device;
  const parts::Diode* diode;
  Extreme current;
};

std::vector<InTheWay> measure(const SolvedBench& s) {
  std::vector<InTheWay> out;
  for (const auto& d : looseDiodes(s)) {
    const auto& body = std::get<parts::Diode>(s.bench.devices[d.device].part->elements[d.element].body);
    const auto most = largest(s, steady, [&](const OperatingPoint& p) { return p.element(d.device, d.element).value; });
    const auto rating = body.ratedCurrent.typical();
    if (most.value < kOfInterest || !rating) continue;
    out.push_back(
        {{.quantity = "current through a diode",
          .subjects = {idOf(s.bench, d.device)},
          .unit = Unit::Amp,
          .value = most.known(),
          .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, *rating, "average rating", body.ratedCurrent.source),
                           atMost(LimitKind::Absolute, Severity::Stop, kBurns * *rating, "1.5 x average rating", body.ratedCurrent.source)),
          .at = most.point},
         d.device,
         &body,
         most});
  }
  return out;
}

}  // namespace

// A loose diode that a running motor's current goes through all the time; of one that clamps see flyback-rating.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const InTheWay& m) {
    const Amps amps{m.current.value};
    const Amps rating{*m.diode->ratedCurrent.typical()};
    const auto& name = called(s.bench, m.device);
    auto f = finding(fmt::format("{} carries {}", name, show(amps)),
                     fmt::format("With {} {} flow through {} all the time; it is made for {}.", during(*m.current.point), show(amps), name,
                                 show(rating)),
                     m.margin.subjects);
    f.ways = {{fmt::format("Take a diode for {} or more, or lead the motor's current past it.", show(amps))}};
    f.formula = fmt::format("{} > {}{}", show(amps), m.margin.stops() ? "1.5 x " : "", show(rating));
    f.args = {{"current", amps}, {"limit", rating}};
    f.bar = barOf(m.margin, rating.value, "average rating");
    f.sources = sourcesOf({&m.diode->ratedCurrent});
    return f;
  });
}

Check check() {
  return {"diode-current", "current", "A diode in the way of the current", Harm::Damage, judge};
}

}  // namespace bold::checks::diode_current
