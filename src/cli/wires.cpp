#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/checks/analysis.h"
#include "core/harness/end_place.h"
#include "core/harness/names.h"
#include "core/wiring/wire_list.h"
#include "core/wiring/wire_table.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::wires {
namespace {

struct Taken {
  std::string file, by = "stage", only, format = "text", take, output;
  bool force = false;
};

Json jsonOf(const Loaded& bench, const std::vector<wiring::ListedWire>& list, const std::vector<wiring::WireGroup>& groups,
            const wiring::ExpectedVoltages& voltages) {
  Json out{{"left", wiring::left(list)}, {"groups", Json::array()}};
  for (const auto& g : groups) {
    Json wires = Json::array();
    for (const int i : g.wires) {
      const auto& w = list[i];
      Json one{{"id", w.id}, {"kind", harness::word(w.kind)}, {"carries", word(w.carries)}, {"ends", Json::array()}};
      for (int k = 0; k < 2; ++k)
        one["ends"].push_back(
            {{"terminal", w.ends[k].text()}, {"name", w.names[k]}, {"where", fullEndPlace(bench.harness, bench.library, w.ends[k])}});
      if (!w.colour.empty()) one["colour"] = w.colour;
      if (const auto v = voltages.at(w.ends[0]); !v.empty()) one["voltage"] = v;
      one["motors"] = w.motors;
      one["marks"] = Json::array();
      for (const auto& [on, what] : {std::pair{w.fitted, "fitted"}, {w.tugged, "tugged"}, {w.seen, "seen"}, {w.wrong, "wrong"}})
        if (on) one["marks"].push_back(what);
      if (!w.otherwise.empty()) one["found"] = w.otherwise;
      if (!w.readBy.empty()) one["readBy"] = w.readBy;
      one["complete"] = w.complete();
      wires.push_back(std::move(one));
    }
    out["groups"].push_back({{"title", g.title}, {"wires", std::move(wires)}});
  }
  return out;
}

void print(const Loaded& bench, const std::vector<wiring::ListedWire>& list, const std::vector<wiring::WireGroup>& groups,
           const wiring::ExpectedVoltages& voltages) {
  for (const auto& g : groups) {
    say(fmt::format("{}\n", g.title));
    for (const int i : g.wires) {
      const auto& w = list[i];
      const auto volts = voltages.at(w.ends[0]);
      const auto marks = wiring::standing(w);
      say(fmt::format("  [{}] {:5} {:5} {}{}\n",
                      w.complete() ? "x"
                      : w.wrong    ? "!"
                                   : " ",
                      w.id, w.colour.empty() ? harness::word(w.kind) : std::string_view(w.colour),
                      fmt::format("{} – {}", w.names[0], w.names[1]), marks.empty() ? "" : "  (" + marks + ")"));
      for (int k = 0; k < 2; ++k)
        if (const auto place = fullEndPlace(bench.harness, bench.library, w.ends[k]); !place.empty())
          say(fmt::format("                  {}: {}\n", w.names[k], place));
      if (!volts.empty()) say(fmt::format("                  with the power on: {}\n", volts));
    }
  }
  const int open = wiring::left(list);
  say(fmt::format("{} of {} still to be looked at.\n", open, list.size()));
}

// The list that somebody wrote, laid over the bench.
int take(Disk& disk, Loaded& bench, const Taken& a) {
  const auto text = disk.read(a.take);
  if (!text) {
    bold::cli::complain(bold::text(text.error()));
    return 2;
  }
  const auto read = wiring::readWireTable(bench.harness, bench.library, *text);
  for (const auto& line : read.lines)
    if (!line.why.empty()) bold::cli::complain(fmt::format("{}: line {}: {} It was left out.", a.take, line.number, line.why));
  for (const auto& line : read.lines)
    if (!line.does.empty()) say(line.does + "\n");
  if (a.output.empty()) return read.unusable > 0 ? 1 : 0;
  apply(bench.harness, read.edit);
  if (!writeBench(disk, bench, a.output, a.force)) return 2;
  say(fmt::format("Written to {}.\n", a.output));
  return read.unusable > 0 ? 1 : 0;
}

int show(const Taken& a) {
  Disk disk;
  auto bench = openBench(disk, a.file, !a.take.empty() && !a.output.empty());
  if (!bench) return 2;
  if (!a.take.empty()) return take(disk, *bench, a);
  if (a.format == "csv") {
    say(wiring::writeWireTable(bench->harness, bench->library));
    return 0;
  }
  const wiring::WireFilter filter(a.only, bench->harness, bench->library);
  auto list = wiring::wireList(bench->harness, bench->library);
  std::erase_if(list, [&](const auto& w) { return !filter.fits(w); });
  const auto by = a.by == "motor" ? wiring::By::Motor : a.by == "board" ? wiring::By::Board : wiring::By::Stage;
  const auto groups = wiring::grouped(list, bench->harness, bench->library, by);
  Options options;
  options.explain = false;
  const auto analysis = analyse(asPlanned(bench->harness), bench->library, options);
  const wiring::ExpectedVoltages voltages(*analysis.solved, list.size());
  if (voltages.tooMany()) complain(fmt::format("{}: the bench is too large to say what to measure at each wire.", a.file));
  if (a.format == "json")
    sayJson(jsonText(jsonOf(*bench, list, groups, voltages)));
  else
    print(*bench, list, groups, voltages);
  return 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("FILE", a->file, "a bench");
  takes.option("--by", a->by, "stage, motor or board", {"stage", "motor", "board"});
  takes.option("--only", a->only, "those that are meant by words: open, wrong, ground, \"motor 2\"");
  takes.option("--format", a->format, "text, json or csv", {"text", "json", "csv"});
  takes.option("--take", a->take, "a wire list in CSV that is laid over the bench");
  takes.option("--output", a->output, "where the bench is written with the list taken");
  takes.flag("--force", a->force, kForceHelp);
  return [a] { return show(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"wires", "The wire list: both ends of each wire, where they are, what to measure, what was looked at.", declare};
}

}  // namespace bold::cli::wires
