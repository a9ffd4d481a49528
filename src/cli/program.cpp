#include <fmt/core.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/checks/analysis.h"
#include "core/harness/names.h"
#include "core/report/report.h"
#include "core/wiring/program_edit.h"
#include "core/wiring/program_rows.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::program {
namespace {

struct Taken {
  std::string file, controller, format = "text", output;
  std::vector<std::string> sources;
  bool force = false;
};

constexpr std::string_view kOwn = "program-";  // its checks

bool ofPrograms(const checks::Finding& f) {
  return f.check.starts_with(kOwn);
}

const harness::SourceRead& readOf(const Loaded& bench, const std::string& controller) {
  return *std::ranges::find(bench.harness.sources, controller, &harness::SourceRead::controller);
}

Json spotJson(const harness::Spot& s) {
  return {{"file", s.file}, {"line", s.line}, {"column", s.column}, {"length", s.length}};
}

Json jsonOf(const Taken& a, const Loaded& bench, const Analysis& analysis, const std::string& controller) {
  const auto& source = readOf(bench, controller);
  Json out{{"file", a.file},
           {"controller", controller},
           {"verdict", headline(analysis.verdict)},
           {"told", source.told},
           {"asked", source.asked}};
  out["files"] = Json::array();
  for (const auto& f : source.files) out["files"].push_back(f.file);
  out["pins"] = Json::array();
  for (const auto& r : wiring::programRows(analysis, source)) {
    Json one{{"pin", r.pin.device.empty() ? Json() : Json(r.pin.text())},
             {"name", r.name},
             {"program", r.program},
             {"wires", r.wires},
             {"disagrees", r.disagrees()}};
    one["places"] = Json::array();
    for (const auto& s : r.spots) one["places"].push_back(spotJson(s));
    out["pins"].push_back(std::move(one));
  }
  out["untold"] = Json::array();
  for (const auto& u : source.untold) out["untold"].push_back({{"what", u.what}, {"place", spotJson(u.place)}});
  out["agreement"] = wiring::agreementWords(analysis, source);
  const auto whole = parsedJson(report::json(a.file, bench.harness, analysis));
  out["findings"] = whole["findings"];
  out["otherFindings"] = std::ranges::count_if(analysis.findings, [](const checks::Finding& f) { return !ofPrograms(f); });
  return out;
}

void print(const Loaded& bench, const Analysis& analysis, const std::string& controller) {
  const auto& source = readOf(bench, controller);
  const auto rows = wiring::programRows(analysis, source);
  std::string files;
  for (const auto& f : source.files) files += (files.empty() ? "" : ", ") + f.file;
  say(fmt::format("{} on {}: {}.\n\n", files, harness::shownName(bench.harness, *bench.harness.device(controller)),
                  wiring::toldWords(source)));
  std::size_t pin = 3, program = 7;
  for (const auto& r : rows) {
    pin = std::max(pin, std::min<std::size_t>(r.name.size(), 10));
    program = std::max(program, std::min<std::size_t>(r.program.size(), 40));
  }
  say(fmt::format("  {:{}}  {:{}}  {}\n", "PIN", pin, "PROGRAM", program, "WIRES"));
  for (const auto& r : rows) say(fmt::format("{} {:{}}  {:{}}  {}\n", r.disagrees() ? "!" : " ", r.name, pin, r.program, program, r.wires));
  for (const auto& u : source.untold)
    say(fmt::format(
        "{}{}\n", &u == &source.untold.front() ? "\nNot told:\n  " : "  ",
        (u.place.line > 0 ? fmt::format("{}:{}:{}: ", u.place.file, u.place.line, u.place.column) : std::string()) + u.what + "."));
  say("\n" + wiring::agreementWords(analysis, source) + "\n");
  // Whatever the verdict counts: the same sentences as everywhere.
  sayColoured(report::findingsText(analysis, ""));
  say(fmt::format("\n{}: {}.\n", headline(analysis.verdict), summary(analysis)));
  for (const auto& w : analysis.why) say(fmt::format("  {}{}\n", w, w.ends_with('.') ? "" : "."));
}

// The controller that the program is for; nothing where that is left open, which is said.
std::optional<std::string> controllerOf(const Taken& a, const Loaded& bench) {
  if (!a.controller.empty()) return deviceId(bench.harness, a.controller);
  const auto all = wiring::controllersFor(bench.harness, bench.library, a.sources);
  if (all.size() == 1) return all.front();
  std::string names;
  for (const auto& c : all) names += (names.empty() ? "" : ", ") + c;
  complain(all.empty()
               ? fmt::format("{}: nothing on the bench runs a program.", a.file)
               : fmt::format("{} holds several controllers: say which one runs the program, --controller and one of {}.", a.file, names));
  return std::nullopt;
}

int show(const Taken& a) {
  Disk disk(Feed::PipesToo);
  auto bench = openBench(disk, a.file, !a.output.empty(), a.sources);
  if (!bench) return 2;
  const auto controller = controllerOf(a, *bench);
  if (!controller) return 2;
  const auto document = disk.canonical(a.output.empty() ? a.file : disk.absolute(a.output));
  const auto read =
      wiring::readProgramFor(disk, bench->harness, bench->library, *controller, a.sources, document.substr(0, document.rfind('/')));
  if (!read) {
    complain(text(read.error()));
    return 2;
  }
  complain(read->problems);
  apply(bench->harness, read->edit);
  const auto analysis = analyse(bench->harness, bench->library);
  const bool stops = analysis.verdict == Verdict::DoNotSwitchOn || analysis.verdict == Verdict::NotJudged;
  if (a.format == "json") {
    sayJson(jsonText(jsonOf(a, *bench, analysis, *controller)));
  } else if (a.format == "sarif") {
    sayJson(report::sarifBegin(BOLD_VERSION));
    sayJson(report::sarifResults({a.file, bench->text, &analysis, {}}));
    sayJson(report::sarifEnd({{a.file, std::string(headline(analysis.verdict)), analysis.why, analysis.assumptions, read->problems}}));
  } else
    print(*bench, analysis, *controller);
  if (!a.output.empty()) {
    if (!writeBench(disk, *bench, a.output, a.force)) return 2;
    if (a.format == "text") say(fmt::format("Written to {}.\n", a.output));
  }
  return stops ? 1 : 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("FILE", a->file, "a bench");
  takes.positionals("SOURCE", a->sources, "the program's sources (.ino, .cpp, .c, .py); what they include below their folder is read too",
                    true);
  takes.option("--controller", a->controller, "the controller that runs it; needed where the bench has several");
  takes.option("--format", a->format, "text, json or sarif", {"text", "json", "sarif"});
  takes.option("--output", a->output, "where the bench is written with what the program says");
  takes.flag("--force", a->force, kForceHelp);
  return [a] { return show(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"program", "Hold a program's pins against the wires. The program is read, never run. Ends as check does.", declare};
}

}  // namespace bold::cli::program
