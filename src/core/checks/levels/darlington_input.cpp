#include <fmt/core.h>

#include <algorithm>

#include "core/base/interpolate.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// The input terminal that belongs to an output of a channel: in1 to the first, in2 to the second.
std::string inputFor(const parts::Channel& c, const parts::Node& out) {
  const auto it = std::ranges::find(c.out, out);
  if (it == c.out.end()) return {};
  const auto role = c.out.size() == 1 ? std::string("in") : "in" + std::to_string(it - c.out.begin() + 1);
  const auto s = c.signals.find(role);
  return s == c.signals.end() ? std::string() : s->second;
}

}  // namespace

// An array's input wants more volts the more its coil draws; its promise is that row, not a logic level.
Findings darlingtonInput(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Bipolar>(s.bench, [&](int d, int e, const parts::Bipolar& b) {
    if (b.inputFor.empty()) return;
    for (const auto& c : s.bench.devices[static_cast<std::size_t>(d)].part->channels) {
      const auto id = inputFor(c, b.collector);
      if (id.empty()) continue;
      const auto t = s.bench.terminal(d, id);
      const auto ground = s.bench.terminal(d, c.returnTerminal);
      double worst = 0;
      const OperatingPoint* point = nullptr;
      for (const auto& p : s.points) {
        if (!steady(*p) || p->element(d, e).value < 0.01) continue;
        const auto v = p->across(t, ground);
        const double need = interpolate(b.inputFor, p->element(d, e).value);
        if (v && need - v->value > worst) {
          worst = need - v->value;
          point = p.get();
        }
      }
      if (!point) continue;
      const Volts v = *point->across(t, ground);
      const Amps coil = point->element(d, e);
      const Volts need{interpolate(b.inputFor, coil.value)};
      const bool stop = v.value < 0.8 * need.value;
      auto f = finding(
          stop ? Severity::Stop : Severity::Caution, fmt::format("{} gets {} for {}", s.bench.called(t), show(v), show(coil)),
          fmt::format("To carry {} the input {} is promised to need {}; it gets {}.", show(coil), s.bench.called(t), show(need), show(v)),
          {s.bench.address(t)});
      f.formula = fmt::format("{} < {} at {}", show(v), show(need), show(coil));
      f.args = {{"voltage", v}, {"needed", need}, {"coil", coil}};
      f.bar = Bar{"input voltage", v, {}, need, "needed for this coil", true};
      out.push_back(std::move(f));
    }
  });
  return out;
}

}  // namespace bold::checks
