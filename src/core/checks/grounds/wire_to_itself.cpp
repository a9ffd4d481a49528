#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::wire_to_itself {
namespace {

// A diode, capacitor or resistor with both legs on one net.
void bridgedParts(const SolvedBench& s, Findings& out) {
  const bench::Nets always(s.bench, false);  // a switch that opens while the bench runs bridges nothing
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    const auto& part = *device.part;
    if (part.terminals.size() != 2 || part.elements.size() != 1) continue;
    const auto& body = part.elements.front().body;
    const auto* r = std::get_if<parts::Resistor>(&body);
    const bool bridged =
        std::holds_alternative<parts::Diode>(body) || std::holds_alternative<parts::Capacitor>(body) || (r && !r->conductor);
    if (!bridged || !always.same(device.first, device.first + 1)) continue;
    auto f = finding(Severity::Caution, fmt::format("{} does nothing", device.called()),
                     fmt::format("Both legs of {} are on one net: there is never a voltage across it.", device.called()),
                     {device.doc.id, s.bench.address(device.first), s.bench.address(device.first + 1)});
    f.ways = {{fmt::format("Move one leg of {} to where it belongs, on a breadboard into another row.", device.called())}};
    f.formula = "both legs on one net";
    out.push_back(std::move(f));
  }
}

}  // namespace

// A wire that begins and ends on the same terminal, or on two that the part joins inside.
Findings judge(const SolvedBench& s) {
  Findings out;
  bridgedParts(s, out);
  for (const auto& l : s.bench.links) {
    const auto& c = s.bench.connections[l.connection];
    if (c.kind != harness::ConnectionKind::Wire) continue;
    const int d = s.bench.deviceOf(l.a);
    bool inside = l.a == l.b;
    if (!inside && d == s.bench.deviceOf(l.b)) {
      const auto& device = s.bench.devices[d];
      for (const auto& e : device.part->elements)
        if (const auto* j = std::get_if<parts::Joint>(&e.body); j && device.has(e)) {
          bool a = false;
          bool b = false;
          for (const auto& n : j->nodes) {
            a = a || n == s.bench.facts(l.a).id;
            b = b || n == s.bench.facts(l.b).id;
          }
          inside = inside || (a && b);
        }
    }
    if (!inside) continue;
    auto f = finding(Severity::Note, fmt::format("The wire at {} does nothing", s.bench.called(l.a)),
                     fmt::format("Both ends of the wire {} are on one net inside {}: {} and {} are the same.", c.id, called(s.bench, d),
                                 s.bench.called(l.a), s.bench.called(l.b)),
                     {c.id, s.bench.address(l.a)});
    f.ways = {{fmt::format("Take the wire {} away, or move the end that was meant for another place.", c.id), {c.id, "ends"}}};
    f.formula = "both ends on one net";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"wire-to-itself", "grounds", "A wire or part that does nothing", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::wire_to_itself
