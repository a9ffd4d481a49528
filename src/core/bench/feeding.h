#pragma once

#include "core/bench/solved_bench.h"

namespace bold::bench {

/// Where a supply that is missing at `t` is really missing: the input of the first regulator or converter in the chain that should
/// feed it; `t` itself where none feeds it.
TerminalIndex dryEnd(const SolvedBench& s, TerminalIndex t);

}  // namespace bold::bench
