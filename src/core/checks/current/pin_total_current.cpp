#include <fmt/core.h>

#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
// The sum over the pins of a group and of a chip.
Findings pinTotalCurrent(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    const auto judge = [&](const std::vector<parts::Node>& group, double limit, const std::string& what) {
      const auto worst = largest(s, everyday, [&](const OperatingPoint& p) {
        double out1 = 0;
        double in1 = 0;
        for (const auto& n : group) {
          const auto t = at(s.bench, d, n);
          if (t < 0) continue;
          const double i = p.pin(t).value;
          (i > 0 ? out1 : in1) += std::abs(i);
        }
        return std::max(out1, in1);
      });
      if (worst.value <= limit) return;
      auto f = finding(Severity::Stop, fmt::format("The pins of {} give {} together", called(s.bench, d), show(Amps{worst.value})),
                       fmt::format("With {} {} carry {} together; {} is their absolute maximum.", during(*worst.point), what,
                                   show(Amps{worst.value}), show(Amps{limit})),
                       {idOf(s.bench, d)});
      f.formula = fmt::format("{} > {}", show(Amps{worst.value}), show(Amps{limit}));
      f.args = {{"current", Amps{worst.value}}, {"limit", Amps{limit}}};
      f.bar = Bar{"pins together", Amps{worst.value}, {}, Amps{limit}, "absolute maximum"};
      f.sources = sourcesOf({&pins.total});
      out.push_back(std::move(f));
    };
    if (const auto total = pins.total.typical()) judge(pins.pins, *total, "all pins");
    for (const auto& [group, limit] : pins.groups) judge(group, limit, fmt::format("the pins {} to {}", group.front(), group.back()));
  });
  return out;
}

}  // namespace bold::checks
