#include "core/parts/requirement.h"

#include <fmt/core.h>

namespace bold::parts {

std::string words(const Requirement& r) {
  switch (r.kind) {
    case Requirement::Kind::Capacitor:
      return fmt::format("{} or more across {} and {}.", displayText(r.value), r.a, r.b);
    case Requirement::Kind::Clamp:
      return "A diode across the motor, band at plus, for its running current.";
    case Requirement::Kind::RailDiodes:
      return fmt::format("Two fast diodes at {}: to {} and from {}.", r.a, r.b, r.c);
    case Requirement::Kind::Series:
      return r.value.known() ? fmt::format("{} from the pin to {}.", displayText(r.value), r.a)
                             : fmt::format("A resistor from the pin to {}, as small as saturates it with this motor.", r.a);
    case Requirement::Kind::Pull:
      return fmt::format("{} from {} to {}: off until the program runs.", displayText(r.value), r.a, r.b);
    case Requirement::Kind::Join:
      break;
  }
  return fmt::format("{} to the motor's plus.", r.a);
}

}  // namespace bold::parts
