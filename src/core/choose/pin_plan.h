#pragma once

#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/base/quantity.h"
#include "core/harness/harness.h"
#include "core/parts/library.h"
#include "core/parts/truth_table.h"

namespace bold::choose {

/// What a program does at a pin.
enum class At { Drives, Reads, Measures };

/// A signal that a pin of a controller has to carry.
struct PinDemand {
  std::string motor, role;            ///< of a sensor: its device, and the terminal that is read
  std::string controller;             ///< device
  Address end{};                      ///< the input that it is for; no device: not known
  std::optional<parts::Level> off{};  ///< at which nothing moves; nothing: at either
  At at = At::Drives;
  std::string bus{};                 ///< "sda" or "scl" of an I2C bus
  bool interrupt = false;            ///< no change of it must be missed
  bool pwm = false;                  ///< a duty
  bool servo = false;                ///< the pulse of a servo, by the usual library
  std::optional<Hertz> frequency{};  ///< of its PWM
  std::string has{};                 ///< terminal of the controller that it has; empty: it is open
  bool wired = false;                ///< by a wire, not only by a statement
  bool stays = false;                ///< that pin is not asked about
  bool mayBePulled = false;          ///< to *on* by a weak pull while the board starts, which a resistor overrules
  Amps current{};                    ///< that it takes
};

/// Where a signal goes, and why.
struct PinChoice {
  PinDemand demand;
  Address pin;
  std::string why;    ///< "beside D5; PWM of TC0"
  bool hold = false;  ///< it has to be held at *off* by a resistor while the board starts
};

struct PinPlan {
  std::vector<PinChoice> choices;   ///< in the order of the demands
  std::vector<PinDemand> clashing;  ///< where it is impossible: together they cannot be placed, without any one of them they can
  std::string problem;              ///< the same as a sentence; empty: it is possible
};

/// Signals on free pins, exactly (assign_pins.h): what a pin can do, what it does at the start and while it is programmed, PWM units with
/// one rate and channels with one duty, currents of pin and port, and what is wired or stated already, of other motors too. Where there is
/// no room otherwise, pins that are weakly pulled to *on* at the start are taken as well, and said to need a resistor.
/// @param gone connections that will not be there any more, ids
PinPlan placeSignals(const harness::Harness& harness, const parts::Library& library, std::vector<PinDemand> demands,
                     const std::set<std::string>& gone = {});

/// Why a signal of a plan does not stand on another pin, for every pin of its controller but its own, in printed order.
struct PassedOver {
  std::string pin, why;  ///< "D3", "has no PWM"
};
std::vector<PassedOver> passedOver(const harness::Harness& harness, const parts::Library& library, const PinPlan& plan,
                                   const PinChoice& choice, const std::set<std::string>& gone = {});

}  // namespace bold::choose
