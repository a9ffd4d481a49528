#include <QApplication>
#include <QLabel>
#include <QProcess>
#include <QRandomGenerator>
#include <QSemaphore>
#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/harness/differences.h"
#include "core/harness/read_harness.h"
#include "core/harness/recovery.h"
#include "gui/panels/notice_bar.h"
#include "support/failing_disk.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

harness::Edit title(const std::string& t) {
  return {"title", {harness::SetTitle{t}}};
}

std::vector<harness::Left> leftIn(const std::string& state) {
  Disk disk;
  std::vector<Problem> problems;
  auto out = harness::leftBehind(disk, state + "/recovery", problems);
  CHECK(problems.empty());
  return out;
}

// A window that is gone without having been asked anything.
void leaveBehind(const std::string& state, const std::string& path, const std::string& newTitle) {
  Disk disk;
  gui::Session session(library(), disk, state);
  REQUIRE(session.file.open(QString::fromStdString(path)));
  session.document.apply(title(newTitle));
  session.file.waitUntilKept();
}

QPushButton* answer(Window& w, const char* name) {
  auto* b = w.find<QPushButton>(name);
  REQUIRE(b);
  return b;
}

// Every write waits until it is let go.
class SlowDisk : public Disk {
 public:
  std::atomic<int> writing = 0;
  QSemaphore letGo;
  Result<bool> replace(const std::string& path, const std::string& text, Readers readers) override {
    ++writing;
    letGo.acquire();
    return Disk::replace(path, text, readers);
  }
};

}  // namespace

TEST_CASE("a change is kept for a recovery, and forgotten once saved or taken back") {
  Window w;
  const auto path = w.open("demo/wave-tank.harness");
  const auto state = w.folder.path("state");
  const auto kept = [&] { return std::filesystem::exists(state + "/recovery/window-1.recovery"); };
  CHECK_FALSE(kept());
  w.session.document.apply(title("changed"));
  CHECK(eventually(kept));
  CHECK(leftIn(state).empty());  // this window is alive
  w.session.document.undoStack().undo();
  CHECK(eventually([&] { return !kept(); }));
  w.session.document.undoStack().redo();
  CHECK(eventually(kept));
  bool changedOnDisk = false;
  CHECK(w.session.file.save(QString::fromStdString(path), harness::Overwrite::Ask, changedOnDisk).isEmpty());
  CHECK(eventually([&] { return !kept(); }));
}

TEST_CASE("what a killed window left is offered with what differs, and taken up unsaved") {
  const TemporaryFolder folder;
  const auto state = folder.path("state");
  const auto path = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  leaveBehind(state, path, "after the crash");
  {
    Window w(state);
    w.main.offerRecovery();
    const auto* notices = w.find<gui::NoticeBar>("notices");
    REQUIRE(notices->said().size() == 1);
    CHECK(notices->said()[0].contains("before tank.harness was saved. Against the file: the title is \"after the crash\"."));
    QTest::mouseClick(answer(w, "later"), Qt::LeftButton);
    CHECK(notices->said().isEmpty());
  }
  {
    Window w(state);
    w.main.offerRecovery();
    QTest::mouseClick(answer(w, "recover"), Qt::LeftButton);
    CHECK(w.session.document.harness().title == "after the crash");
    CHECK(w.session.file.path().toStdString() == path);
    CHECK_FALSE(w.session.document.undoStack().isClean());
    w.session.file.waitUntilKept();
    // Killed again before it is saved: it is still there, once.
    const auto files = std::distance(std::filesystem::directory_iterator(state + "/recovery"), {});
    CHECK(files == 3);  // two locks and one recovery file
    bool changedOnDisk = false;
    CHECK(w.session.file.save(w.session.file.path(), harness::Overwrite::Ask, changedOnDisk).isEmpty());
    w.session.file.waitUntilKept();
  }
  CHECK(leftIn(state).empty());
  CHECK(readFile("demo/wave-tank.harness") != Disk().read(path).value());
}

TEST_CASE("what was left can be thrown away, and what is in the file already is not offered") {
  const TemporaryFolder folder;
  const auto state = folder.path("state");
  const auto path = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  leaveBehind(state, path, "unwanted");
  {
    Window w(state);
    w.main.offerRecovery();
    QTest::mouseClick(answer(w, "discardLeft"), Qt::LeftButton);
  }
  CHECK(leftIn(state).empty());
  leaveBehind(state, path, "Wave tank, bench 3");
  Window w(state);
  w.main.offerRecovery();
  CHECK(w.find<gui::NoticeBar>("notices")->said().isEmpty());
}

TEST_CASE("a recovery of a file that somebody changed since says so and does not write over it unasked") {
  const TemporaryFolder folder;
  const auto state = folder.path("state");
  const auto path = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  leaveBehind(state, path, "mine");
  folder.write("tank.harness", readFile("demo/wave-tank-first-try.harness"));
  Window w(state);
  w.main.offerRecovery();
  QTest::mouseClick(answer(w, "recover"), Qt::LeftButton);
  const auto* notices = w.find<gui::NoticeBar>("notices");
  CHECK(eventually([&] { return notices->said().contains("tank.harness was changed on disk by somebody else."); }));
  bool changedOnDisk = false;
  CHECK_FALSE(w.session.file.save(w.session.file.path(), harness::Overwrite::Ask, changedOnDisk).isEmpty());
  CHECK(changedOnDisk);
}

TEST_CASE("two windows on one file: the second is told, and the first is told when it is written") {
  const TemporaryFolder folder;
  const auto state = folder.path("state");
  const auto path = QString::fromStdString(folder.write("tank.harness", readFile("demo/wave-tank.harness")));
  Window first(state);
  first.main.openFile(path);
  CHECK(first.find<gui::NoticeBar>("notices")->said().isEmpty());
  Window second(state);
  second.main.openFile(path);
  REQUIRE(second.find<gui::NoticeBar>("notices")->said() ==
          QStringList{"tank.harness is open in another window as well. Whoever saves second is asked first."});
  second.session.document.apply(title("second"));
  bool changedOnDisk = false;
  CHECK(second.session.file.save(path, harness::Overwrite::Ask, changedOnDisk).isEmpty());
  const auto* notices = first.find<gui::NoticeBar>("notices");
  CHECK(eventually([&] { return notices->said().contains("tank.harness was changed on disk by somebody else."); }));
  QTest::mouseClick(answer(first, "loadAgain"), Qt::LeftButton);
  CHECK(first.session.document.harness().title == "second");
  CHECK(second.find<gui::NoticeBar>("notices")->said().size() == 1);  // its own writing is nobody else's
}

TEST_CASE("a file that goes away is told, and saving brings it back") {
  Window w;
  const auto path = w.open("demo/wave-tank.harness");
  std::filesystem::remove(path);
  const auto* notices = w.find<gui::NoticeBar>("notices");
  CHECK(eventually([&] { return notices->said().size() == 1; }));
  CHECK(notices->said()[0].startsWith("bench.harness is no longer where it was."));
  QTest::mouseClick(answer(w, "saveAgain"), Qt::LeftButton);
  CHECK(Disk().exists(path));
  CHECK(notices->said().isEmpty());
}

TEST_CASE("where changes cannot be kept the window says so once, and goes on") {
  const TemporaryFolder folder;
  folder.write("state", "a file where the folder should be");
  Window w(folder.path("state"));
  w.open("demo/wave-tank.harness");
  w.session.document.apply(title("a"));
  const auto* notices = w.find<gui::NoticeBar>("notices");
  CHECK(eventually([&] { return notices->said().size() == 1; }));
  CHECK(notices->said()[0].startsWith("Changes are not kept for a recovery: save often."));
  QTest::mouseClick(answer(w, "notKeptKnown"), Qt::LeftButton);
  w.session.document.apply(title("b"));
  w.session.file.waitUntilKept();
  QTest::qWait(50);
  CHECK(notices->said().isEmpty());
}

TEST_CASE("at whatever call the disk fails, the session has the document and the disk the old or the new one") {
  int failed = 0;
  for (int at = 0; at < 25; ++at) {
    const TemporaryFolder folder;
    const auto path = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
    FailingDisk disk(at);
    gui::Session session(library(), disk, folder.path("state"));
    if (!session.file.open(QString::fromStdString(path))) {
      CHECK(session.document.harness().devices.empty());
      continue;
    }
    session.document.apply(title("new"));
    session.file.waitUntilKept();
    bool changedOnDisk = false;
    const bool saved = session.file.save(QString::fromStdString(path), harness::Overwrite::Ask, changedOnDisk).isEmpty();
    session.file.waitUntilKept();
    CHECK(session.document.harness().title == "new");
    Disk real;
    const auto onDisk = harness::load(real, path);
    REQUIRE(onDisk);
    CHECK(onDisk->harness.title == (saved ? "new" : "Wave tank, bench 3"));
    CHECK(session.document.undoStack().isClean() == saved);
    failed += disk.failed();
  }
  CHECK(failed > 5);
}

TEST_CASE("killed at any moment, what was last kept or something newer is there, whole") {
  const TemporaryFolder folder;
  const auto path = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  const auto before = harness::load(*std::make_unique<Disk>(), path)->harness;
  for (int round = 0; round < 6; ++round) {
    const auto state = folder.path("state" + std::to_string(round));
    QProcess program;
    int done = 0;
    int kept = 0;
    int timesKept = 0;
    const auto listen = [&] {
      while (program.canReadLine()) {
        const auto words = program.readLine().trimmed().split(' ');
        REQUIRE(words.size() == 2);
        (words[0] == "kept" ? kept : done) = words[1].toInt();
        timesKept += words[0] == "kept";
      }
    };
    program.start(QApplication::applicationFilePath(),
                  {"--edit-until-killed", QString::fromStdString(path), QString::fromStdString(state)});
    // Editing without a pause must not put keeping off for ever.
    REQUIRE(eventually([&] {
      listen();
      return done > 0 && timesKept >= round % 4;
    }));
    QTest::qWait(QRandomGenerator::global()->bounded(400));
    program.kill();
    program.waitForFinished();
    listen();
    const auto left = leftIn(state);
    if (left.empty()) {
      CHECK(kept == 0);
      continue;
    }
    REQUIRE(left.size() == 1);
    CHECK(std::stoi(left[0].harness.title) >= kept);
    CHECK(std::stoi(left[0].harness.title) <= done);
    auto same = before;
    same.title = left[0].harness.title;
    CHECK(harness::differences(left[0].harness, same).empty());
  }
}

TEST_CASE("on a slow disk the newest document is kept next, not every one that came before") {
  const TemporaryFolder folder;
  SlowDisk disk;
  auto document = harness::readHarness(readFile("demo/wave-tank.harness"), "demo")->harness;
  int asked = 0;
  gui::Keeper keeper(disk, folder.path("recovery"), [&] {
    document.title = std::to_string(++asked);
    return gui::Keeper::Document{document, library(), {}};
  });
  const auto change = [&] {
    keeper.changed();
    const int next = asked + 1;
    REQUIRE(eventually([&] { return asked == next; }));
  };
  change();
  REQUIRE(eventually([&] { return disk.writing == 1; }));
  for (int n = 0; n < 3; ++n) change();
  disk.letGo.release(9);
  keeper.wait();
  CHECK(disk.writing == 2);
  const auto written = [&] {
    const auto kept = parsedJson(disk.read(folder.path("recovery/window-1.recovery")).value());
    return parsedJson(kept["bench"].get<std::string>())["title"];
  };
  CHECK(written() == "4");

  disk.letGo.acquire(disk.letGo.available());
  // What was waiting is forgotten with the rest; a change after that is kept again.
  change();
  REQUIRE(eventually([&] { return disk.writing == 3; }));
  change();
  keeper.forget();
  change();
  disk.letGo.release(9);
  keeper.wait();
  CHECK(disk.writing == 4);
  CHECK(written() == "7");
}
