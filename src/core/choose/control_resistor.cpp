#include "core/choose/control_resistor.h"

#include <algorithm>

#include "core/base/e_series.h"
#include "core/base/interpolate.h"

namespace bold::choose {
namespace {

constexpr double kForcedPlain = 20, kForcedDarlington = 500;  // IC / IB that data sheets saturate transistors with
constexpr double kNextInRow = 1.25;                           // to the next value of the E12 row, and not to the one after
constexpr double kOverdrive = 2, kSureOf = 1.1;               // of the least gain, and of the row of resistors
constexpr double kLeastCurrent = 1e-3, kUsualVbe = 0.7, kUsualMost = 20e-3;
constexpr Ohms kLeastResistor{47};

Volts beforeBase(const parts::Bipolar& t, Drive d) {
  return Volts{d.level.value - t.vbe.typical().value_or(kUsualVbe)};
}
Ohms inside(Drive d) {
  return Ohms{d.pins.resistance.typical().value_or(0)};
}

}  // namespace

Amps baseCurrent(const parts::Bipolar& t, Drive d, Ohms resistor) {
  return beforeBase(t, d) / (resistor + inside(d));
}

Ohms baseResistor(const parts::Bipolar& t, Drive d, Amps load) {
  double wanted = std::max(load.value / (t.darlington ? kForcedDarlington : kForcedPlain), kLeastCurrent);
  if (!t.hfeMin.empty()) wanted = std::max(wanted, kOverdrive * load.value / interpolate(t.hfeMin, load.value));
  wanted *= kSureOf;
  const auto most = d.pins.recommended.typical();
  if (most) wanted = std::min(wanted, *most);
  const auto below = e12(std::max(beforeBase(t, d) / Amps{wanted} - inside(d), kLeastResistor));
  return most && baseCurrent(t, d, below).value > *most ? e12(below * kNextInRow) : below;
}

Ohms gateResistor(Drive d) {
  const Ohms least = d.level / Amps{d.pins.recommended.typical().value_or(kUsualMost)} - inside(d);
  const auto below = e12(std::max(least, kLeastResistor));
  return below < least ? e12(below * kNextInRow) : below;
}

}  // namespace bold::choose
