#include "support/mutants.h"

#include <algorithm>

#include "core/parts/part.h"
#include "support/benches.h"

namespace bold::test {
namespace {

void change(Mutant& m, const harness::Connection& c) {
  for (const auto& end : {c.a, c.b}) {
    m.changed.insert(end.text());
    m.changed.insert(end.device);
  }
  m.changed.insert(c.id);
}

void exchange(harness::Harness& h, const Address& a, const Address& b) {
  for (auto& c : h.connections)
    for (auto* end : {&c.a, &c.b}) *end = *end == a ? b : *end == b ? a : *end;
}

using Sink = std::function<void(const Mutant&)>;

void wires(const std::string& name, const harness::Harness& h, const Sink& f) {
  for (std::size_t i = 0; i < h.connections.size(); ++i) {
    const auto& c = h.connections[i];
    Mutant removed{name + ": removed " + c.a.text() + " " + c.b.text(), h, {}};
    removed.bench.connections.erase(removed.bench.connections.begin() + static_cast<std::ptrdiff_t>(i));
    change(removed, c);
    f(std::move(removed));
    if (c.kind != harness::ConnectionKind::Wire) continue;
    for (const bool second : {false, true}) {
      const auto part = library().find(h.device((second ? c.b : c.a).device)->part);
      if (part->terminals.size() > 60) continue;  // the next hole of a breadboard row is the same row
      Mutant moved{{}, h, {}};
      auto& end = second ? moved.bench.connections[i].b : moved.bench.connections[i].a;
      const auto old = end;
      end.terminal = part->terminals[static_cast<std::size_t>(part->indexOf(end.terminal) + 1) % part->terminals.size()].id;
      moved.name = name + ": moved " + old.text() + " to " + end.text() + " (other end " + (second ? c.a : c.b).text() + ")";
      change(moved, c);
      change(moved, moved.bench.connections[i]);
      f(std::move(moved));
    }
  }
}

// A resistor, a plain capacitor or a switch does not mind being turned round.
bool symmetric(const parts::Part& part) {
  if (part.terminals.size() != 2) return false;
  return std::ranges::all_of(part.elements, [](const parts::Element& e) {
    const auto* c = std::get_if<parts::Capacitor>(&e.body);
    return std::holds_alternative<parts::Resistor>(e.body) || std::holds_alternative<parts::Contact>(e.body) || (c && !c->polarised);
  });
}

// What ends on one terminal and on the next used one of the same part, exchanged.
void neighbours(const std::string& name, const harness::Harness& h, const Sink& f) {
  for (const auto& d : h.devices) {
    const auto part = library().find(d.part);
    if (part->terminals.size() > 60 || symmetric(*part)) continue;
    std::vector<Address> used;
    for (const auto& t : part->terminals) {
      const Address a{d.id, t.id};
      for (const auto& c : h.connections)
        if ((c.a == a || c.b == a) && (used.empty() || used.back() != a)) used.push_back(a);
    }
    for (std::size_t i = 0; i + 1 < used.size(); ++i) {
      Mutant m{name + ": exchanged " + used[i].text() + " and " + used[i + 1].text(), h, {d.id, used[i].text(), used[i + 1].text()}};
      for (const auto& c : h.connections)
        for (const auto& a : {used[i], used[i + 1]})
          if (c.a == a || c.b == a) change(m, c);
      exchange(m.bench, used[i], used[i + 1]);
      f(std::move(m));
    }
  }
}

// Every diode and transistor the wrong way round: what the neighbours of its legs did not already do.
void reversed(const std::string& name, const harness::Harness& h, const Sink& f) {
  for (const auto& d : h.devices) {
    const auto part = library().find(d.part);
    if (part->elements.empty() || part->terminals.size() > 3) continue;
    for (const auto& e : part->elements) {
      std::string a;
      std::string b;
      if (const auto* diode = std::get_if<parts::Diode>(&e.body)) std::tie(a, b) = std::pair(diode->anode, diode->cathode);
      if (const auto* t = std::get_if<parts::Mosfet>(&e.body)) std::tie(a, b) = std::pair(t->drain, t->source);
      if (const auto* t = std::get_if<parts::Bipolar>(&e.body)) std::tie(a, b) = std::pair(t->collector, t->emitter);
      if (a.empty()) continue;
      Mutant m{name + ": reversed " + d.id + " (" + a + ", " + b + ")", h, {d.id}};
      for (const auto& c : h.connections)
        if (c.a.device == d.id || c.b.device == d.id) change(m, c);
      exchange(m.bench, {d.id, a}, {d.id, b});
      f(std::move(m));
      break;
    }
  }
}

void settings(const std::string& name, const harness::Harness& h, const Sink& f) {
  for (std::size_t i = 0; i < h.devices.size(); ++i) {
    const auto part = library().find(h.devices[i].part);
    for (const auto& s : part->settings) {
      if (s.id == "position") continue;                         // however a switch is drawn, both its positions are judged
      if (s.values.size() > 2 || s.id == "heatSink") continue;  // a heat sink is no jumper
      const auto it = h.devices[i].settings.find(s.id);
      const auto now = it == h.devices[i].settings.end() || it->second.value.empty() ? s.standard : it->second.value;
      for (const auto& v : s.values) {
        if (v == now) continue;
        Mutant m{name + ": set " + h.devices[i].id + "." + s.id + " " + v, h, {h.devices[i].id}};
        m.bench.devices[i].settings[s.id] = {v, {}};
        for (const auto& c : h.connections)
          if (c.a.device == h.devices[i].id || c.b.device == h.devices[i].id) change(m, c);
        f(std::move(m));
      }
    }
  }
}

}  // namespace

void everyMutant(const std::string& name, const harness::Harness& good, const std::function<void(const Mutant&)>& f) {
  wires(name, good, f);
  neighbours(name, good, f);
  reversed(name, good, f);
  settings(name, good, f);
}

}  // namespace bold::test
