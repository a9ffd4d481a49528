#include "core/checks/judged_bench.h"

#include <fmt/core.h>

#include <algorithm>
#include <atomic>
#include <set>
#include <utility>

#include "core/base/parallel.h"
#include "core/bench/cells.h"
#include "core/bench/joined_bench.h"
#include "core/checks/analysis.h"
#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"
#include "core/checks/unknown_figures.h"

namespace bold {
namespace {

using checks::Findings;
using checks::Margins;
using checks::Said;

// Nothing when it was given up.
std::optional<Said> runChecks(const bench::SolvedBench& solved, const std::function<bool()>& cancelled) {
  const auto all = checks::registry();
  const checks::ProgramOnBench program(solved);
  std::vector<Said> said(all.size());
  std::atomic<bool> gaveUp = false;
  inParallel(all.size(), [&](std::size_t k) {
    if (gaveUp || (cancelled && cancelled()))
      gaveUp = true;
    else
      said[k] = all[k].run(solved, program);
  });
  if (gaveUp) return std::nullopt;
  Said out;
  std::size_t margins = 0;
  for (const auto& s : said) margins += s.margins.size();
  out.margins.reserve(margins);
  for (std::size_t k = 0; k < all.size(); ++k) {
    for (auto& f : said[k].findings) {
      f.check = all[k].id;
      f.harm = all[k].harm;
      out.findings.push_back(std::move(f));
    }
    for (auto& m : said[k].margins) {
      m.check = all[k].id;
      out.margins.push_back(std::move(m));
    }
  }
  return out;
}

JudgedFrom fromOf(const harness::Harness& h, const parts::Library& library) {
  JudgedFrom out{h, {}};
  std::set<std::string_view> used;
  for (const auto& d : h.devices)
    if (const auto part = library.find(d.part); part && part->own && used.insert(d.part).second) out.ownParts.push_back(part);
  return out;
}

// Takes over what is the same; a repair that was planned among other ids might use one that has been taken since.
bool stillHolds(const JudgedCell& cell, const JudgedFrom& from, const std::vector<std::string>& only,
                const std::shared_ptr<const std::set<std::string>>& ids) {
  if ((!cell.only.empty() && cell.only != only) || cell.from != from) return false;
  return cell.ids == ids || std::ranges::none_of(cell.findings, [](const auto& f) { return f.repair.has_value(); });
}

checks::Finding tooLarge(const bench::SolvedBench& solved) {
  checks::Finding f;
  f.check = "outside-scope";
  f.severity = checks::Severity::NotJudged;
  f.headline = "The bench is too large to be judged at once";
  f.text = fmt::format("It is too large, because {}. Divide it into benches with supplies of their own.", solved.tooLarge);
  f.subjects = {solved.bench.devices.front().doc.id};
  return f;
}

// What hangs on a part that no library knows, or on a supply of unknown voltage, is not judged: neither that it will not work nor any
// number. What the copper alone decides stands.
void leaveUnknownAside(const bench::SolvedBench& solved, Said& said) {
  const auto nets = checks::unknownNets(solved);
  if (nets.empty()) return;
  const auto& bench = solved.bench;
  const auto onThem = [&](const std::string& subject) {
    const auto dot = subject.find('.');
    const int d = bench.deviceIndex(subject.substr(0, dot));
    if (d < 0) return false;
    if (dot != std::string::npos) {
      const auto t = bench.terminal(d, subject.substr(dot + 1));
      return t >= 0 && nets.contains(solved.nets.of(t));
    }
    const auto& terminals = bench.devices[d].part->terminals;
    return std::ranges::any_of(terminals, [&](const auto& t) { return nets.contains(solved.nets.of(bench.terminal(d, t.id))); });
  };
  std::erase_if(said.findings, [&](const checks::Finding& f) {
    if (f.severity == checks::Severity::NotJudged) return false;
    const auto* check = checks::findCheck(f.check);
    const bool guessed = check && (check->measures() || f.harm == checks::Harm::WillNotWork);
    return guessed && std::ranges::any_of(f.subjects, onThem);
  });
  for (auto& m : said.margins)
    if (std::ranges::any_of(m.subjects, onThem)) m.value.reset();
}

std::shared_ptr<const JudgedCell> judgeCell(JudgedCell made, const parts::Library& library, const Options& options) {
  auto bench = bench::makeBench(made.from.harness, library);
  bench.ids = made.ids;
  made.solved = bench::solveBench(std::move(bench), options.cancelled, made.only);
  if (!made.solved) return nullptr;
  auto said = made.solved->tooLarge.empty() ? runChecks(*made.solved, options.cancelled) : Said{{tooLarge(*made.solved)}, {}};
  if (!said) return nullptr;
  leaveUnknownAside(*made.solved, *said);
  made.findings = std::move(said->findings);
  made.margins = std::move(said->margins);
  return std::make_shared<const JudgedCell>(std::move(made));
}

}  // namespace

int rank(const checks::Finding& f) {
  switch (f.severity) {
    case checks::Severity::Stop:
      return static_cast<int>(f.harm);
    case checks::Severity::NotJudged:
      return 3;
    case checks::Severity::Caution:
      return 4;
    case checks::Severity::Note:
      return 5;
  }
  return 6;
}

Findings JudgedBench::findings() const {
  if (cells.size() == 1) {
    auto out = cells.front()->findings;
    std::ranges::stable_sort(out, {}, rank);
    return out;
  }
  std::map<std::string_view, std::vector<const checks::Finding*>> byCheck;
  std::set<std::string> said;  // what is true of the whole bench is said in every cell
  for (const auto& c : cells)
    for (const auto& f : c->findings)
      if (said.insert(f.identity()).second) byCheck[f.check].push_back(&f);
  Findings out;
  for (const auto& c : checks::registry())
    for (const auto* f : byCheck[c.id]) out.push_back(*f);
  std::ranges::stable_sort(out, {}, rank);
  return out;
}

Margins JudgedBench::margins() const {
  enum Group { Judged, OnlyNotes, Unknown };
  struct Placed {
    std::pair<Group, double> place;  // less stands first
    const checks::Margin* margin;
  };
  std::vector<Placed> all;
  std::set<std::string> earlier;  // what is true of the whole bench is measured in every cell
  for (const auto& c : cells) {
    std::vector<std::string> here;
    for (const auto& m : c->margins) {
      if (cells.size() > 1) {
        here.push_back(m.identity());
        if (earlier.contains(here.back())) continue;
      }
      const auto used = m.used();
      all.push_back({{!used ? Unknown : m.onlyNotes() ? OnlyNotes : Judged, -used.value_or(0)}, &m});
    }
    earlier.insert(here.begin(), here.end());
  }
  std::ranges::stable_sort(all, {}, &Placed::place);
  Margins out;
  out.reserve(all.size());
  for (const auto& p : all) {
    out.push_back(*p.margin);
    auto& m = out.back();
    if (const auto* point = std::exchange(m.at, nullptr)) {  // a copy may outlive the bench
      m.corner = point->corner();
      m.command = point->command().title;
    }
  }
  return out;
}

std::optional<JudgedBench> judge(const harness::Harness& whole, const parts::Library& library, const Options& options,
                                 const JudgedBench* known) {
  JudgedBench out;
  out.from = fromOf(judgedPart(whole), library);
  out.only = options.only;
  const auto& h = out.from.harness;
  out.ids = std::make_shared<const std::set<std::string>>(whole.ids());
  if (known && known->ids && *known->ids == *out.ids) out.ids = known->ids;
  auto split = bench::cellsOf(h, library);
  out.cuts = std::move(split.cuts);
  out.cells.resize(split.parts.size());
  inParallel(split.parts.size(), [&](std::size_t k) {
    auto from = fromOf(split.parts[k], library);
    if (known)
      for (const auto& other : known->cells)
        if (stillHolds(*other, from, out.only, out.ids)) out.cells[k] = other;
    if (!out.cells[k]) out.cells[k] = judgeCell({std::move(from), out.ids, out.only, nullptr, {}, {}}, library, options);
  });
  if (std::ranges::any_of(out.cells, [](const auto& c) { return c == nullptr; })) return std::nullopt;
  return out;
}

std::shared_ptr<const bench::SolvedBench> whole(const JudgedBench& judged, const parts::Library& library) {
  if (judged.cells.size() == 1) return judged.cells.front()->solved;
  // Where a cell was not solved there is no point of the whole bench; what was found in the others stands all the same.
  for (const auto& c : judged.cells)
    if (!c->solved->tooLarge.empty()) {
      auto unsolved = std::make_shared<bench::SolvedBench>(bench::makeBench(judged.from.harness, library), std::vector<bench::Command>{});
      unsolved->tooLarge = c->solved->tooLarge;
      return unsolved;
    }
  std::vector<std::shared_ptr<const bench::SolvedBench>> cells;
  for (const auto& c : judged.cells) cells.push_back(c->solved);
  return bench::join(bench::makeBench(judged.from.harness, library), std::move(cells), judged.cuts);
}

}  // namespace bold
