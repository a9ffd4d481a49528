#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::input_unpowered {
// An input limited to its part's own supply, driven while that supply is off.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& facts = s.bench.facts(t);
    if (!facts.input || !s.bench.connected(t)) continue;
    const int d = s.bench.deviceOf(t);
    const auto& part = *s.bench.devices[d].part;
    const auto set = part.levels.find(facts.input->levels);
    if (set == part.levels.end() || set->second.rail.empty()) continue;
    const auto ground = s.bench.terminal(d, facts.input->ground);
    const auto rail = s.bench.terminal(d, set->second.rail);
    const auto pin = drivenBy(s, t);
    if (pin < 0 || s.bench.deviceOf(pin) == d) continue;
    for (const auto& p : s.points) {
      if (!p->solved() || !bench::partlyFed(*p)) continue;
      const auto v = p->across(t, ground);
      const auto r = p->across(rail, ground);
      if (!v || v->value < 1.5 || (r && v->value < r->value + 0.6 && r->value > 1.0)) continue;
      const bool direct = s.nets.same(pin, t);
      auto f = finding(direct ? Severity::Caution : Severity::Note, fmt::format("{} can be driven without its supply", s.bench.called(t)),
                       fmt::format("With {}, {} gets {} while {} is without supply: the current goes in through its protection diode.",
                                   p->command().title, s.bench.called(t), show(*v), called(s.bench, d)),
                       {s.bench.address(t), s.bench.address(rail)});
      f.ways = {{fmt::format("Switch {} on before the controller writes to it, or feed both from one switch.", called(s.bench, d))}};
      f.formula = fmt::format("{}: driven, with {} at its supply", s.bench.called(rail), r ? show(*r) : "nothing");
      f.args = {{"voltage", *v}};
      out.push_back(std::move(f));
      break;
    }
  }
  return asOne(std::move(out));  // of one part: one wire, or one switch, is the cause
}

Check check() {
  return {"input-unpowered", "levels", "An input driven without supply", Harm::Damage, judge};
}

}  // namespace bold::checks::input_unpowered
