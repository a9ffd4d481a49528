#include <fmt/core.h>

#include <algorithm>

#include "core/checks/unknown_figures.h"

namespace bold::checks {
namespace {

// A battery that is nearly empty no longer holds a stage on: that is known well enough.
bool dropsOutAtTheEnd(const OperatingPoint& p) {
  return p.charge() == Charge::Empty && p.whyNot() == circuit::kRestless;
}

void unsolvedCommands(const SolvedBench& s, Findings& out) {
  std::vector<std::string> names;
  std::string why;
  bool atTheEnd = true;
  for (const auto& p : s.points)
    if (!p->solved()) {
      if (std::ranges::count(names, p->command().title) == 0) names.push_back(p->command().title);
      if (!dropsOutAtTheEnd(*p) || why.empty()) why = p->whyNot();
      atTheEnd = atTheEnd && dropsOutAtTheEnd(*p);
    }
  if (names.empty()) return;
  std::vector<std::string> subjects;
  const auto add = [&](int device) {
    if (device >= 0 && std::ranges::count(subjects, idOf(s.bench, device)) == 0) subjects.push_back(idOf(s.bench, device));
  };
  for (const auto& p : s.points)
    if (!p->solved() && p->command().motor >= 0) {
      const auto& m = s.motors[static_cast<std::size_t>(p->command().motor)];
      add(m.device);
      add(m.meant.device);
    }
  const auto what = fmt::format("\"{}\"{}", names.front(), names.size() > 1 ? fmt::format(" and {} more", names.size() - 1) : "");
  auto f = atTheEnd ? finding(Severity::Caution, fmt::format("Nearly empty supplies do not carry \"{}\"", names.front()),
                              fmt::format("Once the supplies are nearly empty, {} {} a stage below the voltage it works at: it drops out, "
                                          "recovers and drops out again. Charge or change them before.",
                                          what, names.size() > 1 ? "draw" : "draws"),
                              subjects)
                    : finding(Severity::NotJudged, fmt::format("\"{}\" could not be worked out", names.front()),
                              fmt::format("For {} {}: nothing is said about it.", what, why), subjects);
  for (const auto& n : names) f.formula += (f.formula.empty() ? "" : ", ") + n;
  out.push_back(std::move(f));
}

// Figures without which a part's currents are unknown: one finding a part.
void missingFigures(const SolvedBench& s, Findings& out) {
  for (const int d : unknownSources(s)) {
    auto f = finding(Severity::NotJudged, fmt::format("The voltage of {} is unknown", called(s.bench, d)),
                     fmt::format("Without the voltage of {} nothing it feeds can be judged. Enter it as a figure of {}.",
                                 called(s.bench, d), called(s.bench, d)),
                     {idOf(s.bench, d)});
    f.formula = "nominal voltage: unknown";
    out.push_back(std::move(f));
  }
  for (const int d : unknownResistors(s)) {
    auto f = finding(Severity::NotJudged, fmt::format("The resistance of {} is unknown", called(s.bench, d)),
                     fmt::format("Without the resistance of {} nothing behind it can be judged. Enter it as a figure of {}.",
                                 called(s.bench, d), called(s.bench, d)),
                     {idOf(s.bench, d)});
    f.formula = "resistance: unknown";
    out.push_back(std::move(f));
  }
  for (const auto& m : s.motors) {
    if (m.windings.empty() || m.reached.empty()) continue;
    const auto& w = circuit::windingOf(s.bench, m, 0);
    std::string missing = w.resistance.known() ? "" : "winding resistance";
    if (w.brushed && !w.run.known()) missing += missing.empty() ? "running current" : " and running current";
    if (missing.empty()) continue;
    auto f = finding(
        Severity::Caution, fmt::format("Figures of {} are unknown", called(s, m)),
        fmt::format("The {} of {} {} unknown: its currents are not judged. Measure and enter {}.", missing, called(s, m),
                    missing.find(" and ") != std::string::npos ? "are" : "is", missing.find(" and ") != std::string::npos ? "them" : "it"),
        {idOf(s.bench, m.device)});
    f.formula = missing + ": unknown";
    out.push_back(std::move(f));
  }
}

}  // namespace

Findings notSolved(const SolvedBench& s) {
  Findings out;
  unsolvedCommands(s, out);
  missingFigures(s, out);
  return out;
}

}  // namespace bold::checks
