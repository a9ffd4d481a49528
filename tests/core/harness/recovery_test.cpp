#include "core/harness/recovery.h"

#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <chrono>
#include <csignal>
#include <filesystem>
#include <functional>
#include <optional>

#include "core/harness/differences.h"
#include "support/benches.h"
#include "support/failing_disk.h"
#include "support/process.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

// Runs in a child process; true when it says so and ends in good order.
bool inChild(const std::function<bool()>& body) {
  const auto pid = ::fork();
  if (pid == 0) ::_exit(body() ? 0 : 1);
  int status = -1;
  ::waitpid(pid, &status, 0);
  return WIFEXITED(status) && WEXITSTATUS(status) == 0;
}

Harness changed(Harness h) {
  h.title = "changed";
  return h;
}

}  // namespace

TEST_CASE("what a window kept is found once the window is gone, and only then") {
  const TemporaryFolder folder;
  Disk disk;
  std::vector<Problem> problems;
  const auto h = changed(good("bridge"));
  {
    const auto mine = Recovery::begin(disk, folder.path("state"));
    REQUIRE(mine);
    REQUIRE(mine->keep(h, library(), {"/somewhere/b.harness", "abc"}));
    CHECK(leftBehind(disk, folder.path("state"), problems).empty());  // its window is alive
  }
  {
    const auto left = leftBehind(disk, folder.path("state"), problems);
    REQUIRE(left.size() == 1);
    CHECK(left[0].file.path == "/somewhere/b.harness");
    CHECK(left[0].file.digest == "abc");
    CHECK(left[0].when.size() == 20);
    CHECK(differences(left[0].harness, h).empty());
    CHECK(left[0].harness.parts.size() > 3);                          // it can be read where the library lacks a part
    CHECK(leftBehind(disk, folder.path("state"), problems).empty());  // another window does not take it up as well
    const auto other = Recovery::begin(disk, folder.path("state"));
    REQUIRE(other);
    CHECK(other->path() != left[0].path);
  }
  const auto left = leftBehind(disk, folder.path("state"), problems);
  REQUIRE(left.size() == 1);
  REQUIRE(discard(disk, left[0]));
  CHECK(problems.empty());
  CHECK_FALSE(disk.exists(left[0].path));
}

TEST_CASE("a document that was saved or given up leaves nothing behind") {
  const TemporaryFolder folder;
  Disk disk;
  std::vector<Problem> problems;
  {
    const auto mine = Recovery::begin(disk, folder.path("state"));
    REQUIRE(mine->keep(good("bridge"), library(), {}));
    REQUIRE(mine->forget());
    REQUIRE(mine->forget());
  }
  CHECK(leftBehind(disk, folder.path("state"), problems).empty());
  CHECK(problems.empty());
}

TEST_CASE("a broken recovery file is named and stays") {
  const TemporaryFolder folder;
  Disk disk;
  for (const auto* text : {"", "{", "[]", R"({"format": "bold-harness-recovery"})", R"({"format": "other", "bench": {}})",
                           R"({"format": "bold-harness-recovery", "bench": 7})"}) {
    std::vector<Problem> problems;
    const auto path = folder.write("window-1.recovery", text);
    INFO(text);
    CHECK(leftBehind(disk, folder.path(), problems).empty());
    REQUIRE(problems.size() == 1);
    CHECK(problems[0].where == path);
    CHECK(problems[0].kept == "The file is left where it is.");
    CHECK(disk.exists(path));
    const auto mine = Recovery::begin(disk, folder.path());  // and a new window does not write over it
    REQUIRE(mine);
    CHECK(mine->path() != path);
  }
}

TEST_CASE("a window that is killed while it keeps leaves the old document or the new one, whole") {
  const TemporaryFolder folder;
  Disk disk;
  for (int at = 0; at < 25; ++at) {
    const auto pid = ::fork();
    if (pid == 0) {
      const auto mine = Recovery::begin(disk, folder.path("state"));
      auto h = good("bridge");
      for (int n = 0; mine; ++n) {
        h.title = std::to_string(n);
        if (!mine->keep(h, library(), {})) ::_exit(1);
      }
    }
    ::usleep(20000 + 3700 * at);
    ::kill(pid, SIGKILL);
    int status = 0;
    ::waitpid(pid, &status, 0);
    REQUIRE(WIFSIGNALED(status));
    std::vector<Problem> problems;
    for (const auto& left : leftBehind(disk, folder.path("state"), problems)) {
      auto same = good("bridge");
      same.title = left.harness.title;
      CHECK(differences(left.harness, same).empty());
      REQUIRE(discard(disk, left));
    }
    CHECK(problems.empty());
  }
}

TEST_CASE("a clock that went back or forward loses nothing of what was kept") {
  for (const auto shift :
       {std::chrono::hours(-24 * 365 * 20), std::chrono::hours(-2), std::chrono::hours(2), std::chrono::hours(24 * 365 * 20)}) {
    INFO(shift.count());
    const TemporaryFolder folder;
    Disk disk;
    const auto path = folder.write("bench.harness", writeHarness(good("bridge")));
    auto h = good("bridge");
    {
      const auto mine = Recovery::begin(disk, folder.path("state"));
      REQUIRE(mine);
      h.title = "first";
      REQUIRE(mine->keep(h, library(), {path, digestOnDisk(disk, path)}));
      // The clock is set; then the window keeps once more, and is gone.
      for (const auto& e : std::filesystem::recursive_directory_iterator(folder.path()))
        if (e.is_regular_file()) std::filesystem::last_write_time(e.path(), std::filesystem::file_time_type::clock::now() + shift);
      h.title = "second";
      REQUIRE(mine->keep(h, library(), {path, digestOnDisk(disk, path)}));
    }
    for (const auto& e : std::filesystem::recursive_directory_iterator(folder.path()))
      if (e.is_regular_file()) std::filesystem::last_write_time(e.path(), std::filesystem::file_time_type::clock::now() - shift);
    std::vector<Problem> problems;
    const auto left = leftBehind(disk, folder.path("state"), problems);
    CHECK(problems.empty());
    REQUIRE(left.size() == 1);
    CHECK(left[0].harness.title == "second");
    CHECK(left[0].file.digest == digestOnDisk(disk, path));
    // A new window takes another name, and does not write over it.
    const auto other = Recovery::begin(disk, folder.path("state"));
    REQUIRE(other);
    CHECK(other->path() != left[0].path);
  }
}

TEST_CASE("wherever the disk fails, a document is on disk, kept for recovery or still in hand") {
  int reached = 0;
  for (int at = 0; at < 40; ++at) {
    const TemporaryFolder folder;
    Disk disk;
    const auto path = folder.path("b.harness");
    auto h = good("low-side");
    const auto file = save(disk, h, library(), {}, path, Overwrite::Yes).value();
    FailingDisk failing(at);
    const auto h2 = changed(h);
    bool kept = false;
    bool saved = false;
    {
      // A window opens the file, changes it, keeps it, saves it, and then dies.
      auto mine = Recovery::begin(failing, folder.path("state"));
      bool elsewhere = false;
      const auto claimed = claim(failing, folder.path("state"), path, elsewhere);
      CHECK_FALSE(elsewhere);
      if (mine) kept = mine->keep(h2, library(), file).has_value();
      auto h3 = h2;
      saved = save(failing, h3, library(), file, path, Overwrite::Ask).has_value();
      if (mine && saved) kept = !mine->forget();
    }
    const auto onDisk = load(disk, path);
    REQUIRE(onDisk);
    CHECK(onDisk->harness.title == (saved ? "changed" : h.title));
    std::vector<Problem> problems;
    const auto left = leftBehind(disk, folder.path("state"), problems);
    CHECK(left.size() == (kept ? 1 : 0));
    for (const auto& l : left) CHECK(differences(l.harness, h2).empty());
    CHECK((saved || kept || failing.failed()));
    reached += failing.failed();
    // Taking up what is left with a disk that fails loses nothing either.
    std::vector<Problem> wrong;
    FailingDisk again(at);
    for (const auto& l : leftBehind(again, folder.path("state"), wrong)) CHECK(differences(l.harness, h2).empty());
  }
  CHECK(reached > 6);
}

TEST_CASE("a file that another window has open is told") {
  const TemporaryFolder folder;
  Disk disk;
  const auto path = folder.write("b.harness", "{}");
  bool elsewhere = false;
  auto first = claim(disk, folder.path("state"), path, elsewhere);
  CHECK(first);
  CHECK_FALSE(elsewhere);
  std::filesystem::create_symlink(path, folder.path("link.harness"));
  for (const auto& road : {path, folder.path("./b.harness"), folder.path("link.harness")}) {
    CHECK_FALSE(claim(disk, folder.path("state"), road, elsewhere));
    CHECK(elsewhere);
  }
  CHECK(claim(disk, folder.path("state"), folder.path("other.harness"), elsewhere));
  CHECK_FALSE(elsewhere);
  first.reset();
  CHECK(claim(disk, folder.path("state"), path, elsewhere));
}

TEST_CASE("a full disk leaves what was there") {
  const TemporaryFolder folder;
  const auto path = folder.write("b.harness", "the old file");
  // A limit on the size of files is what a test can have for a disk that runs full in the middle of a write.
  CHECK(inChild([&] {
    ::signal(SIGXFSZ, SIG_IGN);
    const rlimit small{4096, 4096};
    ::setrlimit(RLIMIT_FSIZE, &small);
    Disk disk;
    const auto done = disk.replace(path, std::string(100000, 'x'));
    return !done && done.error().kept == "What stood there before is untouched." && disk.read(path) == "the old file";
  }));
  CHECK(std::distance(std::filesystem::directory_iterator(folder.path()), {}) == 1);  // no half file beside it
}

// Root ignores permissions: the child becomes somebody else where it can.
TEST_CASE("what an ordinary user may not read or write is said in one sentence") {
  const TemporaryFolder folder;
  ::chmod(folder.path().c_str(), 0755);
  const auto file = folder.write("secret.harness", "{}");
  ::chmod(file.c_str(), 0000);
  std::filesystem::create_directory(folder.path("closed"));
  folder.write("closed/own.json", "{}");
  ::chmod(folder.path("closed").c_str(), 0000);
  std::filesystem::create_directory(folder.path("fixed"));
  const auto fixed = folder.write("fixed/b.harness", "old");
  ::chmod(folder.path("fixed").c_str(), 0555);
  CHECK(inChild([&] {
    if (::getuid() == 0 && (::setgid(65534) != 0 || ::setuid(65534) != 0)) return false;
    Disk disk;
    const auto read = disk.read(file);
    const auto replaced = disk.replace(fixed, "new");
    const auto texts = disk.readFolder(folder.path(), ".json");
    const auto recovery = Recovery::begin(disk, folder.path("fixed/state"));
    const auto locked = disk.lock(folder.path("fixed/lock"));
    return !read && read.error().what == "The file cannot be read (Permission denied)." &&  //
           !replaced && replaced.error().what == "The file cannot be written (Permission denied)." && disk.read(fixed) == "old" &&
           texts.files.empty() && texts.problems.size() == 1 && texts.problems[0].where == folder.path("closed") && !recovery && !locked;
  }));
  for (const auto* name : {"closed", "fixed"}) ::chmod(folder.path(name).c_str(), 0755);
}

TEST_CASE("differences name what is new, gone and changed, and nothing else") {
  const auto h = wiredBench("title A\npart r resistor-1k\npart m brushed-130-3v Paddle\nwire r.A m.P\nwire r.B m.N");
  auto to = h;
  CHECK(differences(h, to).empty());
  to.title = "B";
  to.connections.erase(to.connections.begin());
  to.connections[0].colour = "RD";
  to.devices[1].overrides["winding"] = "2 ohm";
  to.devices.push_back({.id = "r2", .part = "resistor-1k"});
  to.goals.push_back({.id = "g1", .motor = "m"});
  CHECK(differences(h, to) == std::vector<std::string>{"the title is \"B\"",
                                                       "Paddle (brushed-130-3v) is changed: winding 2 ohm, was not given",
                                                       "r2 (resistor-1k) is new", "the wire r.B – m.N is changed: RD, was not given",
                                                       "the wire r.A – m.P is gone", "what Paddle is meant to do is new"});
  CHECK(differences(to, h).size() == 6);
}

TEST_CASE("what is kept is for its owner's eyes, and what nobody needs any more is tidied away") {
  const TemporaryFolder folder;
  Disk disk;
  std::filesystem::create_directory(folder.path("state"));
  ::chmod(folder.path("state").c_str(), 0755);
  std::vector<Problem> problems;
  {
    const auto mine = Recovery::begin(disk, folder.path("state"));
    REQUIRE(mine);
    REQUIRE(mine->keep(good("bridge"), library(), {}));
    struct ::stat s {};
    REQUIRE(::stat(folder.path("state").c_str(), &s) == 0);
    CHECK((s.st_mode & 0777U) == 0700);
    REQUIRE(::stat(mine->path().c_str(), &s) == 0);
    CHECK((s.st_mode & 0777U) == 0600);
    disk.tidy(folder.path("state"));
    CHECK(disk.exists(folder.path("state/window-1.lock")));  // its window is alive
  }
  const auto half = folder.write("state/.window-1.recovery.0123.part", "half");
  std::filesystem::last_write_time(half, std::filesystem::file_time_type::clock::now() - std::chrono::hours(2));
  const auto fresh = folder.write("state/.window-2.recovery.4567.part", "being written");
  disk.tidy(folder.path("state"));
  CHECK_FALSE(disk.exists(half));
  CHECK(disk.exists(fresh));
  CHECK_FALSE(disk.exists(folder.path("state/window-1.lock")));
  CHECK(leftBehind(disk, folder.path("state"), problems).size() == 1);  // the document itself is never tidied away
}

TEST_CASE("what an older version kept is taken up; of a relative path nobody knows where it began") {
  const TemporaryFolder folder;
  Disk disk;
  std::vector<Problem> problems;
  folder.write("window-1.recovery",
               R"({"format": "bold-harness-recovery", "version": 1, "when": "2026-11-01T10:00:00Z", "file": "bench.harness",
    "digest": "x", "bench": {"format": 2, "title": "kept", "devices": [], "connections": [], "goals": []}})");
  const auto left = leftBehind(disk, folder.path(), problems);
  REQUIRE(left.size() == 1);
  CHECK(left[0].harness.title == "kept");
  CHECK(left[0].file.path.empty());
}

TEST_CASE("a recovery keeps what could not be read, byte for byte") {
  const TemporaryFolder folder;
  Disk disk;
  std::vector<Problem> problems;
  const std::string text =
      R"({"format": 2, "devices": [ {"id": "r","part": "resistor-1k", "id": "s"}, 1.50e3 ], "connections": [], "goals": []})";
  {
    const auto mine = Recovery::begin(disk, folder.path("state"));
    REQUIRE(mine->keep(readHarness(text, "b")->harness, library(), {"/b.harness", "x"}));
  }
  const auto left = leftBehind(disk, folder.path("state"), problems);
  REQUIRE(left.size() == 1);
  const auto again = writeHarness(left[0].harness);
  CHECK(again.starts_with(text.substr(0, text.size() - 1)));  // the copies of parts come behind
  CHECK(left[0].problems.size() == 2);
}
