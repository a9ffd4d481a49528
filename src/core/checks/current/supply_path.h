#pragma once

#include <set>
#include <vector>

#include "core/checks/queries.h"

namespace bold::checks {

/// Terminals that share copper with a source's positive pole when every fuse and every hand switch is taken out.
std::set<TerminalIndex> beforeFuse(const SolvedBench& s, const bench::Nets::Pole& pole);
std::set<TerminalIndex> beforeSwitch(const SolvedBench& s, const bench::Nets::Pole& pole);
/// Whether anything that uses power is among them: a supply input, a motor's lead, a board.
bool reachesLoad(const SolvedBench& s, const std::set<TerminalIndex>& terminals, int source);
/// A pack or supply that can burn a wire: lithium, or more than 10 A into a short.
bool strong(const parts::Source& body);
/// What it gives into a short (least internal resistance), A; nothing when unknown.
std::optional<Amps> shortCurrent(const parts::Source& body);
/// Wires on the positive side of a source as far as its stages, fuses passed through.
std::vector<int> supplyWires(const SolvedBench& s, const bench::Nets::Pole& pole);

}  // namespace bold::checks
