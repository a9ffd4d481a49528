#include "gui/wiring/look_over.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QTableView>
#include <catch2/catch.hpp>

#include "core/harness/marks.h"
#include "gui/wiring/connection_model.h"
#include "gui/wiring/wiring_panel.h"
#include "window.h"

using namespace bold;
using namespace bold::test;
using gui::WiringPanel;

namespace {

struct Looking : Window {
  Looking() {
    open("demo/wave-tank.harness");
    action(*this, "Look the wires over")->trigger();
    find<QLineEdit>("initials")->setText("AB");
  }
  QTableView* table() { return find<QTableView>("wireTable"); }
  const harness::Harness& bench() { return session.document.harness(); }
  std::string picked() { return session.selection.subject().toStdString(); }
  harness::Marks marks(const std::string& id) { return marksOf(bench(), session.document.library(), *bench().connection(id)); }
  void key(Qt::Key k) { QTest::keyClick(QApplication::focusWidget(), k); }
};

}  // namespace

TEST_CASE("the wires are gone through by single keys, and the list says what is left") {
  Looking w;
  CHECK(w.main.rail().step() == gui::Step::Wiring);
  REQUIRE(w.table()->hasFocus());
  const int all = static_cast<int>(w.bench().connections.size());
  CHECK(w.picked() == w.bench().connections[0].id);  // the first one, at once
  for (const auto k : {Qt::Key_F, Qt::Key_T, Qt::Key_S}) w.key(k);
  CHECK(w.marks(w.bench().connections[0].id).complete());
  CHECK(w.marks(w.bench().connections[0].id).seen->by == "AB");
  CHECK(w.marks(w.bench().connections[0].id).seen->at.size() == 16);
  CHECK(w.find<QProgressBar>("wiresLeft")->value() == 1);
  w.key(Qt::Key_Return);
  CHECK(w.picked() == w.bench().connections[1].id);
  w.key(Qt::Key_F);
  w.key(Qt::Key_F);  // off again
  CHECK_FALSE(w.marks(w.bench().connections[1].id).fitted);
  // All the others, each three keys and one to go on.
  for (int k = 1; k < all; ++k) {
    for (const auto mark : {Qt::Key_F, Qt::Key_T, Qt::Key_S}) w.key(mark);
    w.key(Qt::Key_Return);
  }
  CHECK(w.find<QProgressBar>("wiresLeft")->format() == QString("all %1 looked over").arg(all));
  // None of it is judged anew, all of it is undone one by one.
  w.settle();
  CHECK(w.session.analyser.analysis().verdict == Verdict::Clear);
  w.session.document.undoStack().undo();
  CHECK(w.find<QProgressBar>("wiresLeft")->format() == QString("1 of %1 left").arg(all));
}

TEST_CASE("a wire that goes elsewhere is told by its end, judged as it was found, and is put right or taken over") {
  Looking w;
  w.session.selection.select("w5");
  w.table()->setFocus();
  w.key(Qt::Key_X);
  auto* found = w.find<QLineEdit>("foundInstead");
  REQUIRE(found->hasFocus());
  QTest::keyClicks(found, "psu.P");  // letters are letters here
  CHECK_FALSE(w.marks("w5").fitted);
  w.key(Qt::Key_Return);
  CHECK_FALSE(w.marks("w5").wrong);
  CHECK(w.find<QLabel>("asFound")->text() == "Which end goes to 12 V adapter +? Write both, such as s1.IN1 psu.P.");
  QTest::keyClicks(found, " s1.in1");
  w.key(Qt::Key_Return);
  REQUIRE(w.marks("w5").wrong);
  CHECK((*w.marks("w5").wrong->found)[0] == Address{"psu", "P"});
  w.settle();
  CHECK(w.session.analyser.analysis().verdict == Verdict::NotJudged);
  auto* judged = w.find<QLabel>("asFound");
  REQUIRE(eventually([&] { return judged->text().contains("do not switch on"); }));
  CHECK(judged->text().startsWith("Found: 12 V adapter + – S1 IN1."));
  // The bench is right: the list says so now, and the verdict follows.
  w.find<QPushButton>("benchIsRight")->click();
  CHECK(w.bench().connection("w5")->a == Address{"psu", "P"});
  CHECK(w.marks("w5").seen);
  w.settle();
  CHECK(w.session.analyser.analysis().verdict == Verdict::DoNotSwitchOn);
  w.session.document.undoStack().undo();
  // It is put right.
  w.session.selection.select("w5");
  w.find<QPushButton>("putRight")->click();
  CHECK(w.marks("w5").fitted);
  w.settle();
  CHECK(w.session.analyser.analysis().verdict == Verdict::Clear);
}

TEST_CASE("the list is filtered and grouped; what is marked stays until one goes on") {
  Looking w;
  auto* filter = w.find<QLineEdit>("wireFilter");
  filter->setFocus();
  QTest::keyClicks(filter, "sluice motor");
  const auto* rows = w.main.findChild<gui::ConnectionModel*>();
  const auto shown = [&] {
    std::vector<std::string> out;
    for (const auto& r : rows->rows()) out.push_back(r.title.empty() ? r.wire.id : r.title);
    return out;
  };
  w.session.selection.select("w16");
  QTest::keyClick(filter, Qt::Key_Return);
  CHECK(shown() == std::vector<std::string>{"w16", "w17"});
  filter->setText("sluice motor open");
  for (const auto k : {Qt::Key_F, Qt::Key_T, Qt::Key_S}) QTest::keyClick(w.table(), k);
  CHECK(shown() == std::vector<std::string>{"w16", "w17"});  // still there
  QTest::keyClick(w.table(), Qt::Key_Return);
  CHECK(w.picked() == "w17");
  auto* grouping = w.find<QComboBox>("wireGrouping");
  grouping->setCurrentIndex(grouping->findText("by stage"));
  Q_EMIT grouping->activated(grouping->currentIndex());
  CHECK(shown() == std::vector<std::string>{"S1", "w17"});
}

TEST_CASE("a wire that is on the bench and not in the list is entered without leaving the list") {
  Looking w;
  auto* entry = w.find<QLineEdit>("wireEntry");
  CHECK(entry->isHidden());
  w.find<QPushButton>("wireFound")->click();
  REQUIRE(entry->hasFocus());
  const auto before = w.bench().connections.size();
  QTest::keyClicks(entry, "d2 s1.in1");
  QTest::keyClick(entry, Qt::Key_Return);
  CHECK(w.bench().connections.size() == before + 1);
  CHECK(entry->isHidden());
  CHECK(w.table()->hasFocus());
  CHECK(w.picked() == w.bench().connections.back().id);
  CHECK(w.marks(w.picked()).seen);
  w.settle();
  CHECK(w.session.analyser.analysis().verdict == Verdict::DoNotSwitchOn);  // two pins on one input
}

TEST_CASE("colour and gauge are set for all that are picked, as one edit") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Wiring);
  auto* table = w.find<QTableView>("wireTable");
  table->selectRow(3);
  table->selectionModel()->select(table->model()->index(5, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
  table->selectionModel()->select(table->model()->index(6, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
  auto* gauge = w.find<QComboBox>("wireGauge");
  gauge->setCurrentIndex(gauge->findData(18));
  Q_EMIT gauge->activated(gauge->currentIndex());
  int thick = 0;
  for (const auto& c : w.session.document.harness().connections) thick += c.gauge == 18;
  CHECK(thick == 3);
  w.session.document.undoStack().undo();
  thick = 0;
  for (const auto& c : w.session.document.harness().connections) thick += c.gauge == 18;
  CHECK(thick == 0);
}
