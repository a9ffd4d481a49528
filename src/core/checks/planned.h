#pragma once

#include "core/checks/analysis.h"

namespace bold {

/// Judges the bench as planned beside an analysis of it as it stands: which findings the plan mends (Finding::mendedAfter), what it
/// makes worse (Analysis::planned, and in words under Analysis::why). Does nothing where nothing is planned, or when given up.
/// @param previous of the same document; only saves work
void judgePlanned(Analysis& stands, const harness::Harness& harness, const parts::Library& library, const Options& options = {},
                  const Analysis* previous = nullptr);

}  // namespace bold
