#include <QClipboard>
#include <QGuiApplication>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <catch2/catch.hpp>

#include "gui/panels/verdict_bar.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

bool seen(Window& w) {
  const auto* c = card(w, "flyback-reversed");
  return c && c->isVisible();
}

}  // namespace

TEST_CASE("what is found stays hidden until the faults are named, then both lists stand side by side") {
  Window w;
  action(w, "Hide what is found until it is named")->trigger();
  w.open("demo/wave-tank-first-try.harness");
  auto* verdict = w.find<gui::VerdictBar>("verdict");
  CHECK(verdict->accessibleName().startsWith("Look it over yourself first"));
  const auto& a = w.session.analyser.analysis();
  REQUIRE(a.verdict == Verdict::DoNotSwitchOn);
  CHECK_FALSE(seen(w));
  const auto shown = [&](const QString& text) {
    for (auto* label : w.main.findChildren<QLabel*>())
      if (label->isVisible() && label->text().contains(text)) return true;
    return verdict->accessibleName().contains(text) || verdict->toolTip().contains(text);
  };
  for (const auto& f : a.findings) {
    INFO(f.headline);
    CHECK_FALSE(w.picture().badgeOf(QString::fromStdString(f.identity())));
    CHECK_FALSE(shown(QString::fromStdString(f.headline)));
  }
  // No other road tells it.
  QGuiApplication::clipboard()->setText("nothing");
  action(w, "Copy the report")->trigger();
  CHECK(QGuiApplication::clipboard()->text() == "nothing");
  action(w, "Find on this bench")->trigger();
  w.find<QLineEdit>("findText")->setText("wrong way");
  for (int i = 0; i < w.find<QListWidget>("findHits")->count(); ++i)
    CHECK_FALSE(w.find<QListWidget>("findHits")->item(i)->text().contains("(finding"));
  action(w, "Next matter")->trigger();
  CHECK(w.session.selection.picked().isEmpty());
  // An edit does not either.
  w.session.document.apply({"t", {harness::SetTitle{"x"}}});
  w.settle();
  CHECK_FALSE(seen(w));

  auto* lines = w.find<QPlainTextEdit>("namedFaults");
  REQUIRE(lines->isVisible());
  lines->setPlainText("d1 is backwards\nthe camera has no film\n");
  w.find<QPushButton>("compareFaults")->click();
  const auto told = w.find<QLabel>("namedResult")->text();
  CHECK(told.startsWith("1 of 2 named are found; "));
  CHECK(told.contains("+ d1 is backwards: "));
  CHECK(told.contains("D1 is the wrong way round"));
  CHECK(told.contains("– the camera has no film: nothing of that is found"));
  CHECK(told.contains("! not named: Controller D7 has no PWM"));
  CHECK(verdict->accessibleName().startsWith("Do not switch on"));
  CHECK(seen(w));
  w.find<QPushButton>("closeNamed")->click();
  CHECK(w.find<QWidget>("nameFaults")->isHidden());

  // The next bench is hidden again, until that is no more wanted.
  w.session.document.undoStack().setClean();
  w.open("demo/wave-tank-first-try.harness");
  CHECK_FALSE(seen(w));
  action(w, "Hide what is found until it is named")->trigger();
  CHECK(seen(w));
}
