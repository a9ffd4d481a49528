#include "core/base/quantity.h"

#include <fmt/core.h>

#include <array>
#include <charconv>
#include <cmath>
#include <cstdlib>

namespace bold {
namespace {

struct UnitName {
  Unit unit;
  std::string_view file;
  std::string_view shown;
  std::string_view alias;  // also accepted on input
  bool prefixes;
};

constexpr std::array kUnits{
    UnitName{Unit::KelvinPerWatt, "K/W", "K/W", "degC/W", false},
    UnitName{Unit::Celsius, "degC", "°C", "°C", false},
    UnitName{Unit::Ohm, "ohm", "Ω", "Ω", true},
    UnitName{Unit::AmpHour, "Ah", "Ah", "", true},
    UnitName{Unit::Awg, "AWG", "AWG", "awg", false},
    UnitName{Unit::Hertz, "Hz", "Hz", "hz", true},
    UnitName{Unit::Volt, "V", "V", "v", true},
    UnitName{Unit::Amp, "A", "A", "a", true},
    UnitName{Unit::Watt, "W", "W", "w", true},
    UnitName{Unit::Farad, "F", "F", "", true},
    UnitName{Unit::Henry, "H", "H", "", true},
    UnitName{Unit::Second, "s", "s", "", true},
    UnitName{Unit::Metre, "m", "m", "", true},
    UnitName{Unit::One, "", "", "", false},
};

const UnitName& nameOf(Unit unit) {
  for (const auto& u : kUnits)
    if (u.unit == unit) return u;
  std::abort();  // our own bug: a unit missing from the table above
}

struct Prefix {
  std::string_view file;
  std::string_view shown;
  int exponent;
};
constexpr double kNoVoltage = 1e-6;

constexpr std::array kPrefixes{Prefix{"p", "p", -12}, Prefix{"n", "n", -9}, Prefix{"u", "µ", -6}, Prefix{"m", "m", -3},
                               Prefix{"", "", 0},     Prefix{"k", "k", 3},  Prefix{"M", "M", 6}};

std::optional<int> prefixExponent(std::string_view s, Unit unit) {
  if (s == "c" && unit == Unit::Metre) return -2;  // wires are measured so
  if (s == "µ" || s == "μ") return -6;
  for (const auto& p : kPrefixes)
    if (p.file == s) return p.exponent;
  return std::nullopt;
}

std::string_view trim(std::string_view s) {
  while (!s.empty() && (s.front() == ' ' || s.front() == '\t')) s.remove_prefix(1);
  while (!s.empty() && (s.back() == ' ' || s.back() == '\t')) s.remove_suffix(1);
  return s;
}

bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

// Scales by moving the decimal exponent in the text, so that what was written reads back exactly.
std::optional<double> scaled(std::string_view number, int exponent) {
  const std::string text = fmt::format("{}e{}", number, exponent);
  double value = 0;
  const auto [end, ec] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (ec != std::errc() || end != text.data() + text.size() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::size_t numberLength(std::string_view s) {
  std::size_t i = 0;
  if (i < s.size() && (s[i] == '-' || s[i] == '+')) ++i;
  const std::size_t first = i;
  while (i < s.size() && (isDigit(s[i]) || s[i] == '.')) ++i;
  return i == first ? 0 : i;
}

Result<AnyQuantity> parseWith(std::string_view original, std::string_view number, std::string_view rest, const UnitName& unit) {
  if (number.starts_with('+')) number.remove_prefix(1);
  // 4k7: the prefix stands for the decimal point.
  for (const auto& p : kPrefixes) {
    if (p.file.empty() || !unit.prefixes || rest.size() < 2 || !rest.starts_with(p.file) || !isDigit(rest[1])) continue;
    std::size_t n = 1;
    while (n < rest.size() && isDigit(rest[n])) ++n;
    const auto tail = trim(rest.substr(n));
    if (!tail.empty() && tail != unit.file && tail != unit.alias) break;
    if (auto v = scaled(fmt::format("{}.{}", number, rest.substr(1, n - 1)), p.exponent)) return AnyQuantity{*v, unit.unit};
  }
  std::string_view head = rest;
  bool found = unit.file.empty() ? rest.empty() : false;
  for (auto sign : {unit.file, unit.alias}) {
    if (found || sign.empty() || !rest.ends_with(sign)) continue;
    head = trim(rest.substr(0, rest.size() - sign.size()));
    found = true;
  }
  // Resistors are written "220" or "10k" by everybody.
  if (!found && unit.unit == Unit::Ohm) found = true;
  const auto exponent = found ? prefixExponent(head, unit.unit) : std::nullopt;
  if (!exponent || (*exponent != 0 && !unit.prefixes))
    return fail(fmt::format("\"{}\" is not a quantity in {}", original, unit.file.empty() ? "plain numbers" : unit.file));
  const auto value = scaled(number, *exponent);
  if (!value) return fail(fmt::format("\"{}\" is not a number a bench can have", original));
  return AnyQuantity{*value, unit.unit};
}

}  // namespace

std::string_view unitSign(Unit unit) {
  return nameOf(unit).file;
}

Result<AnyQuantity> parseQuantity(std::string_view text, Unit expected) {
  const auto s = trim(text);
  if (s.find(',') != std::string_view::npos) return fail(fmt::format("\"{}\" has a comma: write a decimal point", text));
  const auto n = numberLength(s);
  if (n == 0) return fail(fmt::format("\"{}\" does not begin with a number", text));
  return parseWith(text, s.substr(0, n), trim(s.substr(n)), nameOf(expected));
}

Result<AnyQuantity> parseAnyQuantity(std::string_view text) {
  const auto s = trim(text);
  for (const auto& u : kUnits) {
    const bool here = u.file.empty() || s.ends_with(u.file) || (!u.alias.empty() && s.ends_with(u.alias));
    if (!here) continue;
    if (auto q = parseQuantity(s, u.unit)) return q;
  }
  return fail(fmt::format("\"{}\" is not a number with a unit such as V, A, ohm or m", text));
}

std::string fileText(AnyQuantity q) {
  const auto& unit = nameOf(q.unit);
  std::array<char, 64> buffer{};
  const auto end = std::to_chars(buffer.data(), buffer.data() + buffer.size(), q.value, std::chars_format::scientific).ptr;
  std::string_view s(buffer.data(), static_cast<std::size_t>(end - buffer.data()));
  const auto e = s.find('e');
  int exponent = 0;
  const char* first = s.data() + e + 1 + (s[e + 1] == '+' ? 1 : 0);
  std::from_chars(first, s.data() + s.size(), exponent);
  std::string sign;
  if (s.front() == '-') {
    sign = "-";
    s.remove_prefix(1);
  }
  std::string digits;
  for (char c : s.substr(0, s.find('e')))
    if (isDigit(c)) digits += c;
  const Prefix* prefix = &kPrefixes[4];
  if (unit.prefixes && q.value != 0)
    for (const auto& p : kPrefixes)
      if (exponent >= p.exponent) prefix = &p;
  if (unit.unit == Unit::Metre && prefix->exponent == -3 && exponent >= -2) prefix = &kPrefixes[4];
  const int point = q.value == 0 ? 1 : exponent - prefix->exponent + 1;  // digits before the decimal point
  std::string out;
  if (point <= 0) {
    out = "0." + std::string(static_cast<std::size_t>(-point), '0') + digits;
  } else if (static_cast<std::size_t>(point) >= digits.size()) {
    out = digits + std::string(static_cast<std::size_t>(point) - digits.size(), '0');
  } else {
    out = digits.substr(0, static_cast<std::size_t>(point)) + "." + digits.substr(static_cast<std::size_t>(point));
  }
  const std::string tail = std::string(prefix->file) + std::string(unit.file);
  return sign + out + (tail.empty() ? "" : " ") + tail;
}

std::string displayText(AnyQuantity q, int moreDigits) {
  const auto& unit = nameOf(q.unit);
  double v = q.value;
  // Less than solving is exact to, and less than anybody could measure on a bench.
  if (q.unit == Unit::Volt && std::abs(v) < kNoVoltage) v = 0;
  const Prefix* prefix = &kPrefixes[4];
  if (unit.prefixes && v != 0)
    for (const auto& p : kPrefixes)
      if (std::abs(v) * 1.0005 >= std::pow(10.0, p.exponent)) prefix = &p;
  if (unit.unit == Unit::Metre) prefix = &kPrefixes[4];
  v /= std::pow(10.0, prefix->exponent);
  const double a = std::abs(v);
  const int decimals = (a >= 99.95 ? 0 : a >= 9.995 ? 1 : 2) + moreDigits;
  std::string s = fmt::format("{:.{}f}", v, decimals);
  if (s.find('.') != std::string::npos) {
    while (s.ends_with('0')) s.pop_back();
    if (s.ends_with('.')) s.pop_back();
  }
  if (s == "-0") s = "0";
  const std::string tail = std::string(prefix->shown) + std::string(unit.shown);
  return s + (tail.empty() ? "" : " ") + tail;
}

}  // namespace bold
