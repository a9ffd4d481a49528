#include "core/checks/analysis.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>
#include <set>

#include "core/bench/stand_ins.h"
#include "core/bench/steering.h"
#include "core/checks/explain.h"
#include "core/checks/margin_words.h"
#include "core/checks/suppose.h"
#include "core/checks/wired_signals.h"
#include "core/harness/left_out.h"
#include "core/harness/marks.h"
#include "core/harness/names.h"
#include "core/harness/read_harness.h"
#include "core/harness/source_standing.h"
#include "core/parts/saturation.h"

namespace bold {
namespace {

using checks::Finding;
using checks::Findings;
using checks::Harm;
using checks::Severity;

std::vector<std::string> unknownFigures(const bench::Bench& bench) {
  std::vector<std::string> out;
  for (const auto& d : bench.devices)
    for (const auto& f : d.part->figures)
      if (!f.figure.known()) out.push_back(d.called() + ": " + f.label);
  return out;
}

// "pin resistance 40 Ω (the weak end of common controllers): Controller, second controller"
std::string words(const bench::Bench& bench, const bench::StoodIn& s) {
  std::string of;
  for (const int d : s.devices) of += (of.empty() ? "" : ", ") + bench.devices[d].called();
  return fmt::format("{} {} ({}): {}", s.standIn->what, displayText(s.standIn->value), s.standIn->why, of);
}

std::vector<std::string> assumptionsOf(const bench::SolvedBench& solved) {
  const auto& bench = solved.bench;
  std::vector<std::string> out;
  int open = 0;
  for (const auto& c : bench.connections) open += c.kind == harness::ConnectionKind::Wire && (!c.gauge || !c.length);
  if (open > 0)
    out.push_back(fmt::format("{} wire{} without gauge or length: taken as 28 AWG 0.2 m at controllers and logic, 22 AWG 0.3 m elsewhere",
                              open, open == 1 ? "" : "s"));
  if (!bench.links.empty())
    out.emplace_back("contacts, each mated pair: screwed, crimped or soldered 1 mΩ, header 10 to 20 mΩ, breadboard or clip 10 to 50 mΩ");
  if (!bench.ambient) out.emplace_back("ambient 30 °C");
  for (const auto& m : solved.motors)
    if (bench::steeringOf(bench, solved.nets, m) == bench::Steering::AlwaysOn)
      out.push_back(fmt::format("{} always on: nothing in its leads is switched by a program", checks::called(solved, m)));
  for (const auto& d : bench.devices)
    for (const auto& e : d.part->elements) {
      const auto* c = std::get_if<parts::Contact>(&e.body);
      const auto position = d.settings.find("position");
      if (c && c->moved == parts::Moved::Switched && position != d.settings.end() && position->second == "off")
        out.push_back(fmt::format("{} switched on, as the bench will run; it is drawn off", d.called()));
    }
  for (const auto& s : bench::standInsOf(solved)) out.push_back(words(bench, s));
  for (const auto& d : bench.devices)
    for (const auto& e : d.part->elements) {
      const auto* t = std::get_if<parts::Bipolar>(&e.body);
      if (!t || !d.has(e) || !t->saturation.empty()) continue;
      const auto& [amps, volts] = parts::saturationOf(*t).front();
      out.push_back(fmt::format("{} without saturation voltages: {} at {} as a common {}", d.called(), displayText(Volts{volts}),
                                displayText(Amps{amps}), t->darlington ? "Darlington" : "transistor"));
    }
  return out;
}

// Causes first, the gravest of all first, each followed by what it explains. A stop does whatever follows from it.
void fold(std::vector<Finding>& findings) {
  std::map<std::string, Harm> worst;
  for (const auto& f : findings)
    if (f.severity == Severity::Stop && !f.explainedBy.empty()) {
      const auto [it, fresh] = worst.emplace(f.explainedBy, f.harm);
      it->second = std::min(it->second, f.harm);
    }
  for (auto& f : findings)
    if (const auto it = worst.find(f.identity()); it != worst.end() && f.severity == Severity::Stop) f.harm = std::min(f.harm, it->second);
  std::ranges::stable_sort(findings, {}, rank);
  std::vector<Finding> out;
  for (const auto& f : findings) {
    if (!f.explainedBy.empty()) continue;
    out.push_back(f);
    const auto id = f.identity();
    for (const auto& e : findings)
      if (e.explainedBy == id) out.push_back(e);
  }
  findings = std::move(out);
}

// One number a cause; what follows from it has the same. Needs causes before what they explain.
void number(std::vector<Finding>& findings) {
  int n = 0;
  for (auto& f : findings) {
    if (f.severity == Severity::Note && f.explainedBy.empty()) continue;
    f.number = f.explainedBy.empty() ? ++n : n;
  }
}

constexpr std::string_view kOr = "Or ";

// Where a check leaves it open what to do, and no repair is to be trusted, its page says what usually mends it.
void sayHowToMend(std::vector<Finding>& findings) {
  for (auto& f : findings) {
    // Beside a repair only what may be done instead is said; a second way is the first where the first one fell away.
    if (f.repair) std::erase_if(f.ways, [](const checks::Way& w) { return !w.text.starts_with(kOr); });
    if (!f.repair && !f.ways.empty() && f.ways.front().text.starts_with(kOr)) {
      auto& text = f.ways.front().text;
      text.erase(0, kOr.size());
      text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
    }
    if (!f.repair && f.ways.empty())
      if (const auto how = checks::howToMend(f.check); !how.empty()) f.ways.push_back({std::string(how)});
  }
}

// A stage that lets a motor burn or not, by figures that nobody but the file vouches for.
std::vector<std::string> limitsFromFile(const Analysis& a) {
  std::vector<std::string> out;
  for (const auto& f : a.fromFile) {
    const int d = a.solved->bench.deviceIndex(f.device);
    if (f.limits && d >= 0 && !a.solved->bench.devices[d].part->channels.empty())
      out.push_back(fmt::format("the limits of {} come from this file alone", a.solved->bench.devices[d].called()));
  }
  return out;
}

constexpr std::size_t kMostLeftOutSaid = 50;
constexpr int kMostFoundSaid = 5;

void sayLeftOut(Analysis& a) {
  for (std::size_t i = 0; i < std::min(a.leftOut.size(), kMostLeftOutSaid); ++i) {
    const auto& p = a.leftOut[i];
    a.why.push_back(fmt::format("left out of {}: {}{}{}", p.where, p.what, p.kept.empty() ? "" : " ", p.kept));
  }
  if (a.leftOut.size() > kMostLeftOutSaid)
    a.why.push_back(fmt::format("left out of the file: {} more entries", a.leftOut.size() - kMostLeftOutSaid));
}

// What the wires say already stands beside it.
Unstated withoutSignals(const bench::SolvedBench& s, const bench::Motor& m) {
  std::string wired;
  for (const auto& w : checks::wiredSignals(s, m))
    if (!w.pin.device.empty())
      wired += fmt::format("{}{} reaches {}", wired.empty() ? "" : ", ", s.bench.called(s.bench.terminal(w.pin)), w.role);
  return {
      fmt::format("{} has no signals{}: its levels and pins are not judged", checks::called(s, m), wired.empty() ? "" : " (" + wired + ")"),
      checks::fieldOf(s, m, "signals")};
}

// What stands on the bench is not what was judged.
std::optional<std::string> foundOtherwise(const harness::Harness& h, const parts::Library& library) {
  std::string names;
  int count = 0;
  const auto marks = harness::allMarks(h, library);
  for (std::size_t i = 0; i < marks.size(); ++i)
    if (marks[i].wrong && ++count <= kMostFoundSaid) names += (count == 1 ? "" : "; ") + harness::shownEnds(h, library, h.connections[i]);
  if (count == 0) return std::nullopt;
  if (count > kMostFoundSaid) names += fmt::format("; and {} more", count - kMostFoundSaid);
  return fmt::format("{} found otherwise on the bench than in the list: {}",
                     count == 1 ? "a connection was" : fmt::format("{} connections were", count), names);
}

// Settings that are planned to be what their part does not have: nothing that stands is judged by them, and nobody may wait for them.
std::vector<std::string> unknownPlans(const harness::Harness& h, const parts::Library& library) {
  constexpr std::size_t kMostShown = 40;  // bytes of what is planned
  std::vector<std::string> out;
  for (const auto& d : h.devices)
    for (const auto& [id, v] : d.settings) {
      const auto part = v.planned.empty() ? nullptr : library.find(d.part);
      const auto* s = part ? part->setting(id) : nullptr;
      if (part && (!s || std::ranges::count(s->values, v.planned) == 0))
        out.push_back(fmt::format("the setting \"{}\" of {} is planned to be \"{}\", which its part does not have", id, d.called(),
                                  v.planned.size() > kMostShown ? std::string("…") : v.planned));
    }
  return out;
}

void decide(Analysis& a, const harness::Harness& h, const parts::Library& library, const Options& options) {
  const auto& bench = a.solved->bench;
  const auto& motors = a.solved->motors;
  for (std::size_t k = 0; k < motors.size(); ++k)
    if (!bench::stated(motors, static_cast<int>(k)) && bench::steeringOf(bench, a.solved->nets, motors[k]) == bench::Steering::Pins)
      a.unstated.push_back(withoutSignals(*a.solved, motors[k]));
  const auto sayUnstated = [&] {
    for (const auto& u : a.unstated) a.why.push_back(u.text);
  };
  sayLeftOut(a);
  const auto otherwise = foundOtherwise(h, library);
  if (otherwise) a.why.push_back(*otherwise);
  if (bench.devices.empty() && bench.problems.empty()) a.why.emplace_back("the bench is empty");
  for (const auto& p : bench.problems) a.why.push_back(p.what);
  const auto plans = unknownPlans(h, library);
  a.why.insert(a.why.end(), plans.begin(), plans.end());
  const auto stale = harness::staleSources(h);
  a.why.insert(a.why.end(), stale.begin(), stale.end());
  if (!options.only.empty()) a.why.emplace_back("only some of its commands were solved");
  if (h.newerFormat) a.why.emplace_back("the file comes from a newer version of the program");
  for (const auto& f : a.findings)
    if (f.severity == Severity::NotJudged) a.why.push_back(f.headline);
  if (a.count(Severity::Stop) > 0 && !h.newerFormat) {
    a.why.clear();  // the stops are why; only what could not be used as it stands is said besides
    sayLeftOut(a);
    if (otherwise) a.why.push_back(*otherwise);
    for (const auto& p : bench.problems) a.why.push_back(p.what);
    a.why.insert(a.why.end(), plans.begin(), plans.end());
    a.why.insert(a.why.end(), stale.begin(), stale.end());
    for (const auto& r : bench.remarks) a.why.push_back(r.what + " " + r.kept);
    sayUnstated();
    a.verdict = Verdict::DoNotSwitchOn;
    return;
  }
  if (!a.why.empty()) {
    sayUnstated();
    a.verdict = Verdict::NotJudged;
    return;
  }
  for (const auto& r : bench.remarks) a.why.push_back(r.what + " " + r.kept);
  if (a.openChanges > 0) a.why.push_back(fmt::format("{} change{} to make on the bench", a.openChanges, a.openChanges == 1 ? "" : "s"));
  if (a.count(Severity::Caution) > 0) a.why.push_back(fmt::format("{} to look at again", a.count(Severity::Caution)));
  sayUnstated();
  for (auto& u : harness::untoldOf(h)) a.why.push_back(std::move(u));
  for (auto& l : limitsFromFile(a)) a.why.push_back(std::move(l));
  a.verdict = a.why.empty() ? Verdict::Clear : Verdict::LookAgain;
  a.tightest = checks::tightestWords(a);
}

}  // namespace

int Analysis::count(Severity severity) const {
  return static_cast<int>(std::ranges::count(findings, severity, &Finding::severity));
}
int Analysis::causes(Severity severity) const {
  return static_cast<int>(
      std::ranges::count_if(findings, [&](const Finding& f) { return f.severity == severity && f.explainedBy.empty(); }));
}
int Analysis::stopCauses(Harm harm) const {
  return static_cast<int>(std::ranges::count_if(
      findings, [&](const Finding& f) { return f.severity == Severity::Stop && f.harm == harm && f.explainedBy.empty(); }));
}
const Finding* Analysis::find(const std::string& identity) const {
  const auto it = std::ranges::find_if(findings, [&](const Finding& f) { return f.identity() == identity; });
  return it == findings.end() ? nullptr : &*it;
}

Analysis analyse(const harness::Harness& h, const parts::Library& library, const Options& options, const Analysis* previous) {
  Analysis a;
  auto judged = judge(h, library, options, previous ? &previous->judged : nullptr);
  if (!judged) {
    a.why.emplace_back("it was given up before it was done");
    return a;
  }
  const bool same = previous && previous->solved && previous->judged.from == judged->from && *previous->judged.ids == *judged->ids &&
                    previous->judged.only == judged->only;
  if (same && previous->explained == options.explain) {
    a.findings = previous->findings;
    a.solved = previous->solved;
  } else {
    a.solved = same ? previous->solved : whole(*judged, library);
    a.findings = judged->findings();
  }
  a.judged = std::move(*judged);
  a.checks = static_cast<int>(checks::registry().size());
  for (const auto& p : a.solved->points) a.commands += p->solved();
  a.unknown = unknownFigures(a.solved->bench);
  a.unknownFigures = static_cast<int>(a.unknown.size());
  a.assumptions = assumptionsOf(*a.solved);
  a.leftOut = harness::leftOut(h);
  a.fromFile = harness::fromFile(h, library);
  for (const auto& f : a.fromFile) a.assumptions.push_back(f.sentence);
  for (const auto& list : harness::missingLists(h)) a.assumptions.push_back(fmt::format("the file has no \"{}\": nothing of it", list));
  a.openChanges = h.openChanges();
  a.explained = options.explain;
  if (options.explain && !(same && previous->explained)) {
    auto supposed = suppose(a, h, library, options);
    explain(a, h, library, options);
    a.findings.insert(a.findings.end(), std::make_move_iterator(supposed.begin()), std::make_move_iterator(supposed.end()));
    fold(a.findings);
  }
  number(a.findings);
  sayHowToMend(a.findings);
  decide(a, h, library, options);
  return a;
}

void carryOver(Analysis& a, const Analysis& before) {
  if (a.explained) return;
  // What is asked by trials is not asked yet: what was found last is shown until it is, and nothing is Clear meanwhile.
  for (const auto& f : before.findings) {
    const auto* check = checks::findCheck(f.check);
    const bool stands = check && check->supposes() && a.solved && a.solved->bench.deviceIndex(f.subjects.front()) >= 0;
    if (!stands || a.find(f.identity())) continue;
    a.findings.push_back(f);
    if (f.severity == Severity::Caution && a.verdict == Verdict::Clear) a.verdict = Verdict::LookAgain;
  }
  for (auto& f : a.findings) {
    const auto* known = before.find(f.identity());
    if (known && !known->explainedBy.empty() && a.find(known->explainedBy)) f.explainedBy = known->explainedBy;
  }
  // No chains: what followed from something that follows itself now stands by itself.
  for (auto& f : a.findings)
    if (const auto* cause = a.find(f.explainedBy); cause && !cause->explainedBy.empty()) f.explainedBy.clear();
  fold(a.findings);
  number(a.findings);
}

std::string unknownWords(const Analysis& a) {
  constexpr std::size_t kMost = 5;
  std::string names;
  for (std::size_t k = 0; k < std::min(a.unknown.size(), kMost); ++k) names += (k == 0 ? " (" : "; ") + a.unknown[k];
  if (a.unknown.size() > kMost) names += fmt::format("; and {} more", a.unknown.size() - kMost);
  return fmt::format("{} figure{} unknown{}", a.unknownFigures, a.unknownFigures == 1 ? "" : "s", names.empty() ? "" : names + ")");
}

std::string_view headline(Verdict v) {
  switch (v) {
    case Verdict::DoNotSwitchOn:
      return "Do not switch on";
    case Verdict::NotJudged:
      return "Not judged";
    case Verdict::LookAgain:
      return "Look again";
    case Verdict::Clear:
      return "Clear to switch on";
  }
  return {};
}

std::string summary(const Analysis& a) {
  std::string out;
  const auto say = [&](int n, std::string_view what) {
    if (n > 0) out += fmt::format("{}{} {}", out.empty() ? "" : ", ", n, what);
  };
  say(a.stopCauses(Harm::Danger), "dangerous");
  say(a.stopCauses(Harm::Damage), "would do damage");
  say(a.stopCauses(Harm::WillNotWork), "will not work");
  say(a.causes(Severity::Caution), "to look at again");
  say(a.causes(Severity::Note), a.causes(Severity::Note) == 1 ? "note" : "notes");
  if (a.verdict != Verdict::NotJudged)
    say(static_cast<int>(a.unstated.size()), a.unstated.size() == 1 ? "motor without stated pins" : "motors without stated pins");
  say(static_cast<int>(a.leftOut.size()), "left out of the file");
  const auto follow = std::ranges::count_if(a.findings, [](const Finding& f) { return !f.explainedBy.empty(); });
  if (follow > 0)
    out += fmt::format("; {} more follow{} from {}", follow, follow == 1 ? "s" : "", a.findings.size() - follow == 1 ? "it" : "these");
  if (a.openChanges > 0)
    out += fmt::format("{}{} to make on the bench", out.empty() ? "" : ", ",
                       a.openChanges == 1 ? "1 change" : fmt::format("{} changes", a.openChanges));
  const bool saysWhy = a.verdict == Verdict::NotJudged && a.leftOut.empty() && a.count(Severity::NotJudged) == 0;  // else it is counted
  if (!a.why.empty() && (saysWhy || (out.empty() && a.verdict != Verdict::Clear))) out = a.why.front() + (out.empty() ? "" : "; " + out);
  if (out.empty()) out = "nothing to mend";
  return a.tightest.empty() ? out : out + "; " + a.tightest;
}

}  // namespace bold
