#include "core/bench/switching.h"

#include <algorithm>

namespace bold::bench {
namespace {

using parts::Level;

constexpr int kHunting = 16;        // passes after which what still flips will not stop by itself
constexpr int kOneByOne = 8;        // passes after which one flips at a time, so that two cannot chase each other
constexpr int kGivenUp = 22;        // passes after which nothing will bring it to rest
constexpr double kSupplied = 1000;  // V across whatever a condition asks for, where every supply is to be there

bool switches(const parts::Element& element) {
  const auto* selector = std::get_if<parts::Resistor>(&element.body);
  const auto* pins = std::get_if<parts::Pins>(&element.body);
  return (pins && !pins->on.empty()) || std::holds_alternative<parts::Chopper>(element.body) ||
         std::holds_alternative<parts::Switch>(element.body) || (selector && !selector->closed.empty());
}

// Some supply of the part is below what it needs; its inputs may have gone with it.
bool starved(const Readings& r, int device) {
  return std::ranges::any_of(r.bench.devices[device].part->terminals, [&](const parts::Terminal& t) {
    if (!t.supply || !t.supply->recommended.min) return false;
    const auto v = r.across(r.bench.terminal(device, t.id), r.bench.terminal(device, t.supply->back));
    return v && v->value < *t.supply->recommended.min;
  });
}

}  // namespace

Level conditionOf(const Readings& r, const std::vector<Level>& levels, int device, int e, bool supplied) {
  const auto& part = *r.bench.devices[device].part;
  const auto terminal = [&](const parts::Node& n) { return r.bench.terminal(device, n); };
  parts::Condition::World world;
  world.level = [&](const parts::Node& n) { return levels.empty() ? Level::Undefined : levels[terminal(n)]; };
  world.volts = [&](const parts::Node& a, const parts::Node& b) -> std::optional<double> {
    if (const auto* t = part.find(a); supplied && t && t->supply) return kSupplied;
    const auto v = r.across(terminal(a), terminal(b));
    return v ? std::optional(v->value) : std::nullopt;
  };
  const auto& body = part.elements[e].body;
  if (const auto* s = std::get_if<parts::Switch>(&body)) return s->on.evaluate(world);
  if (const auto* c = std::get_if<parts::Chopper>(&body)) return c->on.evaluate(world);
  if (const auto* p = std::get_if<parts::Pins>(&body)) return p->on.evaluate(world);
  if (const auto* resistor = std::get_if<parts::Resistor>(&body)) return resistor->closed.evaluate(world);
  return Level::Low;
}

bool Switching::settle(const Readings& readings, const std::vector<Level>& levels, SwitchState& on) {
  const auto flipped = flip(readings, levels, on);
  if (flipped.empty()) return true;
  for (const auto& x : flipped)
    if (starved(readings, x.device)) m_starving.insert(x.device);
  if (m_passes >= kHunting) settleHunting(readings, levels, flipped, on);
  ++m_passes;
  return false;
}

std::vector<Switching::Flip> Switching::flip(const Readings& r, const std::vector<Level>& levels, SwitchState& states) const {
  std::vector<Flip> flipped;
  for (int d = 0; d < static_cast<int>(r.bench.devices.size()); ++d) {
    const auto& device = r.bench.devices[d];
    for (int e = 0; e < static_cast<int>(device.part->elements.size()); ++e) {
      const auto& element = device.part->elements[e];
      if (!switches(element) || !device.has(element)) continue;
      const auto index = r.bench.elementIndex(d, e);
      auto& on = states[index];
      // An enable that nothing holds may as well enable: a register's outputs are then taken to drive.
      const auto holds = conditionOf(r, levels, d, e);
      const bool may = holds == Level::High || (holds == Level::Undefined && std::holds_alternative<parts::Pins>(element.body));
      if (m_passes > kOneByOne && std::holds_alternative<parts::Pins>(element.body)) continue;  // one that enables itself: as it stands
      const bool want = (may && !m_out.contains(index)) || m_held.contains(index);
      if ((on != 0) == want || (m_passes > kOneByOne && !flipped.empty())) continue;
      on = want;
      flipped.push_back({d, e, index});
    }
  }
  return flipped;
}

// What draws its own supply below what it works at goes off and on for ever. Taken for on, its currents and the voltage it
// is left with are what is to be judged; what goes off by its inputs steers itself and has no such point. With one supply on alone it may
// be fed through its inputs only: it counts as off.
void Switching::settleHunting(const Readings& r, const std::vector<Level>& levels, const std::vector<Flip>& flipped, SwitchState& on) {
  for (const auto& f : flipped) {
    // What starves and still flips: the rest of it is taken for off.
    if (m_command.action == Action::OneSupply || (m_passes >= kGivenUp && m_starving.contains(f.device))) {
      on[f.index] = 0;
      m_out.insert(f.index);
    } else if (on[f.index] == 0 && (starved(r, f.device) || conditionOf(r, levels, f.device, f.element, true) == Level::High)) {
      on[f.index] = 1;
      m_held.insert(f.index);
    }
  }
}

}  // namespace bold::bench
