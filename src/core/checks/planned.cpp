#include "core/checks/planned.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/checks/trial.h"

namespace bold {
namespace {

using checks::Finding;
using checks::Severity;

// Stops and cautions that are new, or graver than as it stands.
std::vector<Finding> worseThan(const std::vector<Finding>& stands, const std::vector<Finding>& planned) {
  std::map<std::string, int> known;
  for (const auto& f : stands) known.emplace(f.identity(), rank(f));
  std::vector<Finding> out;
  for (const auto& f : planned) {
    if (f.severity == Severity::Note || !f.explainedBy.empty()) continue;
    const auto it = known.find(f.identity());
    if (it != known.end() && rank(f) >= it->second) continue;
    out.push_back(f);
    out.back().number = 0;      // it has no badge: it is not there yet
    out.back().repair.reset();  // that would mend the plan of another document
  }
  return out;
}

void sayWorse(Analysis& stands) {
  const auto once = stands.openChanges == 1 ? "once the planned change is made: " : "once the planned changes are made: ";
  for (const auto& f : stands.planned->worse) stands.why.push_back(once + f.headline);
}

}  // namespace

void judgePlanned(Analysis& stands, const harness::Harness& harness, const parts::Library& library, const Options& options,
                  const Analysis* previous) {
  if (stands.openChanges == 0 || !stands.solved) return;
  const auto& knowing = previous && previous->planned ? previous->planned->judged : stands.judged;
  const auto trial = tryOut(harness, {}, library, options, knowing);
  if (!trial) return;
  std::set<std::string> left;
  for (const auto& f : trial->findings) left.insert(f.identity());
  for (auto& f : stands.findings) f.mendedAfter = left.contains(f.identity()) ? 0 : stands.openChanges;

  Analysis known;
  known.judged = trial->judged;
  auto quick = options;
  quick.explain = false;
  auto planned = analyse(trial->harness, library, quick, &known);
  // What follows from what is worked out only where there is something to say.
  if (options.explain && !worseThan(stands.findings, planned.findings).empty())
    planned = analyse(trial->harness, library, options, &planned);
  if (!planned.solved) return;
  stands.planned = PlannedBench{trial->judged, planned.verdict, worseThan(stands.findings, planned.findings)};
  sayWorse(stands);
}

}  // namespace bold
