#pragma once

#include <vector>

#include "core/bench/solved_bench.h"
#include "core/checks/finding.h"

namespace bold::checks {

/// Single changes of the wiring close to what was found, each of which may be what a person did wrong: a wire that is missing, one that
/// sits on a neighbour, two that are exchanged. None of them is known to help: they are there to be tried. The likeliest first, at most
/// `most`.
/// @param findings stops and cautions of the bench: where to look
std::vector<Repair> nearRepairs(const bench::SolvedBench& solved, const std::vector<Finding>& findings, std::size_t most);

}  // namespace bold::checks
