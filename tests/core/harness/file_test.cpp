#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <set>

#include "core/checks/analysis.h"
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
  CHECK(again.error().kept == kAsk);
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
  const auto path = folder.write("b.harness", R"({"format": 42, "devices": [], "connections": [], "goals": []})");
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
  auto h = wiredBench("part r resistor-1k");
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

namespace {

mode_t modeOf(const std::string& path) {
  struct ::stat s {};
  return ::stat(path.c_str(), &s) == 0 ? s.st_mode & 07777U : 0;
}
ino_t inodeOf(const std::string& path) {
  struct ::stat s {};
  return ::stat(path.c_str(), &s) == 0 ? s.st_ino : 0;
}

}  // namespace

TEST_CASE("saving keeps mode and group, links and other names") {
  const TemporaryFolder folder;
  Disk disk;
  const auto file = folder.write("b.harness", "old");
  ::chmod(file.c_str(), 0664);
  if (::getuid() == 0) REQUIRE(::chown(file.c_str(), 0, 12) == 0);
  REQUIRE(disk.replace(file, "new"));
  CHECK(modeOf(file) == 0664);
  struct ::stat now {};
  REQUIRE(::stat(file.c_str(), &now) == 0);
  if (::getuid() == 0) CHECK(now.st_gid == 12);

  std::filesystem::create_symlink(file, folder.path("link"));
  CHECK(disk.state(folder.path("link")).leadsTo == std::filesystem::canonical(file).string());
  REQUIRE(disk.replace(folder.path("link"), "through the link"));
  CHECK(std::filesystem::is_symlink(folder.path("link")));
  CHECK(content(file) == "through the link");

  std::filesystem::create_hard_link(file, folder.path("other"));
  CHECK(disk.state(file).names == 2);
  const auto before = inodeOf(file);
  REQUIRE(disk.replace(file, "both"));
  CHECK(inodeOf(file) == before);
  CHECK(content(folder.path("other")) == "both");
  for (const auto& e : std::filesystem::directory_iterator(folder.path())) CHECK(e.path().extension() != ".part");
}

TEST_CASE("a read-only file is not written over without asking") {
  const TemporaryFolder folder;
  Disk disk;
  auto h = good("low-side");
  const auto path = folder.path("b.harness");
  const auto saved = save(disk, h, library(), {}, path, Overwrite::Ask).value();
  ::chmod(path.c_str(), 0444);
  h.title = "new";
  const auto refused = save(disk, h, library(), saved, path, Overwrite::Ask);
  REQUIRE_FALSE(refused);
  CHECK(text(refused.error()) == path + ": The file is read-only. Nothing was written.");
  CHECK(refused.error().kept == kAsk);
  REQUIRE(save(disk, h, library(), saved, path, Overwrite::Yes));
  CHECK(content(path).find("\"new\"") != std::string::npos);
  CHECK(modeOf(path) == 0444);
}

TEST_CASE("pipes, sockets, devices and folders are refused at once, and never written to") {
  const TemporaryFolder folder;
  Disk disk;
  const auto pipe = folder.path("pipe");
  REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
  CHECK(text(disk.read(pipe).error()) == pipe + ": This is a pipe, not a file.");
  CHECK(text(disk.replace(pipe, "x").error()) == pipe + ": This is a pipe, not a file. Nothing was written.");
  CHECK(text(disk.read("/dev/null").error()) == "/dev/null: This is a device, not a file.");
  const auto socket = folder.path("socket");
  const int fd = ::socket(AF_UNIX, SOCK_STREAM, 0);
  ::sockaddr_un address{};
  address.sun_family = AF_UNIX;
  std::snprintf(address.sun_path, sizeof address.sun_path, "%s", socket.c_str());
  REQUIRE(::bind(fd, reinterpret_cast<const ::sockaddr*>(&address), sizeof address) == 0);
  CHECK(text(disk.read(socket).error()) == socket + ": This is a socket, not a file.");
  ::close(fd);
  CHECK(text(disk.replace(folder.path(), "x").error()) == folder.path() + ": This is a folder, not a file. Nothing was written.");
}

TEST_CASE("what is being written lies under a name nobody can foresee, and no planted link is followed") {
  const TemporaryFolder folder;
  Disk disk;
  const auto victim = folder.write("victim", "mine");
  const auto path = folder.path("b.harness");
  // The name that used to be taken: process and count.
  for (int n = 0; n < 50; ++n)
    std::filesystem::create_symlink(victim, folder.path(".b.harness." + std::to_string(::getpid()) + "-" + std::to_string(n) + ".part"));
  REQUIRE(disk.replace(path, "text"));
  CHECK(content(victim) == "mine");
  CHECK_FALSE(std::filesystem::is_symlink(path));
  // A lock is not put where a link leads either.
  std::filesystem::create_symlink(victim, folder.path("x.lock"));
  CHECK_FALSE(disk.lock(folder.path("x.lock")));
}

TEST_CASE("a file opened by a relative path is saved where it lies, wherever the program goes") {
  const TemporaryFolder folder;
  Disk disk;
  folder.write("b.harness", writeHarness(good("low-side")));
  const auto before = std::filesystem::current_path();
  std::filesystem::current_path(folder.path());
  const auto loaded = load(disk, "b.harness");
  std::filesystem::current_path(before);
  REQUIRE(loaded);
  CHECK(std::filesystem::path(loaded->file.path).is_absolute());
  CHECK(std::filesystem::equivalent(loaded->file.path, folder.path("b.harness")));
}

TEST_CASE("a copy in the file that only looks like a shipped part is told, and its stage cannot be Clear without a word") {
  const TemporaryFolder folder;
  auto h = good("bridge");
  Json forged = *library().json("l298n-module");
  forged["id"] = "l298n_module";
  forged["figures"]["continuous"]["value"] = "50 A";
  forged["figures"]["peak"]["value"] = "90 A";
  for (auto& d : h.devices)
    if (d.part == "l298n-module") d.part = "l298n_module";
  h.parts.push_back({"l298n_module", std::make_shared<const Json>(forged), nullptr});
  std::vector<Problem> problems;
  const auto here = withDocumentParts(library(), h, "b", problems);
  CHECK(problems.empty());
  Options quick;
  quick.explain = false;
  const auto a = analyse(h, here, quick);
  CHECK(a.verdict == Verdict::LookAgain);
  using Catch::Contains;
  REQUIRE_FALSE(a.fromFile.empty());
  CHECK_THAT(a.fromFile[0].sentence, Contains("looks like the library's l298n-module and differs from it (continuous, peak)"));
  CHECK(std::ranges::any_of(a.why, [](const std::string& w) { return w.ends_with("come from this file alone"); }));
  // A rating raised on the bench is told as well; a measured winding is not.
  const auto raised = analyseFast(wiredBench("from bridge\nfigure s1.peak 9 A\nfigure left.winding 6 ohm"));
  CHECK(std::ranges::any_of(raised.assumptions,
                            [](const std::string& x) { return x.find("is raised to 9 A; the part's is 2.5 A") != std::string::npos; }));
  CHECK(std::ranges::none_of(raised.assumptions, [](const std::string& x) { return x.find("winding") != std::string::npos; }));
}
