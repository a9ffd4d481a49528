#include "core/choose/pin_demands.h"

#include <algorithm>

#include "core/bench/signal_nets.h"
#include "core/bench/solved_bench.h"
#include "core/bench/steering.h"
#include "core/checks/wired_signals.h"
#include "core/choose/stage_questions.h"
#include "core/harness/edit_maker.h"
#include "core/harness/intent.h"
#include "core/parts/roles.h"
#include "core/places/numbering.h"

namespace bold::choose {
namespace {

constexpr Metres kLength{0.2};
constexpr int kGauge = 24;

std::string firstController(const bench::Bench& b) {
  const auto it = std::ranges::find_if(b.devices, [](const auto& d) { return !d.unknown && parts::isController(*d.part); });
  return it == b.devices.end() ? std::string() : it->doc.id;
}

// Runs the program by itself: no register or expander that is written to.
bool isBoard(const bench::Bench& b, const std::string& device) {
  const int d = b.deviceIndex(device);
  return d >= 0 && parts::isController(*b.devices[static_cast<std::size_t>(d)].part);
}

// By copper on a rail, or driven by something that is no controller's pin.
bool isHeld(const bench::SolvedBench& s, bench::TerminalIndex input) {
  if (s.nets.rail(s.nets.of(input))) return true;
  for (const int net : bench::signalNets(s.bench, s.nets, input, bench::Along::Copper))
    for (const auto t : s.nets.members(net))
      if (s.bench.deviceOf(t) != s.bench.deviceOf(input) && (s.bench.facts(t).output || s.bench.facts(t).pin)) return true;
  return false;
}

// Where a wire from a pin would go: to the open end of a resistor before the input, else to the input.
bench::TerminalIndex looseEnd(const bench::SolvedBench& s, bench::TerminalIndex input) {
  for (const auto t : s.nets.members(s.nets.of(input))) {
    const auto& d = s.bench.devices[static_cast<std::size_t>(s.bench.deviceOf(t))];
    if (d.part->terminals.size() != 2 || d.part->elements.size() != 1 ||
        !std::holds_alternative<parts::Resistor>(d.part->elements.front().body))
      continue;
    const auto other = t == d.first ? d.first + 1 : d.first;
    if (!s.bench.connected(other)) return other;
  }
  return input;
}

const harness::Signal* statedSignal(const bench::Motor& m, const std::string& role) {
  if (!m.intent) return nullptr;
  const auto it = std::ranges::find(m.intent->signals, role, &harness::Signal::role);
  return it == m.intent->signals.end() ? nullptr : &*it;
}

// As the truth table of the channel says whose input it is.
std::optional<parts::Level> offOf(const bench::Bench& b, const bench::Motor& m, bench::TerminalIndex input) {
  for (const auto& meant : bench::meantChannels(b, m)) {
    if (meant.ref.device != b.deviceOf(input)) continue;
    const auto& part = *b.devices[static_cast<std::size_t>(meant.ref.device)].part;
    if (const auto off = offLevel(part, bench::channelOf(b, meant.ref), b.facts(input).id)) return off;
  }
  return std::nullopt;
}

std::vector<PinDemand> demandsOf(const bench::SolvedBench& s, const bench::Motor& m) {
  std::vector<PinDemand> out;
  if (bench::steeringOf(s.bench, s.nets, m) != bench::Steering::Pins) return out;
  const auto& id = s.bench.devices[static_cast<std::size_t>(m.device)].doc.id;
  const auto wired = checks::wiredSignals(s, m);
  std::string controller = firstController(s.bench);
  for (const auto& w : wired)
    if (!w.pin.device.empty() && isBoard(s.bench, w.pin.device)) controller = w.pin.device;
  if (!isBoard(s.bench, controller)) return out;
  const bool speed = m.intent && m.intent->speedControl;
  // A speed input that a jumper ties is none.
  const auto tied = [&](const checks::WiredSignal& w) { return w.pin.device.empty() && w.input >= 0 && isHeld(s, w.input); };
  const bool own = std::ranges::any_of(wired, [&](const auto& w) { return w.role.starts_with("speed") && !tied(w); });
  for (const auto& w : wired) {
    const auto input = w.input;
    if (tied(w) || (!w.pin.device.empty() && w.pin.device != controller)) continue;
    PinDemand d{.motor = id, .role = w.role, .controller = controller};
    d.pwm = speed && (w.role.starts_with("speed") || (!own && w.role.starts_with("in")));
    d.servo = m.kind == bench::MotorKind::Servo;
    if (m.intent) d.frequency = m.intent->pwm;
    if (input >= 0) {
      d.off = offOf(s.bench, m, input);
      d.end = s.bench.place(looseEnd(s, input));
      const int board = s.bench.deviceIndex(controller);
      d.current = inputCurrent(*s.bench.devices[static_cast<std::size_t>(s.bench.deviceOf(input))].part, s.bench.facts(input).id,
                               pinLevel(*s.bench.devices[static_cast<std::size_t>(board)].part));
    }
    if (!w.pin.device.empty()) {
      d.has = w.pin.terminal;
      d.wired = true;
    } else if (const auto* signal = statedSignal(m, w.role)) {
      const auto t = s.bench.terminal(signal->pin);
      if (t >= 0 && signal->pin.device != controller) continue;  // of a register
      if (t >= 0) d.has = s.bench.facts(t).id;
    }
    const bool wanted = drivenRole(w.role) || (speed && w.role.starts_with("speed"));
    if (!d.has.empty() || (wanted && input >= 0)) out.push_back(std::move(d));
  }
  std::ranges::stable_sort(out, {}, [&](const PinDemand& d) { return s.bench.terminal(d.end); });
  return out;
}

// Whether this end stands at a level by itself: on a rail, or what its own part calls ground or supply.
bool onRail(const bench::SolvedBench& s, bench::TerminalIndex t) {
  return t >= 0 && (s.nets.rail(s.nets.of(t)) || s.bench.facts(t).ground || s.bench.facts(t).supply);
}

// Of a changeover contact the side that is closed at rest: one of the two is enough, and the other is the usual one.
bool spare(const parts::Part& part, const parts::Contact& contact, const std::string& common) {
  return contact.closed && std::ranges::any_of(part.elements, [&](const parts::Element& e) {
           const auto* c = std::get_if<parts::Contact>(&e.body);
           return c && c != &contact && !c->closed && c->moved == contact.moved && (c->a == common || c->b == common);
         });
}

// Lines of a sensor that a pin reads, or would: one end of a contact whose other end is on a rail; an input that a program drives.
std::vector<PinDemand> readsOf(const bench::SolvedBench& s, int device) {
  std::vector<PinDemand> out;
  const auto& d = s.bench.devices[static_cast<std::size_t>(device)];
  const auto wired = checks::wiredReads(s, device);
  for (const auto& line : parts::peripheralLines(*d.part)) {
    const auto t = s.bench.terminal(device, line);
    const auto& facts = s.bench.facts(t);
    PinDemand one{.motor = d.doc.id, .role = line, .controller = firstController(s.bench), .end = {d.doc.id, line}};
    one.at = facts.input ? At::Drives : At::Reads;
    one.interrupt = facts.edges;
    if (facts.bus == "sda" || facts.bus == "scl") one.bus = facts.bus;
    bool read = facts.input.has_value();
    for (const auto& e : d.part->elements) {
      const auto* c = std::get_if<parts::Contact>(&e.body);
      if (!c || !d.has(e) || c->moved == parts::Moved::No || (c->a != line && c->b != line)) continue;
      const auto& other = c->a == line ? c->b : c->a;
      read = read || (onRail(s, bench::at(s.bench, device, other)) && !spare(*d.part, *c, other));
      if (c->moved == parts::Moved::Slides) one.at = At::Measures;
    }
    const auto at = std::ranges::find(wired, line, &checks::WiredSignal::role);
    if (at != wired.end() && !at->pin.device.empty()) {
      one.controller = at->pin.device;
      one.has = at->pin.terminal;
      one.wired = true;
    } else if (!read || onRail(s, t) || isHeld(s, t)) {
      continue;
    }
    if (isBoard(s.bench, one.controller)) out.push_back(std::move(one));
  }
  return out;
}

}  // namespace

std::vector<PinDemand> pinDemands(const harness::Harness& h, const parts::Library& library, const std::string& motor) {
  return pinDemands(bench::SolvedBench(bench::makeBench(harness::asPlanned(h), library)), motor);
}

std::vector<PinDemand> pinDemands(const bench::SolvedBench& s, const std::string& motor) {
  std::vector<PinDemand> out;
  const auto add = [&](std::vector<PinDemand> all) {
    for (auto& d : all) {
      // Two motors that one pin moves, or that hang on one input; two buttons that one pin reads.
      const bool shared = std::ranges::any_of(out, [&](const PinDemand& x) {
        return x.controller == d.controller && ((!d.has.empty() && x.has == d.has) || (!d.end.device.empty() && x.end == d.end));
      });
      if (!shared) out.push_back(std::move(d));
    }
  };
  const auto wanted = [&](int device) { return motor.empty() || s.bench.devices[static_cast<std::size_t>(device)].doc.id == motor; };
  for (const auto& m : s.motors)
    if (wanted(m.device)) add(demandsOf(s, m));
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d)
    if (!s.bench.devices[d].unknown && parts::isPeripheral(*s.bench.devices[d].part) && wanted(static_cast<int>(d)))
      add(readsOf(s, static_cast<int>(d)));
  return out;
}

harness::Edit pinEdit(const harness::Harness& h, const parts::Library& library, const PinPlan& plan) {
  harness::EditMaker maker(h.ids(), harness::State::Planned);
  std::vector<harness::Change> stated;
  const auto is = [&](const Address& end, const std::string& device, const std::string& terminal) {
    const auto* d = h.device(end.device);
    const auto part = d && end.device == device ? library.find(d->part) : nullptr;
    const int t = part ? places::terminalMeant(*part, end.terminal) : -1;
    return t >= 0 && part->terminals[static_cast<std::size_t>(t)].id == terminal;
  };
  std::vector<std::string> motors;
  for (const auto& c : plan.choices) {
    const auto& d = c.demand;
    if (std::ranges::count(motors, d.motor) == 0) motors.push_back(d.motor);
    if (d.wired) {
      if (d.has != c.pin.terminal)
        for (const auto& x : h.connections) {
          if (x.kind != harness::ConnectionKind::Wire || x.state == harness::State::ToBeRemoved) continue;
          if (is(x.a, d.controller, d.has))
            maker.move(x, c.pin, x.b);
          else if (is(x.b, d.controller, d.has))
            maker.move(x, x.a, c.pin);
        }
      continue;
    }
    const auto* device = h.device(d.end.device);
    const auto part = device ? library.find(device->part) : nullptr;
    if (part && !seriesAt(*part, d.end.terminal)) maker.wire(c.pin, d.end, "GN", kGauge, kLength);
  }
  auto edit = maker.take("Put open signals on free pins");
  for (const auto& motor : motors) {
    auto intent = harness::intentFor(h, motor);
    for (const auto& c : plan.choices) {
      if (c.demand.motor != motor) continue;
      const auto at = std::ranges::find(intent.signals, c.demand.role, &harness::Signal::role);
      if (at == intent.signals.end())
        intent.signals.push_back({c.demand.role, c.pin, "label", harness::Active::Unsaid});
      else if (!is(at->pin, c.pin.device, c.pin.terminal))
        at->pin = c.pin;
    }
    auto more = harness::stating(h, intent, {});
    edit.changes.insert(edit.changes.end(), std::make_move_iterator(more.changes.begin()), std::make_move_iterator(more.changes.end()));
  }
  return edit;
}

}  // namespace bold::choose
