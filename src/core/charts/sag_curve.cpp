#include "core/charts/sag_curve.h"

#include <fmt/core.h>

#include <cmath>

#include "core/bench/queries.h"

namespace bold::charts {
namespace {

constexpr double kSpeedsUp = 0.05;  // s, mechanical time constant of a geared motor, where nothing better is known
constexpr int kSagSteps = 200;

// The source whose current changes most between two points: the one that feeds the motor.
const bench::Nets::Pole* feeding(const bench::SolvedBench& s, const bench::OperatingPoint& a, const bench::OperatingPoint& b) {
  const bench::Nets::Pole* out = nullptr;
  double most = 1e-3;
  for (const auto& pole : s.nets.sources()) {
    const double change = std::abs(a.element(pole.device, pole.element).value - b.element(pole.device, pole.element).value);
    if (change > most) {
      most = change;
      out = &pole;
    }
  }
  return out;
}

}  // namespace

std::optional<Curve> sagCurve(const bench::SolvedBench& s, int motor) {
  const auto& m = s.motors[motor];
  Curve c;
  for (const auto corner : {bench::Corner::Full, bench::Corner::Nominal, bench::Corner::Empty}) {
    const auto* run = s.running(motor, corner);
    const bench::OperatingPoint* stalled = nullptr;
    for (const auto a : {bench::Action::Forward, bench::Action::Move})
      if (const auto* p = s.point(motor, a, bench::Moment::Stalled, corner)) stalled = p;
    const auto* off = s.point(bench::Action::AllOff, corner);
    if (!run || !stalled || !off) continue;
    const auto* pole = feeding(s, *stalled, *off);
    if (!pole) continue;
    const auto v0 = stalled->across(pole->positive, pole->negative);
    const auto v1 = run->across(pole->positive, pole->negative);
    const auto before = off->across(pole->positive, pole->negative);
    if (!v0 || !v1 || !before) continue;
    Series line;
    line.name = corner == bench::Corner::Full ? "full" : corner == bench::Corner::Nominal ? "nominal" : "empty, aged";
    line.x = {-0.02, 0};
    line.y = {before->value, before->value};
    for (int k = 0; k <= kSagSteps; ++k) {
      const double t = 0.3 * k / kSagSteps;
      line.x.push_back(t);
      line.y.push_back(v1->value + (v0->value - v1->value) * std::exp(-t / kSpeedsUp));
    }
    c.series.push_back(std::move(line));
    c.title = fmt::format("{} while {} starts", bench::called(s.bench, pole->device), bench::called(s, m));
    // What hangs on this source and has a least voltage.
    c.limits.clear();
    for (bench::TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
      const auto& supply = s.bench.facts(t).supply;
      if (supply && supply->recommended.min && s.nets.same(t, pole->positive))
        c.limits.push_back({"least at " + s.bench.called(t), *supply->recommended.min});
    }
  }
  if (c.series.empty()) return std::nullopt;
  c.note = fmt::format("speeding up with a time constant of {}, all other motors running", displayText(Seconds{kSpeedsUp}));
  return c;
}

}  // namespace bold::charts
