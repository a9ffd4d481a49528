#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QSpinBox>
#include <QTableView>
#include <catch2/catch.hpp>

#include "core/wiring/read_back.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

// In a real window of a window manager: tests/gui/under_xvfb.sh.
TEST_CASE("from an empty bench to a wiring that was looked over and read back, without a mouse", "[xvfb]") {
  Window w;
  w.main.activateWindow();
  REQUIRE(QTest::qWaitForWindowActive(&w.main, 5000));
  const auto focus = [&]() -> QWidget* { return QApplication::focusWidget() ? QApplication::focusWidget() : &w.main; };
  const auto key = [&](Qt::Key k, Qt::KeyboardModifiers m = {}) { QTest::keyClick(focus(), k, m); };
  const auto line = [&](const QString& text) {
    QTest::keyClicks(focus(), text);
    key(Qt::Key_Return);
  };
  const auto bench = [&]() -> const harness::Harness& { return w.session.document.harness(); };
  for (const auto* part : {"uno", "tb6612fng", "12v 2a", "gear25"}) {
    key(Qt::Key_K, Qt::ControlModifier);
    line(part);
  }
  REQUIRE(bench().devices.size() == 4);
  key(Qt::Key_L, Qt::ControlModifier);
  for (const auto* wires : {"d4-d5 s1.ain1-ain2", "d9 s1.pwma", "d7 s1.stby", "5v s1.vcc", "gnd s1.gnd", "v1.p s1.vm", "v1.n u1.gnd-2",
                            "s1.ao1 m1.p", "s1.ao2 m1.n"})
    line(wires);
  const auto wires = std::ranges::count(bench().connections, harness::ConnectionKind::Wire, &harness::Connection::kind);
  CHECK(wires == 10);

  // Looked over: three keys and one to go on.
  key(Qt::Key_R, Qt::ControlModifier);
  for (std::size_t k = 0; k < bench().connections.size(); ++k) {
    for (const auto mark : {Qt::Key_F, Qt::Key_T, Qt::Key_S}) key(mark);
    key(Qt::Key_Return);
  }
  CHECK(w.find<QProgressBar>("wiresLeft")->format().startsWith("all "));

  // Read back by somebody who took D5 for D6.
  key(Qt::Key_B, Qt::ControlModifier);
  line("AB");
  REQUIRE(bench().rounds.size() == 1);
  int slips = 0;
  while (const auto q = wiring::nextQuestion(bench(), w.session.document.library(), bench().rounds.back())) {
    REQUIRE(w.find<QLineEdit>("answer")->hasFocus());
    const auto& c = *bench().connection(q->wire);
    const auto& far = q->fromB ? c.a : c.b;
    const bool slip = far == Address{"u1", "D5"};
    slips += slip;
    line(slip ? QString("u1.d6") : QString::fromStdString(far.text()));
  }
  // The wires at each part are counted.
  for (const auto& id : wiring::countedDevices(bench(), w.session.document.library())) {
    auto* count = w.find<QSpinBox>(("count-" + id).c_str());
    REQUIRE(count);
    REQUIRE(eventually([&] { return count->isVisible(); }));
    count->setFocus();
    count->selectAll();
    QTest::keyClicks(count, QString::number(std::ranges::count_if(bench().connections, [&](const auto& c) {
                       return c.kind == harness::ConnectionKind::Wire && (c.a.device == id || c.b.device == id);
                     })));
  }
  w.find<QPushButton>("takeCounts")->setFocus();
  key(Qt::Key_Space);
  CHECK(w.find<QLabel>("readSummary")->text() == (slips == 0 ? QString("AB read all 10 wires as they are in the list.")
                                                             : QString("AB read 9 of 10 wires as they are in the list.")));
  w.find<QPushButton>("closeReadBack")->setFocus();
  key(Qt::Key_Space);
  CHECK(w.picture().isVisible());
}
