#pragma once

#include <optional>
#include <string_view>

#include "core/checks/queries.h"

namespace bold::checks {

/// A short large current against a channel's ratings.
struct ShortLoad {
  double amps, running, continuous, peak;  ///< A
  bool peakKnown;
  parts::Protection protection;
  std::optional<double> once{};  ///< A, a single event, of a pulse
  bool brief = false;            ///< known to be over before the single event's time is
};

/// The table of the design ("Stall table") as limits of such a current: by the stage's protection. A peak rating nobody states
/// cannot carry a stop.
std::vector<Limit> shortLimits(const ShortLoad& load);
/// The same one level lower: a stop is a caution, a caution a note, a note nothing.
std::vector<Limit> lowered(std::vector<Limit> limits);
/// Only those whose passing is more than a note.
std::vector<Limit> withoutNotes(std::vector<Limit> limits);

std::string_view word(parts::Protection p);

/// A channel's ratings as a ShortLoad with this current; nothing when its continuous rating is unknown.
std::optional<ShortLoad> shortLoad(const Bench& bench, ChannelRef ref, Amps amps, Amps running);
/// The margin of a short current, its limits by the table.
Margin shortMargin(const ShortLoad& load, std::string quantity, std::vector<std::string> subjects, const OperatingPoint* at);
/// A pulse through a stage that lasts as long as a start does; what the table calls a note is told by the stall already.
struct Pulse {
  Margin margin;
  const Motor* motor;
  ChannelRef ref;
  ShortLoad load;
};
/// Nothing where the stage holds the current by itself, or its continuous rating is unknown.
std::optional<Pulse> pulseThrough(const SolvedBench& s, const Motor& motor, ChannelRef ref, Amps amps, Amps running, std::string quantity,
                                  const OperatingPoint& at);
/// The largest current out of a channel's outputs.
Amps outputCurrent(const SolvedBench& s, const OperatingPoint& p, ChannelRef ref);

}  // namespace bold::checks
