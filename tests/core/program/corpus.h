#pragma once

#include <map>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "core/harness/harness.h"

/// The programs of tests/programs, and what their first lines say of them, written before they were first read:
///
///   //! bench wave-tank          the bench that it is for (tests/benches/good, or the demo)
///   //! bench+ wire uno.D9 …     a line of the benches' notation that is added to it
///   //! pin D9 output pwm        everything that the program does with a pin, all pins of the controller
///   //! says program-pin-slip …  what the bench says of it, as often as it is said; or "quiet"
///   //! untold 1                 how many places that name a pin can not be told
namespace bold::test {

struct ProgramCase {
  std::string name;
  std::vector<std::pair<std::string, std::string>> texts;  ///< by file, the program's beginning first
  std::string bench;                                       ///< in the notation of the benches
  std::map<std::string, std::set<std::string>> pins;       ///< by terminal
  std::multiset<std::string> says;
  int untold = 0;
};

/// All of them, by name.
const std::vector<ProgramCase>& programCases();

/// Its bench with what the program says of its controller's pins.
harness::Harness benchOf(const ProgramCase& program);
/// The same with other texts: a mutant.
harness::Harness benchOf(const ProgramCase& program, const std::vector<std::pair<std::string, std::string>>& texts);

/// What a pin is used for, as the first lines have it: levels left out.
std::set<std::string> plainDoings(const harness::PinUse& use);

}  // namespace bold::test
