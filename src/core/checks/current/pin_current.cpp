#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_current {
namespace {

struct PinLoad {
  Margin margin;
  TerminalIndex pin;
  PinGroup group;
};

// The largest current through each driven pin over all commands.
std::vector<PinLoad> measure(const SolvedBench& s) {
  std::map<TerminalIndex, Extreme> worst;
  for (const auto& p : s.points) {
    if (!everyday(*p)) continue;
    for (const auto& [t, state] : p->command().pins) {
      auto& w = worst[t];
      if (const double i = std::abs(p->pin(t).value); i > w.value) w = {i, p.get()};
    }
  }
  std::vector<PinLoad> out;
  for (const auto& [t, w] : worst) {
    const auto group = pinGroup(s.bench, t);
    if (!group) continue;
    const auto& recommended = group->pins->recommended;
    const auto& absolute = group->pins->absolute;
    Margin margin{
        .quantity = "pin current",
        .subjects = {s.bench.address(t)},
        .unit = Unit::Amp,
        .value = w.value,
        .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, recommended.typical(), "recommended", recommended.source),
                         atMost(LimitKind::Absolute, Severity::Stop, absolute.typical(), "absolute maximum", absolute.source)),
        .at = w.point};
    out.push_back({std::move(margin), t, *group});
  }
  return out;
}

}  // namespace

// The typical pin resistance is used: half of the greatest, so that a high promised resistance cannot hide an overload.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const PinLoad& m) {
    const bool stop = m.margin.stops();
    const Amps amps{*m.margin.value};
    const Amps limit{*m.margin.passed()->most};
    auto f = finding(fmt::format("Pin {} gives {}", s.bench.called(m.pin), show(amps)),
                     fmt::format("With {} the pin {} carries {}; {} is {}.", during(*m.margin.at), s.bench.called(m.pin), show(amps),
                                 stop ? "its absolute maximum" : "the most to plan with", show(limit)),
                     m.margin.subjects);
    for (const auto driven : signalReach(s, m.pin))
      if (s.bench.deviceOf(driven) != s.bench.deviceOf(m.pin)) {
        f.subjects.push_back(s.bench.address(driven));
        break;
      }
    if (const auto rail = m.group.rail >= 0 ? s.bench.facts(m.group.rail).supply : std::nullopt; rail && rail->recommended.typical())
      f.ways = {{fmt::format("Put a resistor of at least {} between {} and what it drives, or a larger one in the place of what is there.",
                             show(Ohms{std::ceil(*rail->recommended.typical() / limit.value / 10) * 10}), s.bench.called(m.pin))}};
    f.ways.push_back({"Or drive it by a transistor or MOSFET that needs less from the pin."});
    f.formula = against(amps, ">", limit);
    f.args = {{"current", amps}, {"limit", limit}};
    f.bar = barOf(m.margin, limit.value, std::string(m.margin.passed()->name));
    f.sources = sourcesOf({stop ? &m.group.pins->absolute : &m.group.pins->recommended});
    return f;
  });
}

Check check() {
  return {"pin-current", "current", "More current than a pin stands", Harm::Damage, judge};
}

}  // namespace bold::checks::pin_current
