#include <fmt/core.h>

#include <algorithm>

#include "core/bench/sensed_pins.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::sensor_pin {
namespace {

// A sensor's end, the pin that the program reads it at, and the pins that really stand on it.
struct Astray {
  int device;
  TerminalIndex end, pin;
  std::vector<TerminalIndex> stands;
};

// One contact may be turned round: either of its ends will do.
bool sameContact(const SolvedBench& s, const bench::SensedPin& x, TerminalIndex end) {
  if (x.end == end || x.element < 0 || s.bench.facts(end).input) return x.end == end;
  int contacts = 0;
  eachElement<parts::Contact>(s.bench,
                              [&](int d, int, const parts::Contact& c) { contacts += d == x.device && c.moved != parts::Moved::No; });
  return contacts == 1;
}

std::vector<Astray> astray(const SolvedBench& s) {
  std::vector<Astray> out;
  const auto sensed = bench::sensedPins(s);
  const bench::Nets fixed(s.bench, false);  // a contact that is closed at rest is no copper
  for (const auto& intent : s.bench.reads)
    for (const auto& signal : intent.signals) {
      const int d = s.bench.deviceIndex(intent.motor);
      const auto end = s.bench.terminal(d, signal.role);
      const auto pin = s.bench.terminal(signal.pin);
      if (end < 0 || pin < 0 || !s.bench.facts(pin).pin) continue;  // no pin at all: pin-cannot-drive says so
      Astray a{d, end, pin, {}};
      for (const auto& x : sensed)
        if (x.device == d && sameContact(s, x, end)) a.stands.push_back(x.pin);
      // On its copper all the same where that is a rail's: what it then reads is sensor-level's matter.
      if (std::ranges::count(a.stands, pin) == 0 && !fixed.same(end, pin)) out.push_back(std::move(a));
    }
  return out;
}

// Where both ends are free, or what is wired there sits on another pin that nothing is said of.
void mend(const SolvedBench& s, const Astray& a, const std::vector<Astray>& all, Finding& f) {
  const auto crossed = std::ranges::find_if(
      all, [&](const Astray& o) { return &o != &a && std::ranges::count(a.stands, o.pin) > 0 && std::ranges::count(o.stands, a.pin) > 0; });
  if (crossed != all.end()) {
    f.repair = RepairDraft(s.bench)
                   .exchange(a.pin, crossed->pin)
                   .repair(fmt::format("Exchange the wires at {} and {}{}.", found(s.bench, a.pin), found(s.bench, crossed->pin),
                                       slipped(s.bench, a.pin, crossed->pin)));
  } else if (a.stands.size() == 1 && !s.bench.connected(a.pin) && connectionsAt(s.bench, a.stands.front()) == 1) {
    const auto there = a.stands.front();
    f.repair =
        RepairDraft(s.bench)
            .exchange(there, a.pin)
            .repair(fmt::format("Move what is on {} to {}, or tell the program of it.", found(s.bench, there), found(s.bench, a.pin)));
  } else if (a.stands.empty() && !s.bench.connected(a.pin) && !s.bench.connected(a.end)) {
    f.repair = RepairDraft(s.bench)
                   .wire(a.end, a.pin, "GN")
                   .repair(fmt::format("Add a green wire from {} to {}.", found(s.bench, a.end), found(s.bench, a.pin)));
  }
}

}  // namespace

// What is stated of the pins that a program reads, against the wires.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto all = astray(s);
  for (const auto& a : all) {
    const auto end = s.bench.called(a.end);
    const auto pin = s.bench.called(a.pin);
    const auto* uses = s.bench.facts(a.end).input ? "drives" : "reads";
    auto f = finding(Severity::Stop, fmt::format("{} does not reach {}", end, pin),
                     a.stands.empty()
                         ? fmt::format("The program {} {} at {}, and nothing leads from one to the other.", uses, end, pin)
                         : fmt::format("The program {} {} at {}; it is wired to {}.", uses, end, pin, s.bench.called(a.stands.front())),
                     {s.bench.address(a.end), s.bench.address(a.pin)});
    if (!a.stands.empty()) f.subjects.push_back(s.bench.address(a.stands.front()));
    f.ways = {{fmt::format("Wire {} to {}, or change what is stated of it.", end, pin),
               Field{idOf(s.bench, a.device), "signal " + s.bench.facts(a.end).id}}};
    f.formula = fmt::format("{} stated at {}", end, pin);
    mend(s, a, all, f);
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"sensor-pin", "pins", "A sensor on another pin than the program reads", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::sensor_pin
