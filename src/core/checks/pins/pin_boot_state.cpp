#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/bench/steering.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/truth_table.h"

namespace bold::checks::pin_boot_state {
namespace {

using bench::Doing;
using parts::BridgeAction;
using parts::Drive;
using parts::Level;

bool drives(const parts::Channel& c, const parts::TruthRow& row) {
  if (c.lowSide) return std::ranges::count(row.outputs, Drive::Low) > 0;
  if (row.outputs.size() == 2) {
    const auto a = parts::bridgeAction(row.outputs[0], row.outputs[1]);
    return a == BridgeAction::Forward || a == BridgeAction::Reverse;
  }
  return std::ranges::count(row.outputs, Drive::Open) < static_cast<std::ptrdiff_t>(row.outputs.size());
}

// An input whose one level keeps the channel still whatever the others do, and that level.
struct Hold {
  TerminalIndex input = -1;
  Level level = Level::Low;
  TerminalIndex tied = -1;  // it stands on a rail already: a resistor changes nothing there
};
Hold holdOf(const SolvedBench& s, ChannelRef ref) {
  const auto& bench = s.bench;
  const auto& channel = bench::channelOf(bench, ref);
  const auto rows = parts::truthTable(*bench.devices[ref.device].part, channel);
  for (const char* role : {"speed", "enable", "standby", "sleep", "in"}) {
    const auto signal = channel.signals.find(role);
    if (signal == channel.signals.end()) continue;
    const auto& id = signal->second;
    const auto input = bench.terminal(ref.device, id);
    if (s.nets.rail(s.nets.of(input))) return {-1, Level::Low, input};
    for (const auto level : {Level::Low, Level::High}) {
      const bool still = std::ranges::none_of(
          rows, [&](const parts::TruthRow& r) { return r.inputs.contains(id) && r.inputs.at(id) == level && drives(channel, r); });
      if (still) return {input, level};
    }
  }
  return {};
}

// 10 kohm from the input to where it keeps the stage off.
std::optional<Repair> pull(const SolvedBench& s, TerminalIndex input, Level level) {
  if (input < 0) return std::nullopt;
  const auto ground = referenceOf(s.bench, input);
  TerminalIndex to = ground;
  if (level == Level::High) {
    const auto& part = *s.bench.devices[s.bench.deviceOf(input)].part;
    const auto set = s.bench.facts(input).input ? part.levels.find(s.bench.facts(input).input->levels) : part.levels.end();
    to = set == part.levels.end() || set->second.rail.empty() ? -1 : s.bench.terminal(s.bench.deviceOf(input), set->second.rail);
  }
  // A pull to a ground that the pin does not share would float with it.
  const auto pin = drivenBy(s, input);
  const auto group = pin < 0 ? std::nullopt : pinGroup(s.bench, pin);
  if (to < 0 || ground < 0 || (group && !s.nets.same(ground, group->ground))) return std::nullopt;
  if (returnAstray(s, s.bench.deviceOf(input))) return std::nullopt;
  RepairDraft draft(s.bench);
  const auto r = draft.device("resistor-10k", "r");
  draft.wire({r, "A"}, s.bench.place(input), "YE").wire({r, "B"}, s.bench.place(to), level == Level::High ? "RD" : "BK");
  return draft.repair(fmt::format("Fit 10 kΩ from {} to {}.", found(s.bench, input), found(s.bench, to)));
}

// An input that nothing holds at boot, where the levels of the others leave it open whether the motor is driven.
TerminalIndex floatingInput(const SolvedBench& s, const OperatingPoint& p, const Motor& m, ChannelRef ref) {
  const auto& channel = bench::channelOf(s.bench, ref);
  if (channel.lowSide) return -1;
  const auto rows = parts::truthTable(*s.bench.devices[ref.device].part, channel);
  TerminalIndex floats = -1;
  std::map<std::string, Level> known;
  for (const auto& [role, id] : channel.signals) {
    const auto t = s.bench.terminal(ref.device, id);
    if (!s.bench.facts(t).input || s.bench.facts(t).input->levels.empty() || role == "step" || role == "dir") continue;
    if (m.half && !parts::decides(rows, id, m.half->output)) continue;
    const auto level = p.level(t);
    if (level != Level::Undefined)
      known[id] = level;
    else if (drivenBy(s, t) >= 0)
      floats = t;
  }
  if (floats < 0) return -1;
  const bool mayMove = std::ranges::any_of(rows, [&](const parts::TruthRow& row) {
    const bool on = m.half ? row.outputs[m.half->output] == (m.half->high ? Drive::High : Drive::Low) : drives(channel, row);
    return on &&
           std::ranges::all_of(known, [&](const auto& k) { return !row.inputs.contains(k.first) || row.inputs.at(k.first) == k.second; });
  });
  return mayMove ? floats : -1;
}

// MOSFET gates at a motor's leads that nothing holds while their pin floats: those of one node.
std::vector<TerminalIndex> floatingGates(const SolvedBench& s, const OperatingPoint& p, const Motor& m) {
  std::vector<TerminalIndex> out;
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) {
    const auto gate = at(s.bench, d, t.gate);
    const auto source = at(s.bench, d, t.source);
    const auto drain = at(s.bench, d, t.drain);
    bool onLead = false;
    for (std::size_t i = 0; i < m.windings.size() && drain >= 0; ++i) {
      const auto& w = bench::windingOf(s.bench, m, i);
      for (const auto& n : {w.a, w.b}) {
        const auto lead = s.bench.terminal(m.device, n);
        // A lead on a pole of a supply is joined to the transistors of all other motors too.
        if (sourceAt(s, lead, true) || sourceAt(s, lead, false)) continue;
        onLead = onLead || s.nets.same(drain, lead) || s.nets.same(source, lead);
      }
    }
    if (!onLead || gate < 0 || source < 0 || drivenBy(s, gate) < 0) return;
    const auto r = p.resistance(gate, source);
    if (!r || r->value > 1e6) out.push_back(gate);
  });
  if (!out.empty()) std::erase_if(out, [&s, last = out.back()](TerminalIndex t) { return !s.nets.same(t, last); });
  return out;
}

// Loose transistors with an end on one of its leads, but for a supply's.
std::set<int> transistorsAt(const SolvedBench& s, const Motor& m) {
  std::set<int> out;
  const auto look = [&](int d, const parts::Node& a, const parts::Node& b) {
    for (const auto& n : {a, b})
      if (const auto t = at(s.bench, d, n); t >= 0 && !s.nets.rail(s.nets.of(t)) && onLead(s, m, t)) out.insert(d);
  };
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) { look(d, t.drain, t.source); });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) { look(d, t.collector, t.emitter); });
  return out;
}

// "q1 gate", "q1 gate and q2 gate"
std::string named(const Bench& bench, const std::vector<TerminalIndex>& all) {
  std::string out;
  for (const auto t : all) out += (out.empty() ? "" : " and ") + bench.called(t);
  return out;
}

// Contacts of one lead of a motor that relays turn round; closed at rest, and open.
struct RestingLead {
  TerminalIndex closed = -1, open = -1;
};

// Where the relays at rest bring its leads to different poles: the lead that stands at plus.
std::optional<RestingLead> acrossAtRest(const Motor& m) {
  std::array<std::optional<bool>, 2> plus;
  std::array<RestingLead, 2> leads;
  for (const auto& c : m.poles) {
    auto& lead = leads[static_cast<std::size_t>(c.lead)];
    (c.atRest ? lead.closed : lead.open) = c.far;
    if (c.atRest) plus[static_cast<std::size_t>(c.lead)] = c.plus;
  }
  if (!plus[0] || !plus[1] || *plus[0] == *plus[1]) return std::nullopt;
  const auto& lead = leads[*plus[0] ? 0 : 1];
  return lead.open < 0 ? std::nullopt : std::optional(lead);
}

// The register, latch or divider that may power up with its outputs high; empty: pins of a controller chatter at boot.
std::string remembering(const Bench& bench) {
  std::string out;
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t) {
    const auto group = pinGroup(bench, t);
    if (!group || !bench.connected(t) || bench.facts(t).pin->boot != parts::Boot::Toggles) continue;
    if (!group->pins->bus) return {};
    out = called(bench, group->device);
  }
  return out;
}

std::string chattering(const Bench& bench) {
  const auto device = remembering(bench);
  return device.empty() ? "pins chatter at boot" : device + " stands as it powered up";
}

}  // namespace

// What motors do while the controller starts or is being programmed.
Findings judge(const SolvedBench& s) {
  Findings out;
  std::vector<TerminalIndex> told;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind == MotorKind::Servo || bench::steeringOf(s.bench, s.nets, m) != bench::Steering::Pins) continue;
    if (bench::wiredSteering(s.bench, s.nets, m) == bench::Steering::AlwaysOn) continue;  // switched-otherwise
    for (const auto& p : s.points) {
      if (!p->solved() || p->command().action != Action::Boot) continue;
      const auto doing = p->doing(static_cast<int>(k));
      const bool stepper = m.kind != MotorKind::TwoLead;
      const bool runs = !stepper && (doing == Doing::Forward || doing == Doing::Reverse || doing == Doing::On);
      // A coil of a plain stage that carries current at boot warms up; a step/dir stage just holds, which is its default.
      const bool coils = m.kind == MotorKind::UnipolarStepper && doing == Doing::Energised;
      auto open = floatingGates(s, *p, m);
      const bool gate = !open.empty();
      for (const auto& ref : m.reached)
        if (const auto input = floatingInput(s, *p, m, ref); input >= 0) open = {input};
      const auto floats = open.empty() ? -1 : open.back();
      if (!runs && !coils && floats < 0) continue;
      const auto hold = m.reached.empty() || gate || m.half ? Hold{} : holdOf(s, m.reached.front());
      // One word a stage: the same pull resistor settles all that it drives.
      const auto place = hold.input >= 0 ? hold.input
                         : floats >= 0   ? floats
                                         : s.bench.terminal(m.device, s.bench.devices[m.device].part->terminals.front().id);
      if (std::ranges::count(told, place) > 0) break;
      told.push_back(place);
      const bool stop = runs;
      auto f = finding(
          stop ? Severity::Stop : Severity::Caution,
          runs    ? fmt::format("{} {} while {}", called(s, m), m.still ? "is on" : "runs",
                             p->command().variant == 1 ? chattering(s.bench) : "the controller starts")
          : coils ? fmt::format("A coil of {} is on at boot", called(s, m))
                  : fmt::format("{} {} until the program runs", named(s.bench, open), open.size() > 1 ? "float" : "floats"),
          runs    ? fmt::format("{}, {} {}: nobody asked for that.",
                             p->command().variant == 1 ? "While " + chattering(s.bench) : "While the controller starts or is programmed",
                                called(s, m), word(doing))
          : coils ? fmt::format("While the controller starts, a coil of {} carries current.", called(s, m))
                  : fmt::format("From power-on until the program sets its pin nothing holds {}: {} may twitch or run for a moment.",
                                named(s.bench, open), called(s, m)),
          {s.bench.address(place), idOf(s.bench, m.device)});
      for (const auto t : open)
        if (t != place) f.subjects.push_back(s.bench.address(t));
      // What lets it run: the transistors on its leads.
      if (runs && m.reached.empty())
        for (const int d : transistorsAt(s, m)) f.subjects.push_back(idOf(s.bench, d));
      if (runs && m.atRest)
        f.ways = {{fmt::format("Take the contact of {} that is open while its coil carries nothing.", called(s.bench, m.meant.device))}};
      else if (runs && p->command().variant == 1 && !remembering(s.bench).empty())
        f.ways = {{fmt::format(
            "Hold the clear or reset of {} for a moment at power-up, or what enables its outputs until the program has written it.",
            remembering(s.bench))}};
      else
        f.ways = {{fmt::format("Fit 10 kΩ from {} to the level that keeps {} off, or take a pin that stands still at boot.",
                               s.bench.called(place), called(s, m))}};
      f.formula = runs ? "boot level of the pin, solved" : "no pull, and the pin is an input at boot";
      f.repair = pull(s, hold.input >= 0 ? hold.input : floats,
                      hold.input >= 0           ? hold.level
                      : m.half && !m.half->high ? Level::High
                                                : Level::Low);
      if (f.repair && hold.input >= 0 && drivenBy(s, hold.input) < 0) f.repair.reset();
      if (const auto lead = runs ? acrossAtRest(m) : std::nullopt) {
        f.repair = RepairDraft(s.bench)
                       .exchange(lead->closed, lead->open)
                       .repair(fmt::format("Exchange the wires at {} and {}: at rest both leads of {} stand at one pole then.",
                                           found(s.bench, lead->closed), found(s.bench, lead->open), called(s, m)));
        f.ways.clear();
      }
      if (hold.tied >= 0 && !runs) {  // a pull at one input alone may set the motor going
        f.repair.reset();
        f.ways = {{fmt::format("Take {} off its rail and pull it to where it keeps {} off, or pull every other input of {} down by 10 kΩ.",
                               s.bench.called(hold.tied), called(s, m), bench::called(s.bench, m.reached.front()))}};
      }
      out.push_back(std::move(f));
      break;
    }
  }
  return out;
}

Check check() {
  return {"pin-boot-state", "pins", "A motor moves at power-up", Harm::Danger, judge};
}

}  // namespace bold::checks::pin_boot_state
