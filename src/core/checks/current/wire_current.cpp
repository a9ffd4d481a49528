#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/wire_size.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::wire_current {
namespace {

constexpr double kStopShare = 1.5;   // times the rating
constexpr double kMelts = 4;         // times the rating: its insulation goes within seconds
constexpr double kNothing = 1e-9;    // A: a wire that carries nothing at all has no margin
constexpr double kLostShare = 0.05;  // of the supply, in one wire

struct Wire {
  Margins margins;  // its current; what it loses, where its size is given
  const bench::Link* link;
  bench::WireSize size;
  const Figure* rating;
  Extreme most;
  Volts lost{}, full{};
  std::optional<std::size_t> held{};  // which of the margins
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

// The source a rail belongs to: of several that share it (a ground), the one that gives most at the time.
const bench::Nets::Pole* supplyOf(const SolvedBench& s, TerminalIndex t, const OperatingPoint& p) {
  const bench::Nets::Pole* best = nullptr;
  double most = 0;
  for (const auto& pole : s.nets.sources()) {
    if (!s.nets.same(pole.positive, t) && !s.nets.same(pole.negative, t)) continue;
    const double amps = std::abs(p.element(pole.device, pole.element).value);
    if (best && amps <= most) continue;
    best = &pole;
    most = amps;
  }
  return best;
}

// While a motor is held: a wire that melts long before anything else gives way. Nothing where a stage regulates its current.
std::optional<Margin> heldOf(const SolvedBench& s, std::size_t l, const std::vector<std::string>& subjects, double rating,
                             const std::string& source) {
  const auto held = largest(
      s, [](const OperatingPoint& p) { return everyday(p) && p.command().moment == Moment::Stalled; },
      [&](const OperatingPoint& p) { return std::abs(p.link(static_cast<int>(l)).value); });
  if (!held.point) return std::nullopt;
  return Margin{.quantity = "wire current while a motor is held",
                .subjects = subjects,
                .unit = Unit::Amp,
                .value = held.value,
                .limits = rising(atMost(LimitKind::Absolute, Severity::Caution, kMelts * rating, "4 x free-air rating", source)),
                .at = held.point};
}

std::vector<Wire> measure(const SolvedBench& s) {
  std::vector<Wire> out;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    const auto& c = s.bench.connections[link.connection];
    if (c.kind != harness::ConnectionKind::Wire || link.a == link.b) continue;
    const auto size = bench::sizeOf(s.bench, link);
    const auto it = s.bench.gauges.find(size.awg);
    if (it == s.bench.gauges.end() || !it->second.freeAir.typical()) continue;
    const auto most = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.link(static_cast<int>(l)).value); });
    if (most.asked && most.value < kNothing) continue;
    Wire w{{}, &link, size, &it->second.freeAir, most};
    const std::vector subjects{c.id, s.bench.address(link.a), s.bench.address(link.b)};
    w.margins.push_back(currentOf(subjects, w));
    if (size.gaugeGiven)
      if (auto held = heldOf(s, l, subjects, *w.rating->typical(), w.rating->source)) {
        w.held = w.margins.size();
        w.margins.push_back(std::move(*held));
      }
    if (size.gaugeGiven && size.lengthGiven && most.point) {
      const auto* source = supplyOf(s, link.a, *most.point);
      if (const auto full = source ? fullVoltage(s.bench, *source) : std::nullopt) {
        w.lost = Amps{most.value} * link.resistance.expected;
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

// The thinnest gauge the library knows that carries a current in free air.
Way thicker(const SolvedBench& s, const Wire& w, Amps amps) {
  const auto& id = s.bench.connections[w.link->connection].id;
  for (auto it = s.bench.gauges.rbegin(); it != s.bench.gauges.rend(); ++it)
    if (it->second.freeAir.typical().value_or(0) >= amps.value)
      return {fmt::format("Take {} AWG or thicker{}.", it->first, w.size.gaugeGiven ? "" : ", or enter what it is"), {id, "gauge"}};
  return {"Split the current over several wires: none that is known carries it.", {id, "gauge"}};
}

Finding tooMuch(const SolvedBench& s, const Wire& w, const std::string& name) {
  const Amps amps{w.most.value};
  const Amps rating{*w.rating->typical()};
  auto f = finding(
      fmt::format("A wire of {} AWG carries {}", w.size.awg, show(amps)),
      fmt::format("With {} the wire from {} carries {}; {} AWG carries {} in free air{}.", during(*w.most.point), name, show(amps),
                  w.size.awg, show(rating), w.size.gaugeGiven ? "" : " (its gauge is not given: that is what such wires usually are)"),
      w.margins[0].subjects);
  f.ways = {thicker(s, w, amps)};
  f.formula = against(amps, ">", rating);
  f.args = {{"current", amps}, {"rating", rating}};
  f.bar = barOf(w.margins[0], rating.value, "free-air rating");
  f.sources = sourcesOf({w.rating});
  return f;
}

Finding melts(const SolvedBench& s, const Wire& w, const std::string& name) {
  const auto& margin = w.margins[*w.held];
  const Amps amps{*margin.value};
  const Amps rating{*w.rating->typical()};
  auto f =
      finding(fmt::format("A wire of {} AWG carries {} held", w.size.awg, show(amps)),
              fmt::format("With {} the wire from {} carries {}; {} AWG carries {} for long: a motor that jams for some seconds takes its "
                          "insulation.",
                          during(*margin.at), name, show(amps), w.size.awg, show(rating)),
              margin.subjects);
  f.ways = {thicker(s, w, amps / kMelts), {"Or put a fuse into the supply that goes before this wire does."}};
  f.formula = fmt::format("{} > 4 x {}", show(amps), show(rating));
  f.args = {{"current", amps}, {"rating", rating}};
  f.bar = barOf(margin, kMelts * rating.value, "4 x free-air rating");
  f.sources = sourcesOf({w.rating});
  return f;
}

Finding loses(const SolvedBench& s, const Wire& w, const std::string& name) {
  auto f = finding(fmt::format("A wire loses {}", show(w.lost)),
                   fmt::format("With {} the wire from {} loses {} of {}: it is too long or too thin.", during(*w.most.point), name,
                               show(w.lost), show(w.full)),
                   w.margins[0].subjects);
  const auto& c = s.bench.connections[w.link->connection];
  const double share = kLostShare * w.full.value / w.lost.value;
  f.ways = {{fmt::format("Make it {} or shorter, or take a wire of {:.1f} times its cross-section.",
                         show(c.length.value_or(Metres{0}) * share), 1 / share),
             {c.id, "gauge"}}};
  f.formula =
      fmt::format("{} x {} = {} > 5 % of {}", show(Amps{w.most.value}), show(w.link->resistance.expected), show(w.lost), show(w.full));
  f.args = {{"lost", w.lost}};
  return f;
}

}  // namespace

// Every wire with its running current: its gauge's rating in free air, and what it loses.
Said judge(const SolvedBench& s) {
  return asOne(say(measure(s), [&](const Wire& w) {
    const auto name = fmt::format("{} to {}", s.bench.called(w.link->a), s.bench.called(w.link->b));
    if (w.margins[0].passed()) return tooMuch(s, w, name);
    return w.held && w.margins[*w.held].passed() ? melts(s, w, name) : loses(s, w, name);
  }));
}

Check check() {
  return {"wire-current", "current", "More than a wire carries", Harm::Danger, judge};
}

}  // namespace bold::checks::wire_current
