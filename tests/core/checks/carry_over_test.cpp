#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("until it is worked out, what follows from what is taken from the analysis before") {
  auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  const auto before = analyse(h, library());
  auto quick = analyseFast(h);
  CHECK(quick.causes(checks::Severity::Stop) > before.causes(checks::Severity::Stop));
  carryOver(quick, before);
  CHECK(quick.findings.size() == before.findings.size());
  for (std::size_t k = 0; k < before.findings.size(); ++k) {
    CHECK(quick.findings[k].identity() == before.findings[k].identity());
    CHECK(quick.findings[k].explainedBy == before.findings[k].explainedBy);
    CHECK(quick.findings[k].number == before.findings[k].number);
  }
  // What followed from a cause that is gone stands by itself.
  const auto cause =
      std::ranges::find_if(before.findings, [](const auto& f) { return f.check == "ground-not-shared" && f.explainedBy.empty(); });
  REQUIRE(cause != before.findings.end());
  auto gone = analyseFast(h);
  std::erase_if(gone.findings, [&](const auto& f) { return f.identity() == cause->identity(); });
  carryOver(gone, before);
  for (const auto& f : gone.findings) CHECK(f.explainedBy != cause->identity());
  // An analysis that knows is left alone.
  auto knows = before;
  carryOver(knows, analyseFast(h));
  CHECK(knows.findings.front().identity() == before.findings.front().identity());
}
