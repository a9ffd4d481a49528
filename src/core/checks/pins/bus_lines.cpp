#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/bench/signal_nets.h"
#include "core/checks/check.h"
#include "core/checks/levels/reading.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/truth_table.h"

namespace bold::checks::bus_lines {
namespace {

constexpr Ohms kNoPull{200e3};  // a pin's own pull is a tenth of what a bus needs
constexpr Volts kClamps{0.2};   // above a pin's rail
constexpr Amps kSinks{3e-3};    // that everything on an I2C bus pulls low

// A line that a controller has to drive, of a device that is in use.
struct Line {
  TerminalIndex t;
  const std::string* bus;             // "sda", "clock", ...
  std::vector<TerminalIndex> pins{};  // of controllers, by copper and resistors
};

bool used(const SolvedBench& s, int device) {
  const auto here = [&](const Address& pin) {
    const auto t = s.bench.terminal(pin);
    return t >= 0 && s.bench.deviceOf(t) == device;
  };
  for (const auto* list : {&s.bench.intents, &s.bench.reads})
    for (const auto& i : *list)
      if (std::ranges::any_of(i.signals, [&](const harness::Signal& x) { return here(x.pin); })) return true;
  const auto& part = *s.bench.devices[device].part;
  return std::ranges::any_of(part.terminals,
                             [&](const parts::Terminal& t) { return !t.bus.empty() && s.bench.connected(s.bench.terminal(device, t.id)); });
}

std::vector<Line> lines(const SolvedBench& s) {
  std::vector<Line> out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& part = *s.bench.devices[d].part;
    for (std::size_t i = 0; i < part.terminals.size(); ++i) {
      if (part.terminals[i].bus.empty() || !used(s, static_cast<int>(d))) continue;
      Line line{s.bench.devices[d].first + static_cast<int>(i), &part.terminals[i].bus};
      const bool passesOn = *line.bus == "data";  // by the register before it, or by an output of its own that it turns over
      for (const int net : bench::signalNets(s.bench, s.nets, line.t, bench::Along::TransistorsBack))
        for (const auto t : s.nets.members(net))
          if (const auto group = pinGroup(s.bench, t); group && !group->pins->behind && (!group->pins->bus || passesOn))
            line.pins.push_back(t);
      out.push_back(std::move(line));
    }
  }
  return out;
}

bool i2c(const std::string& bus) {
  return bus == "sda" || bus == "scl";
}

// A pin of the same board that has this line, and on which nothing hangs yet; -1: none.
TerminalIndex freePin(const SolvedBench& s, const std::string& bus) {
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t)
    if (const auto& pin = s.bench.facts(t).pin; pin && pin->bus == bus && s.nets.members(s.nets.of(t)).size() < 3 && !s.bench.connected(t))
      return t;
  return -1;
}

Finding undriven(const SolvedBench& s, const Line& line) {
  const auto name = s.bench.called(line.t);
  auto f = finding(
      Severity::Stop, fmt::format("No pin drives {}", name),
      fmt::format("{} leads to no pin of a controller: what the program sends does not arrive, and the outputs of {} stay as they are.",
                  name, called(s.bench, s.bench.deviceOf(line.t))),
      {s.bench.address(line.t)});
  f.ways = {{i2c(*line.bus) ? fmt::format("Wire {} to the pin of the controller that has its {}.", name, *line.bus == "sda" ? "SDA" : "SCL")
                            : fmt::format("Wire {} to the pin that the program sends its {} by.", name, *line.bus)}};
  f.formula = "no controller pin by copper and resistors";
  if (const auto pin = i2c(*line.bus) && !s.bench.connected(line.t) ? freePin(s, *line.bus) : -1; pin >= 0)
    f.repair = RepairDraft(s.bench)
                   .wire(line.t, pin, "GN")
                   .repair(fmt::format("Add a green wire from {} to {}.", found(s.bench, line.t), found(s.bench, pin)));
  return f;
}

// On boards that have their bus at certain pins only.
bool fits(const SolvedBench& s, const Line& line, TerminalIndex pin) {
  const auto& part = *s.bench.devices[s.bench.deviceOf(pin)].part;
  const bool fixed = std::ranges::any_of(part.terminals, [](const parts::Terminal& t) { return t.pin && !t.pin->bus.empty(); });
  return !fixed || s.bench.facts(pin).pin->bus == *line.bus;
}

Finding elsewhere(const SolvedBench& s, const Line& line, const std::vector<Line>& all) {
  const auto pin = line.pins.front();
  const auto name = s.bench.called(line.t);
  const auto& has = s.bench.facts(pin).pin->bus;
  const char* line_ = *line.bus == "sda" ? "SDA" : "SCL";
  auto f = finding(Severity::Stop, fmt::format("{} is on {}", name, s.bench.called(pin)),
                   has.empty() ? fmt::format("{} is wired to {}, which is no {} of {}.", name, s.bench.called(pin), line_,
                                             called(s.bench, s.bench.deviceOf(pin)))
                               : fmt::format("{} is wired to {}, which is the {} of {}: the two lines are exchanged.", name,
                                             s.bench.called(pin), has == "sda" ? "SDA" : "SCL", called(s.bench, s.bench.deviceOf(pin))),
                   {s.bench.address(line.t), s.bench.address(pin)});
  f.ways = {{fmt::format("Wire {} to the {} of {}.", name, line_, called(s.bench, s.bench.deviceOf(pin)))}};
  f.formula = fmt::format("{} at {}", s.bench.facts(line.t).label, s.bench.facts(pin).label);
  const auto other = std::ranges::find_if(all, [&](const Line& o) {
    return s.bench.deviceOf(o.t) == s.bench.deviceOf(line.t) && o.t != line.t && i2c(*o.bus) && !o.pins.empty() &&
           !fits(s, o, o.pins.front());
  });
  if (other != all.end())
    f.repair = RepairDraft(s.bench)
                   .exchange(line.t, other->t)
                   .repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, line.t), found(s.bench, other->t)));
  else if (const auto free = freePin(s, *line.bus); free >= 0 && connectionsAt(s.bench, pin) == 1)
    f.repair = RepairDraft(s.bench).exchange(pin, free).repair(
        fmt::format("Move what is on {} to {}.", found(s.bench, pin), found(s.bench, free)));
  return f;
}

// What pulls the idle line up: too little of it, too much, or to too low a level.
void pulls(const SolvedBench& s, const Line& line, Findings& out) {
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  const auto ground = p ? s.bench.terminal(s.bench.deviceOf(line.t), s.bench.facts(line.t).input->ground) : -1;
  const auto ohms = p ? p->resistance(line.t, ground) : std::nullopt;
  const auto volts = p ? p->across(line.t, ground) : std::nullopt;
  const auto name = s.bench.called(line.t);
  if (!p) return;
  // Above a pin's rail its clamp is what is seen from the line; input-overvoltage speaks of that.
  const bool clamped = std::ranges::any_of(line.pins, [&](TerminalIndex pin) {
    const auto group = pinGroup(s.bench, pin);
    return p->across(pin, group->rail).value_or(Volts{0}) > kClamps;
  });
  if (clamped) return;
  const auto reading = readingAt(s, *p, line.t);
  if (!ohms || !volts || *ohms > kNoPull) {
    auto f = finding(
        Severity::Caution, fmt::format("Nothing pulls {} up", name),
        fmt::format(
            "{} is a bus line, which every part on it only pulls low: without a resistor to plus it never gets high, or by the pin's own "
            "pull-up only slowly.",
            name),
        {s.bench.address(line.t)});
    f.ways = {{fmt::format("Fit 4.7 kΩ from {} to the supply that the weakest part on the bus works on.", name)}};
    f.formula = fmt::format("more than {} to any rail", show(kNoPull));
    out.push_back(std::move(f));
    return;
  }
  if (reading && *volts < reading->high && volts->value > 0.5) {
    auto f = finding(reading->volts < Volts{(reading->low + reading->high).value / 2} ? Severity::Stop : Severity::Caution,
                     fmt::format("{} idles at {}", name, show(*volts)),
                     fmt::format("{} is pulled up to {}; high is promised from {}.", name, show(*volts), show(reading->high)),
                     {s.bench.address(line.t)});
    f.ways = {{fmt::format("Feed {} from the supply that the bus is pulled up to, or put a level shifter between.",
                           called(s.bench, s.bench.deviceOf(line.t)))}};
    f.formula = fmt::format("{} < {} = {}", show(*volts), reading->highLevels(), show(reading->high));
    f.args = {{"voltage", *volts}, {"high", reading->high}};
    out.push_back(std::move(f));
  }
  const Ohms least{volts->value / kSinks.value};
  if (*ohms < least) {
    auto f = finding(Severity::Caution, fmt::format("{} is pulled up by {}", name, show(*ohms)),
                     fmt::format("All pull-ups on {} together make {}: a part that pulls low takes {}, and {} is what each has to stand.",
                                 name, show(*ohms), show(Amps{volts->value / ohms->value}), show(kSinks)),
                     {s.bench.address(line.t)});
    f.ways = {{"Take pull-up resistors off some of the boards on the bus."}};
    f.formula = fmt::format("{} / {} > {}", show(*volts), show(*ohms), show(kSinks));
    out.push_back(std::move(f));
  }
}

// An input that keeps the outputs from driving while a motor should run by them.
void disabled(const SolvedBench& s, Findings& out) {
  std::set<TerminalIndex> told;
  for (const auto& m : s.motors) {
    const auto* p = s.running(indexOf(s, m), Corner::Nominal);
    if (!p || !m.intent) continue;
    for (const auto& signal : m.intent->signals) {
      const auto pin = s.bench.terminal(signal.pin);
      if (pin < 0 || !pinGroup(s.bench, pin) || !pinGroup(s.bench, pin)->pins->bus) continue;
      const int d = s.bench.deviceOf(pin);
      for (const auto& facts : s.bench.devices[d].part->terminals) {
        const auto wanted = parts::enablingLevel(*s.bench.devices[d].part, facts.id);
        const auto t = s.bench.terminal(d, facts.id);
        if (!wanted || p->level(t) != !*wanted || !told.insert(t).second) continue;
        const auto* needs = *wanted == parts::Level::High ? "high" : "low";
        auto f = finding(Severity::Stop, fmt::format("{} keeps {} still", s.bench.called(t), called(s.bench, d)),
                         fmt::format("The outputs of {} drive only while {} is {}: {} cannot run.", called(s.bench, d), s.bench.called(t),
                                     needs, called(s, m)),
                         {s.bench.address(t), idOf(s.bench, m.device)});
        f.ways = {{fmt::format("Tie {} {}, or drive it by a pin.", s.bench.called(t), needs)}};
        f.formula = fmt::format("{} = {}", facts.label, *wanted == parts::Level::High ? "low" : "high");
        out.push_back(std::move(f));
      }
    }
  }
}

// Two parts on one bus that answer to one address.
void addresses(const SolvedBench& s, const std::vector<Line>& all, Findings& out) {
  std::set<std::pair<int, int>> told;
  const auto address = [&](int d) {
    const auto& settings = s.bench.devices[d].settings;
    const auto it = settings.find("address");
    return it == settings.end() ? std::string() : it->second;
  };
  for (const auto& x : all)
    for (const auto& y : all) {
      const int a = s.bench.deviceOf(x.t);
      const int b = s.bench.deviceOf(y.t);
      if (a >= b || *x.bus != "sda" || *y.bus != "sda" || !s.nets.same(x.t, y.t) || address(a).empty() || address(a) != address(b))
        continue;
      auto f = finding(Severity::Stop, fmt::format("{} and {} have one address", called(s.bench, a), called(s.bench, b)),
                       fmt::format("{} and {} are on one bus and both answer to {}: both do what is meant for one.", called(s.bench, a),
                                   called(s.bench, b), address(a)),
                       {idOf(s.bench, a), idOf(s.bench, b)});
      f.ways = {{fmt::format("Set another address on {}, by its jumpers or solder links, and say so.", called(s.bench, b)),
                 settingOf(s.bench, b, "address")}};
      f.formula = fmt::format("{} = {}", address(a), address(b));
      out.push_back(std::move(f));
    }
}

}  // namespace

// What a program reaches a register, an expander or a bus by: pins that have the line, pull-ups, levels, addresses.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto all = lines(s);
  for (const auto& line : all) {
    if (line.pins.empty()) {
      out.push_back(undriven(s, line));
      continue;
    }
    if (!i2c(*line.bus)) continue;
    if (!fits(s, line, line.pins.front()))
      out.push_back(elsewhere(s, line, all));
    else
      pulls(s, line, out);
  }
  disabled(s, out);
  addresses(s, all, out);
  return out;
}

Check check() {
  return {"bus-lines", "pins", "The lines of a register, expander or bus", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::bus_lines
