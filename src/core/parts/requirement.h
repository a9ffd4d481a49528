#pragma once

#include <string>

#include "core/base/figure.h"

namespace bold::parts {

/// What has to be fitted to a part besides, in a form that can be wired. Ends are terminals of the part.
struct Requirement {
  enum class Kind {
    Capacitor,   ///< from `a` (plus) to `b`, of at least `value` F
    Clamp,       ///< a diode across the load, band at its plus
    RailDiodes,  ///< from the output `a` to the supply `b`, and from the ground `c` to it
    Series,      ///< a resistor of `value` ohm before `a`; unknown: as small as saturates the transistor with this load
    Pull,        ///< a resistor of `value` ohm from `a` to `b`
    Join         ///< `a` to the plus of the load
  };
  Kind kind = Kind::Clamp;
  std::string a, b, c;
  Figure value;
};

/// "100 µF or more across VM and GND.": as the card says it.
std::string words(const Requirement& requirement);

}  // namespace bold::parts
