#include "core/choose/board_pins.h"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>

#include "core/harness/names.h"
#include "core/parts/read_element.h"
#include "core/parts/roles.h"
#include "core/places/arrangement.h"

namespace bold::choose {
namespace {

constexpr int kNextRow = 1000;  // positions: rows of one side that do not touch

const parts::Pins* groupOf(const parts::Part& part, const std::string& terminal) {
  for (const auto& e : part.elements)
    if (const auto* p = std::get_if<parts::Pins>(&e.body); p && std::ranges::count(p->pins, terminal) > 0) return p;
  return nullptr;
}

int number(const std::string& text) {
  int out = -1;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), out);
  return error == std::errc() && end == text.data() + text.size() ? out : -1;
}

// A resistor of the board holds a pin until the program has it.
parts::Boot bootOf(const parts::Part& part, const parts::Pins& group, const parts::Terminal& pin) {
  if (pin.pin->boot != parts::Boot::Float) return pin.pin->boot;
  for (const auto& e : part.elements)
    if (const auto* r = std::get_if<parts::Resistor>(&e.body); r && !r->conductor && (r->a == pin.id || r->b == pin.id)) {
      const auto& other = r->a == pin.id ? r->b : r->a;
      const auto* facts = part.find(other);
      if (other == group.rail || (facts && facts->supply)) return parts::Boot::WeakUp;
      if (facts && facts->ground) return parts::Boot::WeakDown;
    }
  return pin.pin->boot;
}

PinSpot spotOf(const parts::Part& part, const std::optional<places::Arrangement>& arrangement, int terminal) {
  if (const auto* s = arrangement ? arrangement->at(terminal) : nullptr) {
    const auto edge = static_cast<int>(part.layout.rows[static_cast<std::size_t>(s->row)].edge);
    return {.side = 2 * edge + s->column, .position = kNextRow * s->row + s->index};
  }
  // Beside nothing that is known.
  return {.side = 0, .position = -2 * terminal - 2};
}

// What hangs on a pin, and is more than copper that passes it on.
std::string hangsOn(const harness::Harness& h, const bench::Bench& b, const bench::Nets& nets, bench::TerminalIndex pin) {
  for (const auto t : nets.members(nets.of(pin))) {
    const int d = b.deviceOf(t);
    if (d == b.deviceOf(pin)) continue;
    const auto& device = b.devices[static_cast<std::size_t>(d)];
    const auto touches = [&](const parts::Element& e) {
      if (std::holds_alternative<parts::Joint>(e.body)) return false;
      return std::ranges::count(parts::nodesOf(e), b.facts(t).id) > 0;
    };
    if (device.unknown || b.facts(t).input || std::ranges::any_of(device.part->elements, touches))
      return fmt::format("{} is on it", harness::shownName(h, device.doc));
  }
  return nets.rail(nets.of(pin)) ? "lies on a rail" : std::string();
}

}  // namespace

BoardPins::BoardPins(const harness::Harness& harness, const parts::Library& library, const std::set<std::string>& gone,
                     const std::set<std::string>& controllers) {
  auto h = harness;
  std::erase_if(h.connections, [&](const auto& c) { return gone.contains(c.id); });
  h = harness::asPlanned(h);
  const auto b = bench::makeBench(h, library);
  const bench::Nets nets(b);
  for (std::size_t d = 0; d < b.devices.size(); ++d) {
    const auto& part = b.devices[d].part;
    if (b.devices[d].unknown || !parts::isController(*part)) continue;
    if (!controllers.empty() && !controllers.contains(b.devices[d].doc.id)) continue;
    m_parts.push_back(part);
    const auto first = m_pins.size();
    const auto arrangement = places::arrangementOf(*part);
    bool numbered = true;
    const bool busSaid = std::ranges::any_of(part->terminals, [](const parts::Terminal& t) { return t.pin && !t.pin->bus.empty(); });
    for (std::size_t i = 0; i < part->terminals.size(); ++i) {
      const auto& t = part->terminals[i];
      const auto* group = t.pin ? groupOf(*part, t.id) : nullptr;
      if (!group) continue;
      numbered = numbered && number(t.pin->code) >= 0;
      auto spot = spotOf(*part, arrangement, static_cast<int>(i));
      spot.side += 100 * static_cast<int>(d);
      spot.scarce = !t.pin->pwm.empty();
      m_pins.push_back({{b.devices[d].doc.id, t.id},
                        &t,
                        group,
                        spot,
                        busSaid,
                        bootOf(*part, *group, t),
                        hangsOn(h, b, nets, b.devices[d].first + static_cast<int>(i))});
    }
    if (numbered)
      std::stable_sort(m_pins.begin() + static_cast<std::ptrdiff_t>(first), m_pins.end(),
                       [](const Pin& x, const Pin& y) { return number(x.facts->pin->code) < number(y.facts->pin->code); });
    for (auto k = first; k < m_pins.size(); ++k) m_byAddress.emplace(m_pins[k].address, static_cast<int>(k));
    const auto budget = [&](const std::vector<parts::Node>& pins, double most) {
      PinBudget out{{}, most};
      for (const auto& n : pins)
        if (const int at = find(b.devices[d].doc.id, n); at >= 0) out.pins.push_back(at);
      m_budgets.push_back(std::move(out));
    };
    for (const auto& e : part->elements)
      if (const auto* p = std::get_if<parts::Pins>(&e.body)) {
        if (const auto total = p->total.typical()) budget(p->pins, *total);
        for (const auto& g : p->groups) budget(g.first, g.second);
      }
  }
}

int BoardPins::find(const std::string& controller, const std::string& terminal) const {
  const auto it = m_byAddress.find({controller, terminal});
  return it == m_byAddress.end() ? -1 : it->second;
}

std::string against(const PinDemand& d, const BoardPins::Pin& pin) {
  const auto& facts = *pin.facts->pin;
  if (pin.address.device != d.controller) return "is of another controller";
  if (d.at == At::Drives && !facts.output) return "is input only";
  if (d.at == At::Reads && !facts.digital) return "only measures a voltage";
  const auto among = [&](const std::optional<std::vector<parts::Node>>& pins) {
    return !pins || std::ranges::count(*pins, pin.facts->id) > 0;
  };
  if (d.at == At::Measures && !among(pin.group->analog)) return "measures no voltage";
  if (!facts.reserved.empty()) return "is reserved: " + facts.reserved;
  if (d.pwm && facts.pwm.empty()) return "has no PWM";
  if (const auto most = pin.group->recommended.typical(); most && d.current.value > *most)
    return fmt::format("gives {}; it takes {}", displayText(Amps{*most}), displayText(d.current));
  if (!pin.taken.empty()) return pin.taken;
  if (d.has == pin.facts->id) return {};
  if (!d.bus.empty() && pin.busSaid && facts.bus != d.bus) return fmt::format("is not its {}", d.bus == "sda" ? "SDA" : "SCL");
  if (d.interrupt && !among(pin.group->interrupts)) return "has no interrupt";
  if (!facts.serial.empty()) return "is part of the " + facts.serial;
  if (!facts.strap.empty()) return "decides how the board starts (" + facts.strap + ")";
  if (d.at != At::Drives) return {};
  if (pin.boot == parts::Boot::Toggles) return "chatters while the board starts";
  if (pin.boot == parts::Boot::Low && d.off == parts::Level::High) return "is low while the board starts, which is on";
  if (!d.mayBePulled && pulledOn(d, pin))
    return fmt::format("is pulled {} while the board starts, which is on", pin.boot == parts::Boot::WeakUp ? "up" : "down");
  return {};
}

bool pulledOn(const PinDemand& d, const BoardPins::Pin& pin) {
  return d.at == At::Drives && ((pin.boot == parts::Boot::WeakUp && d.off == parts::Level::Low) ||
                                (pin.boot == parts::Boot::WeakDown && d.off == parts::Level::High));
}

std::string againstBoth(const PinDemand& a, const BoardPins::Pin& pa, const PinDemand& b, const BoardPins::Pin& pb) {
  const auto& one = *pa.facts->pin;
  const auto& other = *pb.facts->pin;
  if (pa.address.device != pb.address.device) return {};
  if (a.servo && b.pwm && !pa.group->servoTimer.empty() && other.pwm == pa.group->servoTimer)
    return fmt::format("needs {}, which the servo library takes", other.pwm);
  if (b.servo && a.pwm) return againstBoth(b, pb, a, pa);
  if (!a.pwm || !b.pwm || one.pwm != other.pwm) return {};
  if (!one.channel.empty() && one.channel == other.channel)
    return fmt::format("is channel {} of {} as {} is", one.channel, one.pwm, pb.facts->label);
  if (a.frequency && b.frequency && *a.frequency != *b.frequency)
    return fmt::format("is of {} as {} is, which runs at {}", one.pwm, pb.facts->label, displayText(*b.frequency));
  return {};
}

}  // namespace bold::choose
