#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_numbering {
// A pin number in the intent that means one pin in one system and another in the next, with nobody saying which.
Findings judge(const SolvedBench& s) {
  Findings out;
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
  return out;
}

Check check() {
  return {"pin-numbering", "pins", "A pin number that means two pins", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_numbering
