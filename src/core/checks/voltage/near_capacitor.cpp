#include "core/checks/voltage/near_capacitor.h"

#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {
NearCapacitance nearCapacitance(const SolvedBench& s, const SupplyInput& input) {
  NearCapacitance sum;
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    const auto farads = c.capacitance.typical();
    if (a < 0 || b < 0 || !farads) return;
    for (const auto& [x, y] : {std::pair{a, b}, std::pair{b, a}}) {
      if (!copperDistance(s.bench, s.nets, x, input.positive, kNear) || !copperDistance(s.bench, s.nets, y, input.negative, kNear))
        continue;
      sum.all.value += *farads;
      if (!c.ceramic) sum.electrolytic.value += *farads;
      return;
    }
  });
  return sum;
}

bool inUse(const SolvedBench& s, const SupplyInput& input) {
  const int d = s.bench.deviceOf(input.positive);
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  const auto v = p ? p->across(input.positive, input.negative) : std::nullopt;
  if (!v || v->value < 1) return false;
  for (const auto& m : s.motors)
    for (const auto& r : m.reached)
      if (r.device == d) return true;
  return false;
}

}  // namespace bold::checks
