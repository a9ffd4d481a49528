#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kInjected = 1e-3;   // A into a protection diode that no pin promises to stand
constexpr double kNoticed = 0.1e-3;  // A: below this no clamp conducts

// A pin without a clamp stands more than its rail, but not everything.
void beyondTolerated(const SolvedBench& s, TerminalIndex t, const PinGroup& group, Findings& out) {
  const auto most = group.pins->tolerated.greatest();
  const auto worst = largest(s, everyday, [&](const OperatingPoint& p) {
    const auto v = p.across(t, group.ground);
    return v ? v->value : 0;
  });
  if (!most || worst.value <= *most) return;
  auto f = finding(Severity::Stop, fmt::format("{} gets {}", s.bench.called(t), show(Volts{worst.value})),
                   fmt::format("With {} the pin {} gets {}; it tolerates {}.", during(*worst.point), s.bench.called(t),
                               show(Volts{worst.value}), show(Volts{*most})),
                   {s.bench.address(t)});
  f.formula = fmt::format("{} > {}", show(Volts{worst.value}), show(Volts{*most}));
  f.args = {{"voltage", Volts{worst.value}}, {"limit", Volts{*most}}};
  f.bar = Bar{"pin voltage", Volts{worst.value}, {}, Volts{*most}, "tolerated"};
  f.sources = sourcesOf({&group.pins->tolerated});
  out.push_back(std::move(f));
}

}  // namespace

// Inputs above their absolute maximum, and controller pins pushed above their own rail.
Findings inputOvervoltage(const SolvedBench& s) {
  Findings out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& facts = s.bench.facts(t);
    if (!s.bench.connected(t)) continue;
    if (facts.input && facts.input->absolute.typical()) {
      const auto ground = s.bench.terminal(s.bench.deviceOf(t), facts.input->ground);
      const auto worst = largest(s, everyday, [&](const OperatingPoint& p) {
        const auto v = p.across(t, ground);
        return v ? v->value : 0;
      });
      const double most = *facts.input->absolute.typical();
      if (worst.value > most) {
        const bool hard = sourceAt(s, t, true) || std::ranges::any_of(s.nets.members(s.nets.of(t)), [&](TerminalIndex o) {
                            return s.bench.facts(o).supply || s.bench.facts(o).pin;
                          });
        auto f = finding(hard ? Severity::Stop : Severity::Caution, fmt::format("{} gets {}", s.bench.called(t), show(Volts{worst.value})),
                         fmt::format("With {} the input {} gets {}; it stands {}.", during(*worst.point), s.bench.called(t),
                                     show(Volts{worst.value}), show(Volts{most})),
                         {s.bench.address(t)});
        f.formula = fmt::format("{} > {}", show(Volts{worst.value}), show(Volts{most}));
        f.args = {{"voltage", Volts{worst.value}}, {"limit", Volts{most}}};
        f.bar = Bar{"input voltage", Volts{worst.value}, {}, Volts{most}, "absolute maximum"};
        f.sources = sourcesOf({&facts.input->absolute});
        out.push_back(std::move(f));
      }
    }
    const auto group = pinGroup(s.bench, t);
    if (!group || group->pins->behind) continue;
    if (std::ranges::count(group->pins->tolerant, facts.id) > 0) {
      beyondTolerated(s, t, *group, out);
      continue;
    }
    const auto pushed = largest(s, everyday, [&](const OperatingPoint& p) {
      const auto it = p.command().pins.find(t);
      if (it != p.command().pins.end() && it->second == circuit::PinState::Low) return 0.0;
      const auto above = p.across(t, group->rail);
      return above && above->value > 0.2 ? -p.pin(t).value : 0.0;
    });
    if (pushed.value <= kNoticed) continue;
    const auto v = pushed.point->across(t, group->ground);
    auto f = finding(
        pushed.value > kInjected ? Severity::Stop : Severity::Caution, fmt::format("{} is pushed above its rail", s.bench.called(t)),
        fmt::format("With {} {} flow into {}, which stands at {}, above its own rail: a pin of {} does not stand that.",
                    during(*pushed.point), show(Amps{pushed.value}), s.bench.called(t), v ? show(*v) : "?", called(s.bench, group->device)),
        {s.bench.address(t)});
    f.formula = fmt::format("{} into the pin", show(Amps{pushed.value}));
    f.args = {{"current", Amps{pushed.value}}};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
