#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/base/quantity.h"

namespace bold {

/// A data-sheet figure: any of min, typ, max may be unknown. Unknown is a value every check must handle.
struct Figure {
  Unit unit = Unit::One;
  std::optional<double> min, typ, max;
  std::optional<double> spreadMin, spreadMax;  ///< catalogue spread of the class: not a tolerance
  std::string condition;
  std::string source;       ///< "recalled, not re-read" unless the part file says better
  std::string confidence;   ///< "high", "medium", "low" or empty
  bool overridden = false;  ///< replaced on this bench by a measured or data-sheet value
  int named = -1;           ///< which of its part's named figures it was taken from; -1: written in place

  bool known() const { return min || typ || max; }

  /// What is to be expected: typ, else the middle, else the one end that is known.
  std::optional<double> typical() const {
    if (typ) return typ;
    if (min && max) return (*min + *max) / 2;
    return min ? min : max;
  }
  /// The least / greatest that is promised or known.
  std::optional<double> least() const { return min ? min : typ ? typ : max; }
  std::optional<double> greatest() const { return max ? max : typ ? typ : min; }

  template <class Q>
  std::optional<Q> typicalAs() const {
    return as<Q>(typical());
  }
  template <class Q>
  std::optional<Q> leastAs() const {
    return as<Q>(least());
  }
  template <class Q>
  std::optional<Q> greatestAs() const {
    return as<Q>(greatest());
  }

  bool operator==(const Figure&) const = default;

 private:
  template <class Q>
  static std::optional<Q> as(std::optional<double> v) {
    return v ? std::optional<Q>(Q{*v}) : std::nullopt;
  }
};

/// Reads "2 A" (typical), "4.5 V .. 36 V" (min and max), "4.5 V .. 5 V .. 5.5 V" (all three), "unknown".
[[nodiscard]] Result<Figure> parseFigure(std::string_view text, Unit expected);

/// Text for people: "2 A", "4.5 V to 36 V", "unknown".
std::string displayText(const Figure& figure);

}  // namespace bold
