#include "gui/picture/flows.h"

#include <cmath>
#include <set>

namespace bold::picture {
namespace {

constexpr double kGround = 0.02;  // V that count as ground
constexpr double kTagAlong = 27;  // px from the terminal along its thread
constexpr double kTagAbove = 9;   // px above the thread

std::optional<Volts> against(const circuit::SolvedBench& s, const circuit::OperatingPoint& p, circuit::TerminalIndex t) {
  for (const auto& pole : s.nets.sources())
    if (const auto v = p.across(t, pole.negative)) return v;
  return std::nullopt;
}

}  // namespace

int chevronSize(double amps) {
  const double i = std::abs(amps);
  return i >= 1 ? 3 : i >= 0.1 ? 2 : i >= 0.01 ? 1 : 0;
}

Flows flowsOf(const Layout& layout, const circuit::SolvedBench& s, const circuit::OperatingPoint& p) {
  Flows out;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& id = s.bench.connections[static_cast<std::size_t>(s.bench.links[l].connection)].id;
    const double amps = p.link(static_cast<int>(l)).value;
    auto& slot = out.amps[id];
    if (std::abs(amps) > std::abs(slot)) slot = amps;
  }
  std::set<std::pair<std::string, int>> told;
  for (const auto& thread : layout.threads) {
    if (thread.path.size() < 2) continue;
    for (const bool end : {false, true}) {
      const auto& address = end ? thread.b : thread.a;
      const auto t = s.bench.terminal(address);
      if (t < 0 || !told.insert({address.device, s.nets.of(t)}).second) continue;
      const auto v = against(s, p, t);
      if (!v || std::abs(v->value) < kGround) continue;
      const auto& from = end ? thread.path.back() : thread.path.front();
      const auto& next = end ? thread.path[thread.path.size() - 2] : thread.path[1];
      const double side = next.x > from.x ? 1 : next.x < from.x ? -1 : 0;
      out.volts.push_back({{from.x + side * kTagAlong + (side == 0 ? 22 : 0), from.y - (side == 0 ? -10 : kTagAbove)}, displayText(*v)});
    }
  }
  return out;
}

}  // namespace bold::picture
