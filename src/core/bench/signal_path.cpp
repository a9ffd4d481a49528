#include "core/bench/signal_path.h"

#include <set>
#include <vector>

#include "core/bench/signal_nets.h"
#include "core/parts/read_element.h"

namespace bold::bench {
namespace {

using parts::Level;

constexpr double kPlenty = 1000;  // V across whatever a condition asks for: supplies that are there

class Follow {
 public:
  Follow(const Bench& bench, const Nets& nets, TerminalIndex from) : m_bench(bench), m_nets(nets) { add(from, false); }

  void run() {
    while (!m_open.empty()) {
      const auto [net, turned] = m_open.back();
      m_open.pop_back();
      if (m_nets.rail(net)) continue;
      m_at = net;
      m_turned = turned;
      for (std::size_t d = 0; d < m_bench.devices.size(); ++d) device(static_cast<int>(d));
    }
  }
  bool reached(TerminalIndex t, bool turned) const { return m_seen.contains({m_nets.of(t), turned}); }
  bool lostTrack(TerminalIndex t) const { return m_unclear.contains(m_nets.of(t)); }

 private:
  const Bench& m_bench;
  const Nets& m_nets;
  std::set<std::pair<int, bool>> m_seen;
  std::set<int> m_unclear;
  std::vector<std::pair<int, bool>> m_open;
  int m_at = -1;
  bool m_turned = false;

  void add(TerminalIndex t, bool turned) {
    if (t < 0 || m_nets.rail(m_nets.of(t))) return;
    if (m_seen.insert({m_nets.of(t), turned}).second) m_open.emplace_back(m_nets.of(t), turned);
  }
  TerminalIndex at(int d, const parts::Node& n) const { return n.inner() ? -1 : m_bench.terminal(d, n); }
  bool here(TerminalIndex t) const { return t >= 0 && m_nets.of(t) == m_at; }
  bool onRail(TerminalIndex t) const { return t >= 0 && m_nets.rail(m_nets.of(t)); }

  void device(int d) {
    const auto& device = m_bench.devices[d];
    const bool black = device.unknown || device.part->elements.empty();
    for (std::size_t i = 0; black && i < device.part->terminals.size(); ++i)
      if (here(device.first + static_cast<int>(i)))
        for (std::size_t k = 0; k < device.part->terminals.size(); ++k) m_unclear.insert(m_nets.of(device.first + static_cast<int>(k)));
    for (const auto& e : device.part->elements) {
      if (!device.has(e)) continue;
      if (const auto* r = std::get_if<parts::Resistor>(&e.body)) {
        if (here(at(d, r->a))) add(at(d, r->b), m_turned);
        if (here(at(d, r->b))) add(at(d, r->a), m_turned);
      } else if (const auto* b = std::get_if<parts::Bipolar>(&e.body)) {
        transistor(at(d, b->base), at(d, b->collector), at(d, b->emitter));
      } else if (const auto* o = std::get_if<parts::Phototransistor>(&e.body)) {
        // Lit by a high at its anode, or by a low at its cathode.
        const auto outer = [&](const parts::Node& n) { return at(d, parts::outside(device.part->elements, n)); };
        opto(outer(o->anode), outer(o->cathode), at(d, o->collector), at(d, o->emitter));
      } else if (const auto* m = std::get_if<parts::Mosfet>(&e.body)) {
        transistor(at(d, m->gate), at(d, m->drain), at(d, m->source));
      } else if (const auto* s = std::get_if<parts::Switch>(&e.body)) {
        logic(d, *s);
      }
    }
    for (const auto& c : device.part->channels)
      if (c.lowSide) array(d, c);
  }

  // @param out collector or drain
  // @param ref emitter or source
  void transistor(TerminalIndex control, TerminalIndex out, TerminalIndex ref) {
    if (here(control)) {
      if (onRail(ref)) add(out, !m_turned);
      if (onRail(out)) add(ref, m_turned);
      if (!onRail(ref) && !onRail(out)) {  // in a chain: it may do either
        add(out, !m_turned);
        add(ref, m_turned);
      }
    }
    // Tied at its control it passes on a low from end to end, and both ends are pulled up.
    if (onRail(control) || tied(control)) {
      if (here(ref)) add(out, m_turned);
      if (here(out)) add(ref, m_turned);
    }
  }
  void opto(TerminalIndex anode, TerminalIndex cathode, TerminalIndex collector, TerminalIndex emitter) {
    for (const auto control : {anode, cathode}) {
      if (!here(control)) continue;
      const bool lit = m_turned != (control == cathode);  // turned: lit by a low
      if (onRail(emitter)) add(collector, !lit);
      if (onRail(collector)) add(emitter, lit);
    }
  }
  // A control that no pin drives.
  bool tied(TerminalIndex control) const {
    if (control < 0 || !m_bench.connected(control)) return false;
    for (const int net : signalNets(m_bench, m_nets, control, Along::Copper))
      for (const auto t : m_nets.members(net))
        if (m_bench.facts(t).pin) return false;
    return true;
  }

  // What switches inside an array has its base behind a resistor that no wire reaches.
  void array(int d, const parts::Channel& c) {
    for (std::size_t o = 0; o < c.out.size(); ++o) {
      const auto in = c.signals.find(c.out.size() == 1 ? "in" : "in" + std::to_string(o + 1));
      if (in == c.signals.end() || in->second.empty()) continue;
      if (here(m_bench.terminal(d, in->second))) add(m_bench.terminal(d, c.out[o]), !m_turned);
    }
  }

  // A switch that one of its part's inputs decides: what it then pulls its other end to.
  void logic(int d, const parts::Switch& s) {
    for (const auto& id : s.on.inputs()) {
      const auto t = m_bench.terminal(d, id);
      if (!here(t)) continue;
      const auto when = [&](Level level) {
        return s.on.evaluate({[&](const parts::Node& n) { return n == id ? level : Level::Undefined; },
                              [](const parts::Node&, const parts::Node&) -> std::optional<double> { return kPlenty; }});
      };
      const auto high = when(Level::High);
      const auto low = when(Level::Low);
      const auto a = at(d, s.a);
      const auto b = at(d, s.b);
      const bool aRail = onRail(a);
      if (aRail == onRail(b)) continue;
      const auto rail = aRail ? a : b;
      const auto out = aRail ? b : a;
      // Closed by a high and pulling up, or by a low and pulling down: straight.
      const bool pullsUp = !m_nets.grounded(m_nets.of(rail));
      if (high != Level::Low && low != Level::High) add(out, pullsUp ? m_turned : !m_turned);
      if (low != Level::Low && high != Level::High) add(out, pullsUp ? !m_turned : m_turned);
    }
  }
};

}  // namespace

Path pathBetween(const Bench& bench, const Nets& nets, TerminalIndex pin, TerminalIndex input) {
  if (pin < 0 || input < 0) return Path::None;
  if (nets.same(pin, input) || signalNets(bench, nets, pin, Along::Copper).contains(nets.of(input))) return Path::Copper;
  Follow follow(bench, nets, pin);
  follow.run();
  const bool straight = follow.reached(input, false);
  const bool turned = follow.reached(input, true);
  if (straight && turned) return Path::Unclear;
  if (straight) return Path::Straight;
  if (turned) return Path::Inverted;
  return follow.lostTrack(input) ? Path::Unclear : Path::None;
}

}  // namespace bold::bench
