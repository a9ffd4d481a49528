#include "core/picture/flows.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/bench/shown_voltage.h"

namespace bold::picture {
namespace {

constexpr double kGround = 0.02;  // V that count as ground
constexpr double kTagAlong = 27;  // px from the terminal along its thread
constexpr double kTagWide = 42;   // px, of a tag
constexpr double kTagHigh = 13;
constexpr double kTagAbove = 9;  // px above the thread

// Between the outputs of a chopping stage only the mean of the coil's current is solved; their voltages jump.
std::set<int> choppedNets(const bench::SolvedBench& s) {
  std::set<int> out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d)
    for (const auto& e : s.bench.devices[d].part->elements)
      if (const auto* c = std::get_if<parts::Chopper>(&e.body))
        for (const auto& [a, b] : c->coils)
          for (const auto& n : {a, b})
            if (const auto t = s.bench.terminal(static_cast<int>(d), n); t >= 0) out.insert(s.nets.of(t));
  return out;
}

}  // namespace

int chevronSize(double amps) {
  const double i = std::abs(amps);
  return i >= 1 ? 3 : i >= 0.1 ? 2 : i >= 0.01 ? 1 : 0;
}

Flows flowsOf(const Layout& layout, const bench::SolvedBench& s, const bench::OperatingPoint& p) {
  Flows out;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& id = s.bench.connections[s.bench.links[l].connection].id;
    const double amps = p.link(static_cast<int>(l)).value;
    auto& slot = out.amps[id];
    if (std::abs(amps) > std::abs(slot)) slot = amps;
  }
  std::set<std::pair<std::string, int>> told;
  const auto chopped = choppedNets(s);
  for (const auto& thread : layout.threads) {
    if (thread.path.size() < 2) continue;
    for (const bool end : {false, true}) {
      const auto& address = end ? thread.b : thread.a;
      const auto t = s.bench.terminal(address);
      if (t < 0 || chopped.contains(s.nets.of(t)) || !told.insert({address.device, s.nets.of(t)}).second) continue;
      const auto v = bench::shownVoltage(s, p, t);
      if (!v || std::abs(v->value) < kGround) continue;
      const auto& from = end ? thread.path.back() : thread.path.front();
      const auto& next = end ? thread.path[thread.path.size() - 2] : thread.path[1];
      const double side = next.x > from.x ? 1 : next.x < from.x ? -1 : 0;
      Point at{from.x + side * kTagAlong + (side == 0 ? 22 : 0), from.y - (side == 0 ? -10 : kTagAbove)};
      // Neighbouring terminals are nearer than their tags are wide: the later one steps down.
      const auto covered = [&](const VoltTag& other) {
        return std::abs(other.at.x - at.x) < kTagWide && std::abs(other.at.y - at.y) < kTagHigh;
      };
      while (std::ranges::any_of(out.volts, covered)) at.y += 2;
      out.volts.push_back({at, displayText(*v)});
    }
  }
  return out;
}

}  // namespace bold::picture
