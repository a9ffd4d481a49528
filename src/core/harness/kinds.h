#pragma once

#include "core/base/quantity.h"

/// What a quantity of a document is of, and which values a bench can have of it. One outside is a slip of the keyboard ("490 mHz"): where
/// it is typed it is refused, in a file it is named and not used.
namespace bold::harness {

struct Kind {
  Unit unit;
  double least, most;  ///< in SI units (degC as written), both allowed
};

inline constexpr Kind kAmbient{Unit::Celsius, -40, 85};        ///< of the air around the bench
inline constexpr Kind kWireLength{Unit::Metre, 1e-3, 100};     ///< of one wire
inline constexpr Kind kPwmFrequency{Unit::Hertz, 1, 10e6};     ///< of a program's PWM; slower is switching on and off
inline constexpr Kind kStepRate{Unit::Hertz, 1e-5, 10e6};      ///< pulses a second; one a day is the slowest
inline constexpr Kind kPulseLength{Unit::Second, 10e-9, 1e5};  ///< how long a pin is held, a day at most

/// Whether a bench can have it.
constexpr bool plausible(const Kind& kind, double value) {
  return value >= kind.least && value <= kind.most;
}
/// "1 Hz to 10 MHz", for sentences.
std::string bounds(const Kind& kind);

/// Reads a quantity of a kind as people and files write it. Errors: one clause without a full stop, saying what it can be.
[[nodiscard]] Result<AnyQuantity> parseKind(std::string_view text, const Kind& kind);

}  // namespace bold::harness
