#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/places/neighbours.h"

namespace bold::checks::pin_numbering {
namespace {

// A pin number in the intent that means one pin in one system and another in the next, with nobody saying which.
void unsaid(const SolvedBench& s, Findings& out) {
  for (const auto& intent : s.bench.intents)
    for (const auto& sig : intent.signals) {
      const auto t = s.bench.terminal(sig.pin);
      if (t < 0 || !sig.numbering.empty() || !s.bench.facts(t).pin) continue;
      const auto& pin = *s.bench.facts(t).pin;
      const bool number = !pin.code.empty() && std::ranges::all_of(pin.code, [](char c) { return c >= '0' && c <= '9'; });
      if (!number) continue;
      const auto& device = s.bench.devices[s.bench.deviceOf(t)];
      if (!device.part->layoutKnown) continue;
      // One header with positions counted through is what people count on: its position and the chip's number are rivals.
      const auto& connector = s.bench.facts(t).place.connector;
      const auto positions =
          std::ranges::count_if(device.part->terminals, [&](const parts::Terminal& x) { return x.place.connector == connector; });
      if (positions < 26) continue;
      const auto other = std::ranges::find_if(device.part->terminals, [&](const parts::Terminal& x) {
        return x.place.connector == connector && std::to_string(x.place.position) == pin.code;
      });
      if (other == device.part->terminals.end() || other->id == s.bench.facts(t).id) continue;
      auto f = finding(
          Severity::Caution, fmt::format("{} can be two pins", pin.code),
          fmt::format(
              "The program's number for {} of {} is {} by the chip; counted on the header, {} is {}. Say which numbering the program uses.",
              sig.role, called(s.bench, s.bench.deviceIndex(intent.motor)), pin.code, pin.code, other->label),
          {s.bench.address(t), intent.motor});
      f.ways = {{fmt::format("Choose the numbering that the program uses for {}.", sig.role), {intent.motor, "numbering " + sig.role}}};
      f.formula = fmt::format("{} = {} by the chip, position {} = {}", pin.code, s.bench.facts(t).label, pin.code, other->label);
      out.push_back(std::move(f));
    }
}

// What the plan says in one system is wired in another: the input hangs on the pin that the same number means there.
void mixedUp(const SolvedBench& s, Findings& out) {
  for (const auto& m : s.motors) {
    if (!m.intent) continue;
    for (const auto& sig : m.intent->signals) {
      const auto planned = s.bench.terminal(sig.pin);
      const auto input = bench::inputOf(s.bench, m, sig.role);
      if (planned < 0 || input < 0 || !s.bench.facts(planned).pin) continue;
      const auto& device = s.bench.devices[s.bench.deviceOf(planned)];
      const auto reached = signalReach(s, input);
      if (std::ranges::count(reached, planned) > 0) continue;
      for (const auto& meaning : places::neighboursOf(*device.part, planned - device.first).sameNumber) {
        const auto wired = device.first + meaning.terminal;
        const int c = onlyConnectionAt(s.bench, wired);
        if (std::ranges::count(reached, wired) == 0 || c < 0) continue;
        const auto number = places::nameIn(*device.part, s.bench.facts(wired), meaning.in);
        auto f = finding(Severity::Stop, fmt::format("{} is wired by another numbering", s.bench.called(input)),
                         fmt::format("The plan drives {} of {} from {}; its wire is at {}, which is {} by {}.", sig.role, called(s, m),
                                     found(s.bench, planned), found(s.bench, wired), number, places::word(meaning.in)),
                         {s.bench.address(wired), s.bench.address(planned), s.bench.address(input)});
        f.ways = {{fmt::format("Move the wire to {}, or change the plan.", s.bench.called(planned))}};
        f.formula = fmt::format("{} counted in two systems", number);
        if (connectionsAt(s.bench, planned) == 0)
          f.repair = RepairDraft(s.bench)
                         .move(c, wired, planned)
                         .repair(fmt::format("Move the wire from {} to {}.", found(s.bench, wired), found(s.bench, planned)));
        out.push_back(std::move(f));
        break;
      }
    }
  }
}

}  // namespace

// Numbers of the plan: what may be read in two ways, and what was wired in the other one.
Findings judge(const SolvedBench& s) {
  Findings out;
  unsaid(s, out);
  mixedUp(s, out);
  return out;
}

Check check() {
  return {"pin-numbering", "pins", "A pin number that means two pins", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_numbering
