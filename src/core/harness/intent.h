#pragma once

#include "core/harness/edit.h"

/// What a document states about a motor, joined: of each item what was typed counts, else what the program says.
namespace bold::harness {

/// One line of the program's view: this role is driven by that pin.
struct Signal {
  std::string role;
  Address pin;
  std::string numbering;
  Active active = Active::Unsaid;
  bool operator==(const Signal&) const = default;
};

/// Goals, assignments and program facts of one motor as one. What nobody states is as here.
struct Intent {
  std::string motor;
  bool bothDirections = false;
  bool speedControl = false;
  bool hold = false;
  std::optional<Hertz> pwm;
  std::optional<double> dutyCap;
  bool ramp = false;
  bool together = false;
  std::optional<Hertz> rate;
  std::optional<int> stepsPerTurn;
  std::optional<Seconds> pulse;
  std::string forwardLead;
  Switched switched = Switched::Unsaid;
  std::string sequence;
  std::string stage, channel;
  std::vector<Signal> signals;
  bool operator==(const Intent&) const = default;
};

/// One for each motor that anything is stated about, in the order in which they are first named.
std::vector<Intent> intentsOf(const Harness& harness);
std::optional<Intent> intentOf(const Harness& harness, const std::string& motor);
/// The same; where nothing is stated yet, one that states nothing.
Intent intentFor(const Harness& harness, const std::string& motor);

/// Signals by which the speed is set: the speed inputs where it has such, else the inputs themselves. None where no speed is to be set.
std::vector<const Signal*> dutySignals(const Intent& intent);

/// Items that two statements differ in; `where` is "#" and the id of the later one.
std::vector<Problem> disagreements(const Harness& harness);

/// The edit after which what is typed says this of a motor. What a program says stays: where it differs, that is a disagreement.
Edit stating(const Harness& harness, const Intent& intent, std::string title);

}  // namespace bold::harness
