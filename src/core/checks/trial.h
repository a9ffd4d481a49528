#pragma once

#include <optional>

#include "core/checks/analysis.h"
#include "core/harness/edit.h"

namespace bold {

/// A bench with an edit made on it, and what is said of it then.
struct Trial {
  harness::Harness harness;  ///< nothing planned is left in it
  JudgedBench judged;
  checks::Findings findings;  ///< not explained
};

/// Judges a bench as it will be once an edit and everything else that is planned has been made. The one way to ask "what if": a
/// repair, a stage that might be bought, a fault that might be there are all edits.
/// @param knowing cells that are the same are taken over from it; only saves work
/// @return nothing when it was given up (Options::cancelled)
std::optional<Trial> tryOut(const harness::Harness& bench, const harness::Edit& edit, const parts::Library& library, const Options& options,
                            const JudgedBench& knowing);

}  // namespace bold
