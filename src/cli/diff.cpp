#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/report/comparison.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::diff {
namespace {

struct Taken {
  std::string from, to, format = "text";
};

constexpr std::size_t kMostShifts = 8;  // in text; all of them in JSON

void print(const report::Comparison& c) {
  if (c.same()) return say("They say the same.\n");
  say(fmt::format("Before: {}\nNow:    {}\n", c.before, c.after));
  const auto part = [](const char* head, const auto& all, auto line) {
    if (!all.empty()) say(fmt::format("\n{}\n", head));
    for (const auto& x : all) say(fmt::format("  {}\n", line(x)));
  };
  const auto finding = [](const checks::Finding& f) { return fmt::format("{} [{}] {}", f.headline, word(f.severity), f.check); };
  part("Changed on the bench", c.changes, [](const std::string& s) { return s; });
  part("Said now, and not before", c.fresh, finding);
  part("Not said any more", c.gone, finding);
  const auto shift = [](const report::MarginShift& s) {
    return fmt::format("{}: {:.0f} % of the way to its limit, was {:.0f} %", s.name, 100 * s.after, 100 * s.before);
  };
  const auto first = [](std::vector<report::MarginShift> all) {
    if (all.size() > kMostShifts) all.resize(kMostShifts);
    return all;
  };
  part("Nearer to its limit", first(c.worse), shift);
  part("Further from its limit", first(c.better), shift);
}

Json jsonOf(const report::Comparison& c) {
  const auto findings = [](const checks::Findings& all) {
    Json out = Json::array();
    for (const auto& f : all)
      out.push_back({{"check", f.check}, {"severity", word(f.severity)}, {"headline", f.headline}, {"subjects", f.subjects}});
    return out;
  };
  const auto shifts = [](const std::vector<report::MarginShift>& all) {
    Json out = Json::array();
    for (const auto& s : all) out.push_back({{"margin", s.name}, {"before", s.before}, {"after", s.after}});
    return out;
  };
  return {{"same", c.same()},         {"before", c.before},       {"after", c.after},         {"changes", c.changes},
          {"new", findings(c.fresh)}, {"gone", findings(c.gone)}, {"worse", shifts(c.worse)}, {"better", shifts(c.better)}};
}

int show(const Taken& a) {
  Disk disk;
  const auto from = openBench(disk, a.from, false);
  const auto to = openBench(disk, a.to, false);
  if (!from || !to) return 2;
  Options options;
  options.explain = false;
  const auto comparison = report::compare(from->harness, analyse(from->harness, from->library, options), to->harness,
                                          analyse(to->harness, to->library, options));
  if (a.format == "json")
    sayJson(jsonText(jsonOf(comparison)));
  else
    print(comparison);
  return comparison.same() ? 0 : 1;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("A", a->from, "a bench");
  takes.positional("B", a->to, "the same bench, another time");
  takes.option("--format", a->format, "text or json", {"text", "json"});
  return [a] { return show(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"diff", "What sets one bench apart from another: wires, parts, statements, findings, margins.", declare};
}

}  // namespace bold::cli::diff
