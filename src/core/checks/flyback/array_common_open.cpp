#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::array_common_open {
// An array's clamp diodes end at its common terminal: that must be on the motor's supply.
Findings judge(const SolvedBench& s) {
  Findings out;
  std::set<int> told;
  for (const auto& m : s.motors)
    for (const auto& ref : m.reached) {
      const auto& channel = bench::channelOf(s.bench, ref);
      if (!channel.lowSide || told.contains(ref.device)) continue;
      TerminalIndex common = -1;
      const auto& device = s.bench.devices[ref.device];
      for (const auto& e : device.part->elements)
        if (const auto* d = std::get_if<parts::Diode>(&e.body);
            d && device.has(e) && std::ranges::count(channel.out, d->anode) > 0 && d->cathode != channel.returnTerminal)
          common = at(s.bench, ref.device, d->cathode);
      if (common < 0) continue;
      // The lead of the motor that is not on this array is where its supply comes in.
      TerminalIndex feed = -1;
      for (std::size_t i = 0; i < m.windings.size(); ++i) {
        const auto& w = bench::windingOf(s.bench, m, i);
        for (const auto& n : {w.a, w.b}) {
          const auto t = s.bench.terminal(m.device, n);
          const bool out1 =
              std::ranges::any_of(channel.out, [&](const std::string& o) { return s.nets.same(t, s.bench.terminal(ref.device, o)); });
          if (!out1 && s.bench.connected(t)) feed = t;
        }
      }
      if (feed < 0 || s.nets.same(feed, common)) continue;
      const auto* off = s.point(Action::AllOff, Corner::Full);
      const auto lower = off ? off->across(feed, common) : std::nullopt;
      const bool open = !lower;
      if (lower && lower->value < 0.3) continue;  // joined through something else that holds it up
      told.insert(ref.device);
      auto f = finding(Severity::Stop, fmt::format("{} is not on the motor's supply", s.bench.called(common)),
                       fmt::format("The clamp diodes of {} end at {}, which {} the supply of {}: {}.", called(s.bench, ref.device),
                                   s.bench.called(common), open ? "is not joined to" : "is lower than", called(s, m),
                                   open ? "they clamp nothing" : "they conduct while the coil is off"),
                       {s.bench.address(common), idOf(s.bench, m.device)});
      f.ways = {RepairDraft(s.bench)
                    .wire(common, feed, "RD")
                    .way(fmt::format("Join {} to the supply of {}, at {}.", s.bench.called(common), called(s, m), s.bench.called(feed)))};
      f.formula = fmt::format("{} and {} are two nets", s.bench.called(common), s.bench.called(feed));
      out.push_back(std::move(f));
    }
  return out;
}

Check check() {
  return {"array-common-open", "flyback", "An array's common left open", Harm::Damage, judge};
}

}  // namespace bold::checks::array_common_open
