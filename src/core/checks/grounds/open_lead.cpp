#include <fmt/core.h>

#include "core/checks/plan.h"
#include "core/checks/queries.h"
#include "core/parts/roles.h"

namespace bold::checks {
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
    const auto& w = circuit::windingOf(s.bench, m, 0);
    std::vector<TerminalIndex> leads;
    for (const auto& lead : {w.a, w.b})
      if (const auto t = s.bench.terminal(device, lead); !s.bench.connected(t)) leads.push_back(t);
    std::vector<TerminalIndex> outs;
    for (const auto& o : circuit::channelOf(s.bench, m.meant).out)
      if (const auto t = s.bench.terminal(m.meant.device, o); !s.bench.connected(t)) outs.push_back(t);
    if (leads.size() != 1 || outs.size() != 1) return std::nullopt;
    return Plan(s.bench)
        .wire(outs.front(), leads.front(), "BU")
        .repair(fmt::format("Add a blue wire from {} to {}.", found(s.bench, outs.front()), found(s.bench, leads.front())));
  }
  return std::nullopt;
}

}  // namespace

// Leads of motors and poles of supplies that end in the air.
Findings openLead(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    const bool motor = parts::isMotor(*device.part);
    const bool supply = parts::isSource(*device.part);
    if (!motor && !supply) continue;
    std::vector<std::string> open;
    std::vector<std::string> subjects;
    int wired = 0;
    for (std::size_t i = 0; i < device.part->terminals.size(); ++i) {
      const auto t = device.first + static_cast<int>(i);
      if (device.part->terminals[i].optional) continue;
      if (s.bench.connected(t)) {
        ++wired;
      } else {
        open.push_back("\"" + device.part->terminals[i].label + "\"");
        subjects.push_back(s.bench.address(t));
      }
    }
    if (open.empty()) continue;
    const bool spare = supply && wired == 0;
    const auto& name = device.doc.called();
    auto f =
        finding(spare ? Severity::Note : Severity::Stop,
                wired == 0 ? fmt::format("{} is not wired", name) : fmt::format("{}: {} goes nowhere", name, list(open)),
                spare        ? fmt::format("{} is on the bench, and nothing is connected to it.", name)
                : wired == 0 ? fmt::format("{} is on the bench, but none of its leads is connected.", name)
                             : fmt::format("{} of {} {} not connected to anything.", list(open), name, open.size() == 1 ? "is" : "are"),
                subjects);
    f.repair = onlyWay(s, static_cast<int>(d));
    f.formula = fmt::format("{} of {} leads open", open.size(), open.size() + static_cast<std::size_t>(wired));
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
