#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTreeWidget>
#include <catch2/catch.hpp>

#include "core/harness/intent.h"
#include "core/harness/mark_done.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

harness::Harness carriage() {
  return wiredBench(
      "part usb usb-port-0a5\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-2a Adapter\n"
      "part m brushed-gear25-12v Sand carriage\nintent m both speed ramp");
}

// All tried.
QTreeWidget* openStages(Window& w) {
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("m");
  w.find<QPushButton>("chooseStage")->click();
  auto* said = w.find<QLabel>("stagesSaid");
  for (int k = 0; k < 500 && !said->text().contains("can drive it"); ++k) QTest::qWait(10);
  return w.find<QTreeWidget>("stagesList");
}

}  // namespace

TEST_CASE("stages are tried for a motor, best first, with what is against each; one is put on the plan with every wire, as one undo") {
  Window w;
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(carriage()))));
  w.settle();
  auto* list = openStages(w);
  REQUIRE(list);
  REQUIRE(list->topLevelItemCount() > 40);
  // Clear ones first, then those to look at again, then those that must not be switched on, then those that cannot be put there.
  const QStringList order{"Clear to switch on", "Look again", "Do not switch on", "cannot"};
  qsizetype rank = 0;
  for (int k = 0; k < list->topLevelItemCount(); ++k) {
    const auto now = order.indexOf(list->topLevelItem(k)->text(1));
    CHECK(now >= rank);
    rank = now;
  }
  CHECK(rank == 3);
  for (int k = 0; k < list->topLevelItemCount(); ++k)
    if (list->topLevelItem(k)->text(0) == "Bridge board DRV8833") {
      list->setCurrentItem(list->topLevelItem(k));
      CHECK(w.find<QLabel>("stagesWhy")->text().contains("its absolute maximum is 11.8 V"));
    }
  for (int k = 0; k < list->topLevelItemCount(); ++k)
    if (list->topLevelItem(k)->text(0) == "Bridge module L298N") list->setCurrentItem(list->topLevelItem(k));
  CHECK(w.find<QLabel>("stagesWhy")->text() == "Nothing is said against it.");
  const auto before = harness::writeHarness(w.session.document.harness());
  QTest::keyClick(list, Qt::Key_Return);
  w.settle();
  const auto& h = w.session.document.harness();
  REQUIRE(h.device("s1"));
  CHECK(h.device("s1")->part == "l298n-module");
  CHECK(harness::intentOf(h, "m")->stage == "s1");
  REQUIRE(w.session.analyser.analysis().planned);
  CHECK(w.session.analyser.analysis().planned->verdict == Verdict::Clear);
  w.session.document.undoStack().undo();
  CHECK(harness::writeHarness(w.session.document.harness()) == before);
}

TEST_CASE("from an empty bench: controller, motor, supply, a stage, and every wire is there") {
  Window w;
  w.settle();
  int inputs = 0;
  const auto type = [&](QWidget* into, const QString& text) {
    QTest::keyClicks(into, text);
    inputs += static_cast<int>(text.size());
  };
  const auto press = [&](QWidget* into, Qt::Key key) {
    QTest::keyClick(into, key);
    ++inputs;
  };
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  search->setFocus();
  for (const auto* part : {"uno", "gear25", "12v 2a"}) {
    search->clear();
    type(search, part);
    press(search, Qt::Key_Return);
    w.settle();
  }
  const auto& h = w.session.document.harness();
  REQUIRE(h.devices.size() == 3);
  std::string motor;
  for (const auto& d : h.devices)
    if (d.part == "brushed-gear25-12v") motor = d.id;
  REQUIRE_FALSE(motor.empty());
  w.session.selection.select(QString::fromStdString(motor));
  w.find<QPushButton>("chooseStage")->click();
  inputs += 2;  // the motor, the button
  auto* said = w.find<QLabel>("stagesSaid");
  for (int k = 0; k < 500 && !said->text().contains("can drive it"); ++k) QTest::qWait(10);
  press(w.find<QTreeWidget>("stagesList"), Qt::Key_Return);
  w.settle();
  CHECK(harness::intentOf(h, motor)->signals.size() >= 1);
  int wires = 0;
  for (const auto& c : h.connections) wires += c.kind == harness::ConnectionKind::Wire;
  CHECK(wires >= 6);
  CHECK(inputs < 30);
}
