#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <catch2/catch.hpp>

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
