#include "core/checks/unknown_figures.h"

#include <algorithm>
#include <set>
#include <utility>

namespace bold::checks {
namespace {

// A controller decides for itself what its pins do; what only joins copper is in the nets already.
bool passesOn(const parts::Part& part) {
  const auto is = [&]<class T>(const T*) {
    return std::ranges::any_of(part.elements, [](const parts::Element& e) { return std::holds_alternative<T>(e.body); });
  };
  const bool copper = std::ranges::all_of(part.elements, [](const parts::Element& e) {
    return std::holds_alternative<parts::Joint>(e.body) || std::holds_alternative<parts::Contact>(e.body);
  });
  return !copper && !is(static_cast<const parts::Pins*>(nullptr));
}

// The nets whose voltages follow from what is unknown in a device: on through other parts, never through a ground.
// @param pastRails an unknown supply's rail and what it feeds; a resistor leaves rails as they are
std::set<int> following(const SolvedBench& s, int unknown, bool pastRails) {
  std::set<int> nets;
  const auto spread = [&](int device) {
    bool grown = false;
    for (const auto& t : s.bench.devices[device].part->terminals) {
      const int net = s.nets.of(s.bench.terminal(device, t.id));
      if (!s.nets.grounded(net) && (pastRails || !s.nets.rail(net))) grown = nets.insert(net).second || grown;
    }
    return grown;
  };
  const auto touched = [&](int device) {
    const auto& part = *s.bench.devices[device].part;
    return passesOn(part) &&
           std::ranges::any_of(part.terminals, [&](const auto& t) { return nets.contains(s.nets.of(s.bench.terminal(device, t.id))); });
  };
  bool grown = spread(unknown);
  while (std::exchange(grown, false))
    for (int d = 0; d < static_cast<int>(s.bench.devices.size()); ++d)
      if (touched(d) && spread(d)) grown = true;
  return nets;
}

bool onAny(const SolvedBench& s, const Motor& motor, const std::set<int>& nets) {
  const auto& terminals = s.bench.devices[motor.device].part->terminals;
  return std::ranges::any_of(terminals, [&](const auto& t) { return nets.contains(s.nets.of(s.bench.terminal(motor.device, t.id))); });
}

}  // namespace

std::vector<int> unknownSources(const SolvedBench& s) {
  std::vector<int> out;
  eachElement<parts::Source>(s.bench, [&](int d, int, const parts::Source& source) {
    if (!source.nominal.known() && s.bench.connected(s.bench.terminal(d, source.positive))) out.push_back(d);
  });
  eachElement<parts::Regulator>(s.bench, [&](int d, int, const parts::Regulator& g) {
    if (g.switching && !g.set.known() && s.bench.connected(s.bench.terminal(d, g.out))) out.push_back(d);
  });
  std::ranges::sort(out);
  return out;
}

std::vector<int> unknownResistors(const SolvedBench& s) {
  std::vector<int> out;
  eachElement<parts::Resistor>(s.bench, [&](int d, int, const parts::Resistor& r) {
    if (!r.resistance.known() && s.bench.connected(s.bench.terminal(d, r.a)) && s.bench.connected(s.bench.terminal(d, r.b)))
      out.push_back(d);
  });
  return out;
}

std::vector<int> unknownParts(const SolvedBench& s) {
  std::vector<int> out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d)
    if (s.bench.devices[d].unknown) out.push_back(static_cast<int>(d));
  return out;
}

std::set<int> unknownNets(const SolvedBench& s) {
  std::set<int> out;
  for (const auto& list : {unknownParts(s), unknownSources(s)})
    for (const int d : list) out.merge(following(s, d, true));
  return out;
}

bool hangsOnUnknown(const SolvedBench& s, const Motor& motor) {
  return std::ranges::any_of(unknownParts(s), [&](int d) { return onAny(s, motor, following(s, d, true)); }) ||
         std::ranges::any_of(unknownSources(s), [&](int d) { return onAny(s, motor, following(s, d, true)); }) ||
         std::ranges::any_of(unknownResistors(s), [&](int d) { return onAny(s, motor, following(s, d, false)); });
}

}  // namespace bold::checks
