#pragma once

#include "core/checks/analysis.h"

namespace bold {

/// Works out which findings follow from which, and keeps only repairs that can be trusted: one that, made alone, takes its
/// finding away and brings up no other stop or caution; on a bench with several faults, one that does so once the others
/// are mended. What follows from a cause has no repair of its own: mending the cause mends it.
void explain(Analysis& analysis, const harness::Harness& harness, const parts::Library& library, const Options& options);

}  // namespace bold
