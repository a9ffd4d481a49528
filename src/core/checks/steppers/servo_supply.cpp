#include <fmt/core.h>

#include <algorithm>

#include "core/bench/feeding.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::servo_supply {
namespace {

constexpr double kNothing = 0.5;  // V below which there is no supply at all
constexpr double kResets = 0.6;   // of the least: the electronics inside start anew instead of moving

struct Supply {
  Margins margins;  // full and at rest, nominal and moving
  const Motor* motor;
  SupplyInput input;
  Volts full;
  std::optional<Volts> moving;
};

std::vector<Supply> measure(const SolvedBench& s) {
  std::vector<Supply> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind != MotorKind::Servo) continue;
    for (const auto& input : supplyInputs(s.bench, parts::SupplyFor::Motor)) {
      if (s.bench.deviceOf(input.positive) != m.device) continue;
      const auto* off = s.point(Action::AllOff, Corner::Full);
      const auto* run = s.running(static_cast<int>(k), Corner::Nominal);
      const auto most = off ? off->across(input.positive, input.negative) : std::nullopt;
      const auto moving = run ? run->across(input.positive, input.negative) : std::nullopt;
      const auto& window = input.facts->recommended;
      const auto& absolute = input.facts->absolute;
      const std::vector subjects{s.bench.address(input.positive), idOf(s.bench, m.device)};
      Supply supply{
          {{.quantity = "servo supply",
            .subjects = subjects,
            .unit = Unit::Volt,
            .limits = rising(atMost(LimitKind::Recommended, absolute.known() ? Severity::Caution : Severity::Stop, window.max, "greatest",
                                    window.source),
                             atMost(LimitKind::Absolute, Severity::Stop, absolute.typical(), "absolute maximum", absolute.source)),
            .at = off}},
          &m,
          input,
          most.value_or(Volts{0}),
          moving};
      if (most) supply.margins[0].value = supply.full.value;
      if (run) {
        supply.margins.push_back({.quantity = "servo supply while it moves",
                                  .subjects = subjects,
                                  .unit = Unit::Volt,
                                  .value = moving.value_or(Volts{0}).value,
                                  .at = run});
        auto& limits = supply.margins.back().limits;
        if (moving) limits.push_back(atLeast(LimitKind::Recommended, Severity::Caution, window.min, "least", window.source));
        if (moving && window.min)
          limits.push_back(atLeast(LimitKind::Recommended, Severity::Stop, kResets * *window.min, "0.6 of its least", window.source));
        limits.push_back(atLeast(LimitKind::Recommended, Severity::Stop, kNothing, "any supply at all"));
      }
      out.push_back(std::move(supply));
    }
  }
  return out;
}

}  // namespace

// A servo's supply: its voltage while it moves, and at full charge.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Supply& m) {
    const auto& window = m.input.facts->recommended;
    const bool over = m.margins[0].passed() != nullptr;
    const bool stops = !over && m.margins.size() > 1 && m.margins[1].stops();
    const bool none = stops && m.moving.value_or(Volts{0}).value < kNothing;
    const Volts v = over ? m.full : m.moving.value_or(Volts{0});
    const bool burns = over && m.margins[0].stops();
    const Volts limit{over ? *m.margins[0].passed()->most : window.min.value_or(0)};
    const auto& name = called(s, *m.motor);
    const auto terminal = s.bench.called(m.input.positive);
    auto f =
        finding(none ? fmt::format("{} has no supply", terminal) : fmt::format("{} gets {}", name, show(v)),
                none   ? fmt::format("Nothing feeds {}: {} cannot move.", terminal, name)
                : over ? fmt::format("{} gets {} from a full supply; it {} {} at most{}.", name, show(v), burns ? "stands" : "is made for",
                                     show(limit), burns ? ": its electronics burn" : ": it runs hot and wears")
                       : fmt::format("{} gets {} while it moves; it wants {}: {}.", name, show(v), show(limit),
                                     stops ? "it does not move, or starts anew again and again" : "it is weak and slow"),
                m.margins[0].subjects);
    f.ways = {{none   ? fmt::format("Wire {} to a supply that {} is made for.", terminal, name)
               : over ? fmt::format("Feed {} with {} at most.", name, show(limit))
                      : fmt::format("Feed {} with {} or more, from a supply that holds it at a start.", name, show(limit))}};
    // Behind a regulator or converter that gets nothing itself.
    if (const auto dry = none ? bench::dryEnd(s, m.input.positive) : m.input.positive; dry != m.input.positive) {
      f.text = fmt::format("{} gets nothing, so that nothing feeds {}: {} cannot move.", s.bench.called(dry), terminal, name);
      f.ways = {{fmt::format("Find where the way from a supply to {} is open: a wire, a fuse, a switch.", s.bench.called(dry))}};
      f.subjects.push_back(s.bench.address(dry));
      for (const auto t : s.nets.members(s.nets.of(dry)))
        if (const auto& id = idOf(s.bench, s.bench.deviceOf(t)); std::ranges::count(f.subjects, id) == 0) f.subjects.push_back(id);
    }
    f.formula = fmt::format("{} {} {}", show(v), over ? ">" : "<", show(limit));
    f.args = {{"voltage", v}, {"limit", limit}};
    f.bar = Bar{"servo supply", v, {}, limit, over ? "greatest" : "least", !over};
    f.sources = sourcesOf({&window});
    return f;
  });
}

Check check() {
  return {"servo-supply", "steppers", "A servo's supply", Harm::Damage, judge};
}

}  // namespace bold::checks::servo_supply
