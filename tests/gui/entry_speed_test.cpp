#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QGuiApplication>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QTableView>
#include <QTableWidget>
#include <catch2/catch.hpp>

#include "core/wiring/wire_table.h"
#include "gui/export_actions.h"
#include "gui/panels/device_details.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

// Types as a person does, and logs how often a key goes down.
struct Typist : Window {
  int keys = 0;
  void type(const QString& text) {
    for (const QChar c : text) {
      QTest::keyClick(QApplication::focusWidget(), c.toLatin1());
      ++keys;
    }
  }
  void press(Qt::Key key, Qt::KeyboardModifiers with = {}) {
    QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : &main, key, with);
    ++keys;
  }
  void line(const QString& text) {
    type(text);
    press(Qt::Key_Return);
  }
  const harness::Harness& bench() { return session.document.harness(); }
  QTableView* table() { return find<QTableView>("wireTable"); }
  void pick(std::initializer_list<int> rows) {
    table()->clearSelection();
    for (const int row : rows)
      table()->selectionModel()->setCurrentIndex(table()->model()->index(row, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
  }
};

int wires(const harness::Harness& h) {
  return static_cast<int>(std::ranges::count(h.connections, harness::ConnectionKind::Wire, &harness::Connection::kind));
}

}  // namespace

TEST_CASE("a bench of 25 wires and seven parts is entered by keyboard within 400 keystrokes") {
  Typist w;
  w.main.activateWindow();
  w.press(Qt::Key_K, Qt::ControlModifier);
  for (const auto* part : {"uno", "l298n", "a4988", "12v 5a", "gear25", "gear25", "nema17"}) {
    w.line(part);
    w.press(Qt::Key_K, Qt::ControlModifier);
  }
  REQUIRE(w.bench().devices.size() == 7);
  w.press(Qt::Key_L, Qt::ControlModifier);
  for (const auto* line :
       {"d4-d7 s1.in1-in4", "d9 s1.ena",    "d10 s1.enb",   "s1.out1 m1.p",      "s1.out2 m1.n", "s1.out3 m2.p",  "s1.out4 m2.n",
        "v1.p s1.12v",      "v1.n s1.gnd",  "gnd s1.gnd",   "d2-d3 s2.step-dir", "5v s2.vdd",    "u1.gnd s2.gnd", "v1.p s2.vmot",
        "v1.n s2.gnd-2",    "s2.1a m3.a-p", "s2.1b m3.a-n", "s2.2a m3.b-p",      "s2.2b m3.b-n", "s2.rst s2.slp", "d8 s2.en"}) {
    const int before = wires(w.bench());
    w.line(line);
    INFO(line << ": " << w.find<QLabel>("wireSaid")->text().toStdString());
    CHECK(wires(w.bench()) > before);
  }
  CHECK(wires(w.bench()) == 25);
  INFO("keystrokes: " << w.keys);
  CHECK(w.keys <= 400);
}

TEST_CASE("while a wire is typed what fits and is free is offered, and one key takes it") {
  Typist w;
  w.open("demo/wave-tank.harness");
  action(w, "Type a wire")->trigger();
  auto* entry = w.find<QLineEdit>("wireEntry");
  auto* offers = w.find<QListWidget>("endChoices");
  CHECK(offers->isHidden());
  w.type("d1");
  REQUIRE(offers->isVisible());
  CHECK(offers->item(0)->text().contains("free"));
  w.press(Qt::Key_Tab);
  CHECK(entry->hasFocus());
  CHECK(entry->text() == "uno.D1 ");
  w.type("s2.ms");
  CHECK(offers->count() == 3);
  w.press(Qt::Key_Down);
  w.press(Qt::Key_Down);
  w.press(Qt::Key_Return);
  CHECK(entry->text() == "uno.D1 s2.MS2");
  const int before = wires(w.bench());
  w.press(Qt::Key_Return);
  CHECK(wires(w.bench()) == before + 1);
  // What is taken is said; Escape puts the list away.
  w.type("d9");
  REQUIRE(offers->isVisible());
  CHECK(offers->item(0)->text().contains("taken by w4"));
  w.press(Qt::Key_Escape);
  CHECK(offers->isHidden());
}

TEST_CASE("picked wires move to other terminals, exchange ends, take colours by use") {
  Typist w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Wiring);
  const auto row = [&](const char* id) {
    const auto& all = w.bench().connections;
    return static_cast<int>(std::ranges::find(all, id, &harness::Connection::id) - all.begin());
  };
  w.pick({row("w5"), row("w6")});  // D8, D7 to IN1, IN2
  w.find<QPushButton>("wireMove")->click();
  w.line("d12-d13");
  CHECK(w.bench().connection("w5")->a == Address{"uno", "D12"});
  CHECK(w.bench().connection("w6")->a == Address{"uno", "D13"});
  w.pick({row("w5"), row("w6")});
  w.find<QPushButton>("wireSwap")->click();
  CHECK(w.bench().connection("w5")->b == Address{"s1", "IN2"});
  CHECK(w.bench().connection("w5")->a == Address{"uno", "D12"});
  w.pick({row("w5")});
  w.find<QPushButton>("wireSwap")->click();
  CHECK(w.find<QLabel>("wireSaid")->text().startsWith("Pick two wires first"));
  w.pick({row("w7")});
  CHECK(w.bench().connection("w7")->colour == "RD");
  w.find<QPushButton>("wireByUse")->click();
  CHECK(w.bench().connection("w7")->colour != "RD");  // a signal
  for (int k = 0; k < 3; ++k) w.session.document.undoStack().undo();
  CHECK(w.bench().connection("w5")->a == Address{"uno", "D8"});
  // Another wire picked instead: nothing moves, a line is a wire again.
  w.pick({row("w5")});
  w.find<QPushButton>("wireMove")->click();
  w.pick({row("w6")});
  const int before = wires(w.bench());
  action(w, "Type a wire")->trigger();
  w.line("d12 s2.ms1");
  CHECK(wires(w.bench()) == before + 1);
  CHECK(w.bench().connection("w5")->a == Address{"uno", "D8"});
  // All that are picked are deleted, and come back at once.
  w.pick({row("w5"), row("w6"), row("w7")});
  w.find<QPushButton>("wireDelete")->click();
  CHECK(wires(w.bench()) == before - 2);
  w.session.document.undoStack().undo();
  CHECK(wires(w.bench()) == before + 1);
}

TEST_CASE("an end of the picked wire is drawn to another terminal, and stays where nothing may go") {
  Typist w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Wiring);
  w.main.resize(1400, 1000);
  auto& p = w.picture();
  const auto drag = [&](const char* from, const char* to) {
    const auto a = p.placeOf(from)->toPoint(), b = p.placeOf(to)->toPoint();
    QTest::mousePress(&p, Qt::LeftButton, {}, a);
    QTest::mouseMove(&p, a + QPoint(20, 0));
    QTest::mouseMove(&p, b);
    QTest::mouseRelease(&p, Qt::LeftButton, {}, b);
  };
  const int before = wires(w.bench());
  w.session.selection.select("w5");
  drag("s1.IN1", "s1.IN4");
  CHECK(w.bench().connection("w5")->b == Address{"s1", "IN4"});
  CHECK(wires(w.bench()) == before);
  CHECK(w.session.selection.subject() == "w5");
  // Not picked, it is a new wire as ever.
  w.session.selection.select({});
  drag("uno.D12", "s1.IN1");
  CHECK(wires(w.bench()) == before + 1);
}

TEST_CASE("a wire list is pasted: what each line does stands there first, and what is left out and why") {
  Typist w;
  w.open("demo/wave-tank.harness");
  QGuiApplication::clipboard()->setText("from\tto\tcolour\nuno.d12\ts2.ms1\tgreen\nuno.d13\tnowhere\n");
  action(w, "Paste a wire list…")->trigger();
  auto* dialog = w.find<QDialog>("pasteWires");
  REQUIRE(dialog);
  CHECK(dialog->findChild<QLabel*>("pasteSum")->text() == "1 wire made or changed, 1 line left out.");
  auto* lines = dialog->findChild<QTableWidget*>("pastedLines");
  REQUIRE(lines->rowCount() == 2);
  CHECK(lines->item(0, 1)->text() == "new: Controller D12 – S2 MS1");
  CHECK(lines->item(1, 1)->text().startsWith("left out: \"nowhere\" is no terminal on this bench"));
  const int before = wires(w.bench());
  dialog->findChild<QPushButton*>("takeList")->click();
  CHECK(wires(w.bench()) == before + 1);
  CHECK(w.bench().connections.back().colour == "GN");
  w.session.document.undoStack().undo();
  CHECK(wires(w.bench()) == before);
}

TEST_CASE("a part is exchanged with its wires, and another one like it is put beside it") {
  Typist w;
  w.open("demo/wave-tank.harness");
  w.session.selection.select("s1.IN1");
  action(w, "Exchange the picked part…")->trigger();
  auto* dialog = w.find<QDialog>("exchange");
  REQUIRE(dialog);
  dialog->findChild<QLineEdit*>("exchangeSearch")->setText("tb6612");
  auto* parts = dialog->findChild<QListWidget*>("exchangeParts");
  REQUIRE(parts->count() >= 1);
  CHECK(dialog->findChild<QLabel*>("exchangeWhat")->text().contains("now AIN1"));
  const int before = wires(w.bench());
  dialog->findChild<QPushButton*>("exchangeTake")->click();
  CHECK(w.bench().device("s1")->part == "tb6612fng");
  CHECK(w.bench().connection("w5")->b == Address{"s1", "AIN1"});
  CHECK(wires(w.bench()) == before);
  w.session.document.undoStack().undo();
  CHECK(w.bench().device("s1")->part == "l298n-module");

  const auto devices = w.bench().devices.size();
  w.session.selection.select("pump");
  action(w, "Another one like the picked part")->trigger();
  REQUIRE(w.bench().devices.size() == devices + 1);
  CHECK(w.bench().devices.back().name == "Circulation pump 2");
  CHECK(w.session.selection.subject().toStdString() == w.bench().devices.back().id);
  w.session.selection.select({});
  action(w, "Another one like the picked part")->trigger();
  CHECK(w.bench().devices.size() == devices + 1);
}

TEST_CASE("the picked part's rows are those of the part it was exchanged for") {
  Typist w;
  w.open("demo/wave-tank.harness");
  const auto shown = [&w] {
    const auto* details = w.main.findChild<gui::DeviceDetails*>();
    REQUIRE(details);
    auto* figures = details->findChild<QTableWidget*>("figures");
    std::vector<std::string> out;
    for (int i = 0; figures && i < figures->rowCount(); ++i) out.push_back(figures->item(i, 0)->text().toStdString());
    for (const auto* box : details->findChildren<QComboBox*>())
      if (box->objectName().startsWith("setting-")) out.push_back(box->objectName().mid(8).toStdString());
    return out;
  };
  const auto told = [&w](const std::string& part) {
    std::vector<std::string> out;
    const auto found = w.session.document.library().find(part);
    for (const auto& f : found->figures) out.push_back(f.label);
    for (const auto& s : found->settings) out.push_back(s.id);
    return out;
  };
  w.session.selection.select("s1");
  w.settle();
  CHECK(shown() == told("l298n-module"));
  for (const auto* to : {"tb6612fng", "a4988-carrier", "uln2003-board", "l298n-module"}) {
    if (!w.session.document.library().find(to)) FAIL(to);
    auto changed = *w.bench().device("s1");
    changed.part = to;
    w.session.document.apply({"Exchange s1", {harness::Put<harness::Device>{changed, {}}}});
    w.settle();
    INFO(to);
    CHECK(shown() == told(to));
  }
  for (int i = 0; i < 4; ++i) w.session.document.undoStack().undo();
  w.settle();
  CHECK(shown() == told("l298n-module"));
}

TEST_CASE("another bench is compared in words and in the loom, until the dialog is closed") {
  Typist w;
  w.open("demo/wave-tank-first-try.harness");
  w.main.compareWithFile(QString::fromStdString(kDemo));
  auto* dialog = w.find<QDialog>("compare");
  REQUIRE(dialog);
  auto* told = dialog->findChild<QLabel*>("apart");
  REQUIRE(eventually([&] { return told->text().contains("Found here, and not there"); }));
  CHECK(told->text().startsWith("wave-tank.harness: Clear to switch on\nThis bench: Do not switch on"));
  CHECK(told->text().contains("– the wire uno.GND – s1.GND is gone"));
  CHECK(told->text().contains("– D1 is the wrong way round"));
  const auto states = [&](harness::State s) { return std::ranges::count(w.picture().pictureLayout().threads, s, &picture::Thread::state); };
  CHECK(states(harness::State::Planned) > 0);
  CHECK(states(harness::State::ToBeRemoved) > 0);
  dialog->reject();
  CHECK(states(harness::State::ToBeRemoved) == 0);
  CHECK(w.bench().openChanges() == 0);
}

TEST_CASE("the window writes what the command line writes") {
  Typist w;
  const auto path = w.open("demo/wave-tank.harness");
  gui::Exporter exporter(w.session, w.main);
  std::optional<QString> why;
  QObject::connect(&exporter, &gui::Exporter::done, [&](const QString& s) { why = s; });
  const auto exported = [&](const std::string& to, const QString& what) {
    why.reset();
    exporter.begin(QString::fromStdString(to), what);
    REQUIRE(eventually([&] { return why.has_value(); }));
    return *why;
  };
  for (const std::string ending : {"svg", "csv", "h", "py", "png", "pdf"}) {
    const auto mine = w.folder.path("mine." + ending);
    CHECK(exported(mine, {}) == "");
    CHECK(exported(mine, {}).contains("There is a file here already"));
    const auto theirs = w.folder.path("theirs." + ending);
    CHECK(run({"export", path, "--output", theirs}).code == 0);
    Disk disk;
    INFO(ending);
    const auto a = disk.read(mine), b = disk.read(theirs);
    REQUIRE((a && b));
    CHECK(a->size() > 100);
    if (ending != "pdf") CHECK(*a == *b);  // fonts of a PDF stand in the order of a table that a program may shuffle
  }
  CHECK(exported(w.folder.path("x.doc"), {}).startsWith("A file ends in"));
  CHECK(exported(w.folder.path("x.svg"), "pins").contains("does not hold"));
  CHECK_FALSE(exported("/no/such/folder/x.svg", {}).isEmpty());
}
