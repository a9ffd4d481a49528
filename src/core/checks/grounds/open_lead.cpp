#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

#include "core/base/groups.h"
#include "core/bench/coils.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/read_element.h"
#include "core/parts/roles.h"

namespace bold::checks::open_lead {
namespace {

std::string list(const std::vector<std::string>& names) {
  std::string out;
  for (std::size_t i = 0; i < names.size(); ++i) out += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
  return out;
}

// One open lead of a two-lead motor and one open output of the channel it is meant for: there is only one way.
std::optional<Repair> onlyWay(const SolvedBench& s, int device) {
  for (const auto& m : s.motors) {
    if (m.device != device || m.windings.size() != 1 || m.meant.device < 0) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    std::vector<TerminalIndex> leads;
    for (const auto& lead : {w.a, w.b})
      if (const auto t = s.bench.terminal(device, lead); !s.bench.connected(t)) leads.push_back(t);
    std::vector<TerminalIndex> outs;
    for (const auto& o : bench::channelOf(s.bench, m.meant).out)
      if (const auto t = s.bench.terminal(m.meant.device, o); !s.bench.connected(t)) outs.push_back(t);
    if (leads.size() != 1 || outs.size() != 1) return std::nullopt;
    return RepairDraft(s.bench)
        .wire(outs.front(), leads.front(), "BU")
        .repair(fmt::format("Add a blue wire from {} to {}.", found(s.bench, outs.front()), found(s.bench, leads.front())));
  }
  return std::nullopt;
}

// Legs of loose parts, and ways of blocks, fuses and rows that only one thing is wired to.
void deadEnds(const SolvedBench& s, int d, Findings& out) {
  const auto& device = s.bench.devices[d];
  const auto& part = *device.part;
  const auto say = [&](TerminalIndex t, const std::string& headline, const std::string& text) {
    auto f = finding(Severity::Caution, headline, text, {s.bench.address(t)});
    f.ways = {{fmt::format("Join {} to what it is meant for, or take it off the bench.", s.bench.called(t))}};
    f.formula = "nothing else is joined to it";
    out.push_back(std::move(f));
  };
  // What is copper from end to end: joints, fuses, closed contacts. Each way of it has to have two ends.
  const bool conductor = !part.elements.empty() && std::ranges::all_of(part.elements, [](const parts::Element& e) {
    const auto* r = std::get_if<parts::Resistor>(&e.body);
    return std::holds_alternative<parts::Joint>(e.body) || std::holds_alternative<parts::Contact>(e.body) || (r && r->conductor);
  });
  if (conductor) {
    Groups ways(part.terminals.size());
    for (const auto& e : part.elements) {
      const auto nodes = parts::nodesOf(e);
      for (const auto& n : nodes) ways.join(part.indexOf(nodes.front()), part.indexOf(n));
    }
    std::map<int, std::vector<TerminalIndex>> used;
    std::map<int, int> ends;
    for (std::size_t i = 0; i < part.terminals.size(); ++i) {
      const auto t = device.first + static_cast<int>(i);
      if (!s.bench.connected(t)) continue;
      used[ways.find(static_cast<int>(i))].push_back(t);
      ends[ways.find(static_cast<int>(i))] += s.bench.linksAt(t);
    }
    for (const auto& [way, terminals] : used)
      if (ends[way] == 1 && !sourceAt(s, terminals.front(), true) && !sourceAt(s, terminals.front(), false))  // rail-dead
        say(terminals.front(), fmt::format("{} leads nowhere", s.bench.called(terminals.front())),
            fmt::format("Only one thing is wired to {}; nothing goes on from there.", s.bench.called(terminals.front())));
    return;
  }
  const bool loose = part.terminals.size() <= 3 && part.channels.size() <= 1 && !parts::isMotor(part) && !parts::isSource(part) &&
                     std::ranges::none_of(part.terminals, [](const parts::Terminal& t) { return t.supply || t.input || t.pin; });
  if (!loose || part.elements.empty()) return;
  bool any = false;
  for (std::size_t i = 0; i < part.terminals.size(); ++i) any = any || s.bench.connected(device.first + static_cast<int>(i));
  if (!any) {
    auto f = finding(Severity::Note, fmt::format("{} is not wired", device.called()),
                     fmt::format("{} is on the bench, and nothing is connected to it.", device.called()), {device.doc.id});
    f.ways = {{fmt::format("Wire {}, or take it off the bench.", device.called())}};
    f.formula = "no leg wired";
    out.push_back(std::move(f));
    return;
  }
  for (std::size_t i = 0; i < part.terminals.size(); ++i) {
    const auto t = device.first + static_cast<int>(i);
    if (s.bench.connected(t) || part.terminals[i].optional) continue;
    say(t, fmt::format("{} is not wired", s.bench.called(t)),
        fmt::format("{} of {} is on the bench and not wired: without it the part does nothing.", part.terminals[i].label, device.called()));
  }
}

// Two boards that are stacked by one header and leave another pair of the same headers apart.
void halfStacked(const SolvedBench& s, Findings& out) {
  std::set<std::pair<int, int>> stacked;
  std::set<std::tuple<int, int, std::string>> joined;
  const auto connector = [&](TerminalIndex t) { return s.bench.facts(t).place.connector; };
  for (const auto& l : s.bench.links) {
    const auto& c = s.bench.connections[l.connection];
    const int a = s.bench.deviceOf(l.a);
    const int b = s.bench.deviceOf(l.b);
    if (c.kind != harness::ConnectionKind::Plug || a == b || connector(l.a) != connector(l.b)) continue;
    stacked.insert({std::min(a, b), std::max(a, b)});
    joined.emplace(std::min(a, b), std::max(a, b), connector(l.a));
  }
  for (const auto& [a, b] : stacked) {
    std::map<std::string, int> pins;  // of headers that both have
    for (const auto& t : s.bench.devices[a].part->terminals) ++pins[t.place.connector];
    for (const auto& [name, n] : pins) {
      const auto& other = s.bench.devices[b].part->terminals;
      const auto same = std::ranges::count_if(other, [&name = name](const parts::Terminal& t) { return t.place.connector == name; });
      if (n < 4 || same != n || joined.contains(std::tuple(a, b, name))) continue;
      auto f = finding(Severity::Caution, fmt::format("{} is not wholly on {}", called(s.bench, b), called(s.bench, a)),
                       fmt::format("{} and {} are stacked, but the header \"{}\" is not plugged: what the board needs there is missing.",
                                   called(s.bench, a), called(s.bench, b), name),
                       {idOf(s.bench, a), idOf(s.bench, b)});
      f.ways = {{fmt::format("Plug the header \"{}\" of {} into {} as well.", name, called(s.bench, b), called(s.bench, a))}};
      f.formula = fmt::format("none of its {} pins plugged", n);
      out.push_back(std::move(f));
    }
  }
}

}  // namespace

// Leads of motors and poles of supplies that end in the air.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    const bool motor = parts::isMotor(*device.part);
    const bool supply = parts::isSource(*device.part);
    if (!motor && !supply) {
      deadEnds(s, static_cast<int>(d), out);
      continue;
    }
    // The taps of a six-lead motor that bridges drive by its whole coils.
    std::vector<TerminalIndex> taps;
    for (const auto& m : s.motors)
      if (m.device == static_cast<int>(d) && m.kind == MotorKind::BipolarStepper) taps = bench::tapsOf(s.bench, m);
    std::vector<std::string> open;
    std::vector<std::string> subjects;
    int wired = 0;
    for (std::size_t i = 0; i < device.part->terminals.size(); ++i) {
      const auto t = device.first + static_cast<int>(i);
      if (device.part->terminals[i].optional || std::ranges::count(taps, t) > 0) continue;
      if (s.bench.connected(t)) {
        ++wired;
      } else {
        open.push_back("\"" + device.part->terminals[i].label + "\"");
        subjects.push_back(s.bench.address(t));
      }
    }
    if (open.empty()) continue;
    const bool spare = supply && wired == 0;
    const auto& name = device.called();
    auto f =
        finding(spare ? Severity::Note : Severity::Stop,
                wired == 0 ? fmt::format("{} is not wired", name) : fmt::format("{}: {} goes nowhere", name, list(open)),
                spare        ? fmt::format("{} is on the bench, and nothing is connected to it.", name)
                : wired == 0 ? fmt::format("{} is on the bench, but none of its leads is connected.", name)
                             : fmt::format("{} of {} {} not connected to anything.", list(open), name, open.size() == 1 ? "is" : "are"),
                subjects);
    f.ways = {{wired == 0 ? fmt::format("Wire {}, or take it off the bench.", name)
                          : fmt::format("Wire {} of {} to the output that its stage has for it.", list(open), name)}};
    f.repair = onlyWay(s, static_cast<int>(d));
    f.formula = fmt::format("{} of {} leads open", open.size(), open.size() + static_cast<std::size_t>(wired));
    out.push_back(std::move(f));
  }
  halfStacked(s, out);
  return out;
}

Check check() {
  return {"open-lead", "grounds", "A lead goes nowhere", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::open_lead
