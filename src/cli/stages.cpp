#include <fmt/core.h>

#include <algorithm>

#include "core/checks/margin_words.h"
#include "core/choose/candidates.h"
#include "json_figure.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::stages {
namespace {

struct Taken {
  std::string file, motor, supply, format = "text";
  bool all = false;
};

std::string tightest(const bold::choose::Candidate& c) {
  return c.tightest ? fmt::format("; tightest: {} {}", c.tightest->quantity, checks::percentUsed(*c.tightest)) : std::string();
}

int list(const Taken& a) {
  Disk disk;
  const auto library = ownLibrary(disk);
  auto loaded = load(disk, library, a.file);
  complain(loaded.problems);
  if (!loaded.bench) return 2;
  const auto& h = loaded.bench->harness;
  const auto motor = deviceId(h, a.motor);
  const auto* d = h.device(motor);
  if (!d) {
    complain(fmt::format("\"{}\" is no motor on this bench.", a.motor));
    return 2;
  }
  const auto now = judge(h, loaded.bench->library, {});
  std::vector<bold::choose::Candidate> all;
  for (const auto& stage : bold::choose::stagesFor(h, loaded.bench->library, motor))
    all.push_back(*bold::choose::candidate(h, loaded.bench->library, motor, stage, a.supply.empty() ? std::string() : deviceId(h, a.supply),
                                           {}, *now));
  std::ranges::sort(all, bold::choose::better);
  if (a.format == "json") {
    Json out{{"motor", motor}, {"candidates", Json::array()}};
    for (const auto& c : all) {
      Json one{{"stage", c.stage}};
      if (!c.excluded.empty()) {
        one["excluded"] = c.excluded;
      } else {
        one["verdict"] = headline(c.verdict);
        one["against"] = Json::array();
        for (const auto& f : c.against) one["against"].push_back({{"check", f.check}, {"text", f.text}});
        if (c.tightest) one["tightest"] = {{"quantity", c.tightest->quantity}, {"used", checks::percentUsed(*c.tightest)}};
        one["pins"] = c.pins;
        one["parts"] = c.parts;
      }
      out["candidates"].push_back(std::move(one));
    }
    sayJson(jsonText(out));
    return 0;
  }
  say(fmt::format("Stages for {}, best first:\n", d->called()));
  int left = 0;
  for (const auto& c : all) {
    if (!c.excluded.empty()) {
      if (a.all)
        say(fmt::format("  {:24} -- {}\n", c.stage, c.excluded));
      else
        ++left;
      continue;
    }
    say(fmt::format("  {:24} {}; {} pins, {} parts besides{}\n", c.stage, headline(c.verdict), c.pins, c.parts, tightest(c)));
    for (const auto& f : c.against) say(fmt::format("      {}\n", f.text));
  }
  if (left > 0) say(fmt::format("{} more cannot drive it; --all says why.\n", left));
  return 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("FILE", a->file, "a bench");
  takes.positional("MOTOR", a->motor, "which motor, by id or name");
  takes.option("--supply", a->supply, "what feeds the motor, by id or name");
  takes.option("--format", a->format, "text or json", {"text", "json"});
  takes.flag("--all", a->all, "also those that cannot drive it, and why");
  return [a] { return list(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"stages", "Try every stage of the library for a motor, wired as planned, best first.", declare};
}

}  // namespace bold::cli::stages
