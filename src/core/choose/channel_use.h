#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "core/parts/part.h"

namespace bold::choose {

/// The windings of a motor or load, in the order of its file.
std::vector<const parts::Winding*> windingsOf(const parts::Part& motor);
/// Two of its windings have an end in common: a unipolar stepper.
bool sharesTap(const std::vector<const parts::Winding*>& windings);

/// A changeover contact of a relay: its common end, and what that is on while the relay is on and at rest.
struct RelayContact {
  std::string common, on, rest;
};

/// The channels of a stage that a motor hangs on, as if they were one.
struct ChannelUse {
  std::vector<const parts::Channel*> channels;              ///< the first is the one that a plan names
  std::map<std::string, std::string> signals;               ///< role -> input
  std::vector<std::string> out;                             ///< in the order of the leads
  std::vector<std::pair<std::string, std::string>> joined;  ///< of channels in parallel: a terminal of the second, and the one it goes with
  std::vector<RelayContact> contacts;                       ///< of relays: one that switches a motor, or one for each of its leads
  bool parallel() const { return !joined.empty(); }
  /// The one that has this input.
  const parts::Channel& of(const std::string& input) const;
};

/// One channel where one is enough: two outputs for two leads (one of a low-side switch), four for a stepper's coils. Else both bridges
/// for a bipolar stepper, four low-side switches for a unipolar one; of a relay module one contact for two leads, two changeover contacts
/// to turn a motor round. Nothing: there are none that are free.
/// @param taken terminals that are wired for something else
/// @param inParallel two channels that may be joined, for two leads
std::optional<ChannelUse> channelsFor(const parts::Part& stage, const parts::Part& motor, const std::set<std::string>& taken,
                                      bool inParallel, bool bothWays);

}  // namespace bold::choose
