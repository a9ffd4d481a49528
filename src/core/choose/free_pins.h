#pragma once

#include <optional>
#include <set>
#include <string>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::choose {

/// Pins that a program may still take: outputs that nothing is wired to, nobody states, no plan uses, and that neither the console, the
/// start nor the board needs.
class FreePins {
 public:
  /// @param gone connections that will not be there any more, ids
  FreePins(const harness::Harness& harness, const parts::Library& library, const std::set<std::string>& gone = {});
  /// The next one in the order of the board's terminals; those without PWM first where none is asked for. Taken from then on.
  std::optional<Address> take(const std::string& controller, bool pwm);

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
  std::set<std::string> m_taken;  // addresses
};

}  // namespace bold::choose
