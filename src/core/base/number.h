#pragma once

#include <cstddef>
#include <optional>
#include <string_view>

/// Numbers as text: a decimal point, no grouping, whatever locale the process runs under. The C library's own functions follow the
/// locale once a window has begun, so nothing in this program uses them (a test holds that).
namespace bold {

/// A decimal number that takes up the whole text: "12.5", "1e3", "-2"; a leading "+" is allowed.
/// Nothing for anything else: empty, words, hexadecimal, "inf", "nan", out of range.
[[nodiscard]] std::optional<double> realOf(std::string_view text);

/// A whole number that takes up the whole text, in the given base (2 to 36, without a prefix); a leading "+" is allowed.
/// Nothing for anything else, or where it does not fit.
[[nodiscard]] std::optional<long long> wholeOf(std::string_view text, int base = 10);

/// The decimal number that the text begins with, such as 1.5 of "1.5f"; nothing where it begins with none.
[[nodiscard]] std::optional<double> realAtStart(std::string_view text);

/// The position that a text names in a list of so many, from 0; nothing for anything else.
[[nodiscard]] std::optional<std::size_t> positionIn(std::string_view text, std::size_t size);

/// The whole number that the text begins with, such as 22 of "22awg"; nothing where it begins with none. One that does not fit is the
/// nearest that does.
[[nodiscard]] std::optional<long long> wholeAtStart(std::string_view text);

}  // namespace bold
