#include <CLI/CLI.hpp>

#include "commands.h"
#include "output.h"

namespace {
int run(int argc, char** argv) {
  CLI::App app{"Bold Harness: looks a motor bench over before power-up.\nJudges DC benches up to 60 V from their wires and parts."};
  app.name("boldh");
  app.set_version_flag("--version", "boldh " BOLD_VERSION);
  app.set_help_all_flag("--help-all", "Print the help of every command");
  app.require_subcommand(1);
  const std::vector<std::string> formats{"text", "json"};

  bold::cli::CheckArguments arguments;
  std::string format = "text";
  auto* check = app.add_subcommand("check",
                                   "Judge bench files. Ends 0 when nothing stops power-up, 1 when something does\nor the verdict is Not "
                                   "judged, 2 when a file cannot be used.");
  check->add_option("FILE", arguments.files, "bench files (.harness)")->required();
  auto* checkFormat =
      check->add_option("--format", format, "text, json, sarif or junit")->check(CLI::IsMember({"text", "json", "sarif", "junit"}));
  check->add_flag("--summary", arguments.summary, "one line a bench, as text")->excludes(checkFormat);
  check->add_flag("--margins", arguments.margins, "and how near everything comes to its limits, the tightest first (text, json)");

  bold::cli::SolveArguments point;
  auto* solve = app.add_subcommand(
      "solve", "Print the operating points of a bench: voltages and currents of every command.\nEnds 1 when one could not be solved.");
  solve->add_option("FILE", point.file, "bench file (.harness)")->required();
  solve->add_option("--command", point.command, "only this command, such as \"Pump forward\"");
  solve->add_option("--supply", point.corner, "only this supply state")->check(CLI::IsMember({"full", "nominal", "empty", "strong"}));
  solve->add_option("--format", format, "text or json")->check(CLI::IsMember(formats));

  std::string which;
  auto* explain = app.add_subcommand("explain", "Print the page of a check: what, why, formula, examples, how to mend.");
  explain->add_option("CHECK", which, "its id, such as base-drive")->required();
  explain->add_option("--format", format, "text or json")->check(CLI::IsMember(formats));

  auto* checks = app.add_subcommand("checks", "List every check.");
  checks->add_option("--format", format, "text or json")->check(CLI::IsMember(formats));

  std::vector<std::string> words;
  auto* parts = app.add_subcommand("parts", "List parts, or those that match all words.");
  parts->add_option("WORD", words, "words to look for");
  parts->add_option("--format", format, "text or json")->check(CLI::IsMember(formats));

  std::string partId;
  auto* part = app.add_subcommand("part", "Print the card of a part: terminals, figures with sources, what its inputs do, pitfalls.");
  part->add_option("PART", partId, "its id, such as l298n-module")->required();
  part->add_option("--format", format, "text or json")->check(CLI::IsMember(formats));

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    return app.exit(e) == 0 ? 0 : 2;
  }
  const bool json = format == "json";
  if (*check) {
    arguments.format = format;
    if (arguments.margins && (arguments.summary || (format != "text" && format != "json"))) {
      bold::cli::complain("--margins goes with --format text or json.");
      return 2;
    }
    return bold::cli::check(arguments);
  }
  if (*solve) {
    point.json = json;
    return bold::cli::solve(point);
  }
  if (*part) return bold::cli::showPart(partId, json);
  if (*explain) return bold::cli::explain(which, json);
  if (*checks) return bold::cli::listChecks(json);
  return bold::cli::listParts(words, json);
}
}  // namespace

int main(int argc, char** argv) {
  try {
    const int code = run(argc, argv);
    return bold::cli::finishOutput() ? code : 2;
  } catch (const std::exception& e) {
    bold::cli::complain(e.what());
    return 2;
  }
}
