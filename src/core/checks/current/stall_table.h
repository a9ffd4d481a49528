#pragma once

#include <string_view>

#include "core/checks/queries.h"

namespace bold::checks {

enum class Weight { Quiet, Note, Caution, Stop };

/// A short large current against a channel's ratings.
struct ShortLoad {
  double amps, running, continuous, peak;  ///< A
  bool peakKnown;
  parts::Protection protection;
};

/// The table of the design ("Stall table"): by the stage's protection. A peak rating nobody states cannot carry a stop.
Weight weigh(const ShortLoad& load);
Weight lower(Weight w);
Severity severityOf(Weight w);  ///< Quiet must not be asked
std::string_view word(parts::Protection p);

/// A channel's ratings as a ShortLoad with this current; nothing when its continuous rating is unknown.
std::optional<ShortLoad> shortLoad(const Bench& bench, ChannelRef ref, Amps amps, Amps running);
/// The largest current out of a channel's outputs.
Amps outputCurrent(const SolvedBench& s, const OperatingPoint& p, ChannelRef ref);

}  // namespace bold::checks
