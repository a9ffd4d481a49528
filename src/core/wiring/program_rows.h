#pragma once

#include <string>
#include <vector>

#include "core/checks/analysis.h"

/// A program beside the wires, a line a pin.
namespace bold::wiring {

struct ProgramRow {
  Address pin;                                        ///< of the controller; empty terminal: it has no such pin
  std::string name;                                   ///< as it is printed; of none: the word of the source
  std::string program;                                ///< "9 (PADDLE_EN): PWM up to 78 %"; "never driven"
  std::string wires;                                  ///< "S1 ENA: speed of Wave paddle"; "not wired"
  std::vector<std::string> findings;                  ///< identities of what is said of it, the gravest first
  checks::Severity gravest = checks::Severity::Note;  ///< of these
  std::vector<harness::Spot> spots;                   ///< where the source speaks of it, its number first
  bool disagrees() const { return !findings.empty() && gravest <= checks::Severity::Caution; }
};

/// Of one program that was read; disagreements first, the gravest of them first, then in the order of the controller's pins.
std::vector<ProgramRow> programRows(const Analysis& analysis, const harness::SourceRead& source);

/// "high and low", "PWM up to 78 % at 490 Hz, read"
std::string doingWords(const harness::PinUse& use);

/// "The program and the wires agree for Paddle, Gate; they disagree for Pump; it could not be told for Carriage."
std::string agreementWords(const Analysis& analysis, const harness::SourceRead& source);

/// "18 of 18 places that name a pin could be told", "16 of 18 …: 11 % unknown"
std::string toldWords(const harness::SourceRead& source);

}  // namespace bold::wiring
