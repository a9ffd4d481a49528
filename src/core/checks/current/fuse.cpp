#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/current/supply_path.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

struct FuseElement {
  int device, element;
  const parts::Resistor* body;
  TerminalIndex a, b;
};

std::vector<FuseElement> fuses(const SolvedBench& s) {
  std::vector<FuseElement> out;
  eachElement<parts::Resistor>(s.bench, [&](int d, int e, const parts::Resistor& r) {
    if (r.fuse && !r.resettable) out.push_back({d, e, &r, at(s.bench, d, r.a), at(s.bench, d, r.b)});
  });
  return out;
}

bool looseCapacitor(const Bench& bench, TerminalIndex t) {
  const auto& elements = bench.devices[static_cast<std::size_t>(bench.deviceOf(t))].part->elements;
  return elements.size() == 1 && std::holds_alternative<parts::Capacitor>(elements.front().body);
}

std::optional<double> thinnest(const SolvedBench& s, const circuit::Nets::Pole& pole) {
  std::optional<double> least;
  for (const int l : supplyWires(s, pole)) {
    const auto& link = s.bench.links[static_cast<std::size_t>(l)];
    if (looseCapacitor(s.bench, link.a) || looseCapacitor(s.bench, link.b)) continue;  // its leads carry no supply current
    const auto size = circuit::sizeOf(s.bench, link);
    const auto it = s.bench.gauges.find(size.awg);
    // A wire whose gauge nobody gave is no ground for an accusation.
    if (!size.gaugeGiven || it == s.bench.gauges.end() || !it->second.freeAir.typical()) continue;
    if (!least || *it->second.freeAir.typical() < *least) least = *it->second.freeAir.typical();
  }
  return least;
}

}  // namespace

// A strong source needs a fuse; a fuse has to fit the wire, the running current, the voltage and the short circuit.
Findings fuse(const SolvedBench& s) {
  Findings out;
  const auto all = fuses(s);
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    const auto say = [&](Severity severity, const std::string& headline, const std::string& text, int device, const std::string& formula) {
      std::vector<std::string> subjects{idOf(s.bench, device)};
      if (device != pole.device) subjects.push_back(idOf(s.bench, pole.device));
      auto f = finding(severity, headline, text, subjects);
      f.formula = formula;
      out.push_back(std::move(f));
    };
    const auto amps = shortCurrent(body);
    if (body.lithium && reachesLoad(s, beforeFuse(s, pole), pole.device))
      say(Severity::Caution, fmt::format("{} has no fuse", called(s.bench, pole.device)),
          fmt::format("Nothing melts between {} and what it feeds{}: a stray wire glows before anything else gives way.",
                      called(s.bench, pole.device), amps ? fmt::format("; it gives about {} into a short", show(*amps)) : ""),
          pole.device, amps ? fmt::format("{} into a short", show(*amps)) : "lithium");
    for (const auto& fu : all) {
      if (fu.a < 0 || !s.nets.same(fu.a, pole.positive)) continue;
      const auto rating = fu.body->rating.typical();
      const auto volts = fu.body->volts.typical();
      const auto breaking = fu.body->breaking.typical();
      const auto& name = called(s.bench, fu.device);
      if (const auto v = body.full.typical(); v && volts && *v > *volts)
        say(Severity::Stop, fmt::format("{} is for {}", name, show(Volts{*volts})),
            fmt::format("{} breaks {} at most; {} gives {}: its arc does not go out.", name, show(Volts{*volts}),
                        called(s.bench, pole.device), show(Volts{*v})),
            fu.device, fmt::format("{} > {}", show(Volts{*v}), show(Volts{*volts})));
      if (amps && breaking && amps->value > *breaking && !body.limit.known())
        say(Severity::Stop, fmt::format("{} cannot break {}", name, show(*amps)),
            fmt::format("{} breaks {} at most; {} gives {} into a short: it bursts instead of melting.", name, show(Amps{*breaking}),
                        called(s.bench, pole.device), show(*amps)),
            fu.device, fmt::format("{} > {}", show(*amps), show(Amps{*breaking})));
      if (!rating) continue;
      const auto running = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.element(fu.device, fu.element).value); });
      if (running.value > 0.75 * *rating)
        say(Severity::Caution, fmt::format("{} carries {} of its {}", name, show(Amps{running.value}), show(Amps{*rating})),
            fmt::format("With {} {} carries {}; more than three quarters of its {} melt it sooner or later.", during(*running.point), name,
                        show(Amps{running.value}), show(Amps{*rating})),
            fu.device, fmt::format("{} > 0.75 x {}", show(Amps{running.value}), show(Amps{*rating})));
      if (const auto wire = thinnest(s, pole); wire && *rating > *wire) {
        const bool stop = *rating > 2.5 * *wire && strong(body);
        say(stop ? Severity::Stop : Severity::Caution, fmt::format("{} is larger than its wires", name),
            fmt::format("{} melts above {}; the thinnest wire behind it carries {}: the wire goes first.", name, show(Amps{*rating}),
                        show(Amps{*wire})),
            fu.device, fmt::format("{} > {}{}", show(Amps{*rating}), stop ? "2.5 x " : "", show(Amps{*wire})));
      }
    }
  }
  return out;
}

}  // namespace bold::checks
