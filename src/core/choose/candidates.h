#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/checks/analysis.h"
#include "core/checks/trial.h"
#include "core/choose/margin_rows.h"
#include "core/choose/motor_gets.h"

namespace bold::choose {

/// A stage tried for a motor as the planned bench that it would be, by the same analysis that judges every bench.
struct Candidate {
  std::string stage;     ///< part, or a device of the bench that has a channel free
  bool parallel = false; ///< on two of its channels, joined
  std::string excluded;  ///< why it cannot be put there at all; empty: it was tried
  std::string device;    ///< of the stage, on the planned bench
  harness::Edit edit;    ///< that puts it there
  Verdict verdict = Verdict::NotJudged;
  /// What would be said that is not said now, causes first; notes are left out.
  checks::Findings against;
  std::optional<checks::Margin> tightest;          ///< of what is about the stage or the motor
  std::map<std::string, checks::Margin> margins;   ///< by rows of margin_rows.h
  MotorGets gets;
  std::optional<double> sink;   ///< K/W from the junction to the air that it needs, where it is too hot bare
  int pins = 0, pwmPins = 0;    ///< of the controller that it takes, and those of them that need PWM
  int parts = 0;                ///< that are fitted besides
  int channelsLeft = 0;         ///< of the stage, that drive nothing then
};

/// A stage, and how it is to be used.
struct Offer {
  std::string stage;  ///< part, or a device of the bench
  bool parallel = false;
};

/// What may be tried: stages of the bench with a channel that drives nothing, then the parts of the library that drive a motor from a
/// controller's pins, by name; those whose channels may be joined a second time, for a motor with two leads.
std::vector<Offer> stagesFor(const harness::Harness& bench, const parts::Library& library, const std::string& motor);

/// @param now the bench as it is, judged: cells that stay the same are taken over
/// @return nothing when it was given up
std::optional<Candidate> candidate(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                   const Offer& offer, const std::string& supply, const Options& options, const JudgedBench& now);

/// Best first: by verdict, then by how many stops and cautions there are, then by what has to be fitted besides, then by pins; those that
/// cannot be put there last, by name.
bool better(const Candidate& a, const Candidate& b);

}  // namespace bold::choose
