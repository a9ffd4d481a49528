#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_total_current {
namespace {

struct Together {
  Margin margin;
  int device;
  const parts::Pins* pins;
  std::string what;
};

Together together(const SolvedBench& s, int device, const parts::Pins& pins, const std::vector<parts::Node>& group, double limit,
                  const std::string& what) {
  const auto worst = largest(s, everyday, [&](const OperatingPoint& p) {
    double out = 0;
    double in = 0;
    for (const auto& n : group) {
      const auto t = at(s.bench, device, n);
      if (t < 0) continue;
      const double i = p.pin(t).value;
      (i > 0 ? out : in) += std::abs(i);
    }
    return std::max(out, in);
  });
  return {{.quantity = "current of " + what,
           .subjects = {idOf(s.bench, device)},
           .unit = Unit::Amp,
           .value = worst.known(),
           .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, limit, "absolute maximum", pins.total.source)),
           .at = worst.point},
          device,
          &pins,
          what};
}

std::vector<Together> measure(const SolvedBench& s) {
  std::vector<Together> out;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    if (const auto total = pins.total.typical()) out.push_back(together(s, d, pins, pins.pins, *total, "all pins"));
    for (const auto& [group, limit] : pins.groups)
      out.push_back(together(s, d, pins, group, limit, fmt::format("the pins {} to {}", group.front(), group.back())));
  });
  return out;
}

}  // namespace

// The sum over the pins of a group and of a chip.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Together& m) {
    const Amps amps{*m.margin.value};
    const Amps limit{*m.margin.passed()->most};
    auto f = finding(
        fmt::format("The pins of {} give {} together", called(s.bench, m.device), show(amps)),
        fmt::format("With {} {} carry {} together; {} is their absolute maximum.", during(*m.margin.at), m.what, show(amps), show(limit)),
        m.margin.subjects);
    f.ways = {{"Put larger resistors in front of what these pins drive, or drivers that need less of them (MOSFET, bridge)."}};
    f.formula = against(amps, ">", limit);
    f.args = {{"current", amps}, {"limit", limit}};
    f.bar = Bar{"pins together", amps, {}, limit, "absolute maximum"};
    f.sources = sourcesOf({&m.pins->total});
    return f;
  });
}

Check check() {
  return {"pin-total-current", "current", "More current than all pins together stand", Harm::Damage, judge};
}

}  // namespace bold::checks::pin_total_current
