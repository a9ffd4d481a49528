#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/parts/roles.h"

namespace bold::checks::regulator_input {
namespace {

constexpr double kTolerated = 0.1;   // V below the recommended least at which logic still works
constexpr double kHolds = 0.05;      // V that a regulator may lack and hold its output all the same
constexpr double kAdapters = 1.001;  // what makers print is meant nominally: a 12 V adapter's tolerance is no news

struct Input {
  Margins margins;  // at full charge, at nominal charge
  int device;
  const parts::Regulator* regulator;
  Volts full, usual, need;
};

// What hangs on it has a range of its own: out of that it is a caution, within it only worth knowing.
Severity starved(const SolvedBench& s, const OperatingPoint& p, TerminalIndex out, TerminalIndex ground) {
  const auto left = out < 0 ? std::nullopt : p.across(out, ground);
  const auto& facts = out < 0 ? std::nullopt : s.bench.facts(out).supply;
  const bool tooLow = left && facts && facts->recommended.min && left->value < *facts->recommended.min - kTolerated;
  return tooLow ? Severity::Caution : Severity::Note;
}

std::vector<Input> measure(const SolvedBench& s) {
  std::vector<Input> out;
  const auto* full = s.point(Action::AllOff, Corner::Full);
  const auto* nominal = s.point(Action::AllOff, Corner::Nominal);
  if (!full || !nominal) return out;
  eachElement<parts::Regulator>(s.bench, [&](int d, int e, const parts::Regulator& r) {
    const auto in = at(s.bench, d, r.in);
    const auto ground = at(s.bench, d, r.ground);
    if (in < 0 || ground < 0 || (r.switching && !parts::isController(*s.bench.devices[d].part))) return;  // converter-output
    const auto most = full->across(in, ground);
    const auto usual = nominal->across(in, ground);
    if (!most || !usual || usual->value < 1.5) return;
    Input m{{}, d, &r, *most, *usual, Volts{r.set.least().value_or(0) + r.dropout.greatest().value_or(0)}};
    const std::vector subjects{s.bench.address(in)};
    m.margins = {
        {.quantity = "regulator input",
         .subjects = subjects,
         .unit = Unit::Volt,
         .value = most->value,
         .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, r.absolute.typical(), "absolute maximum", r.absolute.source)),
         .at = full},
        {.quantity = "regulator input, nominal", .subjects = subjects, .unit = Unit::Volt, .value = usual->value, .at = nominal}};
    auto& limits = m.margins[1].limits;
    // A module's regulator for its own logic is judged by what that gets; a board's feeds whatever the board is asked for.
    const bool board = parts::isController(*s.bench.devices[d].part);
    if (board && r.printed.min && nominal->element(d, e).value > 1e-3)
      limits.push_back(atLeast(LimitKind::Recommended, Severity::Caution, *r.printed.min / kAdapters, "printed least", r.printed.source));
    if (r.printed.max)
      limits.push_back(atMost(LimitKind::Recommended, Severity::Note, *r.printed.max * kAdapters, "printed", r.printed.source));
    // Only a regulator that gives current can be starved: one whose output is fed otherwise stands by.
    if (nominal->element(d, e).value > 1e-3)
      limits.push_back(atLeast(LimitKind::Promised, starved(s, *nominal, at(s.bench, d, r.out), ground), m.need.value - kHolds, "least",
                               r.dropout.source));
    out.push_back(std::move(m));
  });
  return out;
}

}  // namespace

// A regulator on a board or module: what comes in against what it stands and needs.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Input& m) {
    const auto& r = *m.regulator;
    const bool stop = m.margins[0].stops();
    const bool low = !stop && m.margins[1].passed()->least;
    const bool starves = low && m.usual.value < m.need.value - kHolds;
    const Volts v = stop ? m.full : m.usual;
    const Volts limit = stop ? Volts{*r.absolute.typical()} : starves ? m.need : Volts{low ? *r.printed.min : *r.printed.max};
    const auto& name = called(s.bench, m.device);
    auto f = finding(
        fmt::format("The regulator of {} gets {}", name, show(v)),
        stop      ? fmt::format("The regulator of {} stands {} at its input and gets {} at full charge.", name, show(limit), show(v))
        : starves ? fmt::format("The regulator of {} needs {} to hold its output and gets {}: what it feeds sags with the supply.", name,
                                show(limit), show(v))
        : low     ? fmt::format("{} is made for {} at that input and gets {}: nothing is left for a start or an emptier supply.", name,
                                displayText(r.printed), show(v))
              : fmt::format("{} prints {} for its regulator; it gets {}. Heat decides, see there.", name, displayText(r.printed), show(v)),
        m.margins[0].subjects);
    f.ways = {{low ? fmt::format("Feed {} with {} or more.", name, show(limit))
                   : fmt::format("Feed {} with {} at most when the supply is full.", name, show(limit))}};
    f.formula = fmt::format("{} {} {}", show(v), low ? "<" : ">", show(limit));
    f.args = {{"voltage", v}, {"limit", limit}};
    f.bar = Bar{"regulator input", v, {}, limit, stop ? "absolute maximum" : starves ? "least" : "printed", low};
    f.sources = sourcesOf({&r.absolute, &r.dropout});
    return f;
  });
}

Check check() {
  return {"regulator-input", "voltage", "A regulator's input out of range", Harm::Damage, judge};
}

}  // namespace bold::checks::regulator_input
