#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>
#include <set>

#include "core/harness/document_file.h"
#include "support/benches.h"
#include "support/failing_disk.h"
#include "support/process.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

std::string content(const std::string& path) {
  Disk d;
  return d.read(path).value();
}

}  // namespace

TEST_CASE("saving writes the parts that are used and the file loads again") {
  const TemporaryFolder folder;
  Disk disk;
  auto h = good("bridge");
  const auto path = folder.path("b.harness");
  const auto saved = save(disk, h, library(), {}, path, Overwrite::Ask);
  REQUIRE(saved);
  std::set<std::string> used;
  for (const auto& d : h.devices) used.insert(d.part);
  CHECK(h.parts.size() == used.size());
  const auto loaded = load(disk, path);
  REQUIRE(loaded);
  CHECK(loaded->problems.empty());
  CHECK(loaded->file.digest == saved->digest);
  CHECK(loaded->harness.connections.size() == h.connections.size());
  std::vector<Problem> problems;
  const auto here = withDocumentParts(library(), loaded->harness, path, problems);
  CHECK(problems.empty());
  CHECK(fromFile(loaded->harness, here).empty());
}

TEST_CASE("a file that changed on disk is not written over without asking") {
  const TemporaryFolder folder;
  Disk disk;
  auto h = good("low-side");
  const auto path = folder.path("b.harness");
  const auto saved = save(disk, h, library(), {}, path, Overwrite::Ask);
  REQUIRE(saved);
  folder.write("b.harness", "somebody else's work");
  const auto again = save(disk, h, library(), *saved, path, Overwrite::Ask);
  REQUIRE_FALSE(again);
  CHECK(again.error().kept == kChangedOnDisk);
  CHECK(content(path) == "somebody else's work");
  CHECK(save(disk, h, library(), *saved, path, Overwrite::Yes));
}

TEST_CASE("at whatever call the disk fails, the file is the old one or the new one") {
  const TemporaryFolder folder;
  const auto path = folder.path("b.harness");
  for (int at = 0; at < 8; ++at) {
    Disk disk;
    auto old = good("low-side");
    const auto file = save(disk, old, library(), {}, path, Overwrite::Yes).value();
    const auto before = content(path);
    FailingDisk failing(at);
    auto changed = old;
    changed.title = "changed";
    const auto result = save(failing, changed, library(), file, path, Overwrite::Ask);
    const auto after = content(path);
    CHECK((after == before || after.find("changed") != std::string::npos));
    CHECK(result.has_value() == (after != before));
  }
}

TEST_CASE("unreadable and unwritable places get one sentence") {
  const TemporaryFolder folder;
  Disk disk;
  CHECK(text(load(disk, folder.path("nothing")).error()) ==
        folder.path("nothing") + ": The file cannot be read (No such file or directory).");
  CHECK(text(load(disk, folder.path()).error()) == folder.path() + ": This is a folder, not a file.");
  auto h = good("low-side");
  const auto nowhere = folder.path("gone/b.harness");
  CHECK(text(save(disk, h, library(), {}, nowhere, Overwrite::Ask).error()) ==
        nowhere + ": The file cannot be written (No such file or directory). What stood there before is untouched.");
}

TEST_CASE("a document of a newer format is never saved over") {
  const TemporaryFolder folder;
  Disk disk;
  const auto path = folder.write("b.harness", R"({"format": 42, "devices": [], "connections": [], "intents": []})");
  auto loaded = load(disk, path);
  REQUIRE(loaded);
  CHECK_FALSE(save(disk, loaded->harness, library(), loaded->file, path, Overwrite::Yes));
  CHECK(content(path).find("42") != std::string::npos);
}

TEST_CASE("the document's copy of an own part is used in that document") {
  const TemporaryFolder folder;
  Disk disk;
  auto mine = parts::Library::shipped();
  std::vector<Problem> problems;
  const std::string part =
      R"({"format": 1, "id": "my-cell", "name": "My cell", "kind": "battery", "figures": {"v": {"unit": "V", "value": "3 V"}},
    "terminals": [{"id": "P"}, {"id": "N"}], "elements": [{"source": ["P", "N"], "full": "@v", "nominal": "@v", "empty": "@v", "r": "1 ohm"}]})";
  mine.addOwn({{"c.json", part}}, problems);
  auto h = bench("part r resistor-1k");
  h.devices.push_back({.id = "cell", .part = "my-cell"});
  const auto path = folder.path("b.harness");
  REQUIRE(save(disk, h, mine, {}, path, Overwrite::Ask));
  const auto loaded = load(disk, path);
  // On another machine the part is not in the library: the copy serves.
  const auto there = withDocumentParts(library(), loaded->harness, path, problems);
  REQUIRE(there.find("my-cell"));
  CHECK(there.find("my-cell")->figure("v")->figure.typ == 3.0);
  CHECK(problems.empty());
  // A part that was changed since: named, and the copy wins.
  auto changed = parts::Library::shipped();
  auto other = part;
  other.replace(other.find("3 V"), 3, "4 V");
  changed.addOwn({{"c.json", other}}, problems);
  const auto both = withDocumentParts(changed, loaded->harness, path, problems);
  CHECK(both.find("my-cell")->figure("v")->figure.typ == 3.0);
  const auto taken = fromFile(loaded->harness, both);
  REQUIRE(taken.size() == 1);
  CHECK(taken[0].sentence == "your own part my-cell differs from the copy in this file (v): the file's is used");
  CHECK(taken[0].mine);
  // Asked to use mine.
  auto mended = loaded->harness;
  const auto back = apply(mended, useMine("my-cell"));
  CHECK(withDocumentParts(changed, mended, path, problems).find("my-cell")->figure("v")->figure.typ == 4.0);
  apply(mended, back);
  CHECK(writeHarness(mended) == content(path));
}

TEST_CASE("a shipped part that changed since is named figure by figure") {
  auto h = good("low-side");
  const TemporaryFolder folder;
  Disk disk;
  const auto path = folder.path("b.harness");
  REQUIRE(save(disk, h, library(), {}, path, Overwrite::Ask));
  auto text = content(path);
  const auto at = text.find("4.5 ohm");
  REQUIRE(at != std::string::npos);
  // The pump's winding appears in the copy of the part and in the override of the device; change the copy.
  const auto copy = text.find("4.5 ohm", text.find("\"parts\""));
  REQUIRE(copy != std::string::npos);
  text.replace(copy, 7, "4.9 ohm");
  std::ofstream(path) << text;
  std::vector<Problem> problems;
  const auto loaded = load(disk, path);
  const auto taken = fromFile(loaded->harness, withDocumentParts(library(), loaded->harness, path, problems));
  REQUIRE(taken.size() == 1);
  CHECK(taken[0].sentence ==
        "the copy of pump-diaphragm-12v in this file differs from the library's part (winding): the library's is used");
}

TEST_CASE("a copy whose notes or pitfalls read otherwise is the same part") {
  const TemporaryFolder folder;
  Disk disk;
  auto h = good("low-side");
  const auto path = folder.path("b.harness");
  REQUIRE(save(disk, h, library(), {}, path, Overwrite::Ask));
  auto loaded = load(disk, path);
  REQUIRE(loaded);
  for (auto& copy : loaded->harness.parts) {
    Json changed = *copy.json;
    changed["notes"] = Json::array({"another sentence"});
    changed["pitfalls"] = Json::array({"and another"});
    copy.json = std::make_shared<const Json>(std::move(changed));
  }
  std::vector<Problem> problems;
  CHECK(fromFile(loaded->harness, withDocumentParts(library(), loaded->harness, path, problems)).empty());
  CHECK(problems.empty());
}
