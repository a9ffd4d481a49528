#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/bench/signal_nets.h"
#include "core/bench/signal_path.h"
#include "core/bench/stand_ins.h"
#include "core/bench/steering.h"
#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"
#include "core/checks/levels/opto_inputs.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/checks/unknown_figures.h"
#include "core/parts/read_element.h"

namespace bold::checks::command_outcome {
namespace {

using bench::Doing;

bool moves(Doing d) {
  return d == Doing::Forward || d == Doing::Reverse || d == Doing::On || d == Doing::Energised;
}

// Forward by the intent is the lead it names as positive; where it names none, either way round is forward.
Doing asIntended(const SolvedBench& s, const Motor& m, Doing d) {
  if (!m.intent || m.kind != MotorKind::TwoLead || m.intent->forwardLead.empty()) return d;
  const auto& w = bench::windingOf(s.bench, m, 0);
  if (m.intent->forwardLead != w.b) return d;
  return d == Doing::Forward ? Doing::Reverse : d == Doing::Reverse ? Doing::Forward : d;
}

// A motor that makes less than two knees by itself drives no current through a bipolar bridge that brakes.
constexpr double kEnergised = 0.2;  // share of its rated current from which a coil counts as energised
constexpr Volts kLeastToBrake{2.5};

bool tooWeakToBrake(const SolvedBench& s, const Motor& m, const OperatingPoint& p) {
  if (m.meant.device < 0) return false;
  const auto& stage = *s.bench.devices[m.meant.device].part;
  const bool bipolar = std::ranges::any_of(stage.elements, [](const parts::Element& e) {
    const auto* sw = std::get_if<parts::Switch>(&e.body);
    return sw && sw->oneWay;
  });
  if (!bipolar) return false;
  const auto& w = bench::windingOf(s.bench, m, 0);
  const auto v = p.across(s.bench.terminal(m.device, w.a), s.bench.terminal(m.device, w.b));
  const double drop = std::abs(p.element(m.device, m.windings[0]).value) * w.resistance.typical().value_or(0);
  return v && std::abs(v->value) + drop < kLeastToBrake.value;
}

bool asPlanned(const SolvedBench& s, const Motor& m, Action action, Doing d) {
  const bool either = !m.intent || m.intent->forwardLead.empty();
  if (m.still) return (d == Doing::On) == (action == Action::Forward || action == Action::Reverse);
  switch (action) {
    case Action::Forward:
      return d == Doing::Forward || (either && d == Doing::Reverse);
    case Action::Reverse: {
      if (!either) return d == Doing::Reverse;
      const auto* forward = s.running(indexOf(s, m), Corner::Nominal);
      return moves(d) && (!forward || forward->doing(indexOf(s, m)) != d);
    }
    case Action::Brake:
      return d == Doing::Brake;
    case Action::Coast:
      return d == Doing::Coast || d == Doing::Nothing;
    case Action::Hold:
    case Action::Step:
    case Action::Move:
      return d == Doing::Energised;
    default:
      // A stepper whose stage the intent cannot switch off keeps its current; that is what it was asked for.
      if (m.kind == MotorKind::BipolarStepper && !bench::possible(s.bench, m, Action::AllOff)) return true;
      return !moves(d);
  }
}

void add(std::vector<std::string>& subjects, const std::string& id) {
  if (std::ranges::count(subjects, id) == 0) subjects.push_back(id);
}

// A channel that is one transistor and nothing else.
bool looseTransistor(const SolvedBench& s, ChannelRef ref) {
  if (ref.device < 0) return false;
  const auto& part = *s.bench.devices[ref.device].part;
  return bench::channelOf(s.bench, ref).lowSide && std::ranges::none_of(part.terminals, [](const auto& t) { return t.supply || t.ground; });
}

bool onLooseParts(const SolvedBench& s, const Motor& m) {
  const auto eachWay = [](const harness::Signal& sig) { return sig.role == "forward" || sig.role == "reverse"; };
  return m.meant.device < 0 || !m.further.empty() || looseTransistor(s, m.meant) ||
         (m.intent && std::ranges::any_of(m.intent->signals, eachWay));
}

// A module whose input loose transistors lead to.
bool throughTransistors(const SolvedBench& s, const Motor& m) {
  return m.intent && std::ranges::any_of(m.intent->signals, [&](const harness::Signal& sig) {
           const auto path = bench::pathBetween(s.bench, s.nets, s.bench.terminal(sig.pin), bench::inputOf(s.bench, m, sig.role));
           return path == bench::Path::Straight || path == bench::Path::Inverted;
         });
}

// A motor driven by loose transistors: those on its leads or between its pins and them, the diodes on its leads and the pins
// of its intent are where to look.
void addLooseParts(const SolvedBench& s, const Motor& m, std::vector<std::string>& subjects) {
  std::set<int> steering;
  const auto follow = [&](TerminalIndex t, bench::Along along) {
    if (t >= 0) steering.merge(bench::signalNets(s.bench, s.nets, t, along));
  };
  if (m.intent)
    for (const auto& sig : m.intent->signals) {
      follow(s.bench.terminal(sig.pin), bench::Along::Transistors);
      follow(bench::inputOf(s.bench, m, sig.role), bench::Along::TransistorsBack);
    }
  // Rails go everywhere: what lies on one has nothing to do with this motor for that.
  const auto here = [&](TerminalIndex t) {
    return t >= 0 && !s.nets.rail(s.nets.of(t)) && (onLead(s, m, t) || steering.contains(s.nets.of(t)));
  };
  const auto look = [&](int d, const std::vector<parts::Node>& ends) {
    if (std::ranges::any_of(ends, [&](const auto& n) { return here(at(s.bench, d, n)); })) add(subjects, idOf(s.bench, d));
  };
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) { look(d, {t.drain, t.gate, t.source}); });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) { look(d, {t.collector, t.base, t.emitter}); });
  eachElement<parts::Phototransistor>(s.bench, [&](int d, int, const parts::Phototransistor& t) {
    const auto& elements = s.bench.devices[d].part->elements;
    look(d, {t.collector, t.emitter, parts::outside(elements, t.anode), parts::outside(elements, t.cathode)});
  });
  eachElement<parts::Switch>(s.bench, [&](int d, int, const parts::Switch& t) {  // of logic
    if (s.bench.devices[d].part->channels.empty()) look(d, {t.a, t.b});
  });
  for (const auto& d : looseDiodes(s))
    if (here(d.anode) || here(d.cathode)) add(subjects, idOf(s.bench, d.device));
  if (m.intent)
    for (const auto& sig : m.intent->signals)
      if (const auto t = s.bench.terminal(sig.pin); t >= 0) subjects.push_back(s.bench.address(t));
}

// How many coils of a stepper carry current.
int energised(const SolvedBench& s, const OperatingPoint& p, const Motor& m) {
  int n = 0;
  for (std::size_t i = 0; i < m.windings.size(); ++i) {
    const auto& w = bench::windingOf(s.bench, m, i);
    const double rated = bench::valueOf(parts::ratedCurrent(w), bench::kRunningCurrent);
    n += std::abs(p.element(m.device, m.windings[i]).value) > kEnergised * rated;
  }
  return n;
}

int wanted(const Motor& m, Action action, int step) {
  if (action == Action::Step && m.kind == MotorKind::UnipolarStepper) return static_cast<int>(bench::stepOutputs(m, step).size());
  return action == Action::Hold || action == Action::Step ? static_cast<int>(m.windings.size()) : 0;
}

// A trip that nobody set forces no current in the model; that is current-limit-setting's matter, not the wires'.
bool unsetLimit(const SolvedBench& s, const Motor& m) {
  return std::ranges::any_of(m.reached, [&](ChannelRef r) {
    const auto* c = bench::chopperOf(s.bench, r);
    return c && !parts::tripCurrent(*c);
  });
}

void outcomes(const SolvedBench& s, Findings& out) {
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    // Relays turn it round whose coils are stated: as good as its own.
    const bool planned = hasSignals(m) || (!m.poles.empty() && bench::stated(s.motors, static_cast<int>(k)));
    if (m.kind == MotorKind::Servo || (m.meant.device < 0 && m.reached.empty() && !planned)) continue;
    // A relay's coil does what the motor on its contact was stated: that one is held against it.
    if (!planned && bench::stated(s.motors, static_cast<int>(k)) && m.coil < 0) continue;
    // Which of several switches is meant for what only the intent says.
    const bool contacts =
        m.reached.size() > 1 && std::ranges::all_of(m.reached, [&](ChannelRef r) { return bench::isContact(s.bench, r); });
    const bool several = contacts || m.kind == MotorKind::UnipolarStepper || bench::bridgePins(s.bench, s.nets, m).size() > 1;
    if (!planned && several) continue;
    // What is stated to be always on and is not is said by switched-otherwise.
    const bool always = bench::steeringOf(s.bench, s.nets, m) == bench::Steering::AlwaysOn;
    bool known = true;
    for (std::size_t i = 0; i < m.windings.size(); ++i) known = known && bench::windingOf(s.bench, m, i).resistance.known();
    if (!known || hangsOnUnknown(s, m)) continue;  // not-solved
    const bool unset = unsetLimit(s, m);
    std::vector<std::string> wrong;
    for (const auto& p : s.points) {
      const auto& c = p->command();
      const bool mine = c.motor == static_cast<int>(k) || c.action == Action::AllOff;
      if (!p->solved() || !mine || c.action == Action::Combination || c.action == Action::EndStop || c.moment != Moment::Running ||
          (always && c.action == Action::AllOff) || p->corner() != Corner::Nominal)
        continue;
      if (unset && c.action != Action::AllOff) continue;
      const auto d = asIntended(s, m, p->doing(static_cast<int>(k)));
      if (d == Doing::Undecided) continue;  // input-floating
      if (c.action == Action::Brake && d == Doing::Coast && tooWeakToBrake(s, m, *p)) continue;
      const int coils = energised(s, *p, m);
      const int need = wanted(m, c.action, c.variant);
      if (!asPlanned(s, m, c.action, d)) {
        wrong.push_back(fmt::format("{}: {} {}", c.action == Action::AllOff ? "all off" : c.title, called(s, m), word(d)));
      } else if (need > 0 && coils != need) {
        wrong.push_back(fmt::format("{}: {} of {} coils energised", c.title, coils, need));
      }
    }
    const bool bothWays = m.kind == MotorKind::TwoLead && planned && m.intent->bothDirections;
    if (bothWays && m.meant.device >= 0 && std::ranges::count(bench::actionsOf(s.bench, m), Action::Reverse) == 0)
      wrong.push_back(fmt::format("{} reverse: {} can turn it one way only", called(s, m), bench::called(s.bench, m.meant)));
    if (wrong.empty()) continue;
    auto f = finding(Severity::Stop, fmt::format("{} does not do what is planned", called(s, m)),
                     fmt::format("Through these wires, {}", wrong.front()), {idOf(s.bench, m.device)});
    f.ways = {{fmt::format("Hold both leads of {} and every signal of its stage against the plan; what is planned stands in its fields.",
                           called(s, m)),
               fieldOf(s, m, "directions")}};
    if (onLooseParts(s, m) || throughTransistors(s, m)) addLooseParts(s, m, f.subjects);
    for (const auto& id : connectorsOf(s, m)) add(f.subjects, id);
    if (m.meant.device >= 0 && bench::isContact(s.bench, m.meant)) add(f.subjects, idOf(s.bench, m.meant.device));
    for (const auto& ref : m.reached)
      if (bench::isContact(s.bench, ref)) add(f.subjects, idOf(s.bench, ref.device));
    f.text += wrong.size() > 1 ? fmt::format("; and {} more command{} come{} out wrong.", wrong.size() - 1, wrong.size() > 2 ? "s" : "",
                                             wrong.size() > 2 ? "" : "s")
                               : ".";
    for (std::size_t i = 0; i < wrong.size(); ++i) f.formula += (i == 0 ? "" : "; ") + wrong[i];
    out.push_back(std::move(f));
  }
}

// The input a signal of the intent is meant for; -1 when the intent names no stage.
TerminalIndex meantInput(const SolvedBench& s, const Motor& m, const harness::Signal& signal) {
  if (m.kind == MotorKind::Servo) {
    for (const auto& t : s.bench.devices[m.device].part->terminals)
      if (t.input) return s.bench.terminal(m.device, t.id);
    return -1;
  }
  return bench::inputOf(s.bench, m.coil >= 0 ? s.motors[m.coil] : m, signal.role);
}

struct Astray {
  const harness::Signal* signal;
  TerminalIndex pin, input;
  std::vector<TerminalIndex> reached;
  bool gets(TerminalIndex t) const { return std::ranges::count(reached, t) > 0; }
};

Finding crossed(const SolvedBench& s, const Motor& m, const Astray& a, const Astray& b) {
  auto f =
      finding(Severity::Stop,
              fmt::format("{} and {} are crossed", s.bench.called(a.input),
                          s.bench.deviceOf(a.input) == s.bench.deviceOf(b.input) ? s.bench.facts(b.input).label : s.bench.called(b.input)),
              fmt::format("The program drives {} of {} from {} and {} from {}; the wires have them the other way round.", a.signal->role,
                          called(s, m), s.bench.called(a.pin), b.signal->role, s.bench.called(b.pin)),
              {s.bench.address(a.input), s.bench.address(b.input)});
  f.ways = {{fmt::format("Or tell the program: {} at {}, {} at {}.", a.signal->role, s.bench.called(b.pin), b.signal->role,
                         s.bench.called(a.pin)),
             fieldOf(s, m, "signal " + a.signal->role)}};
  f.formula = fmt::format("{} planned at {}, {} at {}", s.bench.facts(a.pin).label, s.bench.facts(a.input).label,
                          s.bench.facts(b.pin).label, s.bench.facts(b.input).label);
  // Where a terminal holds more than its signal (a pull-down), only the other end can be exchanged without moving that too;
  // where it goes on to a further input, neither end is the whole of it.
  const auto alone = [&](TerminalIndex t) { return connectionsAt(s.bench, t) == 1; };
  const auto goesOn = [&](TerminalIndex t) {
    return std::ranges::any_of(s.nets.members(s.nets.of(t)), [&](TerminalIndex u) { return u != t && s.bench.facts(u).input; });
  };
  const bool atInputs = alone(a.input) && alone(b.input);
  const auto x = atInputs ? a.input : a.pin;
  const auto y = atInputs ? b.input : b.pin;
  if (atInputs || (alone(x) && alone(y) && !goesOn(a.input) && !goesOn(b.input)))
    f.repair = RepairDraft(s.bench).exchange(x, y).repair(
        fmt::format("Exchange the wires at {} and {}, or the two pins in the program.", found(s.bench, x), found(s.bench, y)));
  return f;
}

// Something between pin and input of which nothing is known.
Finding unclear(const SolvedBench& s, const Motor& m, const Astray& a) {
  auto f =
      finding(Severity::NotJudged, fmt::format("What {} does to {} is not known", s.bench.called(a.pin), s.bench.called(a.input)),
              fmt::format("The program drives {} of {} from {}; between that pin and {} lies something whose output does not follow from "
                          "its input alone, or is not known.",
                          a.signal->role, called(s, m), s.bench.called(a.pin), s.bench.called(a.input)),
              {s.bench.address(a.input), s.bench.address(a.pin)});
  f.ways = {{fmt::format("Drive {} straight from {}, or measure its level with {} written high and low.", s.bench.called(a.input),
                         s.bench.called(a.pin), s.bench.facts(a.pin).label)}};
  f.formula = "not followed";
  return f;
}

Finding lost(const SolvedBench& s, const Motor& m, const Astray& a) {
  std::string goes;
  for (const auto t : a.reached)
    if (goes.empty() && s.bench.deviceOf(t) != s.bench.deviceOf(a.pin) && (s.bench.facts(t).input || s.bench.facts(t).supply))
      goes = s.bench.called(t);
  auto f =
      finding(Severity::Stop, fmt::format("{} does not reach {}", s.bench.called(a.pin), s.bench.called(a.input)),
              fmt::format("The program drives {} of {} from {}, but that pin is {}.", a.signal->role, called(s, m), s.bench.called(a.pin),
                          goes.empty() ? fmt::format("not wired to {}", s.bench.called(a.input))
                                       : fmt::format("wired to {}, not to {}", goes, s.bench.called(a.input))),
              {s.bench.address(a.input), s.bench.address(a.pin)});
  f.ways = {
      RepairDraft(s.bench).wire(a.pin, a.input, "YE").way(fmt::format("Wire {} to {}.", s.bench.called(a.pin), s.bench.called(a.input))),
      {fmt::format("Or change what is stated of {} where the program uses another pin.", a.signal->role),
       fieldOf(s, m, "signal " + a.signal->role)}};
  f.formula = fmt::format("{} planned at {}", s.bench.called(a.pin), s.bench.called(a.input));
  // Only where both ends are free is there one clear thing to do.
  if (!s.bench.connected(a.pin) && !s.bench.connected(a.input))
    f.repair = RepairDraft(s.bench)
                   .wire(a.pin, a.input, "YE")
                   .repair(fmt::format("Add a yellow wire from {} to {}.", found(s.bench, a.pin), found(s.bench, a.input)));
  // The wire sits on another pin that nothing else is said of.
  const auto other = drivenBy(s, a.input);
  const bool spare = other >= 0 && std::ranges::none_of(s.bench.intents, [&](const harness::Intent& i) {
                       return std::ranges::any_of(i.signals, [&](const harness::Signal& x) { return s.bench.terminal(x.pin) == other; });
                     });
  const auto& planned = s.bench.facts(a.pin).pin;
  if (!f.repair && spare && !s.bench.connected(a.pin) && planned && planned->output && planned->reserved.empty())
    f.repair =
        RepairDraft(s.bench)
            .exchange(other, a.pin)
            .repair(fmt::format("Move what is on {} to {}, or tell the program of it.", found(s.bench, other), found(s.bench, a.pin)));
  return f;
}

// Verifying the map: does each signal's pin get to the input it is meant for?
void signalsReach(const SolvedBench& s, Findings& out) {
  for (const auto& m : s.motors) {
    if (!m.intent) continue;
    std::vector<Astray> astray;
    for (const auto& signal : m.intent->signals) {
      const auto pin = s.bench.terminal(signal.pin);
      const auto input = meantInput(s, m, signal);
      if (pin < 0 || input < 0 || input == pin) continue;  // pin-cannot-drive speaks of pins that are not there
      Astray a{&signal, pin, input, signalReach(s, pin)};
      // Isolated inputs may as well be pulled down at their minus.
      const auto other = otherOfOpto(s, input);
      const auto arrives = [&](TerminalIndex t) {
        return t >= 0 && (a.gets(t) || bench::pathBetween(s.bench, s.nets, pin, t) != bench::Path::None);
      };
      if (arrives(input) || arrives(other)) {
        if (!a.gets(input) && bench::pathBetween(s.bench, s.nets, pin, input) == bench::Path::Unclear) out.push_back(unclear(s, m, a));
      } else {
        astray.push_back(std::move(a));
      }
    }
    std::vector<bool> told(astray.size(), false);
    for (std::size_t i = 0; i < astray.size(); ++i) {
      for (std::size_t k = i + 1; k < astray.size() && !told[i]; ++k) {
        if (told[k] || !astray[i].gets(astray[k].input) || !astray[k].gets(astray[i].input)) continue;
        out.push_back(crossed(s, m, astray[i], astray[k]));
        told[i] = told[k] = true;
      }
      if (!told[i]) out.push_back(lost(s, m, astray[i]));
    }
  }
}

}  // namespace

// The intent against the wires: every command of every motor, and every signal of the intent.
Findings judge(const SolvedBench& s) {
  Findings out;
  signalsReach(s, out);
  outcomes(s, out);
  return out;
}

Check check() {
  return {"command-outcome", "commands", "A command comes out wrong", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::command_outcome
