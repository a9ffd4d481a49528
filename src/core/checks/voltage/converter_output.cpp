#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/parts/roles.h"

namespace bold::checks::converter_output {
namespace {

constexpr double kHeld = 0.95;   // of its setting: what it feeds does not notice
constexpr double kGives = 1e-3;  // A from which it feeds anything
constexpr double kAtIt = 0.98;   // share of a limit from which it is held there

enum class Why { InputTooLow, SwitchLimit, OutputLimit };

struct Output {
  Margins margins;  // running, at a start
  int device;
  const parts::Regulator* converter;
  struct At {
    const OperatingPoint* point = nullptr;
    Volts out{}, in{};
    Amps given{};
  } running, stalled;
};

// The point of these at which it holds least of its output.
template <class Wanted>
Output::At lowest(const SolvedBench& s, int d, int e, const parts::Regulator& g, Wanted wanted) {
  Output::At least;
  for (const auto& p : s.points) {
    if (!p->solved() || !everyday(*p) || !wanted(*p)) continue;
    const auto out = p->across(at(s.bench, d, g.out), at(s.bench, d, g.ground));
    const auto in = p->across(at(s.bench, d, g.in), at(s.bench, d, g.ground));
    const Amps given = p->element(d, e);
    if (!out || !in || given.value < kGives || (least.point && out->value >= least.out.value)) continue;
    least = {p.get(), *out, *in, given};
  }
  return least;
}

std::vector<Output> measure(const SolvedBench& s) {
  std::vector<Output> out;
  eachElement<parts::Regulator>(s.bench, [&](int d, int e, const parts::Regulator& g) {
    // A board's own feeds what the board needs: that is judged by what it gets.
    if (!g.switching || !g.set.typical() || parts::isController(*s.bench.devices[d].part)) return;
    const auto o = at(s.bench, d, g.out);
    if (o < 0) return;
    Output m{{},
             d,
             &g,
             lowest(s, d, e, g, [](const OperatingPoint& p) { return p.command().moment != Moment::Stalled; }),
             lowest(s, d, e, g, [](const OperatingPoint& p) { return p.command().moment == Moment::Stalled; })};
    const auto margin = [&](const char* quantity, const Output::At& where, Severity severity) {
      Margin x{.quantity = quantity, .subjects = {s.bench.address(o)}, .unit = Unit::Volt, .at = where.point};
      x.from = *g.set.typical();
      if (where.point) x.value = where.out.value;
      x.limits = rising(atLeast(LimitKind::Recommended, severity, kHeld * *g.set.typical(), "set, less 5 %", g.set.source));
      m.margins.push_back(std::move(x));
    };
    margin("output of the converter", m.running, Severity::Caution);
    margin("output of the converter at a start", m.stalled, Severity::Note);
    out.push_back(std::move(m));
  });
  return out;
}

Why why(const parts::Regulator& g, const Output::At& at) {
  const double efficiency = g.efficiency.typical().value_or(1);
  const double taken = at.given.value * at.out.value / (efficiency * std::max(at.in.value, 0.5));
  if (g.inputLimit.typical() && taken >= kAtIt * *g.inputLimit.typical()) return Why::SwitchLimit;
  if (g.limit.typical() && at.given.value >= kAtIt * *g.limit.typical()) return Why::OutputLimit;
  return Why::InputTooLow;
}

}  // namespace

// A converter whose output gives way: its input is too low, or more is asked for than it can pass on.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Output& m) {
    const auto& g = *m.converter;
    const auto& worst = m.margins[0].passed() ? m.running : m.stalled;
    const Volts set{*g.set.typical()};
    const auto& name = called(s.bench, m.device);
    const auto reason = why(g, worst);
    const bool down = g.steps == parts::Steps::Down;
    const Volts need{down ? set.value + g.dropout.greatest().value_or(0) : g.least.greatest().value_or(0)};
    auto f = finding(
        fmt::format("{} holds {} of its {}", name, show(worst.out), show(set)),
        fmt::format("With {} {} {}: {} are left at its output.", during(*worst.point), name,
                    reason == Why::SwitchLimit ? fmt::format("is asked for {} from {}, more than the {} that its switch lets through",
                                                             show(worst.given), show(worst.in), show(Amps{*g.inputLimit.typical()}))
                    : reason == Why::OutputLimit
                        ? fmt::format("is asked for more than the {} that it gives", show(Amps{*g.limit.typical()}))
                        : fmt::format("gets {} at its input and needs {}", show(worst.in), show(need)),
                    show(worst.out)),
        m.margins[0].subjects);
    f.ways = {{reason == Why::InputTooLow ? fmt::format("Feed {} with {} or more under this load.", name, show(need))
               : down ? fmt::format("A converter for {} and more, or a supply of its own for what draws most.", show(worst.given))
                      : fmt::format("Feed {} from a higher voltage, which asks less of its switch, or take a stronger one.", name)}};
    f.formula = against(worst.out, "<", set);
    f.args = {{"voltage", worst.out}, {"set", set}, {"input", worst.in}, {"current", worst.given}};
    f.bar = Bar{"output of the converter", worst.out, {}, Volts{kHeld * set.value}, "set, less 5 %", true};
    f.sources = sourcesOf({&g.set, &g.limit});
    return f;
  });
}

Check check() {
  return {"converter-output", "voltage", "A converter cannot hold its output", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::converter_output
