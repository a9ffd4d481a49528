#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
// Every wire with its running current: its gauge's rating in free air, and what it loses.
Findings wireCurrent(const SolvedBench& s) {
  Findings out;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    const auto& c = s.bench.connections[static_cast<std::size_t>(link.connection)];
    if (c.kind != harness::ConnectionKind::Wire || link.a == link.b) continue;
    const auto size = circuit::sizeOf(s.bench, link);
    const auto it = s.bench.gauges.find(size.awg);
    if (it == s.bench.gauges.end() || !it->second.freeAir.typical()) continue;
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.link(static_cast<int>(l)).value); });
    const double rating = *it->second.freeAir.typical();
    const auto name = fmt::format("{} to {}", s.bench.called(link.a), s.bench.called(link.b));
    if (worst.value > rating) {
      const bool stop = worst.value > 1.5 * rating && size.gaugeGiven;
      auto f =
          finding(stop ? Severity::Stop : Severity::Caution, fmt::format("A wire of {} AWG carries {}", size.awg, show(Amps{worst.value})),
                  fmt::format("With {} the wire from {} carries {}; {} AWG carries {} in free air{}.", during(*worst.point), name,
                              show(Amps{worst.value}), size.awg, show(Amps{rating}),
                              size.gaugeGiven ? "" : " (its gauge is not given: that is what such wires usually are)"),
                  {c.id, s.bench.address(link.a), s.bench.address(link.b)});
      f.formula = fmt::format("{} > {}", show(Amps{worst.value}), show(Amps{rating}));
      f.args = {{"current", Amps{worst.value}}, {"rating", Amps{rating}}};
      f.bar = Bar{"wire current", Amps{worst.value}, {}, Amps{rating}, "free-air rating"};
      f.sources = sourcesOf({&it->second.freeAir});
      out.push_back(std::move(f));
    } else if (size.gaugeGiven && size.lengthGiven && worst.point) {
      const Volts lost = Amps{worst.value} * link.resistance;
      const auto* source = sourceAt(s, link.a, true);
      if (!source) source = sourceAt(s, link.a, false);
      const auto full = source ? fullVoltage(s.bench, *source) : std::nullopt;
      if (!full || lost.value <= 0.05 * full->value) continue;
      auto f = finding(Severity::Caution, fmt::format("A wire loses {}", show(lost)),
                       fmt::format("With {} the wire from {} loses {} of {}: it is too long or too thin.", during(*worst.point), name,
                                   show(lost), show(*full)),
                       {c.id, s.bench.address(link.a), s.bench.address(link.b)});
      f.formula = fmt::format("{} x {} = {} > 5 % of {}", show(Amps{worst.value}), show(link.resistance), show(lost), show(*full));
      f.args = {{"lost", lost}};
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
