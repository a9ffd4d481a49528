#pragma once

#include <optional>

#include "core/bench/nets.h"

namespace bold::bench {

/// Metres of wire between two terminals of one net by the shortest way; nothing when no copper joins them.
/// @param most gives up beyond: nothing
std::optional<Metres> copperDistance(const Bench& bench, const Nets& nets, TerminalIndex from, TerminalIndex to, Metres most = Metres{1e9});

}  // namespace bold::bench
