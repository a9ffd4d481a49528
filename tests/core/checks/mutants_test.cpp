#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

// Mutants of good benches that nothing is said about, each with its reason. What is neither here nor noticed is a miss;
// what is here and noticed by now has to leave.
const std::map<std::string, std::string> kExcused{
    {"array: moved s1.P to s1.COMMON (other end psu.P)", "the link joins them"},
    {"array: moved uno.GND to uno.GND-2 (other end s1.N)", "two grounds of one part are one"},
    {"array-sbc: moved s1.P to s1.COMMON (other end psu.P)", "the link joins them"},
    {"breadboard: removed r2.A bb.c10", "a pull-down is judged by pin-boot-state, not here yet"},
    {"breadboard: removed r2.B bb.c12", "a pull-down is judged by pin-boot-state, not here yet"},
    {"breadboard: moved uno.GND to uno.GND-2 (other end bb.tn1)", "two grounds of one part are one"},
    {"breadboard: moved f1.A to f1.B (other end psu.P)", "both ends of a fuse or of a way of a block are one"},
    {"breadboard: moved f1.B to f1.A (other end x1.1A)", "both ends of a fuse or of a way of a block are one"},
    {"breadboard: moved x1.1A to x1.1B (other end f1.B)", "both ends of a fuse or of a way of a block are one"},
    {"breadboard: moved x1.2A to x1.2B (other end bb.b20)", "both ends of a fuse or of a way of a block are one"},
    {"breadboard: moved x1.3A to x1.3B (other end pump.N)", "both ends of a fuse or of a way of a block are one"},
    {"bridge: moved uno.GND to uno.GND-2 (other end s1.GND)", "two grounds of one part are one"},
    {"bridge-jumpers: moved uno.GND to uno.GND-2 (other end s1.GND)", "two grounds of one part are one"},
    {"darlington: moved uno.GND to uno.GND-2 (other end q1.E)", "two grounds of one part are one"},
    {"l293d: moved s1.GND to s1.GND-2 (other end psu.N)", "two grounds of one part are one"},
    {"l293d: moved uno.GND to uno.GND-2 (other end s1.GND-2)", "two grounds of one part are one"},
    {"low-side: moved r1.A to r1.B (other end uno.D5)", "the resistor is bypassed: a MOSFET gate works without it"},
    {"low-side: moved r1.B to r1.A (other end q1.G)", "the resistor is bypassed: a MOSFET gate works without it"},
    {"low-side: removed r2.A q1.G", "a pull-down is judged by pin-boot-state, not here yet"},
    {"low-side: moved q1.G to q1.D (other end r2.A)", "a pull-down is judged by pin-boot-state, not here yet"},
    {"low-side: removed r2.B q1.S", "a pull-down is judged by pin-boot-state, not here yet"},
    {"low-side: moved q1.S to q1.G (other end r2.B)", "a pull-down is judged by pin-boot-state, not here yet"},
    {"low-side: moved uno.GND to uno.GND-2 (other end q1.S)", "two grounds of one part are one"},
    {"npn: moved uno.GND to uno.GND-2 (other end q1.E)", "two grounds of one part are one"},
    {"servo: moved uno.GND to uno.GND-2 (other end tilt.GND)", "two grounds of one part are one"},
    {"step-dir: removed c1.P s1.VMOT", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir: moved s1.VMOT to s1.GND (other end c1.P)", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir: removed c1.N s1.GND", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir: moved s1.GND to s1.2B (other end c1.N)", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir: moved uno.GND to uno.GND-2 (other end s1.GND-2)", "two grounds of one part are one"},
    {"step-dir-3v3: removed c1.P s1.VMOT", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-3v3: moved s1.VMOT to s1.GND (other end c1.P)", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-3v3: removed c1.N s1.GND", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-3v3: moved s1.GND to s1.2B (other end c1.N)", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-8825: removed c1.P s1.VMOT", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-8825: moved s1.VMOT to s1.GND (other end c1.P)", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-8825: removed c1.N s1.GND", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-8825: moved s1.GND to s1.B2 (other end c1.N)", "a bulk capacitor is judged by bulk-capacitor-missing, not here yet"},
    {"step-dir-8825: moved s1.RST to s1.SLP (other end pico.3V3)", "the two are linked"},
    {"stepper-bridges: moved uno.GND to uno.GND-2 (other end s1.GND)", "two grounds of one part are one"},
    {"tb6612: moved s1.GND to s1.GND-2 (other end bat.N)", "two grounds of one part are one"},
    {"tb6612: moved s1.GND-2 to s1.GND-3 (other end pico.GND)", "two grounds of one part are one"},
};

bool noticed(const harness::Harness& h, const std::set<std::string>& known) {
  const auto a = analyseFast(h);
  return std::ranges::any_of(a.findings,
                             [&](const auto& f) { return f.severity != checks::Severity::Note && !known.contains(f.identity()); });
}

// The mutants of one bench: every connection removed, every end of a wire moved to the next terminal of its part.
template <class F>
void mutants(const std::string& name, const harness::Harness& h, F f) {
  for (std::size_t i = 0; i < h.connections.size(); ++i) {
    const auto& c = h.connections[i];
    auto removed = h;
    removed.connections.erase(removed.connections.begin() + static_cast<std::ptrdiff_t>(i));
    f(name + ": removed " + c.a.text() + " " + c.b.text(), removed);
    if (c.kind != harness::ConnectionKind::Wire) continue;
    for (const bool second : {false, true}) {
      auto moved = h;
      auto& end = second ? moved.connections[i].b : moved.connections[i].a;
      const auto part = library().find(h.device(end.device)->part);
      if (part->terminals.size() > 60) continue;  // the next hole of a breadboard row is the same row
      const auto next = static_cast<std::size_t>(part->indexOf(end.terminal) + 1) % part->terminals.size();
      const auto old = end.text();
      end.terminal = part->terminals[next].id;
      f(name + ": moved " + old + " to " + end.text() + " (other end " + (second ? c.a : c.b).text() + ")", moved);
    }
  }
}

}  // namespace

TEST_CASE("every wire removed from or misplaced on a good bench is noticed, or excused for a reason") {
  int all = 0;
  std::set<std::string> unnoticed;
  for (const auto& name : goodNames()) {
    const auto h = good(name);
    std::set<std::string> known;
    for (const auto& f : analyseFast(h).findings) known.insert(f.identity());
    mutants(name, h, [&](const std::string& mutant, const harness::Harness& broken) {
      ++all;
      const bool seen = noticed(broken, known);
      INFO(mutant);
      CHECK(seen != kExcused.contains(mutant));
      if (!seen) unnoticed.insert(mutant);
    });
  }
  CHECK(all > 450);
  CHECK(unnoticed.size() == kExcused.size());
}
