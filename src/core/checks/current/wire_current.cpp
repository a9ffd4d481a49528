#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

constexpr double kStopShare = 1.5;   // times the rating
constexpr double kNothing = 1e-9;    // A: a wire that carries nothing at all has no margin
constexpr double kLostShare = 0.05;  // of the supply, in one wire

struct Wire {
  Margins margins;  // its current; what it loses, where its size is given
  const circuit::Link* link;
  circuit::WireSize size;
  const Figure* rating;
  Extreme most;
  Volts lost{}, full{};
};

Margin currentOf(const std::vector<std::string>& subjects, const Wire& w) {
  const double rating = *w.rating->typical();
  Margin m{.quantity = "wire current",
           .subjects = subjects,
           .unit = Unit::Amp,
           .value = w.most.known(),
           .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, rating, "free-air rating", w.rating->source)),
           .at = w.most.point};
  if (w.size.gaugeGiven)
    m.limits.push_back(atMost(LimitKind::Recommended, Severity::Stop, kStopShare * rating, "1.5 x free-air rating", w.rating->source));
  else
    m.assumed = {fmt::format("{} AWG", w.size.awg)};
  return m;
}

std::vector<Wire> measure(const SolvedBench& s) {
  std::vector<Wire> out;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    const auto& c = s.bench.connections[static_cast<std::size_t>(link.connection)];
    if (c.kind != harness::ConnectionKind::Wire || link.a == link.b) continue;
    const auto size = circuit::sizeOf(s.bench, link);
    const auto it = s.bench.gauges.find(size.awg);
    if (it == s.bench.gauges.end() || !it->second.freeAir.typical()) continue;
    const auto most = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.link(static_cast<int>(l)).value); });
    if (most.asked && most.value < kNothing) continue;
    Wire w{{}, &link, size, &it->second.freeAir, most};
    const std::vector subjects{c.id, s.bench.address(link.a), s.bench.address(link.b)};
    w.margins.push_back(currentOf(subjects, w));
    if (size.gaugeGiven && size.lengthGiven && most.point) {
      const auto* source = sourceAt(s, link.a, true);
      if (!source) source = sourceAt(s, link.a, false);
      if (const auto full = source ? fullVoltage(s.bench, *source) : std::nullopt) {
        w.lost = Amps{most.value} * link.resistance;
        w.full = *full;
        w.margins.push_back(
            {.quantity = "voltage lost in a wire",
             .subjects = subjects,
             .unit = Unit::Volt,
             .value = w.lost.value,
             .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, kLostShare * full->value, "5 % of the supply")),
             .at = most.point});
      }
    }
    out.push_back(std::move(w));
  }
  return out;
}

Finding tooMuch(const Wire& w, const std::string& name) {
  const Amps amps{w.most.value};
  const Amps rating{*w.rating->typical()};
  auto f = finding(
      fmt::format("A wire of {} AWG carries {}", w.size.awg, show(amps)),
      fmt::format("With {} the wire from {} carries {}; {} AWG carries {} in free air{}.", during(*w.most.point), name, show(amps),
                  w.size.awg, show(rating), w.size.gaugeGiven ? "" : " (its gauge is not given: that is what such wires usually are)"),
      w.margins[0].subjects);
  f.formula = fmt::format("{} > {}", show(amps), show(rating));
  f.args = {{"current", amps}, {"rating", rating}};
  f.bar = barOf(w.margins[0], rating.value, "free-air rating");
  f.sources = sourcesOf({w.rating});
  return f;
}

Finding loses(const Wire& w, const std::string& name) {
  auto f = finding(fmt::format("A wire loses {}", show(w.lost)),
                   fmt::format("With {} the wire from {} loses {} of {}: it is too long or too thin.", during(*w.most.point), name,
                               show(w.lost), show(w.full)),
                   w.margins[0].subjects);
  f.formula = fmt::format("{} x {} = {} > 5 % of {}", show(Amps{w.most.value}), show(w.link->resistance), show(w.lost), show(w.full));
  f.args = {{"lost", w.lost}};
  return f;
}

}  // namespace

// Every wire with its running current: its gauge's rating in free air, and what it loses.
Said wireCurrent(const SolvedBench& s) {
  return say(measure(s), [&](const Wire& w) {
    const auto name = fmt::format("{} to {}", s.bench.called(w.link->a), s.bench.called(w.link->b));
    return w.margins[0].passed() ? tooMuch(w, name) : loses(w, name);
  });
}

}  // namespace bold::checks
