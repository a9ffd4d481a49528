#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kTolerated = 0.1;  // V below the recommended least at which logic still works
}

// A regulator on a board or module: what comes in against what it stands and needs.
Findings regulatorInput(const SolvedBench& s) {
  Findings out;
  const auto* full = s.point(Action::AllOff, Charge::Full);
  const auto* nominal = s.point(Action::AllOff, Charge::Nominal);
  if (!full || !nominal) return out;
  eachElement<parts::Regulator>(s.bench, [&](int d, int e, const parts::Regulator& r) {
    const auto in = at(s.bench, d, r.in);
    const auto ground = at(s.bench, d, r.ground);
    if (in < 0 || ground < 0) return;
    const auto most = full->across(in, ground);
    const auto usual = nominal->across(in, ground);
    if (!most || !usual || usual->value < 1.5) return;
    const auto absolute = r.absolute.typical();
    const double need = r.set.least().value_or(0) + r.dropout.greatest().value_or(0);
    // Only a regulator that gives current can be starved: one whose output is fed otherwise stands by.
    const bool gives = nominal->element(d, e).value > 1e-3;
    const bool stop = absolute && most->value > *absolute;
    const bool starved = gives && usual->value < need - 0.05;
    // What makers print is meant nominally: a 12 V adapter's tolerance is no news.
    const bool printed = r.printed.max && usual->value > *r.printed.max * 1.001;
    if (!stop && !starved && !printed) return;
    // What hangs on it has a range of its own: out of that it is a caution, within it only worth knowing.
    const auto o = at(s.bench, d, r.out);
    const auto left = o < 0 ? std::nullopt : nominal->across(o, ground);
    const auto& fedFacts = o < 0 ? std::nullopt : s.bench.facts(o).supply;
    const bool tooLow = left && fedFacts && fedFacts->recommended.min && left->value < *fedFacts->recommended.min - kTolerated;
    const auto severity = stop ? Severity::Stop : starved && tooLow ? Severity::Caution : Severity::Note;
    const Volts v = stop ? *most : *usual;
    const Volts limit{stop ? *absolute : starved ? need : *r.printed.max};
    auto f =
        finding(severity, fmt::format("The regulator of {} gets {}", called(s.bench, d), show(v)),
                stop      ? fmt::format("The regulator of {} stands {} at its input and gets {} at full charge.", called(s.bench, d),
                                        show(limit), show(v))
                : starved ? fmt::format("The regulator of {} needs {} to hold its output and gets {}: what it feeds sags with the supply.",
                                        called(s.bench, d), show(limit), show(v))
                          : fmt::format("{} prints {} for its regulator; it gets {}. Heat decides, see there.", called(s.bench, d),
                                        displayText(r.printed), show(v)),
                {s.bench.address(in)});
    f.formula = fmt::format("{} {} {}", show(v), starved && !stop ? "<" : ">", show(limit));
    f.args = {{"voltage", v}, {"limit", limit}};
    f.bar = Bar{"regulator input", v, {}, limit, stop ? "absolute maximum" : starved ? "least" : "printed", starved && !stop};
    f.sources = sourcesOf({&r.absolute, &r.dropout});
    out.push_back(std::move(f));
  });
  return out;
}

}  // namespace bold::checks
