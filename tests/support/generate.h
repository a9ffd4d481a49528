#pragma once

#include <rapidcheck.h>

#include "core/harness/edit.h"
#include "core/harness/harness.h"

namespace bold::test {

/// A good bench of one to six motors, now and then with wires missing, moved or planned.
rc::Gen<harness::Harness> generatedBench();

/// A sound bench of exactly this many motors, each with its own kind of stage.
harness::Harness benchOf(int motors);

/// Some edit that fits the document.
rc::Gen<harness::Edit> editOf(const harness::Harness& harness);

}  // namespace bold::test
