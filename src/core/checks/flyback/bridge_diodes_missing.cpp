#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"

namespace bold::checks::bridge_diodes_missing {
namespace {

// An output with a diode of its own to a supply and one from ground.
bool clampedOutside(const SolvedBench& s, TerminalIndex output) {
  bool up = false;
  bool down = false;
  eachElement<parts::Diode>(s.bench, [&](int d, int, const parts::Diode& diode) {
    const auto a = at(s.bench, d, diode.anode);
    const auto k = at(s.bench, d, diode.cathode);
    if (d == s.bench.deviceOf(output) || a < 0 || k < 0) return;
    up = up || (s.nets.same(a, output) && sourceAt(s, k, true));
    down = down || (s.nets.same(k, output) && sourceAt(s, a, false));
  });
  return up && down;
}

bool clampedOutside(const SolvedBench& s, ChannelRef ref) {
  return std::ranges::all_of(bench::channelOf(s.bench, ref).out,
                             [&](const auto& o) { return clampedOutside(s, s.bench.terminal(ref.device, o)); });
}

}  // namespace

// A bipolar bridge without clamp diodes inside, or with some that makers disagree about.
Findings judge(const SolvedBench& s) {
  Findings out;
  std::set<int> told;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    for (const auto& ref : m.reached) {
      const auto& channel = bench::channelOf(s.bench, ref);
      if ((channel.clampsInside && channel.clampsDoubtful.empty()) || !told.insert(ref.device).second) continue;
      const auto* p = worstOpened(s, static_cast<int>(k));
      const bool clamped = p && p->arcShare(static_cast<int>(k)) < 0.05;
      if (channel.clampsInside ? clampedOutside(s, ref) : clamped) continue;
      auto f = finding(
          channel.clampsInside ? Severity::Caution : Severity::Stop, fmt::format("{} needs clamp diodes", called(s.bench, ref.device)),
          channel.clampsInside
              ? fmt::format("{}: {}. Four fast diodes a motor settle it.", called(s.bench, ref.device), channel.clampsDoubtful)
              : fmt::format("{} has no clamp diodes: each output needs one to its supply and one to ground.", called(s.bench, ref.device)),
          {idOf(s.bench, ref.device), idOf(s.bench, m.device)});
      f.ways = {{fmt::format("Fit four fast diodes at {}: from each output to its supply and from ground to each output.",
                             called(s.bench, ref.device))}};
      f.formula = channel.clampsInside ? "clamps in dispute" : "no clamp inside, none found outside";
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"bridge-diodes-missing", "flyback", "A bridge without clamp diodes", Harm::Damage, judge};
}

}  // namespace bold::checks::bridge_diodes_missing
