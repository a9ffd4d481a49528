#pragma once

#include <map>
#include <optional>
#include <string>

#include "core/base/quantity.h"
#include "core/parts/library.h"

/// Loose parts of the library by what they have to do, never by name.
namespace bold::choose {

/// A part, and the figures of it that this place needs.
struct Fitting {
  std::string part;
  std::map<std::string, std::string> figures;
};

/// One of this value, or one whose value is given.
std::optional<Fitting> resistor(const parts::Library& library, Ohms value);
/// The smallest electrolytic capacitor of the library that has this much at this voltage with a third to spare, else one whose value is
/// given.
std::optional<Fitting> capacitor(const parts::Library& library, Farads value, Volts voltage);
/// The smallest diode that carries this current, stands the voltage with a third to spare and is fast.
std::optional<Fitting> clampDiode(const parts::Library& library, Amps current, Volts voltage);
/// The thinnest wire of the library that carries this in a bundle, AWG; the thickest there is where none does.
int gaugeFor(const parts::Library& library, Amps current);

}  // namespace bold::choose
