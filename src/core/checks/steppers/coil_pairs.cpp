#include <fmt/core.h>

#include <algorithm>

#include "core/bench/coils.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::coil_pairs {
namespace {

// Pairs of outputs that drive one coil: a chopper's coils, or the two outputs of a bridge.
std::vector<std::pair<TerminalIndex, TerminalIndex>> outputPairs(const SolvedBench& s) {
  std::vector<std::pair<TerminalIndex, TerminalIndex>> out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const int device = static_cast<int>(d);
    bool chopper = false;
    for (const auto& e : s.bench.devices[d].part->elements)
      if (const auto* c = std::get_if<parts::Chopper>(&e.body)) {
        chopper = true;
        for (const auto& [a, b] : c->coils) out.emplace_back(s.bench.terminal(device, a), s.bench.terminal(device, b));
      }
    if (chopper) continue;
    for (const auto& c : s.bench.devices[d].part->channels)
      if (c.out.size() == 2 && !c.lowSide) out.emplace_back(s.bench.terminal(device, c.out[0]), s.bench.terminal(device, c.out[1]));
  }
  return out;
}

}  // namespace

// Both leads of a coil must reach the two outputs of one bridge.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto pairs = outputPairs(s);
  for (const auto& motor : s.motors) {
    if (motor.kind != MotorKind::BipolarStepper) continue;
    std::vector<std::string> wrong;
    std::vector<std::string> subjects{idOf(s.bench, motor.device)};
    const auto coils = bench::coilsOf(s.bench, motor);
    for (const auto& coil : coils) {
      const auto a = coil.a;
      const auto b = coil.b;
      if (!s.bench.connected(a) || !s.bench.connected(b)) continue;  // open-lead
      const bool paired = std::ranges::any_of(pairs, [&](const auto& p) {
        return (s.nets.same(a, p.first) && s.nets.same(b, p.second)) || (s.nets.same(a, p.second) && s.nets.same(b, p.first));
      });
      if (paired) continue;
      wrong.push_back(coil.name);
      subjects.push_back(s.bench.address(a));
      subjects.push_back(s.bench.address(b));
    }
    if (wrong.empty()) continue;
    auto f = finding(Severity::Stop, fmt::format("The coils of {} are mixed up", called(s, motor)),
                     fmt::format("The two leads of coil {}{} of {} do not end on the two outputs of one bridge: it will buzz, not turn.",
                                 wrong.front(), wrong.size() > 1 ? " and of coil " + wrong[1] : "", called(s, motor)),
                     subjects);
    for (const auto& id : connectorsOf(s, motor)) f.subjects.push_back(id);
    f.ways = {{fmt::format("Find the two coils of {} with an ohmmeter, and put the leads of one on the two outputs of one bridge.",
                           called(s, motor))}};
    f.formula = "a few ohms between the leads of one coil, nothing between two coils";
    // Two coils crossed at one lead: exchanging one lead of each mends it, if it makes both pairs whole.
    if (wrong.size() == 2) {
      const auto a0 = coils[0].a;
      const auto b0 = coils[0].b;
      const auto paired = [&](TerminalIndex x, TerminalIndex y) {
        return std::ranges::any_of(pairs, [&](const auto& p) {
          return (s.nets.same(x, p.first) && s.nets.same(y, p.second)) || (s.nets.same(x, p.second) && s.nets.same(y, p.first));
        });
      };
      for (const auto other : {coils[1].a, coils[1].b}) {
        if (f.repair || !paired(a0, other)) continue;
        f.repair = RepairDraft(s.bench).exchange(b0, other).repair(
            fmt::format("Exchange the leads {} and {}.", s.bench.called(b0), s.bench.called(other)));
      }
    }
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"coil-pairs", "steppers", "Coil leads over two bridges", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::coil_pairs
