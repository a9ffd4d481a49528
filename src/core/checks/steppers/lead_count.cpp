#include <fmt/core.h>

#include <algorithm>

#include "core/bench/coils.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::lead_count {
// Whether a stepper's leads and its stage go together, and where its taps are.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (m.kind != MotorKind::BipolarStepper && m.kind != MotorKind::UnipolarStepper) continue;
    const bool bridges = std::ranges::any_of(m.reached, [&](ChannelRef r) { return !bench::channelOf(s.bench, r).lowSide; });
    const bool arrays = std::ranges::any_of(m.reached, [&](ChannelRef r) { return bench::channelOf(s.bench, r).lowSide; });
    const auto say = [&](const std::string& headline, const std::string& text, std::vector<std::string> subjects,
                         const std::string& formula) {
      auto f = finding(Severity::Stop, headline, text, std::move(subjects));
      f.ways = {
          {fmt::format("Take a stage that fits the leads of {}: two bridges for four, switches to ground for five or six.", called(s, m))}};
      f.formula = formula;
      out.push_back(std::move(f));
    };
    if (m.kind == MotorKind::BipolarStepper && arrays) {
      const auto& ref = *std::ranges::find_if(m.reached, [&](ChannelRef r) { return bench::channelOf(s.bench, r).lowSide; });
      say(fmt::format("{} cannot be driven by {}", called(s, m), called(s.bench, ref.device)),
          fmt::format("{} has two coils without taps: their current has to be turned round, and {} only switches to ground.", called(s, m),
                      called(s.bench, ref.device)),
          {idOf(s.bench, m.device), idOf(s.bench, ref.device)}, "four leads on switches to ground");
      continue;
    }
    if (m.kind != MotorKind::UnipolarStepper) continue;
    const auto taps = bench::tapsOf(s.bench, m);
    if (bridges) {
      if (bench::tapsOpen(s.bench, m)) continue;
      const auto& ref = *std::ranges::find_if(m.reached, [&](ChannelRef r) { return !bench::channelOf(s.bench, r).lowSide; });
      say(fmt::format("{} does not suit {}", called(s, m), called(s.bench, ref.device)),
          taps.size() > 1
              ? fmt::format("On bridges the taps of {} have to stay open; one is wired.", called(s, m))
              : fmt::format("The coils of {} share one lead: bridges cannot turn their currents round one by one.", called(s, m)),
          {idOf(s.bench, m.device), idOf(s.bench, ref.device)}, taps.size() > 1 ? "a tap is wired" : "one tap for all coils");
      continue;
    }
    if (!arrays) continue;
    for (const auto t : taps) {
      if (sourceAt(s, t, true)) continue;
      const auto* p = s.point(Action::AllOff, Corner::Nominal);
      const auto& ref = m.reached.front();
      const auto back = s.bench.terminal(ref.device, bench::channelOf(s.bench, ref).returnTerminal);
      const auto v = p ? p->across(t, back) : std::nullopt;
      if (v && v->value > 1) continue;
      say(fmt::format("{} is not on the supply", s.bench.called(t)),
          fmt::format("The tap {} belongs on the motor's supply; it stands at {}: its coils get nothing.", s.bench.called(t),
                      v ? show(*v) : "nothing"),
          {s.bench.address(t)}, "the tap of a unipolar motor feeds its coils");
    }
  }
  return out;
}

Check check() {
  return {"lead-count", "steppers", "A stepper's leads and its stage", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::lead_count
