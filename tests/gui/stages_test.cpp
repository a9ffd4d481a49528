#include <QAction>
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>
#include <QTableWidget>
#include <catch2/catch.hpp>

#include "core/harness/intent.h"
#include "core/harness/read_harness.h"
#include "gui/stages/drawer.h"
#include "support/benches.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

// Every stage was tried, and what would let the others in was asked.
bool allTried(const QLabel& said) {
  return said.text().contains("best first") || said.text().startsWith("No stage of the library fits");
}

harness::Harness carriage() {
  return wiredBench(
      "part usb usb-port-0a5\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-2a Adapter\n"
      "part m brushed-gear25-12v Sand carriage\nintent m both speed ramp");
}

void openCarriage(Window& w) {
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(carriage()))));
  w.settle();
}

// All tried, and what would let them in too.
QListView* openStages(Window& w) {
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("m");
  w.find<QPushButton>("chooseStage")->click();
  auto* said = w.find<QLabel>("stagesSaid");
  REQUIRE(eventually([&] { return allTried(*said); }));
  return w.find<QListView>("stagesList");
}

QString spoken(const QListView& list, int row) {
  return list.model()->index(row, 0).data(Qt::AccessibleTextRole).toString();
}

bool pick(QListView& list, const QString& name) {
  for (int k = 0; k < list.model()->rowCount(); ++k)
    if (list.model()->index(k, 0).data().toString() == name) {
      list.setCurrentIndex(list.model()->index(k, 0));
      return true;
    }
  return false;
}

}  // namespace

TEST_CASE("stages are tried for a motor, best first, with what is against each; one is put on the plan with every wire, as one undo") {
  Window w;
  openCarriage(w);
  auto* list = openStages(w);
  REQUIRE(list);
  CHECK(w.main.rail().step() == gui::Step::Stages);
  REQUIRE(list->model()->rowCount() > 40);
  // Clear ones first, then those to look at again, then those that must not be switched on, then those that cannot be put there.
  const QStringList order{"fits;", "fits, with cautions;", "does not fit;"};
  qsizetype rank = 0;
  for (int k = 0; k < list->model()->rowCount(); ++k) {
    qsizetype now = order.size();
    for (qsizetype i = 0; i < order.size(); ++i)
      if (spoken(*list, k).contains("; " + order[i])) now = i;
    CHECK(now >= rank);
    rank = now;
  }
  CHECK(rank == 3);
  REQUIRE(pick(*list, "Bridge board DRV8833"));
  CHECK(w.find<QLabel>("stagesWhy")->text().contains("its absolute maximum is 11.8 V"));
  CHECK(w.find<QLabel>("stagesWhy")->text().contains("Fits with a supply of 11.2 V (11.8 V full) or less, such as Adapter 9 V 1 A."));
  REQUIRE(pick(*list, "Bridge module L298N"));
  CHECK(w.find<QLabel>("stagesWhy")->text() == "Nothing is said against it.");
  CHECK(w.find<QLabel>("stagesGets")->text().contains("% of its speed"));
  CHECK(spoken(*list, list->currentIndex().row()).contains("stalled "));
  const auto before = harness::writeHarness(w.session.document.harness());
  QTest::keyClick(list, Qt::Key_Return);
  w.settle();
  CHECK(w.main.rail().step() == gui::Step::Wiring);
  const auto& h = w.session.document.harness();
  REQUIRE(h.device("s1"));
  CHECK(h.device("s1")->part == "l298n-module");
  CHECK(harness::intentOf(h, "m")->stage == "s1");
  REQUIRE(w.session.analyser.analysis().planned);
  CHECK(w.session.analyser.analysis().planned->verdict == Verdict::Clear);
  w.session.document.undoStack().undo();
  CHECK(harness::writeHarness(w.session.document.harness()) == before);
}

TEST_CASE("stages are filtered, compared and shown in the loom; nothing of that changes the bench") {
  Window w;
  openCarriage(w);
  auto* list = openStages(w);
  const int all = list->model()->rowCount();
  const auto filter = [&](int k) {
    auto* b = w.find<QPushButton>(("stagesFilter" + std::to_string(k)).c_str());
    QTest::mouseClick(b, Qt::LeftButton);
    return b->text();
  };
  const auto text = filter(2);
  const int fits = list->model()->rowCount();
  CHECK(text == QString("fits %1").arg(fits));
  CHECK(fits > 5);
  CHECK(fits < all);
  for (int k = 0; k < fits; ++k) CHECK_FALSE(spoken(*list, k).contains("does not fit"));
  auto* kind = w.find<QComboBox>("stagesKind");
  kind->setCurrentIndex(kind->findText("Step/dir"));
  Q_EMIT kind->activated(kind->currentIndex());
  CHECK(list->model()->rowCount() == 0);  // two leads
  kind->setCurrentIndex(0);
  Q_EMIT kind->activated(0);
  filter(0);
  // Space puts one on top, whatever else comes; again takes it down.
  REQUIRE(pick(*list, "Bridge board TB6612FNG"));
  QTest::keyClick(list, Qt::Key_Space);
  CHECK(list->model()->index(0, 0).data().toString() == "Bridge board TB6612FNG");
  CHECK(list->currentIndex().row() == 0);
  QTest::keyClick(list, Qt::Key_Down);
  CHECK(w.find<QWidget>("areaChart")->accessibleDescription().count("for long") == 2);  // it is compared
  QTest::keyClick(list, Qt::Key_Up);
  QTest::keyClick(list, Qt::Key_Space);
  CHECK(list->model()->index(0, 0).data().toString() != "Bridge board TB6612FNG");

  const auto before = w.session.document.harness();
  CHECK_FALSE(w.main.findChild<gui::PictureView*>("pictureView")->isHidden());
  REQUIRE(pick(*list, "Bridge module L298N"));
  CHECK_FALSE(w.picture().pictureLayout().box("s1"));
  w.find<QPushButton>("stagesLoom")->click();
  CHECK(w.picture().pictureLayout().box("s1"));
  QTest::mouseClick(&w.picture(), Qt::LeftButton, {}, w.picture().placeOf("s1.IN1").value_or(QPointF()).toPoint());
  QTest::keyClick(&w.picture(), Qt::Key_Return);
  CHECK(w.session.document.harness() == before);  // no wire begins on what is only shown
  w.main.rail().setStep(gui::Step::Limits);
  CHECK_FALSE(w.picture().pictureLayout().box("s1"));
  w.main.rail().setStep(gui::Step::Stages);
  w.find<QPushButton>("stagesLoom")->click();
  CHECK_FALSE(w.picture().pictureLayout().box("s1"));
}

TEST_CASE("what lies in the drawer is kept, filters the stages, and says what has to be bought") {
  TemporaryFolder data;
  const auto home = qgetenv("XDG_DATA_HOME");
  qputenv("XDG_DATA_HOME", QByteArray::fromStdString(data.path()));
  {
    Window w;
    openCarriage(w);
    auto* list = openStages(w);
    w.find<QPushButton>("stagesDrawer")->click();
    auto* table = w.find<QTableWidget>("drawerTable");
    REQUIRE(table);
    w.find<QLineEdit>("drawerFilter")->setText("l298n-module");
    REQUIRE(table->rowCount() >= 1);
    table->item(0, 1)->setText("many");
    CHECK(w.find<QLabel>("drawerSaid")->text() == "\"many\" is no count: a whole number from 0 on is. What was there stays.");
    CHECK(table->item(0, 1)->text().isEmpty());
    table->item(0, 1)->setText("2");
    CHECK(w.find<QLabel>("drawerSaid")->text().isEmpty());
    QTest::mouseClick(w.find<QPushButton>("stagesFilter1"), Qt::LeftButton);
    REQUIRE(list->model()->rowCount() == 2);  // alone, and both channels joined
    CHECK(list->model()->index(0, 0).data().toString() == "Bridge module L298N");
    CHECK(w.find<QLabel>("stagesComes")->text().contains("To buy: 1 × Resistor 10 kΩ"));
    w.find<QSpinBox>("stagesBenches")->setValue(3);
    CHECK(list->model()->rowCount() == 0);
    w.find<QSpinBox>("stagesBenches")->setValue(2);
    CHECK(w.find<QLabel>("stagesComes")->text().contains("To buy: 2 × Resistor 10 kΩ"));
  }
  const gui::Drawer again(library());  // another run
  CHECK(again.stock() == choose::Stock{{"l298n-module", 2}});
  qputenv("XDG_DATA_HOME", home);
}

// Controller, two motors and a supply by typing; what each motor shall do; a dual bridge for the first, its other channel for the second.
TEST_CASE("from an empty bench: a dual bridge with two motors, both ways by speed, in fewer than thirty inputs") {
  Window w;
  w.settle();
  int inputs = 0;
  w.main.rail().setStep(gui::Step::Bench);
  auto* search = w.find<QLineEdit>("partSearch");
  search->setFocus();
  for (const QString part : {"uno", "25", "25", "12v 2a"}) {
    QTest::keyClicks(search, part);
    QTest::keyClick(search, Qt::Key_Return);
    inputs += static_cast<int>(part.size()) + 1;
    w.settle();
  }
  const auto& h = w.session.document.harness();
  REQUIRE(h.devices.size() == 4);
  auto* said = w.find<QLabel>("stagesSaid");
  auto* list = w.find<QListView>("stagesList");
  bool filtered = false;
  for (const auto* motor : {"m1", "m2"}) {
    w.main.rail().setStep(gui::Step::Bench);
    w.session.selection.select(motor);
    for (const char* box : {"intentBoth", "intentSpeed"}) {
      REQUIRE(w.find<QCheckBox>(box));
      w.find<QCheckBox>(box)->click();
    }
    for (auto* a : w.main.findChildren<QAction*>())
      if (a->shortcut() == QKeySequence("Ctrl+G")) a->trigger();
    REQUIRE(eventually([&] { return allTried(*said); }));
    if (!std::exchange(filtered, true)) {
      QTest::mouseClick(w.find<QPushButton>("stagesFilter4"), Qt::LeftButton);  // leaves a channel
      ++inputs;
    }
    QTest::keyClick(list, Qt::Key_Return);
    inputs += 5;  // the motor, two boxes, Ctrl+G, Enter
    w.settle();
    if (std::string(motor) == "m1") QTest::mouseClick(w.find<QPushButton>("stagesFilter0"), Qt::LeftButton), ++inputs;
  }
  const auto one = harness::intentOf(h, "m1");
  const auto other = harness::intentOf(h, "m2");
  REQUIRE(one);
  REQUIRE(other);
  CHECK(one->stage == other->stage);
  CHECK(one->channel != other->channel);
  CHECK(one->signals.size() + other->signals.size() >= 4);
  REQUIRE(w.session.analyser.analysis().planned);
  CHECK(w.session.analyser.analysis().planned->judged.findings().size() < 10);
  CHECK(inputs < 30);
}

TEST_CASE("a stage goes onto the plan with what lets it in, as one undo; the list follows the bench") {
  Window w;
  w.main.openFile(QString::fromStdString(w.folder.write(
      "b.harness",
      harness::writeHarness(wiredBench(
          "part usb usb-port-0a5\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-5a Adapter\n"
          "part m brushed-gear37-12v Wave paddle\npart n brushed-gear25-12v Sand carriage\nintent m both speed\nintent n both")))));
  w.settle();
  auto* list = openStages(w);
  auto* changed = w.find<QPushButton>("stagesPutChanged");
  REQUIRE(pick(*list, "Bridge carrier VNH5019"));
  CHECK(changed->isHidden());
  REQUIRE(pick(*list, "Bridge module L298N"));
  (void)eventually([&] { return !changed->isHidden(); });
  CHECK(changed->text() == "Put it on, with a gentle start");
  const auto before = harness::writeHarness(w.session.document.harness());
  changed->click();
  CHECK(harness::intentOf(w.session.document.harness(), "m")->ramp);
  CHECK(harness::intentOf(w.session.document.harness(), "m")->stage == "s1");
  // The other motor: the module that is planned now has a channel free.
  w.session.selection.select("n");
  w.main.rail().setStep(gui::Step::Stages);
  CHECK(w.find<QComboBox>("stagesMotor")->currentData().toString() == "n");
  auto* said = w.find<QLabel>("stagesSaid");
  REQUIRE(eventually([&] { return allTried(*said); }));
  CHECK(pick(*list, "s1, on the bench"));
  w.session.document.undoStack().undo();
  CHECK(harness::writeHarness(w.session.document.harness()) == before);
  REQUIRE(eventually([&] { return allTried(*said); }));
  CHECK_FALSE(pick(*list, "s1, on the bench"));
  // No motor any more, while it is being tried.
  auto h = w.session.document.harness();
  harness::Edit empty;
  for (const auto* id : {"m", "n"}) empty.changes.emplace_back(harness::Drop<harness::Device>{id});
  w.session.document.apply(empty);
  CHECK(said->text() == "There is no motor on this bench. Ctrl+K adds one.");
  CHECK(list->model()->rowCount() == 0);
  CHECK_FALSE(w.find<QPushButton>("stagesPut")->isEnabled());
}

TEST_CASE("sums stand beside the bench: fields filled in, a word beside what cannot be used, one click uses what comes out") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.session.selection.select("pump");
  for (auto* a : w.main.findChildren<QAction*>())
    if (a->shortcut() == QKeySequence("Ctrl+M")) a->trigger();
  auto* list = w.find<QListWidget>("sumsList");
  REQUIRE(list);
  QStringList titles;
  for (int k = 0; k < list->count(); ++k) titles << list->item(k)->text();
  CHECK(titles.contains("Gate resistor"));
  CHECK_FALSE(titles.contains("Pulses for an angle"));
  list->setCurrentRow(static_cast<int>(titles.indexOf("Duty in the scale of a program")));
  auto* duty = w.find<QLineEdit>("sum-duty");
  REQUIRE(duty);
  duty->setText("half");
  CHECK_FALSE(w.find<QLabel>("sumWord-duty")->text().isEmpty());
  CHECK(w.find<QPushButton>("sumsUse")->isHidden());
  duty->setText("80");
  CHECK(w.find<QLabel>("sumWord-duty")->text().isEmpty());
  CHECK(w.find<QLabel>("sumsText")->text().startsWith("80 of 100, 204 of 255"));
  CHECK(w.find<QLabel>("sumsFormula")->text().startsWith("80 / 100 x 255 = 204"));
  w.find<QPushButton>("sumsUse")->click();
  w.settle();
  CHECK(harness::intentOf(w.session.document.harness(), "pump")->dutyCap == 0.8);
  CHECK(w.find<QListWidget>("sumsList")->currentItem()->text() == "Duty in the scale of a program");  // it stays where it was
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
  for (auto* a : w.main.findChildren<QAction*>())
    if (a->shortcut() == QKeySequence("Ctrl+G")) a->trigger();
  ++inputs;
  auto* said = w.find<QLabel>("stagesSaid");
  REQUIRE(eventually([&] { return allTried(*said); }));
  press(w.find<QListView>("stagesList"), Qt::Key_Return);
  w.settle();
  CHECK(harness::intentOf(h, motor)->signals.size() >= 1);
  int wires = 0;
  for (const auto& c : h.connections) wires += c.kind == harness::ConnectionKind::Wire;
  CHECK(wires >= 6);
  CHECK(inputs < 30);
}
