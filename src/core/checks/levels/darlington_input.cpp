#include <fmt/core.h>

#include <algorithm>

#include "core/base/interpolate.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::darlington_input {
namespace {

constexpr double kFarBelow = 0.8;  // of what is needed

// The input terminal that belongs to an output of a channel: in1 to the first, in2 to the second.
std::string inputFor(const parts::Channel& c, const parts::Node& out) {
  const auto it = std::ranges::find(c.out, out);
  if (it == c.out.end()) return {};
  const auto role = c.out.size() == 1 ? std::string("in") : "in" + std::to_string(it - c.out.begin() + 1);
  const auto s = c.signals.find(role);
  return s == c.signals.end() ? std::string() : s->second;
}

struct Input {
  Margin margin;
  TerminalIndex terminal;
  Volts volts, need;
  Amps coil;
};

// Where most is lacking, or least to spare.
std::optional<Input> measure(const SolvedBench& s, int d, int e, const parts::Bipolar& b, TerminalIndex t, TerminalIndex ground) {
  const OperatingPoint* point = nullptr;
  double worst = 0;
  for (const auto& p : s.points) {
    if (!steady(*p) || p->element(d, e).value < 0.01) continue;
    const auto v = p->across(t, ground);
    const double lacks = v ? interpolate(b.inputFor, p->element(d, e).value) - v->value : 0;
    if (v && (!point || lacks > worst)) {
      worst = lacks;
      point = p.get();
    }
  }
  if (!point) return std::nullopt;
  const Amps coil = point->element(d, e);
  const Volts need{interpolate(b.inputFor, coil.value)};
  const Volts v = *point->across(t, ground);
  return Input{{.quantity = "input voltage",
                .subjects = {s.bench.address(t)},
                .unit = Unit::Volt,
                .value = v.value,
                .limits = rising(atLeast(LimitKind::Promised, Severity::Caution, need.value, "needed for this coil"),
                                 atLeast(LimitKind::Promised, Severity::Stop, kFarBelow * need.value, "0.8 x needed for this coil")),
                .at = point},
               t,
               v,
               need,
               coil};
}

std::vector<Input> measure(const SolvedBench& s) {
  std::vector<Input> out;
  eachElement<parts::Bipolar>(s.bench, [&](int d, int e, const parts::Bipolar& b) {
    if (b.inputFor.empty()) return;
    for (const auto& c : s.bench.devices[d].part->channels)
      if (const auto id = inputFor(c, b.collector); !id.empty())
        if (auto m = measure(s, d, e, b, s.bench.terminal(d, id), s.bench.terminal(d, c.returnTerminal))) out.push_back(std::move(*m));
  });
  return out;
}

}  // namespace

// An array's input wants more volts the more its coil draws; its promise is that row, not a logic level.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Input& m) {
    const auto name = s.bench.called(m.terminal);
    auto f = finding(
        fmt::format("{} gets {} for {}", name, show(m.volts), show(m.coil)),
        fmt::format("To carry {} the input {} is promised to need {}; it gets {}.", show(m.coil), name, show(m.need), show(m.volts)),
        m.margin.subjects);
    f.ways = {{fmt::format("Drive {} from a board whose pins give {} or more, or take an array for lower levels.", name, show(m.need))}};
    f.formula = fmt::format("{} < {} at {}", show(m.volts), show(m.need), show(m.coil));
    f.args = {{"voltage", m.volts}, {"needed", m.need}, {"coil", m.coil}};
    f.bar = barOf(m.margin, m.need.value, "needed for this coil", {}, true);
    return f;
  });
}

Check check() {
  return {"darlington-input", "levels", "Too few volts at an array's input", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::darlington_input
