#include "core/bench/signal_nets.h"

#include "core/parts/read_element.h"

namespace bold::bench {
namespace {

class Walk {
 public:
  Walk(const Bench& bench, const Nets& nets, TerminalIndex from, Along along) : m_bench(bench), m_nets(nets), m_along(along) { add(from); }

  std::set<int> seen() {
    while (!m_open.empty()) {
      m_at = m_open.back();
      m_open.pop_back();
      if (m_nets.rail(m_at)) continue;
      for (std::size_t d = 0; d < m_bench.devices.size(); ++d) {
        const auto& device = m_bench.devices[d];
        for (const auto& e : device.part->elements)
          if (device.has(e)) through(static_cast<int>(d), e);
        for (const auto& c : device.part->channels)
          if (c.lowSide) array(static_cast<int>(d), c);
      }
    }
    return std::move(m_seen);
  }

 private:
  const Bench& m_bench;
  const Nets& m_nets;
  const Along m_along;
  std::set<int> m_seen;
  std::vector<int> m_open;
  int m_at = -1;

  void add(TerminalIndex t) {
    if (const int net = m_nets.of(t); m_seen.insert(net).second) m_open.push_back(net);
  }
  void through(int device, const parts::Element& e) {
    if (const auto* r = std::get_if<parts::Resistor>(&e.body)) {
      pass(device, r->a, r->b);
      pass(device, r->b, r->a);
    } else if (const auto* b = std::get_if<parts::Bipolar>(&e.body)) {
      transistor(device, b->base, b->collector, b->emitter);
    } else if (const auto* o = std::get_if<parts::Phototransistor>(&e.body)) {
      const auto& elements = m_bench.devices[device].part->elements;
      for (const auto& end : {o->anode, o->cathode}) transistor(device, parts::outside(elements, end), o->collector, o->emitter, false);
    } else if (const auto* s = std::get_if<parts::Switch>(&e.body); s && !s->contact) {
      for (const auto& input : s->on.inputs()) transistor(device, input, s->a, s->b, false);
    } else if (const auto* m = std::get_if<parts::Mosfet>(&e.body)) {
      transistor(device, m->gate, m->drain, m->source);
    }
  }
  // What switches inside an array has its base behind a resistor that no wire reaches.
  void array(int device, const parts::Channel& c) {
    for (std::size_t o = 0; o < c.out.size(); ++o) {
      const auto in = c.signals.find(c.out.size() == 1 ? "in" : "in" + std::to_string(o + 1));
      if (in != c.signals.end()) transistor(device, in->second, c.out[o], c.out[o]);
    }
  }
  void transistor(int device, const parts::Node& control, const parts::Node& one, const parts::Node& other, bool passes = true) {
    if (m_along == Along::Copper) return;
    // One that is held by a rail at its control passes a low on from end to end: a level shifter.
    if (const auto c = m_bench.terminal(device, control); passes && c >= 0 && m_nets.rail(m_nets.of(c))) {
      pass(device, one, other);
      pass(device, other, one);
      return;
    }
    for (const auto& end : {one, other}) m_along == Along::Transistors ? pass(device, control, end) : pass(device, end, control);
  }
  void pass(int device, const parts::Node& from, const parts::Node& to) {
    const auto a = m_bench.terminal(device, from);
    const auto b = m_bench.terminal(device, to);
    if (a >= 0 && b >= 0 && m_nets.of(a) == m_at && !m_nets.rail(m_nets.of(b))) add(b);
  }
};

}  // namespace

std::set<int> signalNets(const Bench& bench, const Nets& nets, TerminalIndex from, Along along) {
  return Walk(bench, nets, from, along).seen();
}

std::set<TerminalIndex> programPins(const Bench& bench, const Nets& nets, TerminalIndex input) {
  std::set<TerminalIndex> out;
  for (const auto along : {Along::Copper, Along::TransistorsBack}) {
    for (const int net : signalNets(bench, nets, input, along))
      for (const auto t : nets.members(net))
        if (const auto& pin = bench.facts(t).pin; pin && pin->output && pin->reserved.empty()) out.insert(t);
    if (!out.empty()) break;
  }
  return out;
}

}  // namespace bold::bench
