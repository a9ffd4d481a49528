#include "core/wiring/read_back.h"

#include <QClipboard>
#include <QComboBox>
#include <QGuiApplication>
#include <QLabel>
#include <QLineEdit>
#include <QSpinBox>
#include <QToolTip>
#include <catch2/catch.hpp>

#include "core/harness/names.h"
#include "gui/places/place_view.h"
#include "gui/wiring/read_back_view.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

struct Reading : Window {
  Reading() {
    open("demo/wave-tank.harness");
    action(*this, "Read the wiring back…")->trigger();
  }
  const harness::Harness& bench() { return session.document.harness(); }
  const harness::Round& round() { return bench().rounds.back(); }
  QLineEdit* answer() { return find<QLineEdit>("answer"); }
  void begin(const char* who) {
    find<QLineEdit>("reader")->setText(who);
    find<QPushButton>("startRound")->click();
  }
  wiring::Question question() { return *wiring::nextQuestion(bench(), session.document.library(), round()); }
  Address farEnd() {
    const auto q = question();
    const auto& c = *bench().connection(q.wire);
    return q.fromB ? c.a : c.b;
  }
  void say(const std::string& text) {
    answer()->setText(QString::fromStdString(text));
    QTest::keyClick(answer(), Qt::Key_Return);
  }
};

// Everything of a window that can be read, seen or not yet: texts, tips, what a reader of the screen is told, the clipboard, undo.
QStringList readable(Window& w) {
  QStringList out{w.main.windowTitle(), QGuiApplication::clipboard()->text(), QToolTip::text(), w.session.document.undoStack().undoText(),
                  w.session.document.undoStack().redoText()};
  for (auto* widget : w.main.findChildren<QWidget*>()) {
    if (!widget->isVisible()) continue;
    out << widget->toolTip() << widget->statusTip() << widget->whatsThis() << widget->accessibleName() << widget->accessibleDescription();
    if (const auto* label = qobject_cast<QLabel*>(widget)) out << label->text();
    if (const auto* button = qobject_cast<QAbstractButton*>(widget)) out << button->text();
    if (const auto* line = qobject_cast<QLineEdit*>(widget)) out << line->text() << line->placeholderText();
    if (const auto* box = qobject_cast<QComboBox*>(widget))
      for (int i = 0; i < box->count(); ++i) out << box->itemText(i);
  }
  return out;
}

}  // namespace

TEST_CASE("while the wiring is read back nothing in the window tells where a wire goes") {
  Reading w;
  // What might: a copied report, an undo of a wire, an open dialog, a tip.
  w.find<QPushButton>("leaveReadBack")->click();
  action(w, "Copy the report")->trigger();
  w.session.selection.select("w5");
  w.session.document.apply({"Move a wire to S1 IN1", {harness::SetTitle{"x"}}});
  action(w, "Find pins for signals…")->trigger();
  action(w, "Read the wiring back…")->trigger();
  w.begin("CD");
  CHECK_FALSE(w.picture().isVisible());
  int asked = 0;
  while (wiring::questionsLeft(w.bench(), w.session.document.library(), w.round()) > 0) {
    const auto far = w.farEnd();
    const auto shown = QString::fromStdString(shownEnd(w.bench(), w.session.document.library(), far));
    const auto named = w.find<QLabel>("question")->text();
    CHECK_FALSE(named.isEmpty());
    for (const auto& text : readable(w)) {
      INFO(text.toStdString() << " tells " << shown.toStdString());
      CHECK_FALSE(text.contains(shown));
      CHECK_FALSE(text.contains(QString::fromStdString(far.text())));
    }
    w.say(far.text());
    ++asked;
  }
  CHECK(asked == std::ranges::count(w.bench().connections, harness::ConnectionKind::Wire, &harness::Connection::kind));
  // Keys of the menus do nothing meanwhile.
  QTest::keyClick(&w.main, Qt::Key_Z, Qt::ControlModifier);
  CHECK(w.round().answers.size() == static_cast<std::size_t>(asked));
}

TEST_CASE("whoever reads right agrees, counts included; the round is kept in the bench") {
  Reading w;
  w.begin("CD");
  while (wiring::questionsLeft(w.bench(), w.session.document.library(), w.round()) > 0) w.say(w.farEnd().text());
  CHECK(w.answer()->text().isEmpty());
  CHECK(w.find<QLabel>("understood")->text().isEmpty());
  for (const auto& id : wiring::countedDevices(w.bench(), w.session.document.library())) {
    auto* count = w.find<QSpinBox>(("count-" + id).c_str());
    REQUIRE(count);
    CHECK(count->value() == -1);
    count->setValue(static_cast<int>(std::ranges::count_if(w.bench().connections, [&](const auto& c) {
      return c.kind == harness::ConnectionKind::Wire && (c.a.device == id || c.b.device == id);
    })));
  }
  w.find<QPushButton>("takeCounts")->click();
  CHECK(w.find<QLabel>("readSummary")->text() == "CD read all 39 wires as they are in the list.");
  CHECK(w.find<QLabel>("asRead")->isHidden());
  CHECK(w.round().reader == "CD");
  CHECK(w.round().answers.size() == 39);
  w.find<QPushButton>("closeReadBack")->click();
  CHECK(w.picture().isVisible());
  CHECK(w.session.analyser.analysis().verdict == Verdict::Clear);
  w.session.selection.select("w4");
  CHECK(w.find<QLabel>("wireExpected")->text().endsWith("read back by CD"));
}

TEST_CASE("a slip is told when all is read, with what would happen; the wire is one click away") {
  Reading w;
  w.begin("CD");
  const std::string slipped = "w5";
  while (wiring::questionsLeft(w.bench(), w.session.document.library(), w.round()) > 0) {
    const bool slip = w.question().wire == slipped;
    w.say(slip ? "psu p" : w.farEnd().text());
    if (slip) CHECK(w.find<QLabel>("understood")->text().isEmpty());  // nothing about right or wrong
  }
  w.find<QPushButton>("skipCounts")->click();
  CHECK(w.find<QLabel>("readSummary")->text() == "CD read 38 of 39 wires as they are in the list. Not whole: 16 parts not counted.");
  REQUIRE(eventually([&] { return w.find<QLabel>("asRead")->text().startsWith("As read: do not switch on"); }));
  auto* show = w.find<QPushButton>(("show-" + slipped).c_str());
  REQUIRE(show);
  show->click();
  CHECK(w.session.selection.subject().toStdString() == slipped);
  CHECK(w.picture().isVisible());
}

TEST_CASE("an answer is typed in any numbering, picked on a drawing, or none; what is not understood is asked again") {
  Reading w;
  w.begin("");
  const auto first = w.question().wire;
  w.say("somewhere");
  CHECK(w.find<QLabel>("understood")->text().startsWith("\"somewhere\" is no terminal on this bench"));
  w.say("");
  CHECK(w.find<QLabel>("understood")->text() == "Type where it goes, or say that it goes nowhere.");
  CHECK(w.question().wire == first);
  // On the drawing of the controller.
  auto* parts = w.find<QComboBox>("answerPart");
  parts->setCurrentIndex(parts->findData("uno"));
  auto* place = w.find<gui::PlaceView>("answerPlace");
  REQUIRE(place->isVisible());
  const auto part = library().find("board-uno-atmega328p");
  const int d8 = part->indexOf("D8");
  QTest::qWait(20);
  const auto at = place->placeOf(d8);
  REQUIRE(at);
  QTest::mouseClick(place, Qt::LeftButton, {}, at->toPoint());
  CHECK(w.answer()->text() == "uno.D8");
  CHECK(w.find<QLabel>("understood")->text().startsWith("Understood as Controller D8: digital 13-8, right"));
  w.find<QPushButton>("takeAnswer")->click();
  CHECK(w.round().answers.back().means == Address{"uno", "D8"});
  w.find<QPushButton>("noEnd")->click();
  CHECK_FALSE(w.round().answers.back().means);
  // Stopped, and gone on with by another round of another person, each by itself.
  w.find<QPushButton>("stopRound")->click();
  w.find<QPushButton>("otherRounds")->click();
  CHECK(w.find<QLabel>("rounds")->text().startsWith("somebody, "));
  CHECK(w.find<QPushButton>("goOnRound")->isVisible());
  w.begin("EF");
  CHECK(w.bench().rounds.size() == 2);
  CHECK(w.round().answers.empty());
}

TEST_CASE("a bench without wires has nothing to read back, and says so") {
  Window w;
  action(w, "Read the wiring back…")->trigger();
  CHECK(w.find<QLabel>("rounds")->text() == "There is no wire on this bench that could be read back.");
  CHECK_FALSE(w.find<QPushButton>("startRound")->isEnabled());
  w.find<QPushButton>("leaveReadBack")->click();
  CHECK(w.picture().isVisible());
}
