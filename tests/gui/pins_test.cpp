#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <catch2/catch.hpp>

#include "core/harness/intent.h"
#include "core/harness/read_harness.h"
#include "gui/stages/pins_dialog.h"
#include "support/benches.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("signals are placed on pins, each with its reason and why not another; one edit, one undo") {
  Window w;
  auto open = wiredBench(
      "part usb usb-port-0a5\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\npart v adapter-12v-2a Supply\npart s l298n-module "
      "Stage\n"
      "part m brushed-gear25-12v Paddle\nwire s.OUT1 m.P\nwire s.OUT2 m.N\nwire v.+ s.12V\nwire v.- s.GND\nwire s.GND u.GND\nintent m "
      "both");
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(open))));
  w.settle();
  auto* dialog = new gui::PinsDialog(w.session, &w.main);
  dialog->show();
  auto* list = w.find<QTreeWidget>("pinsList");
  REQUIRE(list->topLevelItemCount() == 2);
  CHECK(list->topLevelItem(0)->text(2) == "Board A0");
  CHECK(list->topLevelItem(1)->text(3) == "beside A0");
  auto* others = w.find<QTreeWidget>("pinsOthers");
  CHECK(others->topLevelItemCount() == 19);
  CHECK(others->topLevelItem(0)->text(1) == "is part of the console of the USB port");
  const auto before = harness::writeHarness(w.session.document.harness());
  w.find<QPushButton>("pinsPut")->click();
  w.settle();
  const auto intent = harness::intentOf(w.session.document.harness(), "m");
  REQUIRE(intent);
  CHECK(intent->signals.size() == 2);
  CHECK(w.session.document.harness().openChanges() == 2);
  w.session.document.undoStack().undo();
  CHECK(harness::writeHarness(w.session.document.harness()) == before);
}
