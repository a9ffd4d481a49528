#include <QAbstractScrollArea>
#include <QAccessible>
#include <QApplication>
#include <QButtonGroup>
#include <QTableView>
#include <catch2/catch.hpp>
#include <set>

#include "core/harness/names.h"
#include "gui/panels/verdict_bar.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

// What a screen reader speaks of by name.
bool spoken(QAccessible::Role role) {
  switch (role) {
    case QAccessible::Button:
    case QAccessible::CheckBox:
    case QAccessible::RadioButton:
    case QAccessible::ComboBox:
    case QAccessible::EditableText:
    case QAccessible::Table:
    case QAccessible::List:
    case QAccessible::Tree:
    case QAccessible::Slider:
    case QAccessible::SpinBox:
    case QAccessible::MenuItem:
    case QAccessible::PageTab:
      return true;
    default:
      return false;
  }
}

QString describe(QAccessibleInterface* a) {
  const auto* o = a->object();
  return QString("role %1, %2 \"%3\" in \"%4\"")
      .arg(int(a->role()))
      .arg(o ? o->metaObject()->className() : "?", o ? o->objectName() : "", o && o->parent() ? o->parent()->objectName() : "");
}

void nameless(QAccessibleInterface* a, QStringList& out, int& seen) {
  if (!a || !a->isValid() || a->state().invisible) return;
  if (spoken(a->role())) {
    ++seen;
    // The name of a combo box is its current text: what it is for is its label or its description.
    const bool purposeless = a->role() == QAccessible::ComboBox && a->text(QAccessible::Description).trimmed().isEmpty() &&
                             a->relations(QAccessible::Label).isEmpty();
    if (a->text(QAccessible::Name).trimmed().isEmpty() || purposeless) out << describe(a);
  }
  // The rows of a table are its own matter: thousands of cells.
  if (a->role() == QAccessible::Table || a->role() == QAccessible::List || a->role() == QAccessible::ComboBox) return;
  for (int i = 0; i < a->childCount(); ++i) nameless(a->child(i), out, seen);
}

// A widget that Tab should come to.
bool wantsTab(const QWidget* w) {
  return w->isVisible() && w->isEnabled() && (w->focusPolicy() & Qt::TabFocus) != 0 && w->focusProxy() == nullptr;
}

const char* kBenches[] = {"demo/wave-tank.harness", "demo/wave-tank-first-try.harness"};

}  // namespace

TEST_CASE("whatever can be used has a name for a screen reader, at every step") {
  QAccessible::setActive(true);
  for (const auto* file : kBenches) {
    Window w;
    w.open(file);
    for (const auto& row : gui::steps()) {
      const auto step = row.step;
      w.main.rail().setStep(step);
      w.session.selection.select(step == gui::Step::Wiring ? "w4" : "paddle");
      if (step == gui::Step::Limits && !w.session.analyser.analysis().findings.empty())
        w.session.selection.pick(QString::fromStdString(w.session.analyser.analysis().findings.front().identity()));
      QTest::qWait(40);
      QStringList missing;
      int seen = 0;
      nameless(QAccessible::queryAccessibleInterface(&w.main), missing, seen);
      INFO("step " << static_cast<int>(step) << ": " << missing.join("; ").toStdString());
      CHECK(missing.isEmpty());
      CHECK(seen > 8);
    }
  }
}

TEST_CASE("Tab comes to every control of every step and back to where it began") {
  for (const auto& row : gui::steps()) {
    const auto step = row.step;
    Window w;
    w.open("demo/wave-tank-first-try.harness");
    w.main.rail().setStep(step);
    w.session.selection.select("paddle");
    QTest::qWait(60);
    w.main.activateWindow();
    (void)QTest::qWaitForWindowActive(&w.main);
    std::set<QWidget*> wanted;
    for (auto* child : w.main.findChildren<QWidget*>())
      if (wantsTab(child)) wanted.insert(child);
    std::set<QWidget*> visited;
    for (std::size_t n = 0; n < 2 * wanted.size() + 20; ++n) {
      if (auto* now = QApplication::focusWidget()) {
        visited.insert(now);
        QTest::keyClick(now, Qt::Key_Tab);
      } else {
        w.main.setFocus();
        QTest::keyClick(&w.main, Qt::Key_Tab);
      }
    }
    QStringList missed;
    // Of buttons that exclude each other Tab comes to one; the arrow keys go on from there.
    const auto reached = [&](QWidget* one) {
      const auto* button = qobject_cast<QAbstractButton*>(one);
      return visited.contains(one) ||
             (button && button->group() && button->group()->exclusive() && std::ranges::any_of(visited, [&](const QWidget* v) {
                return v->parentWidget() == one->parentWidget() && qobject_cast<const QAbstractButton*>(v);
              }));
    };
    for (auto* one : wanted)
      if (!reached(one)) missed << QString("%1 \"%2\"").arg(one->metaObject()->className(), one->objectName());
    INFO("step " << static_cast<int>(step) << ": " << missed.join("; ").toStdString());
    CHECK(missed.isEmpty());
    CHECK(wanted.size() > 5);
  }
}

TEST_CASE("every terminal and wire of the picture is in a list that can be read line by line") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Wiring);
  QTest::qWait(40);
  const auto* table = w.find<QTableView>("wireTable");
  REQUIRE(table);
  for (const auto& c : w.session.document.harness().connections) {
    if (c.kind != harness::ConnectionKind::Wire) continue;
    INFO(c.id);
    // Picking it in the picture picks its row, which says both ends.
    w.session.selection.select(QString::fromStdString(c.id));
    const auto row = table->currentIndex().row();
    for (const auto& [column, end] : {std::pair(1, c.a), std::pair(2, c.b)})
      CHECK(table->model()->index(row, column).data().toString().toStdString() ==
            harness::shownEnd(w.session.document.harness(), w.session.document.library(), end));
  }
}

TEST_CASE("a change of the verdict is announced, once") {
  Window w;
  w.open("demo/wave-tank.harness");
  QSignalSpy announced(w.find<gui::VerdictBar>("verdict"), &gui::VerdictBar::announced);
  const auto id = w.session.document.harness().connections.front().id;
  w.session.document.apply({"drop", {harness::Drop<harness::Connection>{id}}});
  w.settle();
  REQUIRE(announced.count() == 1);
  CHECK(announced[0][0].toString().startsWith("Do not switch on: "));
  w.session.document.undoStack().undo();
  w.settle();
  REQUIRE(announced.count() == 2);
  CHECK(announced[1][0].toString().startsWith("Clear to switch on"));
}

TEST_CASE("from 850x530 to 4K nothing the steps need is outside of the window") {
  for (const auto& size : {QSize(850, 530), QSize(1024, 700), QSize(1280, 800), QSize(3840, 2160)}) {
    Window w;
    w.main.resize(size);
    w.open("demo/wave-tank-first-try.harness");
    for (const auto& row : gui::steps()) {
      const auto step = row.step;
      w.main.rail().setStep(step);
      QTest::qWait(40);
      INFO(size.width() << "x" << size.height() << " step " << static_cast<int>(step));
      CHECK(w.main.size() == size);
      for (auto* b : w.main.findChildren<QPushButton*>()) {
        // What lies in a scrolled panel may be out of sight; nothing else.
        bool scrolled = false;
        for (auto* p = b->parentWidget(); p; p = p->parentWidget()) scrolled = scrolled || qobject_cast<QAbstractScrollArea*>(p);
        if (!b->isVisible() || scrolled || b->window() != &w.main) continue;
        const QRect place(b->mapTo(&w.main, QPoint()), b->size());
        INFO(b->objectName().toStdString() << " \"" << b->text().toStdString() << "\"");
        CHECK(w.main.rect().contains(place));
        CHECK(b->height() >= 24);
      }
    }
  }
}
