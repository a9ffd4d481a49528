#include "core/base/number.h"

#include <charconv>
#include <cmath>
#include <limits>

namespace bold {
namespace {

// from_chars takes a minus and no plus.
std::string_view withoutPlus(std::string_view text) {
  if (text.size() > 1 && text[0] == '+' && text[1] != '-') text.remove_prefix(1);
  return text;
}

}  // namespace

std::optional<double> realOf(std::string_view text) {
  text = withoutPlus(text);
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::optional<double> realAtStart(std::string_view text) {
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::optional<long long> wholeOf(std::string_view text, int base) {
  text = withoutPlus(text);
  long long value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value, base);
  if (error != std::errc() || end != text.data() + text.size()) return std::nullopt;
  return value;
}

std::optional<std::size_t> positionIn(std::string_view text, std::size_t size) {
  const auto at = wholeOf(text);
  if (!at || *at < 0 || static_cast<std::size_t>(*at) >= size) return std::nullopt;
  return static_cast<std::size_t>(*at);
}

std::optional<long long> wholeAtStart(std::string_view text) {
  long long value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  using Limits = std::numeric_limits<long long>;
  if (error == std::errc::result_out_of_range) return text.starts_with('-') ? Limits::min() : Limits::max();
  if (error != std::errc()) return std::nullopt;
  return value;
}

}  // namespace bold
