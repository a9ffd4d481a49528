#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <catch2/catch.hpp>
#include <map>

#include "core/harness/intent.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("a limit switch is wired, its pull said and its pin stated in its own fields, as a motor's") {
  Window w;
  auto h = good("limit-switch");
  std::erase_if(h.assignments, [](const auto& a) { return a.motor == "e1"; });
  std::erase_if(h.goals, [](const auto& g) { return g.motor == "e1"; });
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(h))));
  w.settle();
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("e1");
  auto* read = w.find<QLineEdit>("signal-NC");
  REQUIRE(read);
  CHECK(read->placeholderText() == "Controller IO34, as it is wired");
  CHECK_FALSE(w.find<QCheckBox>("intentBoth")->isVisible());  // what is asked of motors
  QTest::mouseClick(w.find<QPushButton>("stateAsWired"), Qt::LeftButton);
  w.settle();
  CHECK(w.find<QLineEdit>("signal-NC")->text() == "Controller IO34");
  CHECK(w.session.analyser.analysis().findings.empty());
  // The program reads another pin: said at once.
  auto* pin = w.find<QLineEdit>("signal-NC");
  pin->setFocus();
  pin->selectAll();
  QTest::keyClicks(pin, "io35");
  QTest::keyClick(pin, Qt::Key_Return);
  w.settle();
  REQUIRE(w.session.analyser.analysis().findings.size() == 1);
  CHECK(w.session.analyser.analysis().findings.front().check == "sensor-pin");
}

TEST_CASE("a relay's coil is asked for nothing that turns") {
  Window w;
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(good("relay-bare")))));
  w.settle();
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("k1");
  for (const auto* box : {"intentBoth", "intentHold", "intentRamp", "intentTogether"}) {
    CAPTURE(box);
    CHECK_FALSE(w.find<QCheckBox>(box)->isVisible());
  }
  CHECK_FALSE(w.find<QComboBox>("intentForward")->isVisible());
  REQUIRE(w.find<QLineEdit>("signal-in"));
  CHECK(w.find<QLineEdit>("signal-in")->placeholderText() == "Controller D7, as it is wired");
}

TEST_CASE("from an empty bench: a valve, its MOSFET and a button, by the words and wires that a newcomer types") {
  Window w;
  w.settle();
  const auto add = [&](const QString& words) {
    w.main.rail().setStep(gui::Step::Bench);
    auto* search = w.find<QLineEdit>("partSearch");
    search->setFocus();
    search->clear();
    QTest::keyClicks(search, words);
    QTest::keyClick(search, Qt::Key_Return);
    w.settle();
  };
  const auto wire = [&](const QString& text) {
    w.main.rail().setStep(gui::Step::Wiring);
    auto* entry = w.find<QLineEdit>("wireEntry");
    entry->clear();
    QTest::keyClicks(entry, text);
    QTest::keyClick(entry, Qt::Key_Return);
    w.settle();
    INFO(text.toStdString());
    CHECK(entry->text().isEmpty());  // taken
  };
  for (const auto* words : {"usb port", "uno", "12 V 2 A adapter", "valve", "mosfet module d4184", "button", "1n5819"}) add(words);
  std::vector<std::string> parts;
  std::map<std::string, QString> id;
  for (const auto& d : w.session.document.harness().devices) {
    parts.push_back(d.part);
    id[d.part] = QString::fromStdString(d.id);
  }
  REQUIRE(parts == std::vector<std::string>{"usb-port-0a5", "board-uno-atmega328p", "adapter-12v-2a", "valve-12v", "mosfet-module-d4184",
                                            "button-4leg", "diode-1n5819"});
  const auto uno = id["board-uno-atmega328p"], psu = id["adapter-12v-2a"], valve = id["valve-12v"], s = id["mosfet-module-d4184"],
             k = id["button-4leg"], d = id["diode-1n5819"];
  wire(id["usb-port-0a5"] + " " + uno);
  wire(psu + ".+ " + s + ".VIN");
  wire(psu + ".- " + s + ".GND-P");
  wire(uno + ".GND " + s + ".GND");
  wire(uno + ".D5 " + s + ".SIG");
  wire(s + ".V+ " + valve + ".P");
  wire(s + ".V- " + valve + ".N");
  wire(d + ".K " + valve + ".P");
  wire(d + ".A " + valve + ".N");
  wire(uno + ".D2 " + k + ".1");
  wire(k + ".2 " + uno + ".GND");
  // What is open to be said: which pins the program uses, and what holds the button's.
  CHECK(w.session.analyser.analysis().findings.size() == 1);
  CHECK(w.session.analyser.analysis().findings.front().check == "sensor-level");
  w.session.selection.select({});
  QTest::keyClick(&w.main, Qt::Key_U, Qt::ControlModifier);
  w.settle();
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select(k);
  auto* pull = w.find<QComboBox>("setting-pull");
  REQUIRE(pull);
  pull->setFocus();
  QTest::keyClick(pull, Qt::Key_Down);  // unsaid -> up
  w.settle();
  CHECK(pull->currentText() == "up");
  const auto& a = w.session.analyser.analysis();
  CHECK(a.findings.empty());
  CHECK(a.unstated.empty());
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Clear to switch on"));
  CHECK(harness::intentOf(w.session.document.harness(), k.toStdString())->signals.size() == 1);
}
