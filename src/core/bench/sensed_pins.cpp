#include "core/bench/sensed_pins.h"

#include <algorithm>

#include "core/bench/queries.h"
#include "core/bench/signal_nets.h"
#include "core/parts/roles.h"

namespace bold::bench {

std::vector<SensedPin> sensedPins(const SolvedBench& s) {
  std::vector<SensedPin> out;
  const Nets fixed(s.bench, false);
  const auto known = [&](TerminalIndex end, TerminalIndex pin) {
    return std::ranges::any_of(out, [&](const SensedPin& x) { return x.end == end && x.pin == pin; });
  };
  const auto follow = [&](int d, int e, TerminalIndex end, Along along) {
    if (end < 0 || fixed.rail(fixed.of(end))) return;
    for (const int net : signalNets(s.bench, fixed, end, along))
      for (const auto pin : fixed.members(net))
        if (pinGroup(s.bench, pin) && s.bench.deviceOf(pin) != d && !known(end, pin)) out.push_back({d, e, end, pin});
  };
  eachElement<parts::Contact>(s.bench, [&](int d, int e, const parts::Contact& c) {
    if (c.moved == parts::Moved::No || c.staysPut()) return;
    for (const auto& n : {c.a, c.b}) follow(d, e, at(s.bench, d, n), Along::Transistors);
  });
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d)
    if (const auto& device = s.bench.devices[d]; parts::isPeripheral(*device.part))
      for (std::size_t t = 0; t < device.part->terminals.size(); ++t)
        if (device.part->terminals[t].input) follow(static_cast<int>(d), -1, device.first + static_cast<int>(t), Along::TransistorsBack);
  return out;
}

}  // namespace bold::bench
