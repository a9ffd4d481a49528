#pragma once

#include <string>
#include <vector>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::bench {

/// A bench taken apart into cells that can be judged one by one: each has its own supply, and nothing joins it to the others
/// but a single ground wire. No current flows through a wire that is the only way there and back, so what one cell does is
/// exactly the same without the others. Signals, common supplies, and what a motor's intent names keep a cell together.
struct Cells {
  std::vector<harness::Harness> parts;  ///< in the order of their first devices, each in document order; at least one
  std::vector<std::string> cuts;        ///< ids of the ground wires between them
};
Cells cellsOf(const harness::Harness& harness, const parts::Library& library);

}  // namespace bold::bench
