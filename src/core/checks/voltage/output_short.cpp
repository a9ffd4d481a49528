#include <fmt/core.h>

#include <algorithm>
#include <limits>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::output_short {
namespace {

// What hard potential a terminal's copper belongs to, in words; empty when none.
std::string rail(const SolvedBench& s, TerminalIndex t) {
  std::string word;
  // Where several supplies share the copper, the one that people find first when they follow the wires.
  double nearest = std::numeric_limits<double>::infinity();
  for (const auto& pole : s.nets.sources())
    for (const auto& [end, name] : {std::pair{pole.positive, "the plus of "}, std::pair{pole.negative, "the minus of "}})
      if (const auto far = copperDistance(s.bench, s.nets, t, end, Metres{nearest}); far && far->value < nearest) {
        nearest = far->value;
        word = name + called(s.bench, pole.device);
      }
  if (!word.empty()) return word;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& p) {
    for (const auto& [node, name] : {std::pair{p.rail, "the supply of "}, std::pair{p.ground, "the ground of "}})
      if (s.nets.same(t, s.bench.terminal(d, node))) word = name + called(s.bench, d);
  });
  eachElement<parts::Regulator>(s.bench, [&](int d, int, const parts::Regulator& r) {
    if (s.nets.same(t, s.bench.terminal(d, r.out))) word = s.bench.called(s.bench.terminal(d, r.out));
  });
  return word;
}

bool aboveLoad(const SolvedBench& s, int device, const parts::Channel& c, TerminalIndex upper) {
  if (!c.lowSide || c.out.size() != 1 || !sourceAt(s, upper, true)) return false;
  const auto lower = s.bench.terminal(device, c.returnTerminal);
  return lower >= 0 && !s.nets.rail(s.nets.of(lower)) && std::ranges::any_of(s.motors, [&](const Motor& m) { return onLead(s, m, lower); });
}

}  // namespace

// Outputs and pins that share copper with a rail, and outputs of one bridge joined to each other.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    for (const auto& c : s.bench.devices[d].part->channels) {
      for (std::size_t i = 0; i < c.out.size(); ++i) {
        const auto t = s.bench.terminal(static_cast<int>(d), c.out[i]);
        if (!s.bench.connected(t)) continue;
        const auto name = rail(s, t);
        // A switch to ground whose output is on ground shorts nothing; it just never matters.
        // Nor does a relay's contact, which breaks a line anywhere. Nor does a transistor above its load, which has its upper end on the
        // supply as it should.
        if (!name.empty() &&
            !bench::isContact(s.bench, {static_cast<int>(d), static_cast<int>(&c - s.bench.devices[d].part->channels.data())}) &&
            !(c.lowSide && sourceAt(s, t, false)) && !aboveLoad(s, static_cast<int>(d), c, t)) {
          auto f = finding(Severity::Stop, fmt::format("{} is on a rail", s.bench.called(t)),
                           fmt::format("The output {} is joined to {}: switching it the other way is a short.", s.bench.called(t), name),
                           {s.bench.address(t)});
          f.ways = {{fmt::format("Take {} off {}: only the motor belongs on an output.", name, s.bench.called(t))}};
          f.formula = fmt::format("{} and {} are one net", s.bench.called(t), name);
          out.push_back(std::move(f));
        }
        for (std::size_t k = i + 1; k < c.out.size(); ++k) {
          const auto other = s.bench.terminal(static_cast<int>(d), c.out[k]);
          if (c.lowSide || !s.nets.same(t, other)) continue;
          auto f = finding(
              Severity::Stop, fmt::format("{} and {} are joined", s.bench.called(t), s.bench.facts(other).label),
              fmt::format("Both outputs {} and {} of one bridge are joined: forward is a short.", s.bench.called(t), s.bench.called(other)),
              {s.bench.address(t), s.bench.address(other)});
          f.ways = {{fmt::format("Take {} and {} apart: one lead of the motor to each.", s.bench.called(t), s.bench.called(other))}};
          f.formula = fmt::format("{} and {} are one net", s.bench.called(t), s.bench.called(other));
          out.push_back(std::move(f));
        }
      }
    }
  }
  for (const auto& intent : s.bench.intents) {
    for (const auto& signal : intent.signals) {
      const auto t = s.bench.terminal(signal.pin);
      if (t < 0 || !s.bench.facts(t).pin || !s.bench.connected(t)) continue;
      const auto name = rail(s, t);
      if (name.empty()) continue;
      auto f = finding(Severity::Stop, fmt::format("{} is on a rail", s.bench.called(t)),
                       fmt::format("The program drives {} as an output, and it is joined to {}.", s.bench.called(t), name),
                       {s.bench.address(t)});
      f.ways = {{fmt::format("Take the wire between {} and {} away, or drive another pin.", s.bench.called(t), name)}};
      f.formula = fmt::format("{} and {} are one net", s.bench.called(t), name);
      const bool known = std::ranges::any_of(out, [&](const Finding& o) { return o.subjects == f.subjects; });
      if (!known) out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"output-short", "voltage", "An output on a rail", Harm::Damage, judge};
}

}  // namespace bold::checks::output_short
