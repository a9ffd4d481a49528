#include <QApplication>
#include <QProcess>
#include <QPushButton>
#include <catch2/catch.hpp>

#include "core/harness/read_harness.h"
#include "gui/panels/finding_card.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

void xdotool(const QStringList& arguments) {
  QProcess p;
  p.start("xdotool", arguments);
  p.waitForFinished(5000);
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

gui::FindingCard* card(Window& w, const QString& check) {
  for (auto* c : w.main.findChildren<gui::FindingCard*>())
    if (!c->isHidden() && c->identity().startsWith(check)) return c;
  return nullptr;
}

}  // namespace

// Run by tests/gui/under_xvfb.sh: real events in a real window with a window manager.
TEST_CASE("from a finding to a saved plan with real clicks", "[xvfb]") {
  REQUIRE(QApplication::platformName() == "xcb");
  Window w;
  const auto path = w.open("demo/wave-tank-first-try.harness");
  w.main.activateWindow();
  QTest::qWait(300);
  const auto bytes = harness::writeHarness(w.session.harness());
  const auto before = w.find<QAbstractButton>("verdict")->accessibleName();
  CHECK(before.startsWith("Do not switch on"));

  auto* c = card(w, "ground-not-shared");
  REQUIRE(c);
  const auto id = c->identity().toStdString();
  press(c, {120, 14});
  REQUIRE(w.session.picked().toStdString() == id);
  QTest::qWait(200);
  press(c->repairButton());
  w.settle();
  CHECK(w.session.harness().openChanges() == 1);
  // On the plan is not on the bench.
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Do not switch on"));
  CHECK(w.session.analysis().find(id));

  press(w.find<QWidget>("step1"));
  QTest::qWait(100);
  press(w.find<QPushButton>("allDone"));
  w.settle();
  CHECK_FALSE(w.session.analysis().find(id));

  xdotool({"key", "ctrl+z"});
  xdotool({"key", "ctrl+z"});
  w.settle();
  CHECK(harness::writeHarness(w.session.harness()) == bytes);
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName() == before);

  xdotool({"key", "ctrl+shift+z"});
  CHECK(w.session.harness().openChanges() == 1);
  press(w.find<QPushButton>("save"));
  CHECK(w.session.undoStack().isClean());
  w.settle();
  const auto saved = w.find<QAbstractButton>("verdict")->accessibleName();
  Window again;
  again.main.openFile(QString::fromStdString(path));
  again.settle();
  CHECK(again.find<QAbstractButton>("verdict")->accessibleName() == saved);
  CHECK(again.session.harness().openChanges() == 1);
}
