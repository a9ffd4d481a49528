#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/checks/analysis.h"

namespace bold::test {

/// What a bench in short notation must be judged as, stated in its own remarks before anybody ran it:
///
///   # expect clear | not clear | stop | no stop | not judged    the verdict
///   # expect no damage                  no stop that would damage anything
///   # expect first ID|ID                the check that speaks first
///   # expect ID|ID [stop|caution|note]  one of these checks speaks, at least as gravely (a caution, where nothing is said)
///   # expect quiet ID                   this check has neither stop nor caution
///
/// @returns what is otherwise, a line each; empty when all is as expected. A bench without any expectation is one line too.
std::vector<std::string> unmet(std::string_view notation, const Analysis& analysis);

/// Names of the benches in a folder below tests/benches, sorted, and one of them as text.
std::vector<std::string> namesIn(const std::string& folder);
std::string textOf(const std::string& folder, const std::string& name);

}  // namespace bold::test
