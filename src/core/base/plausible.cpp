#include "core/base/plausible.h"

#include <fmt/core.h>

#include <array>
#include <cstdlib>

namespace bold {
namespace {

struct Range {
  Unit unit;
  double least, most;
  bool nothing = true;  // 0 is one too
};

constexpr std::array kRanges{
    Range{Unit::One, 1e-9, 1e12},           Range{Unit::Volt, 1e-6, 1e5},     Range{Unit::Amp, 1e-12, 1e5},
    Range{Unit::Ohm, 1e-6, 1e9, false},     Range{Unit::Watt, 1e-9, 1e6},     Range{Unit::Farad, 1e-15, 1e4},
    Range{Unit::Henry, 1e-12, 1e4},         Range{Unit::Hertz, 1e-6, 1e11},   Range{Unit::Second, 1e-12, 1e7},
    Range{Unit::Metre, 1e-6, 1e4},          Range{Unit::Celsius, -100, 1000}, Range{Unit::KelvinPerWatt, 1e-4, 1e5},
    Range{Unit::AmpHour, 1e-6, 1e5, false}, Range{Unit::Awg, 0, 50}};

const Range& rangeOf(Unit unit) {
  for (const auto& r : kRanges)
    if (r.unit == unit) return r;
  std::abort();  // our own bug: a unit missing from the table above
}

}  // namespace

bool plausible(AnyQuantity q) {
  const auto& r = rangeOf(q.unit);
  return (q.value == 0 && r.nothing) || (q.value >= r.least && q.value <= r.most);
}

std::string plausibleWords(Unit unit) {
  const auto& r = rangeOf(unit);
  return fmt::format("it is {} to {}", fileText({r.least, unit}), fileText({r.most, unit}));
}

}  // namespace bold
