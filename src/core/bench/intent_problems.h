#pragma once

#include <vector>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::bench {

/// What intents name that is not there: motors, stages, channels, leads, pins, roles. Planned things count as there. Each
/// keeps the bench from being judged, since what it was meant to say is not known.
std::vector<Problem> problemsOfIntents(const harness::Harness& harness, const parts::Library& library);

}  // namespace bold::bench
