#define CATCH_CONFIG_RUNNER
#include "support/run_tests.h"

#include <catch2/catch.hpp>
#include <cstdlib>

#include "support/run_length.h"

int bold::test::runTests(int argc, char** argv) {
  // Ten times the random cases of a usual run (tests/CMakeLists.txt).
  if (longRun()) setenv("RC_PARAMS", "max_success=400", 1);  // NOLINT(concurrency-mt-unsafe): no thread has begun
  return Catch::Session().run(argc, argv);
}
