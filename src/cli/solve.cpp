#include <fmt/core.h>

#include <algorithm>

#include "core/harness/document_file.h"
#include "core/parts/own_parts.h"
#include "core/report/report.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::solve {
namespace {

struct SolveArguments {
  std::string file;
  std::string command;  // its id; empty: all
  std::string corner;   // empty: all that are solved
  std::string format = "text";
};

int print(const SolveArguments& arguments) {
  Disk disk(Feed::PipesToo);
  const auto file = load(disk, ownLibrary(disk), arguments.file);
  complain(file.problems);
  const auto& loaded = file.bench;
  if (!loaded) return 2;
  Options quick;
  quick.explain = false;
  const auto analysis = analyse(loaded->harness, loaded->library, quick);
  const auto& commands = analysis.solved->commands;
  if (!arguments.command.empty() && std::ranges::count(commands, arguments.command, &bench::Command::id) == 0) {
    complain(fmt::format("This bench has no command \"{}\". It has:", arguments.command));
    for (const auto& c : commands) complain("  " + c.id);
    return 2;
  }
  report::PointsOptions options;
  options.command = arguments.command;
  options.json = arguments.format == "json";
  for (const auto c : {bench::Corner::Full, bench::Corner::Nominal, bench::Corner::Empty, bench::Corner::Strong})
    if (report::word(c) == arguments.corner) options.corner = c;
  const auto points = report::points(arguments.file, loaded->harness, analysis, options);
  options.json ? sayJson(points) : say(points);
  const auto& tooLarge = analysis.solved->tooLarge;
  if (!tooLarge.empty()) complain(fmt::format("The bench is too large to be solved at once: {}.", tooLarge));
  const bool unsolved = !tooLarge.empty() || std::ranges::any_of(analysis.solved->points, [](const auto& p) { return !p->solved(); });
  return unsolved || !analysis.leftOut.empty() || !analysis.solved->bench.problems.empty() ? 1 : 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<SolveArguments>();
  takes.positional("FILE", a->file, "bench file (.harness)");
  takes.option("--command", a->command, "only this command, such as \"Pump forward\"");
  takes.option("--supply", a->corner, "only this state of the supplies", {"full", "nominal", "empty", "strong"});
  takes.option("--format", a->format, "text or json", {"text", "json"});
  return [a] { return print(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"solve", "Print the operating points of a bench: voltages and currents of every command.\nEnds 1 when one could not be solved.",
          declare};
}

}  // namespace bold::cli::solve
