#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/bench/sensed_pins.h"
#include "core/bench/signal_nets.h"
#include "core/checks/check.h"
#include "core/checks/levels/pin_pulls.h"
#include "core/checks/program/on_bench.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::sensor_level {
namespace {

constexpr double kHigh = 0.7, kLow = 0.3;   // shares of a pin's supply that CMOS inputs promise to read as high and as low
constexpr double kWay = 0.5, kNoWay = 0.1;  // shares of it that a slider's way should make, and makes nothing below
constexpr Volts kLeastRail{1};
constexpr Ohms kFloating{1e6};

enum class Reads { Low, High, Between, Nothing };

// A sensor's contact and a pin that reads it: what stands there at rest and with the contact the other way.
struct Sensed {
  int device;
  std::string_view active;  // "pressed"
  TerminalIndex end, pin;
  PinGroup group;
  const OperatingPoint *restPoint, *movedPoint;
  Reads rest, moved;
};

Reads readingAt(const OperatingPoint& p, TerminalIndex pin, const PinGroup& group) {
  const auto ohms = p.resistance(pin, group.ground);
  const auto volts = p.across(pin, group.ground);
  const auto rail = p.across(group.rail, group.ground);
  if (!volts || !rail || !ohms || *ohms > kFloating) return Reads::Nothing;
  if (*volts >= *rail * kHigh) return Reads::High;
  return *volts <= *rail * kLow ? Reads::Low : Reads::Between;
}

// The ends of a slider's way are no levels.
bool judged(const parts::Contact& c) {
  return c.moved == parts::Moved::Pressed || c.moved == parts::Moved::Senses;
}

// Pins that a program sets are outputs: whatever is pressed there, pin-current speaks of it.
bool driven(const SolvedBench& s, TerminalIndex pin) {
  return std::ranges::any_of(s.bench.intents, [&](const harness::Intent& i) {
    return std::ranges::any_of(i.signals, [&](const harness::Signal& x) { return s.bench.terminal(x.pin) == pin; });
  });
}

const OperatingPoint* atRest(const SolvedBench& s) {
  const auto* running = s.point(Action::AllRunning, Corner::Nominal);
  if (running) return running;
  return s.motors.empty() ? s.point(Action::AllOff, Corner::Nominal) : s.running(0, Corner::Nominal);
}

// The point at which everything that the device senses with is the other way.
const OperatingPoint* pressed(const SolvedBench& s, int device) {
  for (const auto& p : s.points)
    if (p->solved() && p->corner() == Corner::Nominal && p->command().action == Action::Pressed && !p->command().moved.empty() &&
        p->command().moved.front().first == device)
      return p.get();
  return nullptr;
}

std::vector<Sensed> sensed(const SolvedBench& s) {
  std::vector<Sensed> out;
  std::set<std::pair<int, TerminalIndex>> known;
  const auto* rest = atRest(s);
  for (const auto& x : bench::sensedPins(s)) {
    if (x.element < 0) continue;
    const auto& c = std::get<parts::Contact>(s.bench.devices[x.device].part->elements[x.element].body);
    const auto* moved = pressed(s, x.device);
    if (!judged(c) || !rest || !moved || driven(s, x.pin) || !known.emplace(x.device, x.pin).second) continue;
    const auto group = *pinGroup(s.bench, x.pin);
    if (rest->across(group.rail, group.ground).value_or(Volts{0}) < kLeastRail) continue;
    out.push_back({x.device, c.moved == parts::Moved::Senses ? "active" : "pressed", x.end, x.pin, group, rest, moved,
                   readingAt(*rest, x.pin, group), readingAt(*moved, x.pin, group)});
  }
  return out;
}

std::string_view word(Reads r) {
  return r == Reads::High ? "high" : r == Reads::Low ? "low" : r == Reads::Nothing ? "open" : "between high and low";
}

// 10 kohm from the pin to the level that the contact does not give.
RepairDraft pullFor(const SolvedBench& s, const Sensed& x, bool up) {
  const auto rail = up ? x.group.rail : x.group.ground;
  RepairDraft draft(s.bench);
  const auto r = draft.device("resistor-10k", "r", s.bench.devices[x.device].doc.group);
  draft.wire({r, "A"}, s.bench.place(x.end), "YE").wire({r, "B"}, s.bench.place(rail), up ? "RD" : "BK");
  return draft;
}
void fitPull(const SolvedBench& s, const Sensed& x, bool up, Finding& f) {
  const auto rail = up ? x.group.rail : x.group.ground;
  f.repair = pullFor(s, x, up).repair(fmt::format("Fit 10 kΩ from {} to {}.", s.bench.called(x.end), found(s.bench, rail)));
}

// Open in one position, and nothing is said of the pin's own pull.
Finding floats(const SolvedBench& s, const Sensed& x) {
  const bool atRest = x.rest == Reads::Nothing;
  const auto other = atRest ? x.moved : x.rest;
  const bool up = other != Reads::High;
  const auto pulls = pullsOf(s.bench, x.pin);
  const char* way = up ? "up" : "down";
  const auto said = settingAt(s.bench, x.device, "pull");
  const bool none = said == "none" || (!pulls.empty() && !canPull(pulls, way));
  const auto& pin = s.bench.called(x.pin);
  const auto& name = called(s.bench, x.device);
  auto f = finding(none ? Severity::Stop : Severity::Caution,
                   fmt::format("Nothing holds {} while {} is {}", pin, name, atRest ? "at rest" : x.active),
                   fmt::format("{} {} {} is open{}: it reads whatever the air says, and {} the moment {} is {}.",
                               atRest ? "Until" : "While", name, fmt::format("is {} {}", x.active, pin),
                               said == "none"    ? ""
                               : pulls == "none" ? ", and this pin has no pull of its own"
                               : none            ? fmt::format(", and this pin has no pull-{} of its own", way)
                                                 : fmt::format(" unless the program switches on its own pull-{}", way),
                               word(other), name, atRest ? std::string(x.active) : fmt::format("no longer {}", x.active)),
                   {s.bench.address(x.end), s.bench.address(x.pin)});
  if (none)
    f.ways = {pullFor(s, x, up).way(
        fmt::format("Fit 10 kΩ from {} to {}.", s.bench.called(x.end), s.bench.called(up ? x.group.rail : x.group.ground)))};
  else
    f.ways = {{fmt::format("Say so of {}, if the program switches on that pull-{} of {}.", name, way, pin),
               settingOf(s.bench, x.device, "pull")}};
  f.formula = fmt::format("more than {} from {} to anything that could hold it", show(kFloating), pin);
  fitPull(s, x, up, f);
  return f;
}

Finding between(const SolvedBench& s, const Sensed& x) {
  const bool atRest = x.rest == Reads::Between;
  const auto* p = atRest ? x.restPoint : x.movedPoint;
  const auto volts = p->across(x.pin, x.group.ground).value_or(Volts{0});
  const auto rail = p->across(x.group.rail, x.group.ground).value_or(Volts{0});
  const auto& pin = s.bench.called(x.pin);
  auto f =
      finding(Severity::Caution, fmt::format("{} gets {} from {}", pin, show(volts), called(s.bench, x.device)),
              fmt::format("With {} {} {} stands at {}: on {} it promises to read low up to {} and high from {}.", called(s.bench, x.device),
                          atRest ? "at rest" : x.active, pin, show(volts), show(rail), show(rail * kLow), show(rail * kHigh)),
              {s.bench.address(x.end), s.bench.address(x.pin)});
  f.ways = {{fmt::format("Feed {} from the supply that {} works on, or change the resistors between.", called(s.bench, x.device),
                         called(s.bench, x.group.device))}};
  f.formula = fmt::format("{} x {} < {} < {} x {}", kLow, show(rail), show(volts), kHigh, show(rail));
  f.args = {{"voltage", volts}, {"rail", rail}};
  return f;
}

Finding unchanged(const SolvedBench& s, const Sensed& x, Reads reads) {
  const auto& pin = s.bench.called(x.pin);
  const auto& name = called(s.bench, x.device);
  auto f = finding(Severity::Stop, fmt::format("{} changes nothing at {}", name, pin),
                   fmt::format("{} reads {} whether {} is {} or not.", pin, word(reads), name, x.active),
                   {s.bench.address(x.end), s.bench.address(x.pin), idOf(s.bench, x.device)});
  // What its signal goes through on the way may be what stands still.
  const auto way = bench::signalNets(s.bench, s.nets, x.end, bench::Along::Transistors);
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    const bool carries = std::ranges::any_of(device.part->elements, [](const parts::Element& e) {
      return std::holds_alternative<parts::Phototransistor>(e.body) || std::holds_alternative<parts::Mosfet>(e.body) ||
             std::holds_alternative<parts::Bipolar>(e.body) || std::holds_alternative<parts::Switch>(e.body);
    });
    for (std::size_t t = 0; carries && device.part->channels.empty() && t < device.part->terminals.size(); ++t)
      if (way.contains(s.nets.of(device.first + static_cast<int>(t))) && std::ranges::count(f.subjects, device.doc.id) == 0)
        f.subjects.push_back(device.doc.id);
  }
  f.ways = {{fmt::format("One end of its contact goes to {}, the other to the level that nothing else holds {} at.", pin, pin)}};
  f.formula = fmt::format("{} at rest, {} {}", word(reads), word(reads), x.active);
  return f;
}

// An end of a contact that is pressed, or joined to one inside the part.
bool ofContact(const parts::Part& part, const bench::Nets& fixed, const Bench& bench, int device, TerminalIndex t) {
  return std::ranges::any_of(part.elements, [&](const parts::Element& e) {
    const auto* c = std::get_if<parts::Contact>(&e.body);
    const auto end = [&](const parts::Node& n) { return fixed.same(at(bench, device, n), t); };
    return c && judged(*c) && !bench.facts(t).supply && !bench.facts(t).ground && (end(c->a) || end(c->b));
  });
}

// One end of its contact goes nowhere.
Finding halfWired(const SolvedBench& s, int d, const std::vector<std::string>& ends) {
  const auto& name = called(s.bench, d);
  auto f = finding(Severity::Stop, fmt::format("One end of {} goes nowhere", name),
                   fmt::format("{} is wired at one end of its contact only: nothing changes when it is moved.", name), ends);
  f.subjects.push_back(idOf(s.bench, d));
  f.ways = {{fmt::format("Wire the other end of the contact of {} to the level that it is to give.", name)}};
  f.formula = "an open end";
  return f;
}

// Wired along one side: the way between two terminals that are always joined, past its contact.
void bypassed(const SolvedBench& s, Findings& out) {
  const bench::Nets fixed(s.bench, false);
  std::set<int> wiredRight, seen;
  const auto elsewhere = [&](int d, TerminalIndex t) {
    return t >= 0 && std::ranges::any_of(fixed.members(fixed.of(t)), [&](TerminalIndex o) { return s.bench.deviceOf(o) != d; });
  };
  eachElement<parts::Contact>(s.bench, [&](int d, int, const parts::Contact& c) {
    const auto& terminals = s.bench.devices[d].part->terminals;
    if (!judged(c) || std::ranges::any_of(terminals, [](const parts::Terminal& t) { return t.supply.has_value(); })) return;
    seen.insert(d);
    if (elsewhere(d, at(s.bench, d, c.a)) && elsewhere(d, at(s.bench, d, c.b))) wiredRight.insert(d);
  });
  for (const int d : seen) {
    const auto& device = s.bench.devices[d];
    std::map<int, std::vector<std::string>> wired;  // by net, once for each wire
    for (std::size_t t = 0; t < device.part->terminals.size(); ++t) {
      const auto here = device.first + static_cast<int>(t);
      if (s.bench.connected(here) && ofContact(*device.part, fixed, s.bench, d, here))
        wired[fixed.of(here)].insert(wired[fixed.of(here)].end(), static_cast<std::size_t>(s.bench.linksAt(here)), s.bench.address(here));
    }
    const auto past = std::ranges::find_if(wired, [](const auto& net) { return net.second.size() > 1; });
    if (wiredRight.contains(d)) continue;
    if (past == wired.end()) {
      if (!wired.empty()) out.push_back(halfWired(s, d, wired.begin()->second));
      continue;
    }
    auto ends = past->second;
    ends.erase(std::unique(ends.begin(), ends.end()), ends.end());
    const auto& name = called(s.bench, d);
    auto f = finding(Severity::Stop, fmt::format("{} is wired past its contact", name),
                     fmt::format("What is wired to {} is always joined: nothing changes when it is moved.", name), ends);
    f.subjects.push_back(idOf(s.bench, d));
    f.ways = {{fmt::format("Take two terminals of {} that its contact lies between: of four legs two that stand corner to corner.", name)}};
    f.formula = "one copper, pressed or not";
    out.push_back(std::move(f));
  }
}

// What a slider's whole way makes of the pin that its wiper is on.
void sliders(const SolvedBench& s, Findings& out) {
  std::set<std::pair<int, TerminalIndex>> told;
  for (const auto& x : bench::sensedPins(s)) {
    if (x.element < 0) continue;
    const auto& c = std::get<parts::Contact>(s.bench.devices[x.device].part->elements[x.element].body);
    const auto group = pinGroup(s.bench, x.pin);
    if (c.moved != parts::Moved::Slides || driven(s, x.pin) || told.contains({x.device, x.pin})) continue;
    double least = 1e9;
    double most = -1e9;
    for (const auto& p : s.points) {
      if (!p->solved() || p->corner() != Corner::Nominal || p->command().action != Action::Pressed) continue;
      if (p->command().moved.empty() || p->command().moved.front().first != x.device) continue;
      const auto rail = p->across(group->rail, group->ground).value_or(Volts{0});
      if (rail < kLeastRail) return;
      const double share = p->across(x.pin, group->ground).value_or(Volts{0}) / rail;
      least = std::min(least, share);
      most = std::max(most, share);
    }
    if (most < least || most - least >= kWay) continue;
    told.emplace(x.device, x.pin);
    const auto& name = called(s.bench, x.device);
    const auto& pin = s.bench.called(x.pin);
    auto f = finding(most - least < kNoWay ? Severity::Stop : Severity::Caution,
                     fmt::format("{} moves {} by {:.0f} %", name, pin, 100 * (most - least)),
                     fmt::format("From one end of its way to the other {} takes {} from {:.0f} % to {:.0f} % of its supply.", name, pin,
                                 100 * least, 100 * most),
                     {s.bench.address(x.end), s.bench.address(x.pin), idOf(s.bench, x.device)});
    f.ways = {{fmt::format("One end of {} to the supply of {}, the other to its ground, the wiper to the pin.", name,
                           called(s.bench, group->device))}};
    f.formula = fmt::format("{:.2f} - {:.2f} < {}", most, least, kWay);
    out.push_back(std::move(f));
  }
}

// Whether the program looks at the pin with no pull on, which program-read-floats says.
bool readWithout(const ProgramOnBench& program, const Sensed& x) {
  const auto* u = program.at(x.pin);
  return u && u->use->does.contains("read") && u->use->sure && !program.openAt(x.pin) && !u->use->does.contains("pull-up") &&
         !u->use->does.contains("pull-down");
}

// What it reads with that pull on.
Reads pulled(const SolvedBench& s, const Sensed& x, const std::string& said, Reads reads) {
  const bool on = (said == "up" || said == "down") && (pullsOf(s.bench, x.pin).empty() || canPull(pullsOf(s.bench, x.pin), said));
  return reads != Reads::Nothing || !on ? reads : said == "up" ? Reads::High : Reads::Low;
}

}  // namespace

// Whether a button, limit switch, reed or sensor gives a pin one level at rest and the other when it is moved.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  bypassed(s, out);
  sliders(s, out);
  for (const auto& x : sensed(s)) {
    const auto pull = pullSaid(program, x.pin, x.device);
    const auto rest = pulled(s, x, pull, x.rest);
    const auto moved = pulled(s, x, pull, x.moved);
    if (rest == Reads::Between || moved == Reads::Between)
      out.push_back(between(s, x));
    else if (rest == moved)
      out.push_back(unchanged(s, x, rest));
    else if ((rest == Reads::Nothing || moved == Reads::Nothing) && !readWithout(program, x))
      out.push_back(floats(s, x));
  }
  return out;
}

Check check() {
  return {"sensor-level", "levels", "What a button, switch or sensor makes of a pin", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::sensor_level
