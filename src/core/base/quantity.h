#pragma once

#include <compare>
#include <optional>
#include <string>
#include <string_view>

#include "core/base/result.h"

namespace bold {

/// The closed list of units a figure may have. Values are always held in SI (degC and AWG as written).
enum class Unit { One, Volt, Amp, Ohm, Watt, Farad, Henry, Hertz, Second, Metre, Celsius, KelvinPerWatt, AmpHour, Awg };

/// A physical number: a double that cannot be mixed up with another unit's.
template <Unit U>
struct Quantity {
  static constexpr Unit kUnit = U;
  double value = 0.0;

  constexpr auto operator<=>(const Quantity&) const = default;
  constexpr Quantity operator+(Quantity o) const { return {value + o.value}; }
  constexpr Quantity operator-(Quantity o) const { return {value - o.value}; }
  constexpr Quantity operator-() const { return {-value}; }
  constexpr Quantity operator*(double k) const { return {value * k}; }
  constexpr Quantity operator/(double k) const { return {value / k}; }
  constexpr double operator/(Quantity o) const { return value / o.value; }
};

using Volts = Quantity<Unit::Volt>;
using Amps = Quantity<Unit::Amp>;
using Ohms = Quantity<Unit::Ohm>;
using Watts = Quantity<Unit::Watt>;
using Farads = Quantity<Unit::Farad>;
using Henries = Quantity<Unit::Henry>;
using Hertz = Quantity<Unit::Hertz>;
using Seconds = Quantity<Unit::Second>;
using Metres = Quantity<Unit::Metre>;
using Celsius = Quantity<Unit::Celsius>;

constexpr Amps operator/(Volts v, Ohms r) {
  return {v.value / r.value};
}
constexpr Volts operator*(Amps i, Ohms r) {
  return {i.value * r.value};
}
constexpr Ohms operator/(Volts v, Amps i) {
  return {v.value / i.value};
}
constexpr Watts operator*(Volts v, Amps i) {
  return {v.value * i.value};
}

/// A number whose unit is known only at run time (tables, findings, overrides).
struct AnyQuantity {
  double value = 0.0;
  Unit unit = Unit::One;

  AnyQuantity() = default;
  constexpr AnyQuantity(double v, Unit u) : value(v), unit(u) {}
  template <Unit U>
  constexpr AnyQuantity(Quantity<U> q) : value(q.value), unit(U) {}  // NOLINT(google-explicit-constructor)
  bool operator==(const AnyQuantity&) const = default;
};

/// The unit's sign as written in files: "V", "ohm", "K/W".
std::string_view unitSign(Unit unit);

/// Reads "4.5 V", "500 mA", "12V", "4k7" (the last only where a unit is expected).
/// @param expected the unit the field must have; a bare number is accepted only for Unit::One.
/// Errors: one sentence naming the text and what was expected. Never NaN or infinity.
[[nodiscard]] Result<AnyQuantity> parseQuantity(std::string_view text, Unit expected);

/// As parseQuantity, but takes the unit from the text itself.
[[nodiscard]] Result<AnyQuantity> parseAnyQuantity(std::string_view text);

template <class Q>
[[nodiscard]] Result<Q> parse(std::string_view text) {
  auto any = parseQuantity(text, Q::kUnit);
  if (!any) return fail(any.error());
  return Q{any->value};
}

/// File text: the fewest digits that read back equal, for example "0.2 m", "4.7 kohm".
std::string fileText(AnyQuantity q);

/// Text for people: three significant digits, for example "1.68 A", "4.7 kΩ", "490 Hz".
std::string displayText(AnyQuantity q, int moreDigits = 0);

}  // namespace bold
