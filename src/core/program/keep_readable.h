#pragma once

#include "core/harness/source_read.h"

namespace bold::program {

/// Takes out of what was read of a program what no document could be read with: a frequency that the program's own arithmetic gives and no
/// bench has is as good as not told, a name of thousands of letters is cut.
void keepReadable(harness::SourceRead& source);

}  // namespace bold::program
