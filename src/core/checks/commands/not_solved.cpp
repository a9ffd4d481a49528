#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/unknown_figures.h"
#include "core/parts/roles.h"

namespace bold::checks::not_solved {
namespace {

struct Commands {
  std::vector<std::string> names, subjects;

  void add(const SolvedBench& s, const OperatingPoint& p) {
    if (std::ranges::count(names, p.command().title) == 0) names.push_back(p.command().title);
    if (p.command().motor < 0) return;
    const auto& m = s.motors[p.command().motor];
    for (const int d : {m.device, m.meant.device})
      if (d >= 0 && std::ranges::count(subjects, idOf(s.bench, d)) == 0) subjects.push_back(idOf(s.bench, d));
  }
  std::string first() const {
    return fmt::format("\"{}\"{}", names.front(), names.size() > 1 ? fmt::format(" and {} more", names.size() - 1) : "");
  }
  std::string all() const {
    std::string out;
    for (const auto& n : names) out += (out.empty() ? "" : ", ") + n;
    return out;
  }
};

// What switches its own supply off and on again while a motor is held, or a supply is nearly empty: everything else is judged.
Finding chatters(const Commands& at) {
  auto f = finding(Severity::Caution, fmt::format("\"{}\" does not come to rest", at.names.front()),
                   fmt::format("For {} a relay or stage takes its own supply away, drops out, gets it back and drops out again, when the "
                               "motor is held or the supplies are nearly empty. What flows then is not known.",
                               at.first()),
                   at.subjects);
  f.ways = {{"Give what drops out a supply of its own, or take one that holds its voltage at this current."}};
  f.formula = at.all();
  return f;
}

void unsolvedCommands(const SolvedBench& s, Findings& out) {
  Commands unsolved, atTheEnd;
  std::string why;
  for (const auto& p : s.points)
    if (!p->solved()) {
      const bool usual = p->command().moment == Moment::Running && p->corner() != Corner::Empty;
      (usual || !p->restless() ? unsolved : atTheEnd).add(s, *p);
      why = p->whyNot();
    }
  if (!atTheEnd.names.empty()) out.push_back(chatters(atTheEnd));
  if (unsolved.names.empty()) return;
  auto f = finding(Severity::NotJudged, fmt::format("\"{}\" could not be worked out", unsolved.names.front()),
                   fmt::format("For {} {}: nothing is said about it.", unsolved.first(), why), unsolved.subjects);
  f.ways = {{"Judge the rest by itself: take what these commands are about off a copy of the bench."}};
  f.formula = unsolved.all();
  out.push_back(std::move(f));
}

// A stage that takes its own supply away. While the motor is held, or from a battery that is nearly empty, it is no fault of
// the bench.
void huntingCommands(const SolvedBench& s, Findings& out) {
  Commands always;
  Commands atTheEnd;
  bool held = false;
  for (const auto& p : s.points) {
    if (!p->solved() || !p->hunts() || p->command().action == Action::Combination) continue;
    const bool usual = p->command().moment == Moment::Running && p->corner() != Corner::Empty;
    (usual ? always : atTheEnd).add(s, *p);
    held = held || (!usual && p->corner() != Corner::Empty);
  }
  const bool stop = !always.names.empty();
  const auto& hunting = stop ? always : atTheEnd;
  if (hunting.names.empty()) return;
  auto f = finding(stop   ? Severity::Stop
                   : held ? Severity::Caution
                          : onceEmpty(s),
                   fmt::format("\"{}\" takes its stage's supply away", hunting.names.front()),
                   fmt::format("{} draw{} a stage's supply below the voltage it works at{}: it drops out, recovers and drops out again. "
                               "The currents and voltages given are those while it is on.",
                               hunting.first(), hunting.names.size() > 1 ? "" : "s",
                               stop ? "" : " when the motor is held or the supplies are nearly empty"),
                   hunting.subjects);
  f.ways = {{"Give the stage a supply of its own, or one that holds its voltage at this current."}};
  f.formula = hunting.all();
  out.push_back(std::move(f));
}

// Figures without which a part's currents are unknown: one finding a part.
void missingFigures(const SolvedBench& s, Findings& out) {
  const auto say = [&](int d, const std::string& figure, std::string_view id, const std::string& what) {
    auto f = finding(Severity::NotJudged, fmt::format("The {} of {} is unknown", figure, called(s.bench, d)),
                     fmt::format("Without the {} of {} nothing {} can be judged. Enter it as a figure of {}.", figure, called(s.bench, d),
                                 what, called(s.bench, d)),
                     {idOf(s.bench, d)});
    f.ways = {{fmt::format("Measure the {} of {} and enter it.", figure, called(s.bench, d)), figureOf(s.bench, d, id)}};
    f.formula = figure + ": unknown";
    out.push_back(std::move(f));
  };
  for (const int d : unknownSources(s)) {
    const bool trimmed = !parts::isSource(*s.bench.devices[d].part);
    say(d, trimmed ? "output voltage" : "voltage", trimmed ? "set" : "full", "it feeds");
  }
  for (const int d : unknownResistors(s)) say(d, "resistance", "resistance", "behind it");
  for (const auto& m : s.motors) {
    if (m.windings.empty() || m.reached.empty()) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    std::string missing = w.resistance.known() ? "" : "winding resistance";
    if (w.brushed && !w.run.known()) missing += missing.empty() ? "running current" : " and running current";
    if (missing.empty()) continue;
    auto f = finding(
        Severity::Caution, fmt::format("Figures of {} are unknown", called(s, m)),
        fmt::format("The {} of {} {} unknown: its currents are not judged. Measure and enter {}.", missing, called(s, m),
                    missing.find(" and ") != std::string::npos ? "are" : "is", missing.find(" and ") != std::string::npos ? "them" : "it"),
        {idOf(s.bench, m.device)});
    if (!w.resistance.known())
      f.ways.push_back({fmt::format("Measure the winding of {} and enter it.", called(s, m)), figureOf(s.bench, m.device, "winding")});
    if (w.brushed && !w.run.known())
      f.ways.push_back({fmt::format("Measure what {} draws running and enter it.", called(s, m)), figureOf(s.bench, m.device, "run")});
    f.formula = missing + ": unknown";
    out.push_back(std::move(f));
  }
}

}  // namespace

Findings judge(const SolvedBench& s) {
  Findings out;
  unsolvedCommands(s, out);
  huntingCommands(s, out);
  missingFigures(s, out);
  return out;
}

Check check() {
  return {"not-solved", "commands", "A command without a solution", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::not_solved
