#pragma once

#include <cstdint>
#include <optional>
#include <string_view>

/// How languages with fixed widths keep a number.
namespace bold::program {

struct NumberType {
  std::uint8_t bits = 0;  ///< 0: no width is known, as in Python; 1: a truth value
  bool isUnsigned = false;
  bool real = false;          ///< float, double: no width counts
  std::uint8_t intBits = 32;  ///< of int on this controller, in which narrower ones are calculated
  bool stated() const { return bits > 0 || real; }
  bool operator==(const NumberType&) const = default;
};

/// "uint8_t", "unsigned long", "float"; nothing for what is no type of numbers.
/// @param intBits of int on the controller: 16 or 32
std::optional<NumberType> numberType(std::string_view name, int intBits);

/// The type of a whole literal without a point.
/// @param suffix what follows its digits: "u", "UL", ""
/// @param based it is written in hexadecimal, octal or binary, which takes unsigned types too
NumberType literalType(double value, std::string_view suffix, bool based, int intBits);

/// What two numbers are calculated in (C and C++, usual arithmetic conversions). One of no known width takes the other's.
NumberType calculatedIn(const NumberType& a, const NumberType& b);

/// What is kept of a whole number: it wraps round.
double kept(double value, const NumberType& type);

}  // namespace bold::program
