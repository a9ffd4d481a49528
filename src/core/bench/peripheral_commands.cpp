#include "core/bench/peripheral_commands.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/bench/signal_nets.h"
#include "core/parts/roles.h"
#include "core/parts/truth_table.h"

namespace bold::bench {
namespace {

// Something else hangs on both ends of it.
bool wiredContact(const Bench& bench, const Nets& nets, int device, const parts::Node& a, const parts::Node& b) {
  const auto touched = [&](const parts::Node& n) {
    const auto t = bench.terminal(device, n);
    return t < 0 || std::ranges::any_of(nets.members(nets.of(t)), [&](TerminalIndex o) { return bench.deviceOf(o) != device; });
  };
  return touched(a) && touched(b);
}

// "1" of the channels "1-NO" and "1-NC"; empty: the part is one relay.
std::string relayOf(const parts::Part& part, const parts::Switch& contact) {
  const auto out = std::ranges::find_if(part.channels, [&](const parts::Channel& c) {
    return std::ranges::any_of(c.out, [&](const auto& o) { return contact.a == o || contact.b == o; });
  });
  const auto end = out == part.channels.end() ? std::string::npos : out->id.rfind('-');
  return end == std::string::npos ? std::string() : out->id.substr(0, end);
}

// The contacts of each relay of a part, where something hangs on both ends of one of them.
void relays(const Bench& bench, const Nets& nets, int d, std::vector<MovedContacts>& out) {
  const auto& part = *bench.devices[d].part;
  std::map<std::string, MovedContacts> each;
  std::set<std::string> wired;
  for (std::size_t e = 0; e < part.elements.size(); ++e) {
    const auto* s = std::get_if<parts::Switch>(&part.elements[e].body);
    if (!s || !s->contact || !bench.devices[d].has(part.elements[e]) || !relayClosed(*s, true)) continue;
    const auto relay = relayOf(part, *s);
    if (wiredContact(bench, nets, d, s->a, s->b)) wired.insert(relay);
    auto& m = each[relay];
    m.relay = true;
    m.contacts.emplace_back(d, static_cast<int>(e));
  }
  for (auto& [relay, m] : each) {
    if (!wired.contains(relay)) continue;
    m.title = bench.devices[d].called() + (each.size() > 1 ? " " + relay : "") + " on";
    out.push_back(std::move(m));
  }
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
      if (!c || (c->moved == parts::Moved::No && !c->connector) || !device.has(element) ||
          !wiredContact(bench, nets, static_cast<int>(d), c->a, c->b))
        continue;
      const std::pair at{static_cast<int>(d), static_cast<int>(e)};
      if (c->connector) together.switchedOff = true, together.title = device.called() + " pulled";
      if (c->moved == parts::Moved::Switched) together.switchedOff = true, together.title = device.called() + " switched off";
      if (c->moved == parts::Moved::Thrown) together.title = device.called() + " thrown over";
      if (c->moved == parts::Moved::Senses) together.title = device.called() + " active";
      if (c->moved == parts::Moved::Slides)
        out.push_back({{at}, device.called() + " at " + bench.facts(bench.terminal(at.first, c->b)).label});
      else
        together.contacts.push_back(at);
    }
    if (!together.contacts.empty()) out.push_back(std::move(together));
    relays(bench, nets, static_cast<int>(d), out);
  }
  return out;
}

std::optional<bool> relayClosed(const parts::Switch& contact, bool on) {
  if (!contact.contact) return std::nullopt;
  const auto at = [&](double volts, parts::Level level) {
    return contact.on.evaluate({[&](const parts::Node&) { return level; },
                                [&](const parts::Node&, const parts::Node&) -> std::optional<double> { return volts; }});
  };
  constexpr double kPlenty = 1000;
  const auto rest = at(0, parts::Level::Undefined);
  if (rest == parts::Level::Undefined) return std::nullopt;
  for (const auto level : {parts::Level::Low, parts::Level::High})
    if (at(kPlenty, level) == !rest) return (rest == parts::Level::High) != on;
  return std::nullopt;
}

std::vector<TerminalIndex> lowUntilAsked(const Bench& bench) {
  std::vector<TerminalIndex> out;
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (const auto& pin = bench.facts(t).pin; pin && pin->boot == parts::Boot::Low && bench.connected(t)) out.push_back(t);
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
