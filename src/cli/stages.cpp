#include <fmt/core.h>

#include <algorithm>
#include <optional>
#include <string>
#include <vector>

#include "core/base/json.h"
#include "core/base/quantity.h"
#include "core/checks/analysis.h"
#include "core/checks/margin_words.h"
#include "core/choose/candidates.h"
#include "core/choose/smallest_change.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::stages {
namespace {

struct Taken {
  std::string file, motor, supply, format = "text";
  bool all = false, quick = false;
};

std::string counted(int n, const char* one, const char* many) {
  return fmt::format("{} {}", n, n == 1 ? one : many);
}

std::string tightest(const bold::choose::Candidate& c) {
  return c.tightest ? fmt::format("; tightest: {} {}", c.tightest->quantity, checks::percentUsed(*c.tightest)) : std::string();
}

struct Row {
  bold::choose::Candidate candidate;
  std::optional<bold::choose::SmallestChange> change;
};

Json jsonOf(const Row& row) {
  const auto& c = row.candidate;
  Json one{{"stage", c.stage}};
  if (c.parallel) one["parallel"] = true;
  if (c.present) one["present"] = true;
  if (!c.excluded.empty()) {
    one["excluded"] = c.excluded;
    return one;
  }
  one["verdict"] = headline(c.verdict);
  if (!c.unjudged.empty()) one["unjudged"] = c.unjudged;
  one["against"] = Json::array();
  for (const auto& f : c.against) one["against"].push_back({{"check", f.check}, {"text", f.text}});
  if (c.tightest) one["tightest"] = {{"quantity", c.tightest->quantity}, {"used", checks::percentUsed(*c.tightest)}};
  one["margins"] = Json::object();
  for (const auto& [id, m] : c.margins) {
    const auto* limit = m.judged();
    Json margin{{"quantity", m.quantity}, {"unit", unitSign(m.unit)}, {"value", *m.value}, {"used", *m.used()}};
    if (limit && limit->least) margin["least"] = *limit->least;
    if (limit && limit->most) margin["most"] = *limit->most;
    one["margins"][id] = std::move(margin);
  }
  const auto volts = [&](const char* name, std::optional<Volts> v) {
    if (v) one["motorGets"][name] = v->value;
  };
  volts("most", c.gets.most);
  volts("running", c.gets.running);
  volts("stalled", c.gets.stalled);
  if (c.gets.speed) one["motorGets"]["speed"] = *c.gets.speed;
  if (c.sink) one["sink"] = *c.sink;
  one["pins"] = c.pins;
  one["pwmPins"] = c.pwmPins;
  one["parts"] = c.parts;
  one["channelsLeft"] = c.channelsLeft;
  if (row.change) one["smallestChange"] = {{"text", row.change->text}, {"plannable", row.change->plannable}};
  return one;
}

void print(const Row& row) {
  const auto& c = row.candidate;
  say(fmt::format("  {:24} {}; {}, {} besides{}\n", c.stage + (c.parallel ? " --parallel" : ""), standing(c),
                  counted(c.pins, "pin", "pins"), counted(c.parts, "part", "parts"), tightest(c)));
  if (!c.unjudged.empty()) say(fmt::format("      {}\n", c.unjudged));
  for (const auto& f : c.against) say(fmt::format("      {}\n", f.text));
  if (row.change) say(fmt::format("      {} {}.\n", c.verdict == Verdict::DoNotSwitchOn ? "Fits" : "Clear", row.change->text));
}

int list(const Taken& a) {
  Disk disk;
  const auto bench = openBench(disk, a.file, false);
  if (!bench) return 2;
  const auto& h = bench->harness;
  const auto motor = deviceId(h, a.motor);
  const auto* d = h.device(motor);
  if (!d) {
    complain(fmt::format("\"{}\" is no motor on this bench.", a.motor));
    return 2;
  }
  const auto before = bold::choose::beforeStages(h, bench->library, motor, {});
  const auto supply = a.supply.empty() ? std::string() : deviceId(h, a.supply);
  std::vector<Row> all;
  for (const auto& offer : bold::choose::stagesFor(h, bench->library, motor))
    all.push_back({*bold::choose::candidate(h, bench->library, motor, offer, supply, {}, *before), {}});
  std::ranges::sort(all, bold::choose::better, &Row::candidate);
  if (!a.quick)
    for (auto& row : all) row.change = smallestChange(h, bench->library, motor, row.candidate, {}, *before);
  if (a.format == "json") {
    Json out{{"motor", motor}, {"candidates", Json::array()}};
    for (const auto& row : all) out["candidates"].push_back(jsonOf(row));
    sayJson(jsonText(out));
    return 0;
  }
  say(fmt::format("Stages for {}, best first:\n", d->called()));
  int left = 0;
  for (const auto& row : all) {
    const auto& c = row.candidate;
    if (c.excluded.empty())
      print(row);
    else if (a.all)
      say(fmt::format("  {:24} -- {}\n", c.stage + (c.parallel ? " --parallel" : ""), c.excluded));
    else
      ++left;
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
  takes.flag("--quick", a->quick, "without what would have to change for a stage to fit");
  return [a] { return list(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"stages", "Try every stage of the library for a motor, wired as planned, best first.", declare};
}

}  // namespace bold::cli::stages
