#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/harness/document_file.h"
#include "core/harness/source_standing.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;
namespace fs = std::filesystem;

// A bench names sources, and people open them: what lies outside its own folder is opened for nobody who did not ask.
namespace {

const std::string kLentSketch = "void setup() { pinMode(9, OUTPUT); }\nvoid loop() { analogWrite(9, 100); }\n";

// A bench in a folder of its own whose program lies there, or is said to lie elsewhere.
struct Lent {
  TemporaryFolder folder;
  std::string bench = folder.path("bench/tank.harness");

  Lent() {
    for (const auto* f : {"bench", "bench/src", "elsewhere"}) fs::create_directories(folder.path(f));
    folder.write("bench/tank.ino", kLentSketch);
    folder.write("elsewhere/tank.ino", kLentSketch);
    folder.write("bench/plain.harness", readFile("demo/wave-tank.harness"));
  }
  // The bench with the program of one source read into it.
  void readFrom(const std::string& source) {
    (void)run({"program", folder.path("bench/plain.harness"), folder.path(source), "--output", bench, "--force"});
    REQUIRE(fs::exists(bench));
  }
  Standing standing() const {
    Disk disk;
    const auto loaded = load(disk, bench);
    REQUIRE(loaded);
    REQUIRE(loaded->harness.sources.size() == 1);
    return loaded->harness.sources[0].files.at(0).standing;
  }
};

// Said of the source, in lines that are broken anywhere.
bool notOpened(std::string out) {
  for (auto at = out.find('\n'); at != std::string::npos; at = out.find('\n')) out.replace(at, out.find_first_not_of(" \n", at) - at, " ");
  return out.find("lies outside the bench's folder") != std::string::npos;
}

}  // namespace

TEST_CASE("a source in the bench's own folder is looked at by itself, one elsewhere is not opened") {
  Lent c;
  c.readFrom("bench/tank.ino");
  CHECK(c.standing() == Standing::AsRead);
  CHECK_FALSE(notOpened(run({"check", c.bench}).out));
  c.readFrom("elsewhere/tank.ino");
  CHECK(c.standing() == Standing::Elsewhere);
  const auto said = run({"check", c.bench});
  CHECK(said.code == 1);
  CHECK(notOpened(said.out));
  CHECK(parsedJson(run({"check", "--format", "json", c.bench}).out)["verdict"] != "Clear to switch on");
  // Naming it is asking for it; naming another is not.
  const auto source = c.folder.path("elsewhere/tank.ino");
  CHECK_FALSE(notOpened(run({"check", c.bench, "--source", source}).out));
  CHECK(notOpened(run({"check", c.bench, "--source", c.folder.path("bench/tank.ino")}).out));
  CHECK_FALSE(notOpened(run({"program", c.bench, source}).out));
}

TEST_CASE("links are followed before it is said where a source lies, and devices are never opened") {
  Lent c;
  c.readFrom("bench/tank.ino");
  fs::remove(c.folder.path("bench/tank.ino"));
  fs::create_symlink(c.folder.path("elsewhere/tank.ino"), c.folder.path("bench/tank.ino"));
  CHECK(c.standing() == Standing::Elsewhere);
  // A link inside leads to what lies inside.
  fs::remove(c.folder.path("bench/tank.ino"));
  c.folder.write("bench/src/real.ino", kLentSketch);
  fs::create_symlink(c.folder.path("bench/src/real.ino"), c.folder.path("bench/tank.ino"));
  CHECK(c.standing() == Standing::AsRead);
  // A stranger's bench names whatever it likes.
  auto j = parsedJson(readFile("demo/wave-tank.harness"));
  for (const std::string file : {"/etc/passwd", "../../etc/passwd", "/dev/zero", "src/../../elsewhere/tank.ino", "/proc/self/environ"}) {
    INFO(file);
    j["sources"] =
        bold::Json::array({{{"id", "s"}, {"controller", "uno"}, {"files", bold::Json::array({{{"file", file}, {"digest", "abc"}}})}}});
    c.folder.write("bench/tank.harness", j.dump());
    CHECK(c.standing() == Standing::Elsewhere);
  }
  fs::remove(c.folder.path("bench/tank.ino"));
  fs::create_symlink("/dev/zero", c.folder.path("bench/tank.ino"));
  j["sources"][0]["files"][0]["file"] = "tank.ino";
  c.folder.write("bench/tank.harness", j.dump());
  CHECK(c.standing() == Standing::Elsewhere);
  // Asked for by name a device is still none that is opened.
  CHECK(run({"check", c.bench, "--source", "/dev/zero"}).code == 1);
  CHECK(run({"program", c.bench, "/dev/zero"}).code == 2);
}

TEST_CASE("what a source includes is opened below the folders that were named, and nowhere else") {
  Lent c;
  c.folder.write("elsewhere/pins.h", "#define SECRET_PIN 9\n");
  c.folder.write("bench/tank.ino", "#include \"pins.h\"\n#include \"../elsewhere/pins.h\"\n" + kLentSketch);
  fs::create_symlink(c.folder.path("elsewhere/pins.h"), c.folder.path("bench/pins.h"));
  const auto said = run({"program", c.folder.path("bench/plain.harness"), c.folder.path("bench/tank.ino")});
  CHECK(said.err.find("\"pins.h\" is no file below the program's folder") != std::string::npos);
  CHECK(said.err.find("\"../elsewhere/pins.h\" is no file below the program's folder") != std::string::npos);
  CHECK(said.out.find("SECRET_PIN") == std::string::npos);
}
