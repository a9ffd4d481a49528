#include "core/checks/levels/opto_inputs.h"

#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// The terminals of the part that the LED and its resistor hang between: by id, PUL-P and PUL-N for an LED from ~PUL to PUL-N.
TerminalIndex otherEnd(const SolvedBench& s, int device, const parts::Node& inner) {
  TerminalIndex found = -1;
  const auto& d = s.bench.devices[device];
  for (const auto& e : d.part->elements)
    if (const auto* r = std::get_if<parts::Resistor>(&e.body); r && d.has(e)) {
      if (r->b == inner) found = at(s.bench, device, r->a);
      if (r->a == inner) found = at(s.bench, device, r->b);
    }
  return found;
}

std::pair<TerminalIndex, TerminalIndex> terminalsOf(const SolvedBench& s, int device, const parts::Diode& led) {
  return {led.anode.inner() ? otherEnd(s, device, led.anode) : at(s.bench, device, led.anode),
          led.cathode.inner() ? otherEnd(s, device, led.cathode) : at(s.bench, device, led.cathode)};
}

}  // namespace

TerminalIndex otherOfOpto(const SolvedBench& s, TerminalIndex t) {
  TerminalIndex other = -1;
  eachElement<parts::Diode>(s.bench, [&](int d, int, const parts::Diode& led) {
    if (!led.led || d != s.bench.deviceOf(t)) return;
    const auto [plus, minus] = terminalsOf(s, d, led);
    if (t == plus) other = minus;
    if (t == minus) other = plus;
  });
  return other;
}

std::vector<OptoInput> optoInputs(const SolvedBench& s) {
  std::vector<OptoInput> out;
  eachElement<parts::Diode>(s.bench, [&](int d, int e, const parts::Diode& led) {
    if (!led.led) return;
    const auto [plus, minus] = terminalsOf(s, d, led);
    OptoInput o{d, e, &led, plus, minus, 0, 0, false, false};
    if (o.plus < 0 || o.minus < 0 || (!s.bench.connected(o.plus) && !s.bench.connected(o.minus))) return;
    const auto a = steeredBy(s, o.plus);
    const auto b = steeredBy(s, o.minus);
    o.driven = a >= 0 || b >= 0;
    bool first = true;
    std::set<bench::PinState> written;
    for (const auto& p : s.points) {
      if (!everyday(*p) || p->command().action == Action::Boot) continue;
      const auto drives = [&](TerminalIndex pin) { return pin >= 0 && p->command().pins.contains(pin); };
      if (o.driven && !drives(a) && !drives(b)) continue;
      for (const auto pin : {a, b})
        if (drives(pin)) written.insert(p->command().pins.at(pin));
      const double i = p->element(d, e).value;
      o.most = first ? i : std::max(o.most, i);
      o.least = first ? i : std::min(o.least, i);
      first = false;
    }
    o.switched = written.contains(bench::PinState::High) && written.contains(bench::PinState::Low);
    if (!first) out.push_back(o);
  });
  return out;
}

}  // namespace bold::checks
