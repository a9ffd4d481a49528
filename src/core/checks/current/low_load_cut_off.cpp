#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::low_load_cut_off {
namespace {

struct Idle {
  Margin margin;
  const bench::Nets::Pole* pole;
  Amps drawn, least;
  const Figure* source;
};

std::vector<Idle> measure(const SolvedBench& s) {
  std::vector<Idle> out;
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  if (!p) return out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    const auto least = body.lowLoad.typical();
    if (!least || !s.bench.connected(pole.positive)) continue;
    const Amps drawn{std::abs(p->element(pole.device, pole.element).value)};
    out.push_back({{.quantity = "load at rest",
                    .subjects = {idOf(s.bench, pole.device)},
                    .unit = Unit::Amp,
                    .value = drawn.value,
                    .limits = rising(atLeast(LimitKind::Recommended, Severity::Caution, *least, "least load", body.lowLoad.source)),
                    .at = p},
                   &pole,
                   drawn,
                   Amps{*least},
                   &body.lowLoad});
  }
  return out;
}

}  // namespace

// A supply that switches itself off at low load, with what is drawn while nothing runs.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Idle& m) {
    const auto& name = called(s.bench, m.pole->device);
    auto f =
        finding(fmt::format("{} switches itself off while nothing runs", name),
                fmt::format("With everything off {} gives {}; below about {} it takes its load for gone and switches off after a while.",
                            name, show(m.drawn), show(m.least)),
                m.margin.subjects);
    f.ways = {{fmt::format("Take a supply without such a cut-off, or keep {} loaded: {} more all the time.", name,
                           show(Amps{m.least.value - m.drawn.value}))}};
    f.formula = against(m.drawn, "<", m.least);
    f.args = {{"current", m.drawn}, {"least", m.least}};
    f.bar = barOf(m.margin, m.least.value, "least load", {}, true);
    f.sources = sourcesOf({m.source});
    return f;
  });
}

Check check() {
  return {"low-load-cut-off", "current", "A supply that switches itself off at low load", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::low_load_cut_off
