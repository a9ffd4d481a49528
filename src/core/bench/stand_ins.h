#pragma once

#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "core/base/quantity.h"

namespace bold::bench {

struct SolvedBench;

/// What a circuit is worked out with where a part does not say a figure that it cannot be solved without. Each is what common parts of
/// the kind have; what was taken on a bench is said under "taken for granted". A check whose own limit is missing says so: no stand-in
/// takes the place of a limit.
struct StandIn {
  std::string_view what;  ///< "pin resistance"
  AnyQuantity value;
  std::string_view why;  ///< the reason for this value
};

inline constexpr StandIn kContactResistance{"contact resistance", {0.01, Unit::Ohm}, "of a good closed contact"};
inline constexpr StandIn kElectrolyticEsr{"series resistance of an electrolytic", {0.3, Unit::Ohm}, "of a small one at room temperature"};
inline constexpr StandIn kCeramicEsr{"series resistance of a ceramic capacitor", {0.02, Unit::Ohm}, "with the legs it is fitted by"};
inline constexpr StandIn kDiodeDrop{"diode drop", {0.8, Unit::Volt}, "of a silicon diode at its rated current"};
inline constexpr StandIn kDiodeCurrent{"rated current of a diode", {1, Unit::Amp}, "of the commonest rectifiers"};
inline constexpr StandIn kSwitchDrop{"drop of a bipolar output", {0, Unit::Volt}, "the motor then gets the most it can"};
inline constexpr StandIn kSwitchResistance{"resistance of an output switch", {0.1, Unit::Ohm}, "the motor then gets nearly all it can"};
inline constexpr StandIn kBaseEmitter{"base-emitter voltage", {0.7, Unit::Volt}, "of a silicon junction at working current"};
inline constexpr StandIn kGain{"least gain", {50, Unit::One}, "that small switching transistors are promised with"};
inline constexpr StandIn kDarlingtonGain{"least gain of a Darlington", {1000, Unit::One}, "that they are promised with"};
inline constexpr StandIn kTransferRatio{"transfer ratio of an optocoupler", {0.5, Unit::One}, "that common ones are promised with"};
inline constexpr StandIn kOptoSaturation{"saturation of an optocoupler", {0.2, Unit::Volt}, "that common ones are promised with"};
inline constexpr StandIn kGateThreshold{"gate threshold", {3, Unit::Volt}, "the middle of MOSFETs that are not made for logic levels"};
inline constexpr StandIn kChannelResistance{"channel resistance", {0.1, Unit::Ohm}, "at 10 V, of common power MOSFETs"};
inline constexpr StandIn kSupplyResistance{"inner resistance of a supply", {0.1, Unit::Ohm}, "of cells in good order"};
inline constexpr StandIn kServoVoltage{"least voltage of a servo or board", {5, Unit::Volt}, "that most are made for"};
inline constexpr StandIn kRegulatorOutput{"output of a regulator", {5, Unit::Volt}, "the rail of most boards"};
inline constexpr StandIn kRegulatorDropout{"dropout of a regulator", {1, Unit::Volt}, "of the commonest ones on boards"};
inline constexpr StandIn kRegulatorLimit{"current limit of a regulator", {1, Unit::Amp}, "of the commonest ones on boards"};
inline constexpr StandIn kEfficiency{"efficiency of a converter", {0.85, Unit::One}, "of common ones at half load"};
inline constexpr StandIn kConverterDropout{"least drop of a step-down converter", {1, Unit::Volt}, "of older ones, which need the most"};
inline constexpr StandIn kConverterLeast{"least input of a step-up converter", {2.5, Unit::Volt}, "that most work from"};
inline constexpr StandIn kConverterLimit{"greatest current of a converter", {1, Unit::Amp}, "of small boards"};
inline constexpr StandIn kPinResistance{"pin resistance", {40, Unit::Ohm}, "the weak end of common controllers"};
inline constexpr StandIn kPinShortCircuit{"short-circuit current of a pin", {0.06, Unit::Amp}, "of common controllers"};
inline constexpr StandIn kBootPull{"pull resistor of a pin while booting", {50e3, Unit::Ohm}, "of common controllers"};
inline constexpr StandIn kChopperResistance{
    "switch resistance of a stepper driver", {0.5, Unit::Ohm}, "both switches of a path, of carrier boards"};
inline constexpr StandIn kChopperQuiescent{"own current of a stepper driver", {0.005, Unit::Amp}, "of carrier boards"};
inline constexpr StandIn kRunningCurrent{"running current of a motor", {0.05, Unit::Amp}, "small, so that every motor counts as turning"};
inline constexpr StandIn kLogicLow{"low threshold of an input", {0.8, Unit::Volt}, "of TTL-compatible inputs"};
inline constexpr StandIn kLogicHigh{"high threshold of an input", {2, Unit::Volt}, "of TTL-compatible inputs"};

/// All of them.
std::span<const StandIn* const> standIns();

/// A known figure, else what stands in for it.
inline double valueOf(std::optional<double> figure, const StandIn& standIn) {
  return figure ? *figure : standIn.value.value;
}

/// A stand-in that a bench is worked out with, and for which devices, in bench order.
struct StoodIn {
  const StandIn* standIn;
  std::vector<int> devices;
};
std::vector<StoodIn> standInsOf(const SolvedBench& solved);

}  // namespace bold::bench
