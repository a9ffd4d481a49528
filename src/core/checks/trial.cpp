#include "core/checks/trial.h"

namespace bold {

std::optional<Trial> tryOut(const harness::Harness& bench, const harness::Edit& edit, const parts::Library& library, const Options& options,
                            const JudgedBench& knowing) {
  auto changed = bench;
  harness::apply(changed, edit);
  changed = asPlanned(changed);
  auto judged = judge(changed, library, options, &knowing);
  if (!judged) return std::nullopt;
  auto findings = judged->findings();
  return Trial{std::move(changed), std::move(*judged), std::move(findings)};
}

}  // namespace bold
