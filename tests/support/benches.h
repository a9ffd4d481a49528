#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/checks/analysis.h"
#include "core/harness/harness.h"
#include "core/parts/library.h"

/// The shipped library and the benches of tests/benches/good, for tests.
namespace bold::test {

const parts::Library& library();
std::vector<std::string> goodNames();
/// From the notation of bench_text.h; "from NAME" finds the good benches.
harness::Harness wiredBench(std::string_view text);
inline harness::Harness good(const std::string& name) {
  return wiredBench("from " + name);
}
std::string readFile(const std::string& pathBelowSource);

/// Paths of the demo benches.
inline const std::string kDemo = std::string(BOLD_SOURCE_DIR) + "/demo/wave-tank.harness";
inline const std::string kFirstTry = std::string(BOLD_SOURCE_DIR) + "/demo/wave-tank-first-try.harness";

/// The findings of one check.
std::vector<checks::Finding> findingsOf(const Analysis& analysis, std::string_view check);
/// Every command of a bench, and nothing judged.
std::unique_ptr<bench::SolvedBench> solved(const harness::Harness& harness);
Analysis analyseFast(const harness::Harness& harness);  ///< without working out explanations

}  // namespace bold::test
