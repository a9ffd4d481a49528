#define CATCH_CONFIG_RUNNER
#include "support/run_tests.h"

#include <catch2/catch.hpp>

int bold::test::runTests(int argc, char** argv) {
  return Catch::Session().run(argc, argv);
}
