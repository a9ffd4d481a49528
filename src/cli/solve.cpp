#include <algorithm>
#include <cstdio>

#include "commands.h"
#include "core/harness/document_file.h"
#include "core/parts/own_parts.h"
#include "core/report/report.h"

namespace bold::cli {

int solve(const SolveArguments& arguments) {
  Disk disk;
  const auto loaded = load(disk, arguments.file);
  if (!loaded) return 2;
  Options quick;
  quick.explain = false;
  const auto analysis = analyse(loaded->harness, loaded->library, quick);
  const auto& commands = analysis.solved->commands;
  if (!arguments.command.empty() && std::ranges::count(commands, arguments.command, &circuit::Command::id) == 0) {
    std::fprintf(stderr, "boldh: This bench has no command \"%s\". It has:\n", arguments.command.c_str());
    for (const auto& c : commands) std::fprintf(stderr, "  %s\n", c.id.c_str());
    return 2;
  }
  report::PointsOptions options;
  options.command = arguments.command;
  options.json = arguments.json;
  for (const auto c : {circuit::Charge::Full, circuit::Charge::Nominal, circuit::Charge::Empty, circuit::Charge::Strong})
    if (report::word(c) == arguments.charge) options.charge = c;
  std::fputs(report::points(arguments.file, loaded->harness, analysis, options).c_str(), stdout);
  const bool unsolved = std::ranges::any_of(analysis.solved->points, [](const auto& p) { return !p->solved(); });
  return unsolved || !analysis.solved->bench.problems.empty() ? 1 : 0;
}

}  // namespace bold::cli
