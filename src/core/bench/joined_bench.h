#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/bench/solved_bench.h"

namespace bold::bench {

/// A bench whose cells were solved one by one, as if it had been solved as a whole. Its commands are those of the cells; while
/// one cell's motor is asked to do something, the other cells are at rest (or all running, where a motor is stalled).
/// @param bench the whole one
/// @param cells of its cells, see cellsOf
/// @param cuts ids of the ground wires between them
std::shared_ptr<const SolvedBench> join(Bench bench, std::vector<std::shared_ptr<const SolvedBench>> cells,
                                        const std::vector<std::string>& cuts);

}  // namespace bold::bench
