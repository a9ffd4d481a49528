#pragma once

#include <string>
#include <vector>

#include "core/checks/analysis.h"

/// Faults that somebody named without having been told, held against what is found: for a class.
namespace bold::report {

/// One line that somebody wrote: "s1 gnd is not connected", "no common ground", "diode the wrong way round".
struct NamedFault {
  std::string text;
  std::vector<std::string> means;  ///< identities of the findings it is understood to name; empty: none of them
};

struct NamedFaults {
  std::vector<NamedFault> named;
  std::vector<std::string> missed;  ///< identities of stops and cautions (causes) that no line names
};

/// A line names a finding by places (devices and terminals that the finding is about, in the words that people type) and by words (of its
/// headline, its check and what that looks for). A terminal alone is enough, a device needs a word besides, without a place it takes two
/// words. What names a consequence names its cause. Each line names all findings that it fits best alike.
NamedFaults compareNamed(const harness::Harness& harness, const parts::Library& library, const Analysis& analysis,
                         const std::vector<std::string>& lines);

}  // namespace bold::report
