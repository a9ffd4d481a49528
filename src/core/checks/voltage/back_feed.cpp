#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/base/groups.h"
#include "core/bench/stand_ins.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::back_feed {
namespace {

constexpr double kRegulatorOhms = 0.05;  // of its output

// Something that gives a voltage of its own: a source's pole or a regulator's output.
struct Feeder {
  int device;
  TerminalIndex positive, negative;
  Volts low, open, high;  // lower tolerance of what is regulated, nominal of a battery; nominal; full or upper tolerance
  bool lithium;
  Ohms inside;                    // its own resistance
  bool sinks;                     // takes current back: a battery, the computer behind a port
  std::optional<double> limit{};  // A that it gives at most
  TerminalIndex input = -1;       // of a regulator
};

bool isPort(const SolvedBench& s, const bench::Nets::Pole& pole) {
  return s.bench.facts(pole.positive).place.connector == "USB";
}

// Terminals that copper joins at this moment: a board's own selector that is open parts them.
Groups copperNow(const SolvedBench& s, const OperatingPoint& p) {
  Groups copper(s.bench.terminalCount());
  for (const auto& l : s.bench.links) copper.join(l.a, l.b);
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const int device = static_cast<int>(d);
    const auto& elements = s.bench.devices[d].part->elements;
    const auto join = [&](const parts::Node& x, const parts::Node& y) {
      if (const auto tx = at(s.bench, device, x), ty = at(s.bench, device, y); tx >= 0 && ty >= 0) copper.join(tx, ty);
    };
    for (std::size_t e = 0; e < elements.size(); ++e) {
      if (!s.bench.devices[d].has(elements[e])) continue;
      if (const auto* j = std::get_if<parts::Joint>(&elements[e].body))
        for (const auto& n : j->nodes) join(j->nodes.front(), n);
      else if (const auto* c = std::get_if<parts::Contact>(&elements[e].body); c && c->closedInUse())
        join(c->a, c->b);
      else if (const auto* r = std::get_if<parts::Resistor>(&elements[e].body);
               r && r->conductor && (r->closed.empty() || p.on(device, static_cast<int>(e)) == true))
        join(r->a, r->b);
    }
  }
  return copper;
}

std::vector<Feeder> feeders(const SolvedBench& s, const OperatingPoint& p) {
  std::vector<Feeder> out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    if (const auto v = body.nominal.typical())
      out.push_back({pole.device, pole.positive, pole.negative, Volts{body.limit.known() ? body.empty.typical().value_or(*v) : *v},
                     Volts{*v}, Volts{body.full.typical().value_or(*v)}, body.lithium,
                     Ohms{bench::valueOf(body.resistance.typical(), bench::kSupplyResistance)},
                     body.sinks || !body.limit.known() || isPort(s, pole), body.limit.typical()});
  }
  eachElement<parts::Regulator>(s.bench, [&](int d, int, const parts::Regulator& r) {
    const auto in = at(s.bench, d, r.in);
    const auto o = at(s.bench, d, r.out);
    const auto ground = at(s.bench, d, r.ground);
    if (in < 0 || o < 0 || ground < 0 || !r.set.typical() || r.charges) return;  // a charger is meant to feed its cell
    const auto fed = p.across(in, ground);
    // Fed from its own output through its back diode it is no second feeder.
    if (fed && fed->value > *r.set.typical() + 0.5 * r.dropout.typical().value_or(0) + 0.1)
      out.push_back({d, o, ground, Volts{*r.set.least()}, Volts{*r.set.typical()}, Volts{*r.set.greatest()}, false, Ohms{kRegulatorOhms},
                     r.backDiode, r.limit.typical(), in});
  });
  return out;
}

constexpr double kFlows = 0.5;          // A between two supplies from which it is more than a caution
constexpr std::size_t kMostPairs = 40;  // that are named one by one

// Two feeders whose poles are joined by copper alone, neither behind a diode or a selector.
struct Pair {
  const Feeder *a, *b;
  Ohms loop;
  Amps flows;
  bool lithium;

  bool stop() const { return lithium || flows.value > kFlows; }
};

// From the higher into the lower at the corners of both, as far as the one gives it and the other takes it.
Amps into(const Feeder& lower, const Feeder& higher, Ohms loop) {
  if (!lower.sinks) return Amps{0};
  const double amps = std::max(0.0, higher.high.value - lower.low.value) / loop.value;
  return Amps{higher.limit ? std::min(amps, *higher.limit) : amps};
}

std::vector<Pair> pairs(const SolvedBench& s, const OperatingPoint& p, const std::vector<Feeder>& all) {
  std::vector<Pair> out;
  auto copper = copperNow(s, p);
  for (std::size_t i = 0; i < all.size(); ++i) {
    const auto& a = all[i];
    const auto r = p.resistance(a.positive, a.negative);
    for (std::size_t k = i + 1; k < all.size(); ++k) {
      const auto& b = all[k];
      if (a.device == b.device || !s.nets.same(a.positive, b.positive) || !s.nets.same(a.negative, b.negative)) continue;
      if (copper.find(a.positive) != copper.find(b.positive)) continue;
      // At least what both have inside and a little wire; a short across them makes the way no shorter.
      const Ohms loop{std::max(2 * (r ? r->value : 0.1), a.inside.value + b.inside.value) + 0.05};
      out.push_back({&a, &b, loop, std::max(into(a, b, loop), into(b, a, loop)), a.lithium || b.lithium});
    }
  }
  // The gravest are named first where there are many.
  if (out.size() > kMostPairs) std::ranges::stable_sort(out, std::greater{}, &Pair::stop);
  return out;
}

// Taking away the one wire that joins them mends it; with several there is no single answer.
std::optional<Repair> apart(const SolvedBench& s, const Feeder& a, const Feeder& b) {
  int joins = -1;
  int count = 0;
  for (const auto& link : s.bench.links) {
    const int da = s.bench.deviceOf(link.a);
    const int db = s.bench.deviceOf(link.b);
    const bool between = (da == a.device && db == b.device) || (da == b.device && db == a.device);
    const auto feeds = [&](TerminalIndex input) { return input >= 0 && (link.a == input || link.b == input); };
    if (between && s.nets.same(link.a, a.positive) && !feeds(a.input) && !feeds(b.input)) {
      joins = link.connection;
      ++count;
    }
  }
  if (count != 1 || s.bench.connections[joins].kind != harness::ConnectionKind::Wire) return std::nullopt;
  return RepairDraft(s.bench).remove(joins).repair(fmt::format("Take away the wire {} between {} and {}.", s.bench.connections[joins].id,
                                                               called(s.bench, a.device), called(s.bench, b.device)));
}

Margin marginOf(const SolvedBench& s, const Pair& pair, const OperatingPoint& p) {
  Margin m{.quantity = "current between two supplies",
           .subjects = {s.bench.address(pair.a->positive), s.bench.address(pair.b->positive)},
           .unit = Unit::Amp,
           .value = pair.flows.value,
           .limits = rising(atMost(LimitKind::Recommended, Severity::Stop, kFlows, "a difference that hardly matters")),
           .at = &p};
  if (pair.lithium) m.limits = rising(atMost(LimitKind::Absolute, Severity::Stop, 0, "into a lithium pack"));
  return m;
}

struct Joined {
  Margin margin;
  Pair pair;
  std::size_t more;  // pairs that are not named one by one
  std::optional<Severity> besides;
};

}  // namespace

// Joined at all they may never both be on; what flows then makes it a stop.
Said judge(const SolvedBench& s) {
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  if (!p) return {};
  const auto all = feeders(s, *p);
  const auto joined = pairs(s, *p, all);
  std::vector<Joined> named;
  for (std::size_t n = 0; n < std::min(joined.size(), kMostPairs); ++n)
    named.push_back({marginOf(s, joined[n], *p), joined[n], n + 1 == kMostPairs ? joined.size() - kMostPairs : 0,
                     joined[n].lithium ? Severity::Stop : Severity::Caution});
  return say(std::move(named), [&](const Joined& m) {
    const auto& a = *m.pair.a;
    const auto& b = *m.pair.b;
    auto f = finding(fmt::format("{} and {} feed one net", called(s.bench, a.device), called(s.bench, b.device)),
                     fmt::format("{} ({}) and {} ({}) are joined at {} without a diode between them: {}.", called(s.bench, a.device),
                                 show(a.open), called(s.bench, b.device), show(b.open), s.bench.called(a.positive),
                                 m.pair.lithium     ? "a lithium pack may be charged by the other"
                                 : m.margin.stops() ? fmt::format("up to {} flow from the higher into the lower", show(m.pair.flows))
                                                    : "never have both on at the same time"),
                     m.margin.subjects);
    const bool intoA = m.pair.flows.value > 0 && into(a, b, m.pair.loop) >= into(b, a, m.pair.loop);
    const auto& high = intoA ? b : a;
    const auto& low = intoA ? a : b;
    f.formula = m.pair.flows.value > 0
                    ? fmt::format("({} - {}) / {}{} = {}", show(high.high), show(low.low), show(m.pair.loop),
                                  high.limit ? fmt::format(", at most {}", show(Amps{*high.limit})) : "", show(m.pair.flows))
                    : "neither takes current back";
    f.args = {{"current", m.pair.flows}};
    f.repair = apart(s, a, b);
    if (m.more > 0) f.text += fmt::format(" {} more pairs are joined likewise.", m.more);
    return f;
  });
}

Check check() {
  return {"back-feed", "voltage", "Two supplies on one net", Harm::Damage, judge};
}

}  // namespace bold::checks::back_feed
