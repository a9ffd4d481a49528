#pragma once

#include "core/parts/part.h"

/// The resistor between a pin and a transistor: as data sheets saturate it, and no more than the pin gives.
namespace bold::choose {

/// A pin as it drives: the rail of its controller, and its group.
struct Drive {
  Volts level;
  const parts::Pins& pins;
};

/// What flows into a base through a resistor, the pin's own counted.
Amps baseCurrent(const parts::Bipolar& transistor, Drive drive, Ohms resistor);
/// Of the E12 row: the largest that saturates the transistor with this load, by the least gain that is promised and the ratio that data
/// sheets saturate with; a larger one where the pin would give more than is advised.
Ohms baseResistor(const parts::Bipolar& transistor, Drive drive, Amps load);
/// Of the E12 row: the smallest that keeps a pin that switches a gate within what is advised.
Ohms gateResistor(Drive drive);

}  // namespace bold::choose
