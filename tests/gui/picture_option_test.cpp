#include <catch2/catch.hpp>

#include "core/base/file_system.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("a picture of the window is written and the program ends, with a bench and without one") {
  const TemporaryFolder folder;
  Disk disk;
  const auto written = [&](const std::string& name, std::vector<std::string> more) {
    const auto file = folder.path(name);
    more.insert(more.begin(), {"-platform", "offscreen", "--size", "1280x800", "--picture", file});
    const auto ran = runProgram(BOLD_HARNESS, more);
    INFO(ran.err);
    CHECK(ran.code == 0);
    const auto bytes = disk.read(file);
    return bytes && bytes->starts_with("\x89PNG");
  };
  CHECK(written("bench.png", {std::string(BOLD_SOURCE_DIR) + "/demo/wave-tank.harness"}));
  CHECK(written("empty.png", {"--step", "bench"}));  // judged before anybody listens
}
