#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMessageBox>
#include <QPlainTextEdit>
#include <QScrollArea>
#include <QTableWidget>
#include <QTextBrowser>
#include <QTimer>
#include <QTreeWidget>
#include <catch2/catch.hpp>
#include <fstream>

#include "core/harness/read_harness.h"
#include "core/parts/own_parts.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/places/place_view.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("a whole bench is built by typing: parts, a stage with its wires, and is clear to switch on") {
  Window w;
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  for (const auto* words : {"usb port", "uno", "12 v 2 a", "diaphragm"}) {
    QTest::keyClicks(search, words);
    QTest::keyClick(search, Qt::Key_Return);
  }
  REQUIRE(w.session.document.harness().devices.size() == 4);
  CHECK(w.session.document.harness().devices[1].part == "board-uno-atmega328p");
  CHECK(w.session.document.harness().devices[3].part == "pump-diaphragm-12v");
  w.session.document.apply({"plug",
                            {harness::Put<harness::Connection>{
                                {.id = "p1", .kind = harness::ConnectionKind::Plug, .a = {"v1", "USB"}, .b = {"u1", "USB"}}, {}}}});

  // A stage: among those that fit the one whose name begins so.
  w.session.selection.select("m1");
  action(w, "C&hoose a stage for a motor")->trigger();
  auto* said = w.find<QLabel>("stagesSaid");
  (void)eventually([&] { return said->text().contains("best first"); });
  auto* stages = w.find<QListView>("stagesList");
  for (int k = 0; k < stages->model()->rowCount(); ++k)
    if (stages->model()->index(k, 0).data().toString() == "MOSFET IRLZ44N") stages->setCurrentIndex(stages->model()->index(k, 0));
  QTest::keyClick(stages, Qt::Key_Return);
  CHECK(w.session.document.harness().devices.size() == 8);
  action(w, "&All planned changes are done")->trigger();
  w.settle();
  // The catalogue's spread of the winding asks for nothing here: the transistor stands far more.
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Clear to switch on: nothing to mend; tightest: "));
  // One undo is one step: done, and put on the plan.
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().openChanges() > 0);
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().devices.size() == 4);
}

TEST_CASE("the signals of a plan are asked for as the motor is wired, before any stage is named") {
  const auto asked = [](const std::string& name, const char* motor) {
    Window w;
    auto bench = good(name);
    bench.goals.clear();
    bench.assignments.clear();
    bench.program.clear();
    const auto path = w.folder.write("bench.harness", harness::writeHarness(bench));
    w.main.openFile(QString::fromStdString(path));
    w.settle();
    w.main.rail().setStep(gui::Step::Bench);
    w.session.selection.select(motor);
    QStringList out;
    for (const auto* edit : w.main.findChildren<QLineEdit*>())
      if (edit->objectName().startsWith("signal-")) out << edit->objectName().mid(7);
    return out;
  };
  CHECK(asked("stepper-array-chip", "m") == QStringList{"in1", "in2", "in3", "in4"});
  CHECK(asked("stepper-mosfets", "m") == QStringList{"in1", "in2", "in3", "in4"});
  CHECK(asked("stepper-bridges", "m").contains("in4"));
  CHECK(asked("pmos-5v", "pump") == QStringList{"in"});
  CHECK(asked("servo", "tilt") == QStringList{"pulse"});
}

TEST_CASE("undo and redo of everything end where they began, to the byte") {
  Window w;
  w.open("demo/wave-tank.harness");
  const auto bytes = harness::writeHarness(w.session.document.harness());
  w.main.rail().setStep(gui::Step::Wiring);
  auto* entry = w.find<QLineEdit>("wireEntry");
  for (const auto* wire : {"d11 s1.+5v", "a2 psu.n", "uno.vin psu.p"}) {
    QTest::keyClicks(entry, wire);
    QTest::keyClick(entry, Qt::Key_Return);
  }
  w.session.selection.select("w4");
  action(w, "&Delete what is picked")->trigger();
  w.session.selection.select("c1");
  action(w, "&Delete what is picked")->trigger();
  CHECK(w.session.document.undoStack().count() == 5);
  const auto after = harness::writeHarness(w.session.document.harness());
  while (w.session.document.undoStack().canUndo()) w.session.document.undoStack().undo();
  CHECK(harness::writeHarness(w.session.document.harness()) == bytes);
  while (w.session.document.undoStack().canRedo()) w.session.document.undoStack().redo();
  CHECK(harness::writeHarness(w.session.document.harness()) == after);
}

TEST_CASE("a device is renamed and taken off the bench") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("pump");
  auto* name = w.find<QLineEdit>("deviceName");
  REQUIRE(name);
  name->selectAll();
  QTest::keyClicks(name, "Return pump");
  Q_EMIT name->editingFinished();
  CHECK(w.session.document.harness().device("pump")->called() == "Return pump");
  QTest::mouseClick(w.find<QPushButton>("deviceRemove"), Qt::LeftButton);
  CHECK(w.session.document.harness().device("pump") == nullptr);
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().device("pump")->called() == "Return pump");
}

TEST_CASE("Alt+Down walks from matter to matter, Ctrl+Enter puts the repair of the picked one on the plan") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  action(w, "&Next matter")->trigger();
  const auto first = w.session.selection.picked();
  CHECK(first.startsWith("flyback-reversed"));
  action(w, "&Next matter")->trigger();
  CHECK(w.session.selection.picked().startsWith("junction-temperature"));
  action(w, "&Previous matter")->trigger();
  CHECK(w.session.selection.picked() == first);
  action(w, "Put the picked &repair or stage on the plan")->trigger();
  CHECK(w.session.document.harness().openChanges() == 4);
  // Once on the plan it is not put there twice.
  w.settle();
  action(w, "Put the picked &repair or stage on the plan")->trigger();
  CHECK(w.session.document.harness().openChanges() == 4);
}

TEST_CASE("pressing the verdict goes to the first open matter") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  w.main.rail().setStep(gui::Step::Bench);
  QTest::mouseClick(w.find<QWidget>("verdict"), Qt::LeftButton);
  CHECK(w.main.rail().step() == gui::Step::Limits);
  CHECK(w.session.selection.picked().startsWith("flyback-reversed"));
}

TEST_CASE("one planned wire is marked done from the list") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  const auto* f = [&]() -> const checks::Finding* {
    for (const auto& x : w.session.analyser.analysis().findings)
      if (x.check == "ground-not-shared" && x.repair) return &x;
    return nullptr;
  }();
  REQUIRE(f);
  w.session.document.apply(harness::Edit(f->repair->edit));
  REQUIRE(w.session.document.harness().openChanges() == 1);
  const auto id = w.session.document.harness().connections.back().id;
  w.main.rail().setStep(gui::Step::Wiring);
  w.session.selection.select(QString::fromStdString(id));
  auto* done = w.find<QPushButton>("wireDone");
  REQUIRE(done->isEnabled());
  QTest::mouseClick(done, Qt::LeftButton);
  CHECK(w.session.document.harness().openChanges() == 0);
  CHECK(w.session.document.harness().connection(id)->state == harness::State::OnBench);
}

TEST_CASE("a file that changed on disk is not written over when the answer is no") {
  Window w;
  const auto path = w.open("demo/wave-tank.harness");
  w.session.document.apply({"t", {harness::SetTitle{"mine"}}});
  std::ofstream(path) << "somebody else's";
  QString said;
  QTimer::singleShot(200, &w.main, [&] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (!box) return;
    said = box->text();
    box->button(QMessageBox::Cancel)->click();
  });
  QTest::mouseClick(w.find<QPushButton>("save"), Qt::LeftButton);
  CHECK(said.contains("was changed on disk by somebody else"));
  std::string content;
  std::getline(std::ifstream(path), content);
  CHECK(content == "somebody else's");
  CHECK_FALSE(w.session.document.undoStack().isClean());
}

TEST_CASE("a file of a newer format opens read-only and is not judged") {
  Window w;
  const auto path = w.folder.write(
      "newer.harness",
      R"({"format": 9, "title": "From the future", "devices": [{"id": "u", "part": "board-uno-atmega328p"}], "connections": [], "goals": []})");
  QTimer::singleShot(200, &w.main, [] {
    if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) box->accept();
  });
  w.main.openFile(QString::fromStdString(path));
  w.settle();
  CHECK(w.session.document.readOnly());
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Not judged"));
  const auto before = harness::writeHarness(w.session.document.harness());
  w.session.document.apply({"x", {harness::Drop<harness::Device>{"u"}}});
  CHECK(harness::writeHarness(w.session.document.harness()) == before);
}

TEST_CASE("the page of a check opens from its finding") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  action(w, "&Next matter")->trigger();
  QTest::qWait(30);
  for (auto* b : w.main.findChildren<QPushButton*>())
    if (b->isVisible() && b->text() == "About this check") {
      QTest::mouseClick(b, Qt::LeftButton);
      break;
    }
  auto* page = w.find<QDialog>("page");
  REQUIRE(page);
  CHECK(page->windowTitle() == "About the check flyback-reversed");
  page->close();
}

TEST_CASE("the picture is as large as what it shows and is fitted to the window") {
  Window w;
  w.open("demo/wave-tank.harness");
  const auto& l = w.picture().pictureLayout();
  CHECK(w.picture().sizeHint().height() == static_cast<int>(l.height * w.picture().zoom() + 0.5));
  CHECK(w.picture().zoom() >= 0.85);
  w.main.resize(1900, 1000);
  QTest::qWait(20);
  CHECK(w.picture().zoom() == Approx(1.25));
  CHECK(w.picture().placeOf("uno.D9"));
  CHECK_FALSE(w.picture().placeOf("uno.D99"));
  CHECK(w.picture().placeOf("w4"));
}

TEST_CASE("a bench that was emptied asks before a demo takes its place") {
  Window w;
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  QTest::keyClicks(search, "uno");
  QTest::keyClick(search, Qt::Key_Return);
  w.session.document.apply({"take away", {harness::Drop<harness::Device>{"u1"}}});
  REQUIRE(w.session.document.harness().devices.empty());
  bool asked = false;
  QTimer::singleShot(200, &w.main, [&] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (!box) return;
    asked = true;
    box->button(QMessageBox::Cancel)->click();
  });
  QTest::mouseClick(w.find<QPushButton>("startDemo"), Qt::LeftButton);
  CHECK(asked);
  CHECK(w.session.document.harness().devices.empty());
  CHECK(w.session.document.undoStack().canUndo());
}

TEST_CASE("the plan's numbers are typed with units, and what makes no sense is said and not taken") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("carriage");
  auto* rate = w.find<QLineEdit>("number-rate");
  REQUIRE(rate);
  CHECK(rate->isVisible());
  CHECK_FALSE(w.find<QLineEdit>("number-duty")->isVisible());
  const auto type = [](QLineEdit* edit, const QString& text) {
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Return);
  };
  type(rate, "1.2 kHz");
  REQUIRE(harness::intentOf(w.session.document.harness(), "carriage")->rate);
  CHECK(harness::intentOf(w.session.document.harness(), "carriage")->rate->value == Approx(1200));
  type(w.find<QLineEdit>("number-rate"), "fast");
  CHECK(harness::intentOf(w.session.document.harness(), "carriage")->rate->value == Approx(1200));
  type(w.find<QLineEdit>("number-steps"), "-3");
  CHECK_FALSE(harness::intentOf(w.session.document.harness(), "carriage")->stepsPerTurn);
  type(w.find<QLineEdit>("number-steps"), "1600");
  CHECK(harness::intentOf(w.session.document.harness(), "carriage")->stepsPerTurn == 1600);
  w.session.document.undoStack().undo();
  w.session.document.undoStack().undo();
  CHECK_FALSE(harness::intentOf(w.session.document.harness(), "carriage")->rate);
}

TEST_CASE("a motor that starts gently is judged without a sudden reversal") {
  Window w;
  auto text = readFile("demo/wave-tank.harness");
  const std::string winding = "6.2 ohm";  // with less the bridge does not stand it turned round at once
  text.replace(text.find(winding), winding.size(), "5 ohm");
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", text)));
  w.settle();
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("paddle");
  auto* ramp = w.find<QCheckBox>("intentRamp");
  REQUIRE(ramp);
  REQUIRE(ramp->isChecked());
  ramp->click();
  w.settle();
  const auto sudden = [&] {
    return std::ranges::any_of(w.session.analyser.analysis().findings, [](const auto& f) { return f.check == "reversal-current"; });
  };
  CHECK(sudden());
  w.find<QCheckBox>("intentRamp")->click();
  w.settle();
  CHECK_FALSE(sudden());
}

TEST_CASE("figures typed into the search box make a part with these figures") {
  Window w;
  w.session.file.startEmpty();
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  search->setText("12 V 0.5 A, 2 A stall");
  auto* hits = w.find<QListWidget>("partHits");
  int row = -1;
  for (int i = 0; i < hits->count(); ++i)
    if (hits->item(i)->data(Qt::AccessibleTextRole).toString().contains("as typed")) row = i;
  REQUIRE(row >= 0);
  hits->setCurrentRow(row);
  QTest::keyClick(search, Qt::Key_Return);
  REQUIRE(w.session.document.harness().devices.size() == 1);
  const auto& d = w.session.document.harness().devices.front();
  CHECK(d.part == "brushed-motor");
  CHECK(d.overrides.at("winding") == "6 ohm");
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().devices.empty());
}

TEST_CASE("the best match comes first, and among equals what was used lately") {
  Window w;
  w.session.file.startEmpty();
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  auto* hits = w.find<QListWidget>("partHits");
  const auto ids = [&](const QString& text) {
    search->setText(text);
    QStringList out;
    for (int i = 0; i < hits->count(); ++i) out << hits->item(i)->data(Qt::UserRole).toString();
    return out;
  };
  const auto before = ids("nema 17");
  REQUIRE(before.size() >= 3);
  // Three of one frame are equals to these words: the last of them was used, and leads.
  QStringList equal;
  for (const auto& id : before)
    if (id.startsWith("stepper-nema17")) equal << id;
  REQUIRE(equal.size() == 3);
  hits->setCurrentRow(static_cast<int>(before.indexOf(equal.back())));
  QTest::keyClick(search, Qt::Key_Return);
  CHECK(ids("nema 17").front() == equal.back());
  // What was used lately does not come before what is meant.
  CHECK(ids("uno").front() == "board-uno-atmega328p");
  ids("wire 22");
  hits->setCurrentRow(0);
  QTest::keyClick(search, Qt::Key_Return);
  CHECK(ids("uno").front() == "board-uno-atmega328p");
  CHECK(hits->horizontalScrollBarPolicy() == Qt::ScrollBarAlwaysOff);
}

TEST_CASE("the card of a part opens from its details, with a drawing and its figures") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("s1");
  w.find<QPushButton>("aboutPart")->click();
  auto* dialog = w.find<QDialog>("partCard");
  REQUIRE(dialog);
  CHECK(dialog->isVisible());
  CHECK(dialog->findChild<gui::PlaceView*>("placeView")->drawing().targets.size() > 8);
  const auto text = dialog->findChild<QTextBrowser*>("partText")->toPlainText();
  CHECK(text.contains("peak output current"));
  CHECK(text.contains("recalled, not re-read"));
  dialog->close();
}

TEST_CASE("a shipped part is copied, changed in the form with live judgement, kept, and found") {
  Window w;
  qputenv("XDG_DATA_HOME", QByteArray::fromStdString(w.folder.path("data")));
  w.session.file.startEmpty();
  const auto text = parts::copyOf(w.session.document.library(), "tb6612fng", "my-tb", "My bridge");
  REQUIRE(text);
  auto* dialog = new gui::OwnPartDialog(w.session, QString::fromStdString(*text), &w.main);
  dialog->show();
  auto* figures = dialog->findChild<QTableWidget*>("ownFigures");
  auto* keep = dialog->findChild<QPushButton*>("ownKeep");
  auto* said = dialog->findChild<QLabel*>("ownSaid");
  REQUIRE(figures->rowCount() == 2);
  CHECK(keep->isEnabled());
  figures->item(0, 1)->setText("one ampere");
  CHECK_FALSE(keep->isEnabled());
  CHECK(said->text().contains("one ampere"));
  figures->item(0, 1)->setText("0.8 A");
  CHECK(keep->isEnabled());
  CHECK(dialog->findChild<QPlainTextEdit*>("ownText")->toPlainText().contains("0.8 A"));
  keep->click();
  const auto kept = w.session.document.library().find("my-tb");
  REQUIRE(kept);
  CHECK(kept->own);
  CHECK(kept->figure("continuous")->figure.typical() == 0.8);
  CHECK(kept->figure("continuous")->figure.condition == "VM at least 4.5 V; 0.4 A below");
  qunsetenv("XDG_DATA_HOME");
}

TEST_CASE("every field of a part is edited in a tree made from the schema: added, chosen, moved, removed, and marked where wrong") {
  Window w;
  w.session.file.startEmpty();
  const auto text = parts::copyOf(w.session.document.library(), "l298n-module", "my-l298", "My bridge");
  REQUIRE(text);
  auto* dialog = new gui::OwnPartDialog(w.session, QString::fromStdString(*text), &w.main);
  dialog->show();
  auto* tree = dialog->findChild<QTreeWidget*>("fields");
  auto* what = dialog->findChild<QComboBox*>("fieldWhat");
  auto* keep = dialog->findChild<QPushButton*>("ownKeep");
  const auto click = [&](const char* name) {
    dialog->findChild<QPushButton*>(name)->click();
    QTest::qWait(5);
  };
  const auto written = [&] { return parsedJson(dialog->findChild<QPlainTextEdit*>("ownText")->toPlainText().toStdString()); };
  const auto row = [&](const QStringList& path) -> QTreeWidgetItem* {
    for (QTreeWidgetItemIterator it(tree); *it; ++it)
      if ((*it)->data(0, Qt::UserRole).toStringList() == path) return *it;
    return nullptr;
  };
  const auto type = [&](const QStringList& path, const QString& value) {
    REQUIRE(row(path));
    row(path)->setText(1, value);
    QTest::qWait(5);
  };
  const auto offer = [&](const QString& choice) {
    const int at = what->findText(choice);
    REQUIRE(at >= 0);
    what->setCurrentIndex(at);
  };
  CHECK(keep->isEnabled());

  // A terminal more, with a contact from the few there are.
  const auto terminals = written()["terminals"].size();
  REQUIRE(row({"terminals"}));
  tree->setCurrentItem(row({"terminals"}));
  offer("another");
  click("fieldAdd");
  CHECK(written()["terminals"].size() == terminals + 1);
  CHECK_FALSE(keep->isEnabled());  // it has no id yet
  const auto last = QString::number(terminals);
  type({"terminals", last, "id"}, "LED");
  tree->setCurrentItem(row({"terminals", last}));
  offer("the field optional");
  click("fieldAdd");
  type({"terminals", last, "optional"}, "yes");
  CHECK(written()["terminals"][terminals]["optional"] == true);
  CHECK(keep->isEnabled());

  // An element between two terminals; a figure without its unit is marked at its place.
  tree->setCurrentItem(row({"elements"}));
  offer("a resistor");
  const auto elements = written()["elements"].size();
  click("fieldAdd");
  const auto element = QString::number(elements);
  type({"elements", element, "resistor", "0"}, "LED");
  type({"elements", element, "resistor", "1"}, "GND");
  tree->setCurrentItem(row({"elements", element}));
  if (!row({"elements", element, "r"})) {
    offer("the field r");
    click("fieldAdd");
  }
  type({"elements", element, "r"}, "ten");
  CHECK_FALSE(keep->isEnabled());
  CHECK(row({"elements", element, "r"})->toolTip(1).contains("ten"));
  type({"elements", element, "r"}, "10 kohm");
  CHECK(keep->isEnabled());
  CHECK(row({"elements", element, "r"})->toolTip(1).isEmpty());

  // What is no number stays as it was typed, and is told.
  const QStringList position{"terminals", "0", "position"};
  if (!row(position)) {
    tree->setCurrentItem(row({"terminals", "0"}));
    offer("the field position");
    click("fieldAdd");
  }
  for (const auto* no : {"nan", "1e999", "third"}) {
    type(position, no);
    CHECK(written()["terminals"][0]["position"] == no);
    CHECK_FALSE(keep->isEnabled());
    type(position, "3");
    CHECK(written()["terminals"][0]["position"] == 3);
    CHECK(keep->isEnabled());
  }

  // Its place in the list, and away again.
  tree->setCurrentItem(row({"elements", element}));
  click("fieldUp");
  CHECK(written()["elements"][elements - 1]["r"] == "10 kohm");
  click("fieldDown");
  click("fieldRemove");
  CHECK(written()["elements"].size() == elements);
  CHECK(keep->isEnabled());

  // A changed part is not given up without asking.
  bool asked = false;
  QTimer::singleShot(200, dialog, [&] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (!box) return;
    asked = box->text().contains("not entered yet");
    for (auto* b : box->buttons())
      if (b->text() == "Give it up") b->click();
  });
  dialog->close();
  CHECK(asked);
  CHECK_FALSE(dialog->isVisible());
}

TEST_CASE("what is known of a device fits into its panel, however long its name is") {
  Window w;
  w.session.file.startEmpty();
  w.main.resize(850, 530);
  w.main.rail().setStep(gui::Step::Bench);
  // The three longest names there are, and one part of each kind.
  auto all = library().search("");
  std::ranges::stable_sort(all, std::greater{}, [](const auto& p) { return p->name.size(); });
  std::set<std::string> kinds;
  int looked = 0;
  for (std::size_t k = 0; k < all.size(); ++k) {
    if (k >= 3 && !kinds.insert(all[k]->kind).second) continue;
    w.session.document.apply({"add", {harness::Put<harness::Device>{{.id = "x", .part = all[k]->id}, {}}}});
    w.session.selection.select("x");
    w.settle();
    for (auto* area : w.main.findChildren<QScrollArea*>()) {
      if (!area->isVisible() || !area->widget() || area->objectName() == "pictureView") continue;
      INFO(all[k]->id);
      CHECK(area->widget()->width() <= area->viewport()->width());
      ++looked;
    }
    w.session.document.undoStack().undo();
  }
  CHECK(looked > 10);
}
