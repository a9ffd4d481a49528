#include "core/program/number_type.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <string>

namespace bold::program {
namespace {

NumberType whole(int bits, bool isUnsigned, int intBits) {
  return {static_cast<std::uint8_t>(bits), isUnsigned, false, static_cast<std::uint8_t>(intBits)};
}

// "unsigned long int" and the like, in any order.
std::optional<NumberType> spelledOut(std::string_view name, int intBits) {
  int longs = 0;
  bool isUnsigned = false, isShort = false, isChar = false, any = false;
  while (!name.empty()) {
    const auto blank = std::min(name.find(' '), name.size());
    const auto word = name.substr(0, blank);
    name.remove_prefix(std::min(blank + 1, name.size()));
    if (word.empty()) continue;
    any = true;
    if (word == "unsigned")
      isUnsigned = true;
    else if (word == "long")
      ++longs;
    else if (word == "short")
      isShort = true;
    else if (word == "char")
      isChar = true;
    else if (word != "signed" && word != "int")
      return std::nullopt;
  }
  if (!any) return std::nullopt;
  return whole(isChar ? 8 : isShort ? 16 : longs > 1 ? 64 : longs == 1 ? 32 : intBits, isUnsigned, intBits);
}

}  // namespace

std::optional<NumberType> numberType(std::string_view name, int intBits) {
  struct Named {
    int bits;
    bool isUnsigned;
  };
  static const std::map<std::string_view, Named> kNamed{
      {"bool", {1, true}},      {"boolean", {1, true}},   {"byte", {8, true}},        {"uint8_t", {8, true}},   {"int8_t", {8, false}},
      {"uint16_t", {16, true}}, {"int16_t", {16, false}}, {"uint32_t", {32, true}},   {"int32_t", {32, false}}, {"uint64_t", {64, true}},
      {"int64_t", {64, false}}, {"uchar", {8, true}},     {"uint_fast8_t", {8, true}}};
  if (const auto it = kNamed.find(name); it != kNamed.end()) return whole(it->second.bits, it->second.isUnsigned, intBits);
  if (name == "word" || name == "uint" || name == "size_t") return whole(intBits, true, intBits);
  if (name == "float" || name == "double") return NumberType{0, false, true, static_cast<std::uint8_t>(intBits)};
  return spelledOut(name, intBits);
}

NumberType literalType(double value, std::string_view suffix, bool based, int intBits) {
  const auto has = [&](char c) {
    return suffix.find(c) != std::string_view::npos || suffix.find(static_cast<char>(c - 32)) != std::string_view::npos;
  };
  const bool isUnsigned = has('u');
  for (const int bits : {has('l') ? std::max(32, intBits) : intBits, 32, 64}) {
    if (!isUnsigned && value < std::pow(2, bits - 1)) return whole(bits, false, intBits);
    if ((isUnsigned || based) && value < std::pow(2, bits)) return whole(bits, true, intBits);
  }
  return whole(64, true, intBits);
}

NumberType calculatedIn(const NumberType& a, const NumberType& b) {
  if (a.real || b.real) return {0, false, true, a.intBits};
  if (a.bits == 0) return b;
  if (b.bits == 0) return a;
  const auto promoted = [](const NumberType& t) { return t.bits < t.intBits ? whole(t.intBits, false, t.intBits) : t; };
  const auto x = promoted(a), y = promoted(b);
  if (x.bits != y.bits) return x.bits > y.bits ? x : y;
  return whole(x.bits, x.isUnsigned || y.isUnsigned, a.intBits);
}

double kept(double value, const NumberType& type) {
  if (type.real || type.bits == 0 || !std::isfinite(value)) return value;
  value = std::trunc(value);
  if (type.bits == 1) return value != 0 ? 1 : 0;
  if (type.bits > 52) return value;  // as exact as a double keeps it
  const double range = std::pow(2, type.bits);
  auto out = std::fmod(value, range);
  if (out < 0) out += range;
  return !type.isUnsigned && out >= range / 2 ? out - range : out;
}

}  // namespace bold::program
