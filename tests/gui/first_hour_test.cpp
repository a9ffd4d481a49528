#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QScrollArea>
#include <QScrollBar>
#include <QTableWidget>
#include <catch2/catch.hpp>
#include <set>

#include "core/harness/intent.h"
#include "core/harness/read_harness.h"
#include "gui/panels/bench_panel.h"
#include "gui/panels/finding_card.h"
#include "gui/wiring/wiring_panel.h"
#include "support/expected.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

// What a person meets who has never seen the program.
namespace {

void openText(Window& w, const std::string& notation) {
  w.main.openFile(QString::fromStdString(w.folder.write("bench.harness", harness::writeHarness(wiredBench(notation)))));
  w.settle();
}

void typeWire(Window& w, const QString& text) {
  w.main.rail().setStep(gui::Step::Wiring);
  auto* entry = w.find<QLineEdit>("wireEntry");
  entry->clear();
  QTest::keyClicks(entry, text);
  QTest::keyClick(entry, Qt::Key_Return);
}

}  // namespace

TEST_CASE("every field that a finding names is in the window, and is gone to") {
  Window w;
  std::set<std::string> kinds;
  int gone = 0;
  const auto look = [&](const harness::Harness& h) {
    std::set<std::pair<std::string, std::string>> fields;
    for (const auto& f : analyseFast(h).findings)
      for (const auto& way : f.ways)
        if (!way.field.subject.empty() && !kinds.contains(f.check + way.field.name)) {
          fields.emplace(way.field.subject, way.field.name);
          kinds.insert(f.check + way.field.name);
        }
    if (fields.empty()) return;
    w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(h))));
    w.settle();
    for (const auto& [subject, name] : fields) {
      INFO(subject << ": " << name);
      w.session.selection.jump({subject, name});
      const auto* at = w.main.focusWidget();
      REQUIRE(at);
      const bool wire = w.session.document.harness().connection(subject);
      CHECK(w.main.rail().step() == (wire ? gui::Step::Wiring : gui::Step::Bench));
      CHECK(w.find<QWidget>(wire ? "wiring" : "bench")->isAncestorOf(at));
      const auto last = QString::fromStdString(name).section(' ', 1);
      if (name.starts_with("figure ")) {
        // Ready to be typed in: the cell's own field, or the table.
        const auto* table = w.find<QTableWidget>("figures");
        REQUIRE((at == table || table->isAncestorOf(at)));
        CHECK(table->item(table->currentRow(), 0)->data(Qt::UserRole).toString() == last);
      } else if (name.starts_with("signal ") || name.starts_with("setting ") || name.starts_with("numbering ")) {
        CHECK(at->objectName().endsWith("-" + last));
      }
      CHECK(at->isVisible());
      ++gone;
    }
  };
  look(wiredBench(readFile("demo/wave-tank-first-try.bench")));
  for (const auto* folder : {"strangers", "batch-1", "batch-2", "batch-3", "batch-4", "batch-5", "batch-6", "batch-7", "batch-8"})
    for (const auto& name : namesIn(folder)) look(wiredBench(textOf(folder, name)));
  CHECK(gone > 30);
}

TEST_CASE("a board without power offers the plug that lies on the bench") {
  Window w;
  openText(w, "part usb usb-port-0a5\npart uno board-uno-atmega328p Controller");
  auto* c = card(w, "controller-unpowered");
  REQUIRE(c);
  QTest::mouseClick(c, Qt::LeftButton, {}, QPoint(100, 12));
  REQUIRE(c->repairButton());
  QTest::mouseClick(c->repairButton(), Qt::LeftButton);
  w.settle();
  REQUIRE(w.session.document.harness().connections.size() == 1);
  CHECK(w.session.document.harness().connections.front().kind == harness::ConnectionKind::Plug);
  CHECK(w.session.analyser.analysis().planned->worse.empty());
}

TEST_CASE("a plug is typed, drawn from socket to socket, and refused where it does not go") {
  Window w;
  openText(w, "part usb usb-port-0a5\npart uno board-uno-atmega328p Controller\npart psu adapter-9v-1a");
  typeWire(w, "usb uno");
  REQUIRE(w.session.document.harness().connections.size() == 1);
  w.session.document.undoStack().undo();
  auto& p = w.picture();
  const auto drag = [&](const QString& from, const QString& to) {
    const auto a = p.placeOf(from)->toPoint();
    const auto b = p.placeOf(to)->toPoint();
    QTest::mousePress(&p, Qt::LeftButton, {}, a);
    QTest::mouseMove(&p, (a + b) / 2);
    QTest::mouseMove(&p, b);
    QTest::mouseRelease(&p, Qt::LeftButton, {}, b);
  };
  drag("usb.USB", "uno.USB");
  REQUIRE(w.session.document.harness().connections.size() == 1);
  CHECK(w.session.document.harness().connections.front().b.text() == "uno.USB");
  drag("psu.jack", "uno.D9");
  CHECK(w.session.document.harness().connections.size() == 1);
  drag("psu.jack", "uno.jack");
  CHECK(w.session.document.harness().connections.size() == 2);
  // And by keys alone.
  w.session.document.undoStack().undo();
  p.setFocus();
  w.session.selection.select("psu.jack");
  QTest::keyClick(&p, Qt::Key_Return);
  w.session.selection.select("uno.jack");
  QTest::keyClick(&p, Qt::Key_Return);
  CHECK(w.session.document.harness().connections.size() == 2);
}

TEST_CASE("what is joined already is refused with the wire that does it") {
  Window w;
  openText(w, "from low-side");
  const auto before = w.session.document.harness().connections.size();
  typeWire(w, "uno.d5 r1.a");
  CHECK(w.session.document.harness().connections.size() == before);
  CHECK(w.find<QLabel>("wireSaid")->text().contains("are joined already, by "));
}

TEST_CASE("the pins that the wires lead to stand in grey, and one key states them") {
  Window w;
  auto h = good("bridge");
  h.assignments.clear();
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(h))));
  w.settle();
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Look again"));
  const auto motor = w.session.document.harness().goals.front().motor;
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select(QString::fromStdString(motor));
  auto* in1 = w.find<QLineEdit>("signal-in1");
  REQUIRE(in1);
  CHECK(in1->text().isEmpty());
  CHECK(in1->placeholderText() == "Controller D7, as it is wired");
  auto* state = w.find<QPushButton>("stateAsWired");
  REQUIRE(state->isVisible());
  QTest::mouseClick(state, Qt::LeftButton);
  w.settle();
  CHECK(w.find<QLineEdit>("signal-in1")->text() == "Controller D7");
  CHECK(harness::intentOf(w.session.document.harness(), motor)->signals.size() == 3);
  CHECK_FALSE(state->isVisible());
  // The other motor by the key, with nothing picked.
  w.session.selection.select({});
  QTest::keyClick(&w.main, Qt::Key_U, Qt::ControlModifier);
  w.settle();
  CHECK(w.session.analyser.analysis().unstated.empty());
  // Typing is needed only where the program differs.
  w.session.selection.select(QString::fromStdString(motor));
  auto* pin = w.find<QLineEdit>("signal-in2");
  pin->selectAll();
  QTest::keyClicks(pin, "d12");
  QTest::keyClick(pin, Qt::Key_Return);
  w.settle();
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Do not switch on"));
}

TEST_CASE("the card of what nobody stated states it or goes to its field") {
  Window w;
  auto h = good("bridge");
  h.assignments.clear();
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(h))));
  w.settle();
  CHECK(w.main.rail().step() == gui::Step::Limits);
  const auto buttons = w.main.findChildren<QPushButton*>("stateWired");
  REQUIRE(buttons.size() == 2);
  QTest::mouseClick(buttons.front(), Qt::LeftButton);
  w.settle();
  CHECK(w.session.analyser.analysis().unstated.size() == 1);
  QTest::mouseClick(w.find<QPushButton>("unstatedGo"), Qt::LeftButton);
  REQUIRE(w.main.focusWidget());
  CHECK(w.main.focusWidget()->objectName().startsWith("signal-"));
}

TEST_CASE("everything that can be stated of a motor has its field, and fields fit the motor") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  const auto visible = [&](const char* name) {
    const auto* x = w.find<QWidget>(name);
    return x && x->isVisible();
  };
  w.session.selection.select("carriage");
  for (const auto* name : {"intentHold", "number-rate", "number-steps", "number-pulse", "signal-step"}) {
    INFO(name);
    CHECK(visible(name));
    CHECK_FALSE(w.find<QWidget>(name)->toolTip().isEmpty());
  }
  for (const auto* name : {"intentSpeed", "number-pwm", "number-duty", "intentForward", "intentRamp"}) {
    INFO(name);
    CHECK_FALSE(visible(name));
  }
  w.session.selection.select("paddle");
  for (const auto* name :
       {"intentBoth", "intentSpeed", "intentRamp", "intentTogether", "intentForward", "intentChannel", "number-pwm", "number-duty"}) {
    INFO(name);
    CHECK(visible(name));
  }
  CHECK_FALSE(visible("number-rate"));
  auto* forward = w.find<QComboBox>("intentForward");
  forward->setCurrentIndex(2);
  Q_EMIT forward->activated(2);
  CHECK(harness::intentOf(w.session.document.harness(), "paddle")->forwardLead == "N");
  const auto in1 = [&] {
    const auto intent = harness::intentOf(w.session.document.harness(), "paddle");
    for (const auto& signal : intent->signals)
      if (signal.role == "in1") return signal;
    return harness::Signal{};
  };
  QTest::mouseClick(w.find<QAbstractButton>("more-in1"), Qt::LeftButton);
  auto* active = w.find<QComboBox>("active-in1");
  REQUIRE(active->isVisible());
  active->setCurrentIndex(2);
  Q_EMIT active->activated(2);
  CHECK(in1().active == harness::Active::Low);
  auto* numbering = w.find<QComboBox>("numbering-in1");
  numbering->setCurrentIndex(3);
  Q_EMIT numbering->activated(3);
  CHECK(in1().numbering == "chip");
}

TEST_CASE("gauge and length stand beside the colour, and are judged") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Wiring);
  const auto id = [&] {
    for (const auto& c : w.session.document.harness().connections)
      if (c.b.text() == "pump.P" || c.a.text() == "pump.P") return c.id;
    return std::string();
  }();
  REQUIRE_FALSE(id.empty());
  w.session.selection.select(QString::fromStdString(id));
  auto* gauge = w.find<QComboBox>("wireGauge");
  gauge->setCurrentIndex(gauge->findData(30));
  Q_EMIT gauge->activated(gauge->currentIndex());
  CHECK(w.session.document.harness().connection(id)->gauge == 30);
  auto* length = w.find<QLineEdit>("wireLength");
  length->selectAll();
  QTest::keyClicks(length, "0.25 m");
  QTest::keyClick(length, Qt::Key_Return);
  CHECK(w.session.document.harness().connection(id)->length->value == Approx(0.25));
  length->selectAll();
  QTest::keyClicks(length, "-1 m");
  QTest::keyClick(length, Qt::Key_Return);
  CHECK(w.session.document.harness().connection(id)->length->value == Approx(0.25));
}

TEST_CASE("Limits says how near everything is, also where nothing is found, and keeps what was opened") {
  Window w;
  w.open("demo/wave-tank.harness");
  auto lines = w.main.findChildren<QAbstractButton*>("marginLine");
  REQUIRE(lines.size() > 10);
  auto* first = lines.front();
  CHECK(first->accessibleName().contains("95 %"));
  CHECK(first->accessibleDescription().contains("absolute"));
  const int closed = first->height();
  QTest::mouseClick(first, Qt::LeftButton);
  CHECK(eventually([&] { return first->height() > closed; }));
  // The same line, still open, after another analysis.
  auto c = w.session.document.harness().connections.front();
  c.colour = "PK";
  w.session.document.apply({"recolour", {harness::Put<harness::Connection>{c, {}}}});
  w.session.document.apply({"t", {harness::SetAmbient{Celsius{31}}}});
  w.settle();
  CHECK(w.main.findChildren<QAbstractButton*>("marginLine").front() == first);
  CHECK(first->height() > closed);
}

TEST_CASE("one badge stands for a cause and what follows from it") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  int badges = 0;
  int causes = 0;
  for (const auto& f : w.session.analyser.analysis().findings) {
    const bool badge = w.picture().badgeOf(QString::fromStdString(f.identity())).has_value();
    badges += badge;
    if (f.severity != checks::Severity::Note && f.explainedBy.empty()) ++causes;
    if (!f.explainedBy.empty()) CHECK_FALSE(badge);
  }
  CHECK(badges == causes);
  CHECK(causes == 15);
}

TEST_CASE("what is opened begins with its limits, and the window fits a small screen") {
  Window w;
  CHECK(w.main.height() + 40 <= 800);
  w.main.rail().setStep(gui::Step::Wiring);
  w.open("demo/wave-tank.harness");
  CHECK(w.main.rail().step() == gui::Step::Limits);
  w.session.file.startEmpty();
  CHECK(w.main.rail().step() == gui::Step::Bench);
}

TEST_CASE("parts are added one after the other, also by clicks, and nothing changes its size for it") {
  Window w;
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  auto* hits = w.find<QListWidget>("partHits");
  search->setFocus();
  double zoom = 0;
  for (const auto* what : {"uno", "usb", "l298n"}) {
    QTest::keyClicks(w.main.focusWidget(), what);
    QTest::mouseClick(hits->viewport(), Qt::LeftButton, {}, hits->visualItemRect(hits->item(0)).center());
    CHECK(w.main.focusWidget() == search);
    if (zoom > 0) CHECK(w.picture().zoom() == Approx(zoom));
    zoom = w.picture().zoom();
  }
  CHECK(w.session.document.harness().devices.size() == 3);
}

TEST_CASE("what is new comes into sight: a bench that is opened is shown from its first card") {
  Window w;
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", readFile("demo/wave-tank-first-try.harness"))));
  w.settle();
  QTest::qWait(60);
  auto* scroll = w.find<QWidget>("findings")->findChild<QScrollArea*>();
  CHECK(scroll->verticalScrollBar()->value() == 0);
  scroll->verticalScrollBar()->setValue(400);
  w.main.openFile(QString::fromStdString(w.folder.write("c.harness", readFile("demo/wave-tank.harness"))));
  w.settle();
  QTest::qWait(60);
  CHECK(scroll->verticalScrollBar()->value() == 0);
}

TEST_CASE("what switches a load is stated in its fields, and a finding about it leads there") {
  Window w;
  openText(w, "part psu adapter-12v-2a Adapter\npart b blower-80mm-12v Blower\nwire psu.P b.P RD\nwire psu.N b.N BK");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("b");
  w.settle();
  auto* switched = w.find<QComboBox>("intentSwitched");
  REQUIRE(switched->isVisible());
  CHECK(switched->currentText() == "as the wires have it");
  const auto choose = [&](harness::Switched to) {
    const int index = switched->findData(static_cast<int>(to));
    REQUIRE(index >= 0);
    switched->setCurrentIndex(index);
    Q_EMIT switched->activated(index);
    w.settle();
  };
  choose(harness::Switched::ByProgram);
  const auto& findings = w.session.analyser.analysis().findings;
  REQUIRE_FALSE(findings.empty());
  CHECK(findings.front().check == "switched-otherwise");
  REQUIRE(findings.front().ways.size() == 1);
  CHECK(findings.front().ways.front().field == checks::Field{"b", "switching"});
  choose(harness::Switched::AlwaysOn);
  CHECK(w.session.analyser.analysis().verdict == Verdict::Clear);
  CHECK(harness::intentOf(w.session.document.harness(), "b")->switched == harness::Switched::AlwaysOn);
  w.session.document.undoStack().undo();
  CHECK(harness::intentOf(w.session.document.harness(), "b")->switched == harness::Switched::ByProgram);
}
