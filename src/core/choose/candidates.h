#pragma once

#include <map>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/charts/operating_area.h"
#include "core/checks/analysis.h"
#include "core/checks/trial.h"
#include "core/choose/margin_rows.h"
#include "core/choose/motor_gets.h"

namespace bold::choose {

/// A stage tried for a motor as the planned bench that it would be, by the same analysis that judges every bench.
struct Candidate {
  std::string stage;      ///< part, or a device of the bench that has a channel free
  bool parallel = false;  ///< on two of its channels, joined
  bool present = false;   ///< the motor hangs on it now
  std::string excluded;   ///< why it cannot be put there at all; empty: it was tried
  bool contacts = false;  ///< contacts of a relay switch the motor: they wear with every start
  std::string device;     ///< of the stage, on the planned bench
  harness::Edit edit;     ///< that puts it there
  std::string unjudged;   ///< why nothing can be said for it: an unknown part on its wires, a bench that is too large; empty: it was judged
  Verdict verdict = Verdict::NotJudged;
  /// What would be said that is not said now, causes first; notes are left out.
  checks::Findings against;
  std::optional<checks::Margin> tightest;         ///< of what is about the stage or the motor
  std::map<std::string, checks::Margin> margins;  ///< by rows of margin_rows.h
  MotorGets gets;
  std::optional<charts::OperatingArea> area;
  std::vector<charts::Whisker> whiskers;  ///< of the motor in that area
  std::optional<double> sink;             ///< K/W from the junction to the air that it needs, where it is too hot bare
  int pins = 0, pwmPins = 0;              ///< of the controller that it takes, and those of them that need PWM
  int parts = 0;                          ///< that are fitted besides
  int channelsLeft = 0;                   ///< of the stage, that drive nothing then
};

/// A stage, and how it is to be used.
struct Offer {
  std::string stage;  ///< part, or a device of the bench
  bool parallel = false;
};

/// What may be tried: stages of the bench with a channel that drives nothing, then the parts of the library that drive a motor from a
/// controller's pins, by name; those whose channels may be joined a second time, for a motor with two leads.
std::vector<Offer> stagesFor(const harness::Harness& bench, const parts::Library& library, const std::string& motor);

/// What is there before any stage is tried.
struct Before {
  JudgedBench now;             ///< the bench as it is: cells that stay the same are taken over
  std::set<std::string> said;  ///< identities of findings that no stage is to blame for: those that are there now, and those that come to
                               ///< light once what the motor hangs on is gone
};
/// @param now where it is judged already
/// @return nothing when it was given up
std::optional<Before> beforeStages(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                   const Options& options, std::optional<JudgedBench> now = {});

/// Stops and cautions of a trial that a stage is to blame for: new ones, about itself, what was put there with it, its motor and the pins
/// that this takes, or about a supply or a controller as a whole. What is wrong with other motors and comes to light with it is not its
/// fault.
/// @param edit that put it there
checks::Findings blamed(const Before& before, const Trial& trial, const parts::Library& library, const std::string& motor,
                        const std::string& stage, const harness::Edit& edit);

/// @return nothing when it was given up
std::optional<Candidate> candidate(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                   const Offer& offer, const std::string& supply, const Options& options, const Before& before);

/// "fits", "fits, with cautions", "does not fit", "not judged", "cannot be put there": of the stage alone, whatever else is wrong on the
/// bench.
std::string_view standing(const Candidate& candidate);

/// Best first: by verdict, then by how many stops and cautions there are, relays after what does not wear, then by what has to be fitted
/// besides, then by pins; those that cannot be put there last, by name.
bool better(const Candidate& a, const Candidate& b);

}  // namespace bold::choose
