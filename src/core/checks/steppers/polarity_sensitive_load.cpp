#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::polarity_sensitive_load {
namespace {

constexpr Volts kReversed{1};

// One that is fed the wrong way round while it should run.
void reversed(const SolvedBench& s, const Motor& m, Findings& out) {
  if (m.windings.size() != 1) return;
  const auto& w = bench::windingOf(s.bench, m, 0);
  const auto a = s.bench.terminal(m.device, w.a);
  const auto b = s.bench.terminal(m.device, w.b);
  const auto most = largest(
      s, [](const OperatingPoint& p) { return everyday(p) && steady(p); },
      [&](const OperatingPoint& p) { return -p.across(a, b).value_or(Volts{0}).value; });
  if (most.value < kReversed.value) return;
  auto f = finding(Severity::Stop, fmt::format("{} is the wrong way round", called(s, m)),
                   fmt::format("With {} {} gets {} the wrong way round: its electronics do not stand that.", during(*most.point),
                               called(s, m), show(Volts{most.value})),
                   {s.bench.address(a), s.bench.address(b)});
  f.formula = fmt::format("{} against {}: -{}", s.bench.called(a), s.bench.called(b), show(Volts{most.value}));
  f.args = {{"voltage", Volts{most.value}}};
  f.repair =
      RepairDraft(s.bench).exchange(a, b).repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, a), found(s.bench, b)));
  out.push_back(std::move(f));
}

}  // namespace

// A load with electronics inside, the wrong way round, or on an output that can turn round or is chopped.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    const bool electronics =
        m.kind == MotorKind::Servo || (m.windings.size() == 1 && !m.still && bench::windingOf(s.bench, m, 0).directional);
    if (!electronics) continue;
    bool turned = false;
    for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
      const int device = static_cast<int>(d);
      for (const auto& c : s.bench.devices[d].part->channels) {
        const auto& part = *s.bench.devices[m.device].part;
        const auto touches = std::ranges::any_of(c.out, [&](const std::string& o) {
          return std::ranges::any_of(part.terminals, [&](const parts::Terminal& t) {
            return !t.input && s.nets.same(s.bench.terminal(device, o), s.bench.terminal(m.device, t.id));
          });
        });
        if (!touches) continue;
        const bool reversible = !c.lowSide && c.out.size() == 2 && !m.half;
        const bool chopped = m.intent && m.intent->speedControl;
        turned = turned || reversible;
        if (!reversible && !chopped) continue;
        auto f = finding(reversible ? Severity::Stop : Severity::Caution, fmt::format("{} has electronics inside", called(s, m)),
                         reversible ? fmt::format("{} stands no reversed supply, and {} can turn its outputs round.", called(s, m),
                                                  called(s.bench, device))
                                    : fmt::format("{} is to be chopped by PWM: its electronics start anew at every pulse.", called(s, m)),
                         {idOf(s.bench, m.device), idOf(s.bench, device)});
        f.formula = reversible ? "on both outputs of a bridge" : "speed by PWM of its supply";
        out.push_back(std::move(f));
      }
    }
    if (!turned) reversed(s, m, out);
  }
  return out;
}

Check check() {
  return {"polarity-sensitive-load", "steppers", "Electronics on an output that turns round", Harm::Damage, judge};
}

}  // namespace bold::checks::polarity_sensitive_load
