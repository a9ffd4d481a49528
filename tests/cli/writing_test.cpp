#include <fmt/core.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/base/file_system.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;
namespace fs = std::filesystem;

namespace {

const std::string kSketch = "void setup() { pinMode(9, OUTPUT); }\nvoid loop() { analogWrite(9, 100); }\n";

// Every command that writes a bench, with what else it takes.
std::vector<std::vector<std::string>> writers(const std::string& bench, const std::string& sketch, const std::string& list) {
  return {{"choose", bench, "pump", "l298n-module"}, {"pins", bench}, {"program", bench, sketch}, {"wires", bench, "--take", list}};
}

std::string textOf(const std::string& path) {
  Disk disk;
  return disk.read(path).value_or(std::string("(cannot be read)"));
}

}  // namespace

TEST_CASE("no command writes over what it was not given to read, until somebody insists") {
  const TemporaryFolder folder;
  const auto bench = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  const auto sketch = folder.write("tank.ino", kSketch);
  const auto list = folder.write("list.csv", run({"wires", bench, "--format", "csv"}).out);
  const auto other = folder.write("other.harness", readFile("demo/wave-tank-first-try.harness"));
  const auto readOnly = folder.write("read-only.harness", readFile("demo/wave-tank.harness"));
  ::chmod(readOnly.c_str(), 0444);
  const auto link = folder.path("link.harness");
  fs::create_symlink(other, link);
  for (const auto& command : writers(bench, sketch, list)) {
    INFO(command[0]);
    const auto to = [&](const std::string& path, bool force) {
      auto arguments = command;
      arguments.insert(arguments.end(), {"--output", path});
      if (force) arguments.emplace_back("--force");
      return run(arguments);
    };
    for (const auto& [path, why] : {std::pair{sketch, "is no bench"},
                                    {other, "There is a bench here already"},
                                    {readOnly, "The file is read-only"},
                                    {link, "This is a link to"}}) {
      INFO(path);
      const auto before = textOf(path);
      const auto said = to(path, false);
      CHECK(said.code == 2);
      CHECK(said.err.find(why) != std::string::npos);
      CHECK(said.err.find("Nothing was written. --force insists.") != std::string::npos);
      CHECK(textOf(path) == before);
    }
    // Where nothing stands, and over the file itself, nobody is asked.
    const auto fresh = folder.path(command[0] + ".harness");
    CHECK(to(fresh, false).code != 2);
    CHECK(harness::readHarness(textOf(fresh), fresh));
    auto again = command;
    again[1] = fresh;
    again.insert(again.end(), {"--output", fresh});
    CHECK(run(again).code != 2);
    // Insisted upon it is done.
    const auto taken = folder.write("taken-" + command[0] + ".txt", "anything");
    CHECK(to(taken, true).code != 2);
    CHECK(harness::readHarness(textOf(taken), taken));
  }
  CHECK(textOf(sketch) == kSketch);
}

TEST_CASE("an export is not written over anything, and never over a program") {
  const TemporaryFolder folder;
  const auto bench = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  for (const std::string ending : {".svg", ".png", ".pdf", ".csv", ".h", ".hpp", ".py"}) {
    INFO(ending);
    const auto out = folder.path("out" + ending);
    REQUIRE(run({"export", bench, "--output", out}).code == 0);
    const auto before = textOf(out);
    const auto again = run({"export", bench, "--output", out});
    CHECK(again.code == 2);
    CHECK(again.err.find("There is a file here already") != std::string::npos);
    CHECK(textOf(out) == before);
    CHECK(run({"export", bench, "--output", out, "--force"}).code == 0);
  }
  const auto own = folder.write("main.py", "import machine\n");
  const auto said = run({"export", bench, "--output", own});
  CHECK(said.code == 2);
  CHECK(said.err.find("this program did not write") != std::string::npos);
  CHECK(textOf(own) == "import machine\n");
  CHECK(run({"export", bench, "--output", bench}).code == 2);  // a bench is no export
}

TEST_CASE("what a limit ends leaves no half file behind") {
  const TemporaryFolder folder;
  const auto bench = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  const auto limited = [&](const std::string& limit, const std::string& what) {
    return runProgram("bash", {"-c", fmt::format("ulimit {}; exec {} export '{}' --output '{}' --force", limit, BOLDH, bench, what)});
  };
  const auto out = folder.path("out.pdf");
  const auto said = limited("-f 4", out);  // blocks: fewer than the sheet has
  CHECK(said.code == 2);
  CHECK(said.err.find("cannot be written") != std::string::npos);
  int files = 0;
  for (const auto& e : fs::directory_iterator(folder.path())) {
    INFO(e.path().string());
    CHECK(e.path().extension() != ".part");
    ++files;
  }
  CHECK(files == 1);
  // What stood there stands.
  REQUIRE(run({"export", bench, "--output", out}).code == 0);
  const auto before = textOf(out);
  CHECK(limited("-f 4", out).code == 2);
  CHECK(textOf(out) == before);
}

TEST_CASE("a written file keeps the rights that its folder and its user give") {
  const TemporaryFolder folder;
  const auto bench = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  const auto mask = ::umask(0027);
  const auto out = folder.path("out.csv");
  REQUIRE(run({"export", bench, "--output", out}).code == 0);
  ::umask(mask);
  struct ::stat now {};
  REQUIRE(::stat(out.c_str(), &now) == 0);
  CHECK((now.st_mode & 0777U) == 0640U);
  ::chmod(out.c_str(), 0604);
  REQUIRE(run({"export", bench, "--output", out, "--force"}).code == 0);
  REQUIRE(::stat(out.c_str(), &now) == 0);
  CHECK((now.st_mode & 0777U) == 0604U);
}
