#include <QApplication>
#include <QProcess>
#include <QPushButton>
#include <catch2/catch.hpp>

#include "core/harness/read_harness.h"
#include "core/harness/recovery.h"
#include "gui/panels/finding_card.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

void xdotool(const QStringList& arguments) {
  QProcess p;
  p.start("xdotool", arguments);
  REQUIRE(p.waitForFinished(60000));
  REQUIRE(p.exitCode() == 0);
  QTest::qWait(120);
}

// A press through the X server at a place of a widget.
void press(QWidget* w, QPoint at) {
  const auto g = w->mapToGlobal(at);
  xdotool({"mousemove", "--sync", QString::number(g.x()), QString::number(g.y()), "click", "1"});
}
void press(QWidget* w) {
  press(w, w->rect().center());
}

}  // namespace

// Run by tests/gui/under_xvfb.sh: real events in a real window with a window manager.
TEST_CASE("from a finding to a saved plan with real clicks", "[xvfb]") {
  REQUIRE(QApplication::platformName() == "xcb");
  Window w;
  const auto path = w.open("demo/wave-tank-first-try.harness");
  w.main.activateWindow();
  REQUIRE(QTest::qWaitForWindowActive(&w.main, 30000));
  QTest::qWait(300);
  const auto bytes = harness::writeHarness(w.session.document.harness());
  const auto before = w.find<QAbstractButton>("verdict")->accessibleName();
  CHECK(before.startsWith("Do not switch on"));

  auto* c = card(w, "ground-not-shared");
  REQUIRE(c);
  const auto id = c->identity().toStdString();
  press(c, {120, 14});
  REQUIRE(eventually([&] { return w.session.selection.picked().toStdString() == id; }));
  QTest::qWait(200);
  press(c->repairButton());
  CHECK(eventually([&] { return w.session.document.harness().openChanges() == 1; }));
  w.settle();
  // On the plan is not on the bench.
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Do not switch on"));
  CHECK(w.session.analyser.analysis().find(id));

  press(w.find<QWidget>("step-wiring"));
  QTest::qWait(100);
  press(w.find<QPushButton>("allDone"));
  CHECK(eventually([&] { return w.session.document.harness().openChanges() == 0; }));
  w.settle();
  CHECK_FALSE(w.session.analyser.analysis().find(id));

  xdotool({"key", "ctrl+z"});
  xdotool({"key", "ctrl+z"});
  CHECK(eventually([&] { return harness::writeHarness(w.session.document.harness()) == bytes; }));
  w.settle();
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName() == before);

  xdotool({"key", "ctrl+shift+z"});
  CHECK(eventually([&] { return w.session.document.harness().openChanges() == 1; }));
  press(w.find<QPushButton>("save"));
  CHECK(eventually([&] { return w.session.document.undoStack().isClean(); }));
  w.settle();
  const auto saved = w.find<QAbstractButton>("verdict")->accessibleName();
  Window again;
  again.main.openFile(QString::fromStdString(path));
  again.settle();
  CHECK(again.find<QAbstractButton>("verdict")->accessibleName() == saved);
  CHECK(again.session.document.harness().openChanges() == 1);
}

// The program itself, typed at with real keys and killed; a second run takes up what was left and saves it.
TEST_CASE("the real program is killed while it is used, and started again", "[xvfb]") {
  const TemporaryFolder folder;
  const auto path = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  const auto before = harness::readHarness(readFile("demo/wave-tank.harness"), "before")->harness;
  QProcess program;
  auto environment = QProcessEnvironment::systemEnvironment();
  environment.insert("XDG_STATE_HOME", QString::fromStdString(folder.path("state")));
  program.setProcessEnvironment(environment);
  const auto start = [&] {
    program.start(BOLD_HARNESS, {QString::fromStdString(path)});
    REQUIRE(program.waitForStarted());
    xdotool({"search", "--sync", "--onlyvisible", "--name", "Bold Harness$", "windowactivate", "--sync"});
    QTest::qWait(500);
  };
  const auto connections = [](const harness::Harness& h) { return h.connections.size(); };
  start();
  xdotool({"key", "ctrl+l"});
  xdotool({"type", "--delay", "20", "uno.A5 s1.IN1"});
  xdotool({"key", "Return"});
  REQUIRE(eventually([&] { return !Disk().readFolder(folder.path("state"), ".recovery").files.empty(); }));
  program.kill();
  program.waitForFinished();
  CHECK(Disk().read(path).value() == readFile("demo/wave-tank.harness"));
  {
    Disk disk;
    std::vector<Problem> problems;
    const auto left = harness::leftBehind(disk, folder.path("state/bold-harness/recovery"), problems);
    REQUIRE(left.size() == 1);
    CHECK(connections(left[0].harness) == connections(before) + 1);
  }
  start();
  // The notice's first button, by keyboard: the window begins at the picture, Shift+Tab goes up.
  xdotool({"key", "alt+t"});
  QTest::qWait(500);
  xdotool({"key", "ctrl+s"});
  CHECK(eventually([&] {
    const auto after = harness::readHarness(Disk().read(path).value(), "after");
    return after && connections(after->harness) == connections(before) + 1;
  }));
  xdotool({"key", "ctrl+q"});
  CHECK(eventually([&] { return program.state() == QProcess::NotRunning; }));
  CHECK(program.exitCode() == 0);
}
