#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::rail_broken {
// A rail of a breadboard that is two: one half fed, the other used as if it were.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    const bool copperOnly = !device.part->elements.empty() && std::ranges::all_of(device.part->elements, [](const parts::Element& e) {
      return std::holds_alternative<parts::Joint>(e.body);
    });
    if (!copperOnly) continue;
    // Which strips of holes one joint alone cannot hold: a row name with several long joints is a split rail.
    std::map<std::string, std::vector<const parts::Joint*>> strips;
    for (const auto& e : device.part->elements) {
      const auto& joint = std::get<parts::Joint>(e.body);
      std::set<std::string> rows;
      for (const auto& n : joint.nodes) rows.insert(device.part->find(n)->place.connector);
      if (rows.size() == 1 && joint.nodes.size() > 5) strips[*rows.begin()].push_back(&joint);
    }
    for (const auto& [row, joints] : strips) {
      if (joints.size() < 2) continue;
      struct Half {
        TerminalIndex used = -1;
        bool fed = false;
      };
      std::vector<Half> halves;
      for (const auto* j : joints) {
        Half h;
        for (const auto& n : j->nodes) {
          const auto t = s.bench.terminal(static_cast<int>(d), n);
          if (s.bench.connected(t) && h.used < 0) h.used = t;
        }
        if (h.used >= 0)
          for (const auto t : s.nets.members(s.nets.of(h.used)))
            h.fed = h.fed || s.bench.facts(t).ground ||
                    (s.bench.deviceOf(t) != static_cast<int>(d) && (sourceAt(s, t, true) || sourceAt(s, t, false)));
        halves.push_back(h);
      }
      for (const auto& a : halves)
        for (const auto& b : halves) {
          if (!a.fed || b.fed || a.used < 0 || b.used < 0 || s.nets.same(a.used, b.used)) continue;
          auto f = finding(
              Severity::Stop, fmt::format("The rail \"{}\" of {} is parted", row, called(s.bench, static_cast<int>(d))),
              fmt::format("{} and {} are on the same printed line, but the rail is parted between them: what hangs on {} is not fed.",
                          s.bench.called(a.used), s.bench.called(b.used), s.bench.called(b.used)),
              {s.bench.address(b.used), s.bench.address(a.used)});
          f.formula = "two nets on one printed line, one of them fed";
          f.repair = RepairDraft(s.bench)
                         .wire(a.used, b.used, "BK")
                         .repair(fmt::format("Bridge the gap: a wire from {} to {}.", s.bench.called(a.used), s.bench.called(b.used)));
          out.push_back(std::move(f));
        }
    }
  }
  return out;
}

Check check() {
  return {"rail-broken", "grounds", "A breadboard rail that is two", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::rail_broken
