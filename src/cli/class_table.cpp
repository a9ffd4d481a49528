#include <fmt/core.h>

#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/base/csv.h"
#include "core/report/comparison.h"
#include "core/wiring/wire_list.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::class_table {
namespace {

struct Taken {
  std::string reference, format = "text";
  std::vector<std::string> files;
};

struct Row {
  std::string file, verdict;
  bool stops = false;
  std::vector<std::string> changes, fresh;
  int left = 0, wires = 0;  // still to be looked at, of how many
  std::string why;          // it cannot be used
};

Row rowOf(Disk& disk, const std::string& file, const Loaded& reference, const Analysis& expected) {
  Row out{.file = file};
  const auto bench = openBench(disk, file, false);
  if (!bench) {
    out.why = "cannot be used";
    return out;
  }
  const auto a = analyse(bench->harness, bench->library);
  // What was marked and read is each bench's own.
  auto plain = bench->harness;
  plain.marks.clear();
  plain.rounds.clear();
  plain.title = reference.harness.title;
  auto from = reference.harness;
  from.marks.clear();
  from.rounds.clear();
  const auto c = report::compare(from, expected, plain, a);
  out.verdict = headline(a.verdict);
  out.stops = a.verdict == Verdict::DoNotSwitchOn || a.verdict == Verdict::NotJudged;
  out.changes = c.changes;
  for (const auto& f : c.fresh)
    if (f.explainedBy.empty()) out.fresh.push_back(f.headline);
  const auto list = wiring::wireList(bench->harness, bench->library);
  out.left = wiring::left(list);
  out.wires = static_cast<int>(list.size());
  return out;
}

void print(const std::vector<Row>& rows) {
  for (const auto& r : rows) {
    if (!r.why.empty()) {
      say(fmt::format("{}: {}\n", r.file, r.why));
      continue;
    }
    say(fmt::format("{}: {}; {} apart from the reference, {} found that are not there; {} of {} wires looked over\n", r.file, r.verdict,
                    r.changes.size() == 1 ? "1 thing" : fmt::format("{} things", r.changes.size()), r.fresh.size(), r.wires - r.left,
                    r.wires));
    for (const auto& c : r.changes) say(fmt::format("    {}\n", c));
    for (const auto& f : r.fresh) say(fmt::format("  ! {}\n", f));
  }
}

std::string csv(const std::vector<Row>& rows) {
  auto out = csvLine({"bench", "verdict", "apart from the reference", "found that are not there", "wires", "looked over", "what"});
  for (const auto& r : rows) {
    std::string what = r.why;
    for (const auto* list : {&r.changes, &r.fresh})
      for (const auto& line : *list) what += (what.empty() ? "" : "; ") + line;
    out += csvLine({r.file, r.verdict, std::to_string(r.changes.size()), std::to_string(r.fresh.size()), std::to_string(r.wires),
                    std::to_string(r.wires - r.left), what});
  }
  return out;
}

Json jsonOf(const std::vector<Row>& rows) {
  Json out = Json::array();
  for (const auto& r : rows) {
    Json one{{"file", r.file}};
    if (!r.why.empty())
      one["problem"] = r.why;
    else
      one.update(Json{{"verdict", r.verdict}, {"changes", r.changes}, {"new", r.fresh}, {"wires", r.wires}, {"left", r.left}});
    out.push_back(std::move(one));
  }
  return out;
}

int show(const Taken& a) {
  Disk disk;
  const auto reference = openBench(disk, a.reference, false);
  if (!reference) return 2;
  const auto expected = analyse(reference->harness, reference->library);
  std::vector<Row> rows;
  for (const auto& file : a.files) rows.push_back(rowOf(disk, file, *reference, expected));
  if (a.format == "json")
    sayJson(jsonText(jsonOf(rows)));
  else if (a.format == "csv")
    say(csv(rows));
  else
    print(rows);
  if (std::ranges::any_of(rows, [](const Row& r) { return !r.why.empty(); })) return 2;
  return std::ranges::any_of(rows, [](const Row& r) { return r.stops || !r.changes.empty(); }) ? 1 : 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("REFERENCE", a->reference, "the bench as it should be");
  takes.positionals("FILE", a->files, "benches of a class", true);
  takes.option("--format", a->format, "text, json or csv", {"text", "json", "csv"});
  return [a] { return show(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"class", "Hold the benches of a class against a reference: what is wired otherwise, what is found, what was looked over.",
          declare};
}

}  // namespace bold::cli::class_table
