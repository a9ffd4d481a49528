#include <fmt/core.h>

#include "core/checks/planned.h"
#include "core/choose/stage_wiring.h"
#include "core/harness/names.h"
#include "core/report/report.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::choose {
namespace {

struct Taken {
  std::string file, motor, stage, supply, output;
  bool parallel = false, force = false;
};

int put(const Taken& a) {
  Disk disk;
  auto bench = openBench(disk, a.file, true);
  if (!bench) return 2;
  auto& h = bench->harness;
  const auto edit = bold::choose::wireStage(
      h, bench->library, {deviceId(h, a.motor), a.stage, a.supply.empty() ? std::string() : deviceId(h, a.supply), a.parallel});
  if (!edit) {
    bold::cli::complain(edit.error().what);
    return 2;
  }
  apply(h, *edit);
  say(edit->title + ":\n");
  for (const auto& change : edit->changes) {
    if (const auto* d = change.as<harness::Put<harness::Device>>())
      if (const auto part = bench->library.find(d->value.part)) say(fmt::format("  add {} ({})\n", shownName(h, d->value), part->name));
    if (const auto* c = change.as<harness::Put<harness::Connection>>())
      say(fmt::format("  {} {}{}\n", word(c->value.kind), shownEnds(h, bench->library, c->value),
                      c->value.colour.empty() ? std::string() : " " + c->value.colour));
  }
  auto analysis = analyse(h, bench->library);
  judgePlanned(analysis, h, bench->library);
  const auto verdict = analysis.planned ? analysis.planned->verdict : analysis.verdict;
  say(fmt::format("As planned: {}\n", headline(verdict)));
  if (analysis.planned)
    for (const auto& f : analysis.planned->worse) say(fmt::format("  {}\n", f.text));
  if (!a.output.empty()) {
    if (!writeBench(disk, *bench, a.output, a.force)) return 2;
    say(fmt::format("Written to {}.\n", a.output));
  }
  return verdict == Verdict::DoNotSwitchOn || verdict == Verdict::NotJudged ? 1 : 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("FILE", a->file, "a bench");
  takes.positional("MOTOR", a->motor, "which motor, by id or name");
  takes.positional("STAGE", a->stage, "a stage of the library, such as l298n-module");
  takes.option("--supply", a->supply, "what feeds the motor, by id or name; without it the first supply that feeds no controller");
  takes.flag("--parallel", a->parallel, "on two channels of it that may be joined");
  takes.option("--output", a->output, "where the bench is written with it planned");
  takes.flag("--force", a->force, kForceHelp);
  return [a] { return put(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"choose", "Plan a stage for a motor, with every wire, and judge the bench as it will be.", declare};
}

}  // namespace bold::cli::choose
