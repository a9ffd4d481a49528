#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::outside_scope {
namespace {

constexpr Volts kHighest{60};  // above it a bench is no longer safe to touch, and not what this program knows

struct Supply {
  Margin margin;
  int device;
  const parts::Source* source;
  std::optional<Severity> besides;  // alternating
};

std::vector<Supply> measure(const SolvedBench& s) {
  std::vector<Supply> out;
  eachElement<parts::Source>(s.bench, [&](int d, int, const parts::Source& source) {
    Margin m{.quantity = "greatest voltage of a supply",
             .subjects = {idOf(s.bench, d)},
             .unit = Unit::Volt,
             .value = source.full.greatest(),
             .limits = rising(atMost(LimitKind::Absolute, Severity::NotJudged, kHighest.value, "what is judged"))};
    if (source.alternating) m.limits.clear();
    out.push_back({std::move(m), d, &source, source.alternating ? std::optional(Severity::NotJudged) : std::nullopt});
  });
  return out;
}

}  // namespace

Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Supply& m) {
    const auto& name = called(s.bench, m.device);
    const auto only = "Only direct current up to 60 V is judged.";
    if (m.besides) return finding(fmt::format("{} is an AC source", name), only, m.margin.subjects);
    const Volts v{*m.margin.value};
    auto f = finding(fmt::format("{} gives {}", name, show(v)), only, m.margin.subjects);
    f.ways = {{fmt::format("Take a supply of at most {}, or enter what {} really gives.", show(kHighest), name),
               figureOf(s.bench, m.device, "full")}};
    f.formula = against(v, ">", kHighest);
    f.args = {{"voltage", v}, {"limit", kHighest}};
    return f;
  });
}

Check check() {
  return {"outside-scope", "commands", "Outside what is judged", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::outside_scope
