#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::brown_out {
namespace {

// The lowest that a supply sags to while a motor is held.
struct Sag {
  std::optional<Volts> volts;
  const OperatingPoint* point = nullptr;
};

struct Brown {
  Margins margins;  // nominal charge, nearly empty
  int device;
  const parts::Sink* sink;
  Volts rest, least;
  Sag nominal, empty;
};

Sag lowest(const SolvedBench& s, TerminalIndex a, TerminalIndex b, Corner corner) {
  Sag low;
  for (const auto& p : s.points) {
    if (!p->solved() || p->corner() != corner || bench::partlyFed(*p) || p->command().moment != Moment::Stalled) continue;
    const auto v = p->across(a, b);
    if (v && (!low.volts || *v < *low.volts)) low = {v, p.get()};
  }
  return low;
}

std::vector<Brown> measure(const SolvedBench& s) {
  std::vector<Brown> out;
  const auto* off = s.point(Action::AllOff, Corner::Nominal);
  if (!off) return out;
  eachElement<parts::Sink>(s.bench, [&](int d, int, const parts::Sink& sink) {
    if (sink.start.known() || !sink.voltage.min) return;
    const auto a = at(s.bench, d, sink.positive);
    const auto b = at(s.bench, d, sink.negative);
    if (a < 0 || b < 0) return;
    const Volts least{*sink.voltage.min};
    const auto resets = sink.resets.typical();
    const auto rest = off->across(a, b);
    if (!rest || *rest < least) return;  // without a motor it is too low already: other checks speak
    Brown m{{}, d, &sink, *rest, least, lowest(s, a, b, Corner::Nominal), lowest(s, a, b, Corner::Empty)};
    const auto add = [&](const Sag& sag, std::string quantity, Severity severity) {
      if (!sag.point) return;
      auto limits = rising(atLeast(LimitKind::Promised, resets && severity == Severity::Stop ? Severity::Caution : severity, least.value,
                                   "least", sink.voltage.source));
      if (resets && severity == Severity::Stop)
        limits.push_back(atLeast(LimitKind::Absolute, severity, *resets, "starts anew", sink.resets.source));
      m.margins.push_back({.quantity = std::move(quantity),
                           .subjects = {idOf(s.bench, d)},
                           .unit = Unit::Volt,
                           .value = sag.volts->value,
                           .limits = std::move(limits),
                           .from = rest->value,
                           .at = sag.point});
    };
    add(m.nominal, "supply at the start", Severity::Stop);
    // An empty supply that is below the limit by itself says nothing about the motor.
    const auto* quiet = s.point(Action::AllOff, Corner::Empty);
    const auto emptyRest = quiet ? quiet->across(a, b) : std::nullopt;
    if (!emptyRest || *emptyRest >= least) add(m.empty, "supply at the start, nearly empty", onceEmpty(s));
    out.push_back(std::move(m));
  });
  return out;
}

}  // namespace

// The largest start against what the controller needs to go on running.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Brown& m) {
    const bool full = m.margins.front().passed() != nullptr;
    const auto& margin = full ? m.margins.front() : m.margins.back();
    const bool anew = margin.stops() || !m.sink->resets.typical();
    const Volts limit{margin.stops() ? *margin.passed()->least : m.least.value};
    const Volts v{*margin.value};
    const auto& name = called(s.bench, m.device);
    const auto motor = static_cast<std::size_t>(margin.at->command().motor);
    auto f = finding(fmt::format("{} sags to {}", name, show(v)),
                     fmt::format("With {} the supply of {} sags to {}{}; {}.", during(*margin.at), name, show(v),
                                 full ? "" : " once the supply is nearly empty",
                                 !anew ? fmt::format("it is made for {} and starts anew below {}, so it may go on or hang", show(m.least),
                                                     show(Volts{*m.sink->resets.typical()}))
                                 : margin.stops() && m.sink->resets.typical() ? fmt::format("below {} it starts anew", show(limit))
                                                                              : fmt::format("it needs {} and starts anew", show(limit))),
                     {idOf(s.bench, m.device), idOf(s.bench, s.motors[motor].device)});
    f.ways = {{fmt::format("Feed {} from a supply of its own, grounds joined.", name)},
              {"Or let the motors start gently, and state that they do.", fieldOf(s, s.motors[motor], "starting")}};
    f.formula = against(v, "<", limit);
    f.args = {{"voltage", v}, {"least", limit}};
    f.bar = Bar{"supply at the start", v, AnyQuantity(m.rest), limit, "least", true};
    f.sources = sourcesOf({&m.sink->voltage, &m.sink->resets});
    return f;
  });
}

Check check() {
  return {"brown-out", "voltage", "A motor start pulls the logic down", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::brown_out
