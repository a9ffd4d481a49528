#include "window.h"

#include <QAction>
#include <QComboBox>
#include <QKeySequence>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMessageBox>
#include <QTableWidget>
#include <QTimer>
#include <catch2/catch.hpp>
#include <set>

#include "core/harness/read_harness.h"
#include "gui/panels/finding_card.h"
#include "gui/theme/palette.h"

using namespace bold;
using namespace bold::test;

namespace {
QString verdict(Window& w) {
  return w.find<QAbstractButton>("verdict")->accessibleName();
}
}  // namespace

TEST_CASE("an empty bench says what to do and is not judged") {
  Window w;
  w.settle();
  CHECK(verdict(w) == "Not judged: the bench is empty");
  CHECK(w.find<QLabel>("quiet")->text().contains("Ctrl+K"));
}

TEST_CASE("the demo opens with its verdict in view") {
  Window w;
  w.open("demo/wave-tank.harness");
  CHECK(verdict(w).startsWith("Clear to switch on: 1 note; tightest: "));
  CHECK(w.main.windowTitle() == QString::fromUtf8("Wave tank, bench 3 – Bold Harness"));
}

TEST_CASE("an empty bench offers the demo, which opens without a file of its own") {
  Window w;
  auto* demo = w.find<QPushButton>("startFirstTry");
  REQUIRE(demo->isVisible());
  QTest::mouseClick(demo, Qt::LeftButton);
  w.settle();
  CHECK(verdict(w).startsWith("Do not switch on"));
  CHECK(w.session.file.path().isEmpty());
  CHECK_FALSE(demo->isVisible());
}

TEST_CASE("the theme changes at once and changes nothing else") {
  Window w;
  w.open("demo/wave-tank.harness");
  const auto bytes = harness::writeHarness(w.session.document.harness());
  const auto action = [&](const QString& text) {
    for (auto* a : w.main.findChildren<QAction*>())
      if (a->text() == text) a->trigger();
  };
  action("&Dark");
  CHECK(gui::palette().dark);
  CHECK(QApplication::palette().color(QPalette::Window) == gui::darkPalette().panel);
  action("L&ight");
  CHECK_FALSE(gui::palette().dark);
  CHECK(harness::writeHarness(w.session.document.harness()) == bytes);
  CHECK(verdict(w).startsWith("Clear to switch on: 1 note; tightest: "));
}

TEST_CASE("a part is added by typing, and undo takes it back") {
  Window w;
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  QTest::keyClicks(search, "28byj");
  CHECK(w.find<QListWidget>("partHits")->isVisible());
  QTest::keyClick(search, Qt::Key_Return);
  REQUIRE(w.session.document.harness().devices.size() == 1);
  CHECK(w.session.document.harness().devices[0].part == "stepper-28byj48-5v");
  CHECK(search->text().isEmpty());
  CHECK(w.session.selection.subject() == "m1");
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().devices.empty());
  w.session.document.undoStack().redo();
  CHECK(w.session.document.harness().devices.size() == 1);
}

TEST_CASE("a search without a match says so and adds nothing") {
  Window w;
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  QTest::keyClicks(search, "flux capacitor");
  CHECK(w.find<QListWidget>("partHits")->item(0)->text() == "No part matches all of these words.");
  QTest::keyClick(search, Qt::Key_Return);
  CHECK(w.session.document.harness().devices.empty());
}

TEST_CASE("a wire is typed, recoloured and deleted in the list") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Wiring);
  const auto before = w.session.document.harness().connections.size();
  auto* entry = w.find<QLineEdit>("wireEntry");
  QTest::keyClicks(entry, "d12 s1.+5v");
  QTest::keyClick(entry, Qt::Key_Return);
  REQUIRE(w.session.document.harness().connections.size() == before + 1);
  const auto added = w.session.document.harness().connections.back();
  CHECK(added.a.text() == "uno.D12");
  CHECK(added.b.text() == "s1.5V");
  CHECK(w.session.selection.subject().toStdString() == added.id);
  auto* colour = w.find<QComboBox>("wireColour");
  colour->setCurrentIndex(colour->findData("PK"));
  Q_EMIT colour->activated(colour->currentIndex());
  CHECK(w.session.document.harness().connections.back().colour == "PK");
  QTest::mouseClick(w.find<QPushButton>("wireDelete"), Qt::LeftButton);
  CHECK(w.session.document.harness().connections.size() == before);
  QTest::keyClicks(entry, "d12 nowhere.at");
  QTest::keyClick(entry, Qt::Key_Return);
  CHECK(w.find<QLabel>("wireSaid")->text() == "\"nowhere.at\" is no terminal on this bench: write device.terminal, such as s1.in1.");
  CHECK(w.session.document.harness().connections.size() == before);
}

TEST_CASE("a wire is drawn with the mouse from terminal to terminal") {
  Window w;
  w.open("demo/wave-tank.harness");
  const auto before = w.session.document.harness().connections.size();
  auto& p = w.picture();
  const auto from = p.placeOf("uno.D11")->toPoint();
  const auto to = p.placeOf("s1.ENA-5V")->toPoint();
  QTest::mousePress(&p, Qt::LeftButton, {}, from);
  QTest::mouseMove(&p, (from + to) / 2);
  QTest::mouseMove(&p, to);
  QTest::mouseRelease(&p, Qt::LeftButton, {}, to);
  REQUIRE(w.session.document.harness().connections.size() == before + 1);
  CHECK(w.session.document.harness().connections.back().b.text() == "s1.ENA-5V");
  w.session.document.undoStack().undo();
  // A press and release on one terminal only selects it.
  QTest::mouseClick(&p, Qt::LeftButton, {}, from);
  CHECK(w.session.selection.subject() == "uno.D11");
  CHECK(w.session.document.harness().connections.size() == before);
}

TEST_CASE("a wire is drawn with the keys alone") {
  Window w;
  w.open("demo/wave-tank.harness");
  const auto before = w.session.document.harness().connections.size();
  auto& p = w.picture();
  p.setFocus();
  w.session.selection.select("uno.D12");
  QTest::keyClick(&p, Qt::Key_Return);
  QTest::keyClick(&p, Qt::Key_Up);
  CHECK(w.session.selection.subject() == "uno.D13");
  QTest::keyClick(&p, Qt::Key_Return);
  REQUIRE(w.session.document.harness().connections.size() == before + 1);
  CHECK(w.session.document.harness().connections.back().a.text() == "uno.D12");
  CHECK(w.session.document.harness().connections.back().b.text() == "uno.D13");
}

TEST_CASE("picking a finding lights its place, picking its badge picks the finding") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  auto* c = card(w, "flyback-reversed");
  REQUIRE(c);
  QTest::mouseClick(c, Qt::LeftButton, {}, QPoint(100, 12));
  CHECK(w.session.selection.picked() == c->identity());
  const auto badge = w.picture().badgeOf(c->identity());
  REQUIRE(badge);
  w.session.selection.pick({});
  QTest::mouseClick(&w.picture(), Qt::LeftButton, {}, badge->center().toPoint());
  CHECK(w.session.selection.picked() == c->identity());
}

TEST_CASE("a repair goes on the plan, the verdict waits until it is marked done") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  const auto bytes = harness::writeHarness(w.session.document.harness());
  auto* c = card(w, "flyback-reversed");
  REQUIRE(c);
  const auto id = c->identity();
  QTest::mouseClick(c, Qt::LeftButton, {}, QPoint(100, 12));
  REQUIRE(c->repairButton());
  QTest::mouseClick(c->repairButton(), Qt::LeftButton);
  w.settle();
  CHECK(w.session.document.harness().openChanges() == 4);
  REQUIRE(w.session.analyser.analysis().find(id.toStdString()));
  CHECK(w.session.analyser.analysis().find(id.toStdString())->mendedAfter == 4);
  w.main.rail().setStep(gui::Step::Wiring);
  QTest::mouseClick(w.find<QPushButton>("allDone"), Qt::LeftButton);
  w.settle();
  CHECK(w.session.document.harness().openChanges() == 0);
  CHECK_FALSE(w.session.analyser.analysis().find(id.toStdString()));
  w.session.document.undoStack().undo();
  w.session.document.undoStack().undo();
  CHECK(harness::writeHarness(w.session.document.harness()) == bytes);
}

TEST_CASE("figures are replaced by typing and given back by clearing") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("pump");
  auto* figures = w.find<QTableWidget>("figures");
  REQUIRE(figures);
  int row = -1;
  for (int i = 0; i < figures->rowCount(); ++i)
    if (figures->item(i, 0)->text() == "running current") row = i;
  REQUIRE(row >= 0);
  figures->item(row, 1)->setText("800 mA");
  QTest::qWait(10);
  CHECK(w.session.document.harness().device("pump")->overrides.at("run") == "800 mA");
  CHECK(figures->item(row, 2)->text() == "given for this bench");
  figures->item(row, 1)->setText("1,5 A");
  QTest::qWait(10);
  CHECK(w.session.document.harness().device("pump")->overrides.at("run") == "800 mA");
  figures->item(row, 1)->setText("");
  QTest::qWait(10);
  CHECK_FALSE(w.session.document.harness().device("pump")->overrides.contains("run"));
}

TEST_CASE("a setting changes what is judged") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("s2");
  auto* box = w.find<QComboBox>("setting-heatSink");
  REQUIRE(box);
  box->setCurrentText("none");
  Q_EMIT box->activated(box->currentIndex());
  w.settle();
  CHECK(verdict(w).startsWith("Look again"));
}

TEST_CASE("how a link stands is not stated until it is chosen, and again after undo") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  auto device = *w.session.document.harness().device("s1");
  device.settings.clear();
  w.session.document.apply({"Forget", {harness::Put<harness::Device>{device, {}}}});
  w.session.selection.select("s1");
  auto* box = w.find<QComboBox>("setting-reg");
  REQUIRE(box);
  CHECK(box->currentText() == "not stated: taken as on");
  box->setCurrentIndex(0);
  Q_EMIT box->activated(0);
  CHECK(w.session.document.harness().device("s1")->settings.at("reg").value == "on");
  CHECK(box->currentText() == "on");
  CHECK(box->count() == 2);
  w.session.document.undoStack().undo();
  QTest::qWait(10);
  CHECK(box->currentText() == "not stated: taken as on");
}

TEST_CASE("a signal of the plan is typed as a pin") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("pump");
  auto* pin = w.find<QLineEdit>("signal-in");
  REQUIRE(pin);
  pin->setFocus();
  pin->selectAll();
  QTest::keyClicks(pin, "d6");
  QTest::keyClick(pin, Qt::Key_Return);
  w.settle();
  CHECK(harness::intentOf(w.session.document.harness(), "pump")->signals[0].pin.text() == "uno.D6");
  CHECK(verdict(w).startsWith("Do not switch on"));
}

TEST_CASE("an edit makes the verdict stale until the analysis has caught up") {
  Window w;
  w.open("demo/wave-tank.harness");
  CHECK(w.session.analyser.current());
  w.session.document.apply({"x", {harness::Drop<harness::Connection>{"w1"}}});
  CHECK_FALSE(w.session.analyser.current());
  w.settle();
  CHECK(verdict(w).startsWith("Do not switch on"));
}

TEST_CASE("many quick edits end with the analysis of the last document") {
  Window w;
  w.open("demo/wave-tank.harness");
  for (int i = 0; i < 25; ++i) {
    auto c = w.session.document.harness().connections[5];
    c.colour = i % 2 == 0 ? "PK" : "TQ";
    w.session.document.apply({"recolour", {harness::Put<harness::Connection>{c, {}}}});
  }
  w.session.document.apply({"cut", {harness::Drop<harness::Connection>{"w1"}}});
  w.settle();
  CHECK(w.session.analyser.current());
  CHECK(w.session.analyser.analysis().count(checks::Severity::Stop) > 0);
}

TEST_CASE("unsaved changes are asked about, and cancelling keeps the window") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.session.document.apply({"t", {harness::SetTitle{"changed"}}});
  QString asked;
  QTimer::singleShot(200, &w.main, [&] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (!box) return;
    asked = box->text();
    box->button(QMessageBox::Cancel)->click();
  });
  CHECK_FALSE(w.main.close());
  CHECK(asked == "This bench has changes that are not saved. Save them first?");
  CHECK(w.main.isVisible());
}

TEST_CASE("saving and opening again gives the same verdict") {
  Window w;
  const auto path = w.open("demo/wave-tank-first-try.harness");
  const auto before = verdict(w);
  w.session.document.apply({"t", {harness::SetTitle{"kept"}}});
  QTest::mouseClick(w.find<QPushButton>("save"), Qt::LeftButton);
  CHECK(w.session.document.undoStack().isClean());
  Window again;
  again.main.openFile(QString::fromStdString(path));
  again.settle();
  CHECK(verdict(again) == before);
  CHECK(again.session.document.harness().title == "kept");
}

TEST_CASE("a broken file is named in a sentence and the old bench stays") {
  Window w;
  w.open("demo/wave-tank.harness");
  const auto broken = w.folder.write("broken.harness", "{\"format\": 2, \"devices\": [");
  QString said;
  QTimer::singleShot(200, &w.main, [&] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (!box) return;
    said = box->text();
    box->accept();
  });
  w.main.openFile(QString::fromStdString(broken));
  CHECK(said == QString::fromStdString(broken) + ": The file is not whole JSON: it ends too early at line 1, column 27.");
  CHECK(w.session.document.harness().title == "Wave tank, bench 3");
}

TEST_CASE("everything that takes focus has a name for a screen reader") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  for (const auto& row : gui::steps()) {
    const auto step = row.step;
    w.main.rail().setStep(step);
    if (step == gui::Step::Bench) w.session.selection.select("paddle");
    for (auto* x : w.main.findChildren<QWidget*>()) {
      if (!x->isVisible() || x->focusPolicy() == Qt::NoFocus || x->inherits("QScrollArea") || x->inherits("QMenuBar") ||
          x->inherits("QMenu"))
        continue;
      const bool text = x->property("text").isValid() && !x->property("text").toString().isEmpty();
      INFO(x->metaObject()->className() << " " << x->objectName().toStdString());
      CHECK((text || !x->accessibleName().isEmpty() || x->property("placeholderText").isValid() || x->inherits("QComboBox")));
    }
  }
}

TEST_CASE("below 1200 pixels the panel lies over the picture and can be put away") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  w.main.resize(1024, 700);
  QTest::qWait(20);
  auto* sheet = w.find<QAbstractButton>("sheet");
  CHECK(sheet->isVisible());
  CHECK(w.find<QWidget>("side")->isVisible());
  QTest::mouseClick(sheet, Qt::LeftButton);
  CHECK_FALSE(w.find<QWidget>("side")->isVisible());
  w.main.resize(1280, 800);
  QTest::qWait(20);
  CHECK(w.find<QWidget>("side")->isVisible());
}

TEST_CASE("a step has a key of its own, past the tenth too") {
  std::set<QKeySequence> keys;
  for (int k = 0; k < 19; ++k) {
    const QKeySequence key(gui::stepKey(k));
    INFO(k << " " << gui::stepKey(k).toStdString());
    CHECK(key.count() == 1);
    CHECK(keys.insert(key).second);
  }
  CHECK(gui::stepKey(0) == "Ctrl+1");
  CHECK(gui::stepKey(9) == "Ctrl+0");
  CHECK(gui::stepKey(10) == "Alt+1");
  for (const auto& row : gui::steps()) CHECK(row.key() == gui::stepKey(static_cast<int>(row.step)));
}
