#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/current/contact_ratings.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr Amps kQuiet{0.5};
constexpr Volts kShift{0.05};

// What comes in by the other terminals goes home by the ground pins: that is the board's own.
double ownCurrent(const SolvedBench& s, const OperatingPoint& p, int device) {
  double in = 0;
  for (const auto& facts : s.bench.devices[static_cast<std::size_t>(device)].part->terminals)
    if (const auto t = s.bench.terminal(device, facts.id); !facts.ground && s.bench.connected(t)) in -= leaving(s, p, t).value;
  return std::max(in, 0.0);
}

// What goes through the board by a ground pin: in, or out beyond the board's own.
double passing(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  const double out = leaving(s, p, t).value;
  return out < 0 ? -out : std::max(out - ownCurrent(s, p, s.bench.deviceOf(t)), 0.0);
}
}  // namespace

// Motor current that goes home through the ground pins of a controller board.
Findings groundThroughBoard(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    if (!device.part->find(device.part->terminals.front().id)) continue;
    bool controller = false;
    for (const auto& e : device.part->elements)
      if (const auto* pins = std::get_if<parts::Pins>(&e.body)) controller = controller || !pins->behind;
    if (!controller) continue;
    for (std::size_t i = 0; i < device.part->terminals.size(); ++i) {
      const auto& facts = device.part->terminals[i];
      const auto t = device.first + static_cast<int>(i);
      const bool socket = facts.place.connector == "USB" || facts.place.connector == "jack" || facts.place.connector == "power";
      if (!facts.ground || socket || !s.bench.connected(t)) continue;
      // The lift of the ground between this pin and the farthest end of its wires.
      const auto wiresLift = [&](const OperatingPoint& p) {
        double most = 0;
        for (const auto& l : s.bench.links)
          if (l.a == t || l.b == t)
            if (const auto v = p.across(l.a, l.b)) most = std::max(most, std::abs(v->value));
        return most;
      };
      const auto all = [&](const OperatingPoint& p) { return std::abs(leaving(s, p, t).value); };
      // With the board's own current it is more: where even that is little, nothing needs telling apart.
      if (largest(s, steady, all).value < kQuiet.value && largest(s, steady, wiresLift).value < kShift.value) continue;
      const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return passing(s, p, t); });
      const auto lift = largest(s, steady, [&](const OperatingPoint& p) {
        const double amps = all(p);
        return amps > 0 ? wiresLift(p) * passing(s, p, t) / amps : 0;
      });
      if (worst.value < kQuiet.value && lift.value < kShift.value) continue;
      const auto rating = contactRating(facts.place.contact);
      const bool stop = rating && worst.value > rating->value;
      auto f = finding(
          stop ? Severity::Stop : Severity::Caution, fmt::format("{} flow through {}", show(Amps{worst.value}), s.bench.called(t)),
          fmt::format(
              "With {} {} of motor current go through the ground pin {} and lift the ground by {}: levels shift and the board resets.",
              worst.point ? during(*worst.point) : "", show(Amps{worst.value}), s.bench.called(t), show(Volts{lift.value})),
          {s.bench.address(t)});
      f.formula = stop ? fmt::format("{} > {}", show(Amps{worst.value}), show(*rating))
                       : fmt::format("{}, {} of lift", show(Amps{worst.value}), show(Volts{lift.value}));
      f.args = {{"current", Amps{worst.value}}, {"lift", Volts{lift.value}}};
      f.bar = Bar{"current through the pin", Amps{worst.value}, {}, stop ? *rating : kQuiet, stop ? "contact rating" : "to plan with"};
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
