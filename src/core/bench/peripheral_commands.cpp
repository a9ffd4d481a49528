#include "core/bench/peripheral_commands.h"

#include <algorithm>

#include "core/bench/signal_nets.h"
#include "core/parts/roles.h"
#include "core/parts/truth_table.h"

namespace bold::bench {
namespace {

// Something else hangs on both ends of it.
bool wiredContact(const Bench& bench, const Nets& nets, int device, const parts::Contact& c) {
  const auto touched = [&](const parts::Node& n) {
    const auto t = bench.terminal(device, n);
    return t < 0 || std::ranges::any_of(nets.members(nets.of(t)), [&](TerminalIndex o) { return bench.deviceOf(o) != device; });
  };
  return touched(c.a) && touched(c.b);
}

TerminalIndex statedPin(const Bench& bench, const std::string& device, const std::string& line) {
  for (const auto& i : bench.reads)
    for (const auto& sig : i.signals)
      if (i.motor == device && sig.role == line) return bench.terminal(sig.pin);
  return -1;
}

}  // namespace

std::vector<MovedContacts> movedContacts(const Bench& bench, const Nets& nets) {
  std::vector<MovedContacts> out;
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    const auto& device = bench.devices[d];
    MovedContacts together{{}, device.called() + " pressed"};
    for (std::size_t e = 0; e < device.part->elements.size(); ++e) {
      const auto& element = device.part->elements[e];
      const auto* c = std::get_if<parts::Contact>(&element.body);
      if (!c || c->moved == parts::Moved::No || !device.has(element) || !wiredContact(bench, nets, static_cast<int>(d), *c)) continue;
      const std::pair at{static_cast<int>(d), static_cast<int>(e)};
      if (c->moved == parts::Moved::Senses) together.title = device.called() + " active";
      if (c->moved == parts::Moved::Slides)
        out.push_back({{at}, device.called() + " at " + bench.facts(bench.terminal(at.first, c->b)).label});
      else
        together.contacts.push_back(at);
    }
    if (!together.contacts.empty()) out.push_back(std::move(together));
  }
  return out;
}

std::vector<TerminalIndex> lowUntilAsked(const Bench& bench) {
  std::vector<TerminalIndex> out;
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (const auto& pin = bench.facts(t).pin; pin && pin->boot == "low" && bench.connected(t)) out.push_back(t);
  return out;
}

std::vector<LinePin> linePins(const Bench& bench, const Nets& nets) {
  std::vector<LinePin> out;
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    const auto& device = bench.devices[d];
    for (const auto& line : parts::peripheralLines(*device.part)) {
      const auto end = bench.terminal(static_cast<int>(d), line);
      const auto& bus = bench.facts(end).bus;
      if (!bench.facts(end).input || bus == "sda" || bus == "scl") continue;
      auto pin = statedPin(bench, device.doc.id, line);
      if (pin < 0)
        if (const auto wired = programPins(bench, nets, end); wired.size() == 1) pin = *wired.begin();
      if (pin >= 0 && bench.facts(pin).pin && bench.facts(pin).pin->output) out.push_back({pin, parts::enablingLevel(*device.part, line)});
    }
  }
  return out;
}

}  // namespace bold::bench
