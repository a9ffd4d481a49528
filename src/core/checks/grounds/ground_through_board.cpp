#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/current/contact_ratings.h"
#include "core/checks/queries.h"

namespace bold::checks::ground_through_board {
namespace {
constexpr Amps kQuiet{0.5};
constexpr Volts kShift{0.05};

// What comes in by the other terminals goes home by the ground pins: that is the board's own.
double ownCurrent(const SolvedBench& s, const OperatingPoint& p, int device) {
  double in = 0;
  for (const auto& facts : s.bench.devices[device].part->terminals)
    if (const auto t = s.bench.terminal(device, facts.id); !facts.ground && s.bench.connected(t)) in -= leaving(s, p, t).value;
  return std::max(in, 0.0);
}

// What goes through the board by a ground pin: in, or out beyond the board's own.
double passing(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  const double out = leaving(s, p, t).value;
  return out < 0 ? -out : std::max(out - ownCurrent(s, p, s.bench.deviceOf(t)), 0.0);
}
struct Passing {
  Margins margins;  // current through the pin, lift of the ground
  TerminalIndex pin;
  Extreme current;
  Volts lift;
  std::optional<Amps> rating;
};

// The lift of the ground between a pin and the farthest end of its wires.
double wiresLift(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  double most = 0;
  for (const auto& l : s.bench.links)
    if (l.a == t || l.b == t)
      if (const auto v = p.across(l.a, l.b)) most = std::max(most, std::abs(v->value));
  return most;
}

Passing measure(const SolvedBench& s, TerminalIndex t) {
  const auto all = [&](const OperatingPoint& p) { return std::abs(leaving(s, p, t).value); };
  const auto lift = [&](const OperatingPoint& p) { return wiresLift(s, p, t); };
  auto current = largest(s, steady, all);
  auto shift = largest(s, steady, lift);
  // With the board's own current it is more: where even that is little, nothing needs telling apart.
  if (current.value >= kQuiet.value || shift.value >= kShift.value) {
    current = largest(s, steady, [&](const OperatingPoint& p) { return passing(s, p, t); });
    shift = largest(s, steady, [&](const OperatingPoint& p) {
      const double amps = all(p);
      return amps > 0 ? lift(p) * passing(s, p, t) / amps : 0;
    });
  }
  const auto rating = contactRating(s.bench.facts(t).place.contact);
  const std::vector subjects{s.bench.address(t)};
  Passing m{{{.quantity = "current through the pin",
              .subjects = subjects,
              .unit = Unit::Amp,
              .value = current.known(),
              .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, kQuiet.value, "to plan with")),
              .at = current.point},
             {.quantity = "lift of the ground",
              .subjects = subjects,
              .unit = Unit::Volt,
              .value = shift.known(),
              .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, kShift.value, "to plan with")),
              .at = shift.point}},
            t,
            current,
            Volts{shift.value},
            rating};
  if (rating) m.margins[0].limits.push_back(atMost(LimitKind::Recommended, Severity::Stop, rating->value, "contact rating"));
  return m;
}

bool drivesPins(const parts::Part& part) {
  return std::ranges::any_of(part.elements, [](const parts::Element& e) {
    const auto* pins = std::get_if<parts::Pins>(&e.body);
    return pins && !pins->behind;
  });
}

std::vector<Passing> measure(const SolvedBench& s) {
  std::vector<Passing> out;
  for (const auto& device : s.bench.devices) {
    if (!drivesPins(*device.part)) continue;
    for (std::size_t i = 0; i < device.part->terminals.size(); ++i) {
      const auto& facts = device.part->terminals[i];
      const auto t = device.first + static_cast<int>(i);
      const bool socket = facts.place.connector == "USB" || facts.place.connector == "jack" || facts.place.connector == "power";
      if (facts.ground && !socket && s.bench.connected(t)) out.push_back(measure(s, t));
    }
  }
  return out;
}

}  // namespace

// Motor current that goes home through the ground pins of a controller board.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Passing& m) {
    const bool stop = m.margins[0].stops();
    const Amps amps{m.current.value};
    const auto name = s.bench.called(m.pin);
    auto f = finding(
        fmt::format("{} flow through {}", show(amps), name),
        fmt::format(
            "With {} {} of motor current go through the ground pin {} and lift the ground by {}: levels shift and the board resets.",
            m.current.point ? during(*m.current.point) : "", show(amps), name, show(m.lift)),
        m.margins[0].subjects);
    f.ways = {{fmt::format("Lead the motor's ground straight back to its supply, and join {} to it by one wire of its own.", name)}};
    f.formula = stop ? against(amps, ">", *m.rating) : fmt::format("{}, {} of lift", show(amps), show(m.lift));
    f.args = {{"current", amps}, {"lift", m.lift}};
    f.bar = barOf(m.margins[0], stop ? m.rating->value : kQuiet.value, stop ? "contact rating" : "to plan with");
    return f;
  });
}

Check check() {
  return {"ground-through-board", "grounds", "Motor current through the controller's ground", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::ground_through_board
