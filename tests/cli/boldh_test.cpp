#include <catch2/catch.hpp>

#include "support/process.h"

using namespace bold::test;

TEST_CASE("boldh without a sub-command says how to use it and ends 2") {
  const auto r = run({});
  CHECK(r.code == 2);
  CHECK(r.err.find("A subcommand is required") != std::string::npos);
}
