#include <QAction>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QScrollArea>
#include <QScrollBar>
#include <QTableView>
#include <QTableWidget>
#include <QTimer>
#include <QUrl>
#include <QWheelEvent>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <map>

#include "gui/field_manners.h"
#include "gui/panels/finding_card.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/picture/tip.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

// As the program installs it; the tests' application has none of its own.
struct Manners {
  gui::FieldManners filter{nullptr};
  Manners() { qApp->installEventFilter(&filter); }
  ~Manners() { qApp->removeEventFilter(&filter); }
};

void wheel(QWidget& w, Qt::KeyboardModifiers modifiers = {}, int by = -120) {
  const QPointF at = w.rect().center();
  QWheelEvent e(at, w.mapToGlobal(at), {}, {0, by}, Qt::NoButton, modifiers, Qt::NoScrollPhase, false);
  QApplication::sendEvent(&w, &e);
}

void somethingElse(Window& w) {  // an edit that has nothing to do with what is looked at
  static int n = 0;
  auto c = w.session.document.harness().connections.front();
  c.length = Metres{0.2 + 0.01 * ++n};
  w.session.document.apply({"x", {harness::Put<harness::Connection>{c, {}}}});
  w.settle();
}

// The menu that comes up is asked for an entry, by its text.
QStringList menuOf(QWidget& w, QPoint at, const QString& choose = {}) {
  QStringList out;
  QTimer::singleShot(50, &w, [&] {
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    if (!menu) return;
    QAction* chosen = nullptr;
    for (auto* a : menu->actions()) {
      if (!a->isSeparator()) out << a->text();
      if (a->text() == choose && a->isEnabled()) chosen = a;
    }
    menu->close();
    if (chosen) chosen->trigger();
  });
  QContextMenuEvent e(QContextMenuEvent::Mouse, at, w.mapToGlobal(at));
  QApplication::sendEvent(&w, &e);
  return out;
}

}  // namespace

TEST_CASE("focus, rows, scrolling and half-typed text stay through an analysis, in every panel") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  SECTION("findings") {
    auto cards = w.main.findChildren<gui::FindingCard*>();
    REQUIRE(cards.size() > 8);
    auto* c = cards[7];
    c->setFocus();
    auto* scroll = w.find<QWidget>("findings")->findChild<QScrollArea*>();
    scroll->ensureWidgetVisible(c);
    const int before = c->mapTo(scroll->viewport(), QPoint(0, 0)).y();
    somethingElse(w);
    CHECK(w.main.focusWidget() == c);
    CHECK(c->mapTo(scroll->viewport(), QPoint(0, 0)).y() == before);
  }
  SECTION("the fields of a motor") {
    w.main.rail().setStep(gui::Step::Bench);
    w.session.selection.select("pump");
    auto* pin = w.find<QLineEdit>("signal-in");
    pin->setFocus();
    pin->selectAll();
    QTest::keyClicks(pin, "uno.d1");
    somethingElse(w);
    CHECK(w.find<QLineEdit>("signal-in") == pin);
    CHECK(pin->text() == "uno.d1");
    CHECK(w.main.focusWidget() == pin);
  }
  SECTION("a figure that is being typed") {
    w.main.rail().setStep(gui::Step::Bench);
    w.session.selection.select("pump");
    auto* figures = w.find<QTableWidget>("figures");
    figures->setFocus();
    figures->setCurrentCell(2, 1);
    figures->editItem(figures->item(2, 1));
    auto* editor = figures->findChild<QLineEdit*>();
    REQUIRE(editor);
    editor->selectAll();
    QTest::keyClicks(editor, "5.5");
    somethingElse(w);
    REQUIRE(figures->findChild<QLineEdit*>() == editor);
    CHECK(editor->text() == "5.5");
    CHECK(figures->currentRow() == 2);
  }
  SECTION("wires") {
    w.main.rail().setStep(gui::Step::Wiring);
    auto* table = w.find<QTableView>("wireTable");
    auto* entry = w.find<QLineEdit>("wireEntry");
    table->selectRow(20);
    table->verticalScrollBar()->setValue(table->verticalScrollBar()->maximum());
    const int before = table->verticalScrollBar()->value();
    entry->setFocus();
    QTest::keyClicks(entry, "d9 s1.i");
    somethingElse(w);
    CHECK(entry->text() == "d9 s1.i");
    CHECK(w.main.focusWidget() == entry);
    CHECK(table->currentIndex().row() == 20);
    CHECK(table->verticalScrollBar()->value() == before);
  }
  SECTION("currents") {
    w.main.rail().setStep(gui::Step::Currents);
    auto* command = w.find<QComboBox>("command");
    command->setCurrentIndex(3);
    command->setFocus();
    const auto shown = command->currentText();
    somethingElse(w);
    CHECK(command->currentText() == shown);
    CHECK(w.main.focusWidget() == command);
  }
}

TEST_CASE("Tab goes through a panel as it is seen, from above") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  somethingElse(w);
  const auto down = [&](QWidget* first, const QWidget* inside, int steps) {
    int last = first->mapTo(inside, QPoint(0, 0)).y();
    first->setFocus();
    for (int k = 0; k < steps; ++k) {
      QTest::keyClick(w.main.focusWidget(), Qt::Key_Tab);
      auto* at = w.main.focusWidget();
      INFO(k << ": " << at->metaObject()->className() << " " << at->objectName().toStdString());
      REQUIRE(inside->isAncestorOf(at));
      const int y = at->mapTo(inside, QPoint(0, 0)).y();
      CHECK(y >= last - 8);  // beside each other is not above
      last = y;
    }
  };
  gui::FindingCard* second = nullptr;
  for (auto* c : w.main.findChildren<gui::FindingCard*>())
    if (!c->isHidden() && c->identity().startsWith("ground-not-shared")) second = c;
  REQUIRE(second);
  w.session.selection.pick(second->identity());
  QTest::qWait(30);
  auto* scroll = w.find<QWidget>("findings")->findChild<QScrollArea*>();
  down(second, scroll->widget(), 8);
  w.session.selection.pick({});
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("carriage");
  w.settle();
  auto* first = w.find<QWidget>("intentHold");
  down(first, first->parentWidget(), 8);
}

TEST_CASE("the wheel changes only what has the focus") {
  const Manners manners;
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("s2");
  auto* box = w.find<QComboBox>("setting-heatSink");
  REQUIRE(box);
  const auto before = box->currentText();
  w.picture().setFocus();
  wheel(*box);
  wheel(*box, {}, 120);
  CHECK(box->currentText() == before);
  CHECK(w.session.document.undoStack().count() == 0);
  w.main.rail().setStep(gui::Step::Currents);
  auto* command = w.find<QComboBox>("command");
  const auto at = command->currentIndex();
  w.picture().setFocus();
  wheel(*command);
  CHECK(command->currentIndex() == at);
  command->setFocus();
  wheel(*command);
  CHECK(command->currentIndex() == at + 1);
}

TEST_CASE("undo is the bench's where a field holds nothing new") {
  const Manners manners;
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.activateWindow();
  (void)QTest::qWaitForWindowActive(&w.main, 2000);
  w.session.document.apply({"t", {harness::SetTitle{"changed"}}});
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("pump");
  auto* name = w.find<QLineEdit>("deviceName");
  name->setFocus();
  QTest::keyClick(name, Qt::Key_Z, Qt::ControlModifier);
  CHECK(w.session.document.harness().title == "Wave tank, bench 3");
  QTest::keyClick(name, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  CHECK(w.session.document.harness().title == "changed");
  // What is typed and not taken yet is undone in the field.
  QTest::keyClicks(name, "x");
  QTest::keyClick(name, Qt::Key_Z, Qt::ControlModifier);
  CHECK(w.session.document.harness().title == "changed");
  CHECK_FALSE(name->text().endsWith("x"));
}

TEST_CASE("commands are commands while one types") {
  const Manners manners;
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.activateWindow();
  (void)QTest::qWaitForWindowActive(&w.main, 2000);
  w.main.rail().setStep(gui::Step::Wiring);
  auto* entry = w.find<QLineEdit>("wireEntry");
  entry->setFocus();
  QTest::keyClicks(entry, "d9 s1");
  QTest::keyClick(entry, Qt::Key_K, Qt::ControlModifier);
  CHECK(w.main.focusWidget()->objectName() == "partSearch");
  CHECK(entry->text() == "d9 s1");
  harness::Edit clear{"clear", {}};
  for (const auto& a : w.session.document.harness().assignments) clear.changes.emplace_back(harness::Drop<harness::Assignment>{a.id});
  w.session.document.apply(clear);
  w.settle();
  w.session.selection.select({});
  QTest::keyClick(w.find<QLineEdit>("partSearch"), Qt::Key_U, Qt::ControlModifier);
  CHECK_FALSE(w.session.document.harness().assignments.empty());
}

TEST_CASE("Delete deletes what is picked, and in a field a letter") {
  const Manners manners;
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.activateWindow();
  (void)QTest::qWaitForWindowActive(&w.main, 2000);
  const auto wires = w.session.document.harness().connections.size();
  const auto devices = w.session.document.harness().devices.size();
  w.session.selection.select("w5");
  w.picture().setFocus();
  QTest::keyClick(&w.picture(), Qt::Key_Delete);
  CHECK(w.session.document.harness().connections.size() == wires - 1);
  w.main.rail().setStep(gui::Step::Wiring);
  auto* table = w.find<QTableView>("wireTable");
  table->setFocus();
  table->selectRow(3);
  QTest::keyClick(table, Qt::Key_Delete);
  CHECK(w.session.document.harness().connections.size() == wires - 2);
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("pump");
  auto* name = w.find<QLineEdit>("deviceName");
  name->setFocus();
  name->setCursorPosition(0);
  QTest::keyClick(name, Qt::Key_Delete);
  CHECK(w.session.document.harness().devices.size() == devices);
  CHECK(name->text() == "irculation pump");
  auto* list = w.find<QListWidget>("devices");
  list->setFocus();
  QTest::keyClick(list, Qt::Key_Delete);
  CHECK(w.session.document.harness().devices.size() == devices - 1);
}

TEST_CASE("places, wires and devices have a menu of what can be done with them") {
  Window w;
  w.open("demo/wave-tank.harness");
  auto& p = w.picture();
  const auto& box = p.pictureLayout().box("d1")->rect;
  const auto diode = menuOf(p, (QPointF(box.x + 12, box.y + 6) * p.zoom()).toPoint(), "Turn it round");
  CHECK(diode.contains("Its figures and settings"));
  CHECK(diode.contains("Take it off the bench"));
  CHECK(w.session.document.undoStack().undoText() == "Turn D1 round");
  CHECK(w.session.document.undoStack().count() == 1);
  w.session.document.undoStack().undo();
  const auto terminal = menuOf(p, p.placeOf("s1.IN1")->toPoint());
  CHECK_FALSE(terminal.filter("Controller D8").isEmpty());
  const auto before = w.session.document.harness().connections.size();
  w.main.rail().setStep(gui::Step::Wiring);
  auto* table = w.find<QTableView>("wireTable");
  const auto row = table->visualRect(table->model()->index(4, 1)).center();
  QStringList wire;
  QTimer::singleShot(50, table, [&] {
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    if (!menu) return;
    QAction* gone = nullptr;
    for (auto* a : menu->actions())
      if (wire << a->text(); a->text() == "Delete") gone = a;
    menu->close();
    if (gone) gone->trigger();
  });
  Q_EMIT table->customContextMenuRequested(row);
  CHECK(wire.contains("Colour"));
  CHECK(w.session.document.harness().connections.size() == before - 1);
}

TEST_CASE("a bench or a part that is dropped on the window is opened") {
  Window w;
  const auto drop = [&](const std::string& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(QString::fromStdString(path))});
    QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&w.main, &enter);
    CHECK(enter.isAccepted());
    QDropEvent e(QPointF(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&w.main, &e);
  };
  drop(w.folder.write("dropped.harness", readFile("demo/wave-tank.harness")));
  w.settle();
  CHECK(w.session.document.harness().title == "Wave tank, bench 3");
  drop(w.folder.write("part.json", readFile("data/parts/passives/diode-1n4001.json")));
  CHECK(w.main.findChild<gui::OwnPartDialog*>());
}

TEST_CASE("parts, terminals, wires and findings are found and gone to") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  for (auto* a : w.main.findChildren<QAction*>())
    if (QString(a->text()).remove('&') == "Find on this bench") a->trigger();
  auto* text = w.main.findChild<QLineEdit*>("findText");
  REQUIRE(text);
  const auto go = [&](const QString& what) {
    text->setText(what);
    QTest::keyClick(text, Qt::Key_Return);
  };
  go("circulation pump");
  CHECK(w.session.selection.subject() == "pump");
  CHECK(w.main.rail().step() == gui::Step::Bench);
  go("s1 in3");
  CHECK(w.session.selection.subject() == "s1.IN3");
  go("wrong way round");
  CHECK(w.session.selection.picked().startsWith("flyback-reversed"));
  CHECK(w.main.rail().step() == gui::Step::Limits);
  text->setText("no such thing");
  CHECK(w.main.findChild<QListWidget*>("findHits")->item(0)->text() == "Nothing on this bench is called that.");
}

TEST_CASE("a tip says what a terminal does, its voltage, and what hangs there") {
  Window w;
  w.open("demo/wave-tank.harness");
  const auto in1 = gui::tipFor(w.session, "s1.IN1");
  CHECK(in1.startsWith("S1 IN1\ninput\n"));
  CHECK(in1.contains(" V with Wave paddle forward"));
  CHECK(in1.endsWith("to Controller D8"));
  CHECK(gui::tipFor(w.session, "uno.D9").contains("PWM pin 9"));
  CHECK(gui::tipFor(w.session, "s1.12V").contains("motor supply"));
  CHECK(gui::tipFor(w.session, "uno.D13").endsWith("nothing is connected here"));
  CHECK(gui::tipFor(w.session, "usb.USB").contains("to Controller USB"));
  CHECK(gui::tipFor(w.session, "pump").startsWith("Circulation pump\nDiaphragm pump 12 V"));
}

TEST_CASE("the picture zooms at the pointer, pans, fits all and the picked, and shows both ends of a wire") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.resize(1024, 700);
  QTest::qWait(30);
  auto& view = *w.find<gui::PictureView>("pictureView");
  auto& p = w.picture();
  const double usual = p.zoom();
  // What lies under the pointer stays there.
  const QPoint pointer = view.viewport()->rect().center();
  const auto under = [&] { return QPointF(p.mapFrom(view.viewport(), pointer)) / p.zoom(); };
  const auto before = under();
  QWheelEvent e(QPointF(pointer), view.viewport()->mapToGlobal(QPointF(pointer)), {}, {0, 120}, Qt::NoButton, Qt::ControlModifier,
                Qt::NoScrollPhase, false);
  QApplication::sendEvent(view.viewport(), &e);
  CHECK(p.zoom() > usual);
  CHECK(std::abs(under().x() - before.x()) < 3);
  CHECK(std::abs(under().y() - before.y()) < 3);
  // The middle button drags.
  const int left = view.horizontalScrollBar()->value();
  const QPoint at(300, 300);
  QTest::mousePress(&p, Qt::MiddleButton, {}, at);
  QMouseEvent move(QEvent::MouseMove, at - QPoint(40, 0), p.mapToGlobal(at) - QPoint(40, 0), Qt::NoButton, Qt::MiddleButton,
                   Qt::NoModifier);
  QApplication::sendEvent(&p, &move);
  QTest::mouseRelease(&p, Qt::MiddleButton, {}, at);
  CHECK(view.horizontalScrollBar()->value() == left + 40);
  view.fitAll();
  CHECK(p.width() <= view.viewport()->width() + 1);
  CHECK(p.height() <= view.viewport()->height() + 1);
  w.session.selection.select("pump");
  view.fitPicked();
  CHECK(p.zoom() > 1);
  view.usualSize();
  CHECK(p.zoom() == Approx(usual));
  // Every wire with both its ends, as far as half size reaches.
  const QRect seen = view.viewport()->rect();
  for (const auto& c : w.session.document.harness().connections) {
    w.session.selection.select(QString::fromStdString(c.id));
    for (const auto* end : {&c.a, &c.b}) {
      const auto place = p.placeOf(QString::fromStdString(end->text()));
      if (!place) continue;
      INFO(c.id << " " << end->text());
      CHECK(seen.contains(p.mapTo(view.viewport(), place->toPoint())));
    }
  }
}

TEST_CASE("the picture follows a wire that is drawn past its edge") {
  Window w;
  w.open("demo/wave-tank.harness");
  auto& view = *w.find<gui::PictureView>("pictureView");
  auto& p = w.picture();
  REQUIRE(view.verticalScrollBar()->maximum() > 0);
  const auto from = p.placeOf("uno.D9")->toPoint();
  QTest::mousePress(&p, Qt::LeftButton, {}, from);
  for (int y = from.y(); y < p.height() - 30; y += 60) {
    QMouseEvent move(QEvent::MouseMove, QPoint(from.x() + 40, y), p.mapToGlobal(QPoint(from.x() + 40, y)), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(&p, &move);
    CHECK(view.viewport()->rect().contains(p.mapTo(view.viewport(), QPoint(from.x() + 40, y))));
  }
  QTest::mouseRelease(&p, Qt::LeftButton, {}, QPoint(5, p.height() - 5));
  CHECK(w.session.document.undoStack().count() == 0);
}

TEST_CASE("nothing is dimmed by a part that nothing hangs on, nor while wires are made") {
  Window w;
  w.open("demo/wave-tank.harness");
  QString lit;
  QObject::connect(&w.picture(), &gui::Picture::litChanged, &w.main, [&](const QString& what) { lit = what; });
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("pump");
  CHECK(lit == "what hangs on Circulation pump");
  harness::Device fresh;
  fresh.id = "new";
  fresh.part = "l298n-module";
  w.session.document.apply({"add", {harness::Put<harness::Device>{fresh, {}}}});
  w.session.selection.select("new");
  CHECK(lit.isEmpty());
  // Nor does a wire that was just made; picked again later it lights.
  auto& p = w.picture();
  Q_EMIT p.wireDrawn("uno.D11", "new.ENA");
  CHECK(w.session.selection.subject().startsWith("w"));
  CHECK(lit.isEmpty());
  w.session.selection.select("pump");
  CHECK_FALSE(lit.isEmpty());
  w.main.rail().setStep(gui::Step::Wiring);
  CHECK(lit.isEmpty());
}

// One line of the list of keys: the key, and what must have come of it.
TEST_CASE("every line of the list of keys does what it says") {
  const Manners manners;
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  w.main.activateWindow();
  (void)QTest::qWaitForWindowActive(&w.main, 2000);
  QAction* keys = nullptr;
  QStringList menus;
  for (auto* a : w.main.findChildren<QAction*>())
    if (QString(a->text()).remove('&') == "Keys") keys = a;
  REQUIRE(keys);
  keys->trigger();
  auto* table = w.main.findChild<QTableWidget*>("keyTable");
  REQUIRE(table);
  QStringList lines;
  for (int i = 0; i < table->rowCount(); ++i) lines << table->item(i, 1)->text();
  w.main.findChild<QDialog*>("keys")->close();
  w.main.activateWindow();

  auto& picture = w.picture();
  auto& session = w.session;
  const auto key = [&](int k, Qt::KeyboardModifiers m = Qt::ControlModifier) {
    w.main.activateWindow();
    (void)QTest::qWaitForWindowActive(&w.main, 2000);
    picture.setFocus();
    QTest::keyClick(&picture, static_cast<Qt::Key>(k), m);
  };
  const auto step = [&] { return w.main.rail().step(); };
  const auto modalTitle = [&](const std::function<void()>& press) {
    QString title;
    QTimer::singleShot(150, &w.main, [&] {
      if (auto* d = qobject_cast<QDialog*>(QApplication::activeModalWidget())) {
        title = d->windowTitle();
        d->reject();
      }
    });
    press();
    return title;
  };
  const auto zoom = [&] { return picture.zoom(); };
  std::map<QString, std::function<void()>> done{
      {"New bench",
       [&] {
         key(Qt::Key_N);
         CHECK(session.document.harness().devices.empty());
         w.open("demo/wave-tank-first-try.harness");
       }},
      {"Open…", [&] { CHECK(modalTitle([&] { key(Qt::Key_O); }) == "Open a bench"); }},
      {"Save",
       [&] {
         session.document.apply({"t", {harness::SetTitle{"x"}}});
         key(Qt::Key_S);
         CHECK(session.document.undoStack().isClean());
       }},
      {"Save as…", [&] { CHECK(modalTitle([&] { key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier); }) == "Save the bench"); }},
      {"Export…", [&] { CHECK(modalTitle([&] { key(Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier); }) == "Export the bench"); }},
      {"Read a program's sources…",
       [&] {
         CHECK(modalTitle([&] { key(Qt::Key_R, Qt::ControlModifier | Qt::ShiftModifier); }) == "Sources of the program");
         CHECK(w.main.rail().step() == gui::Step::Program);
       }},
      {"Compare with another bench…",
       [&] { CHECK(modalTitle([&] { key(Qt::Key_D, Qt::ControlModifier | Qt::ShiftModifier); }) == "Compare with another bench"); }},
      {"Print the report…", [&] { CHECK_FALSE(modalTitle([&] { key(Qt::Key_P); }).isEmpty()); }},
      {"Quit",
       [&] {
         session.document.apply({"t", {harness::SetTitle{"y"}}});
         CHECK(modalTitle([&] { key(Qt::Key_Q); }) == "Unsaved changes");
         session.document.undoStack().undo();
         session.document.undoStack().setClean();
       }},
      {"Undo",
       [&] {
         session.document.apply({"t", {harness::SetTitle{"z"}}});
         key(Qt::Key_Z);
         CHECK(session.document.harness().title != "z");
       }},
      {"Redo",
       [&] {
         key(Qt::Key_Y);
         CHECK(session.document.harness().title == "z");
         key(Qt::Key_Z);
       }},
      {"Add a part",
       [&] {
         key(Qt::Key_K);
         CHECK(w.main.focusWidget()->objectName() == "partSearch");
       }},
      {"Type a wire",
       [&] {
         key(Qt::Key_L);
         CHECK(w.main.focusWidget()->objectName() == "wireEntry");
       }},
      {"Hide what is found until it is named",
       [&] {
         key(Qt::Key_H);
         CHECK(w.session.concealment.hidden());
         key(Qt::Key_H);
         CHECK_FALSE(w.session.concealment.hidden());
       }},
      {"Paste a wire list…",
       [&] {
         key(Qt::Key_V, Qt::ControlModifier | Qt::ShiftModifier);
         auto* dialog = w.main.findChild<QDialog*>("pasteWires");
         REQUIRE(dialog);
         dialog->close();
         w.main.activateWindow();
       }},
      {"Exchange the picked part…",
       [&] {
         w.session.selection.select("s1");
         key(Qt::Key_E);
         auto* dialog = w.main.findChild<QDialog*>("exchange");
         REQUIRE(dialog);
         dialog->close();
         w.main.activateWindow();
       }},
      {"Another one like the picked part",
       [&] {
         const auto before = w.session.document.harness().devices.size();
         w.session.selection.select("pump");
         key(Qt::Key_T);
         CHECK(w.session.document.harness().devices.size() == before + 1);
         w.session.document.undoStack().undo();
       }},
      {"Look the wires over",
       [&] {
         key(Qt::Key_R);
         CHECK(w.main.rail().step() == gui::Step::Wiring);
         CHECK(w.main.findChild<QPushButton*>("modeLookOver")->isChecked());
         CHECK(w.main.focusWidget()->objectName() == "wireTable");
         w.main.findChild<QPushButton*>("modeMake")->click();
       }},
      {"Read the wiring back…",
       [&] {
         key(Qt::Key_B);
         CHECK(w.main.findChild<QLineEdit*>("reader")->isVisible());
         w.main.findChild<QPushButton*>("leaveReadBack")->click();
       }},
      {"Find on this bench",
       [&] {
         key(Qt::Key_F);
         CHECK(w.main.findChild<QDialog*>("find")->isVisible());
         w.main.findChild<QDialog*>("find")->close();
         w.main.activateWindow();
       }},
      {"State the pins as they are wired",
       [&] {
         auto h = session.document.harness();
         harness::Edit clear{"clear", {}};
         for (const auto& a : h.assignments) clear.changes.emplace_back(harness::Drop<harness::Assignment>{a.id});
         session.document.apply(clear);
         w.settle();
         session.selection.select({});
         key(Qt::Key_U);
         CHECK_FALSE(session.document.harness().assignments.empty());
         session.document.undoStack().undo();
         session.document.undoStack().undo();
         w.settle();
       }},
      {"Delete what is picked",
       [&] {
         const auto n = session.document.harness().connections.size();
         session.selection.select("w5");
         key(Qt::Key_Delete, {});
         CHECK(session.document.harness().connections.size() == n - 1);
         session.document.undoStack().undo();
         w.settle();
       }},
      {"Put the picked repair or stage on the plan",
       [&] {
         for (const auto& f : session.analyser.analysis().findings)
           if (f.check == "flyback-reversed") session.selection.pick(QString::fromStdString(f.identity()));
         key(Qt::Key_Return);
         CHECK(session.document.harness().openChanges() > 0);
         w.settle();
       }},
      {"The picked change is done",
       [&] {
         const auto n = session.document.harness().openChanges();
         for (const auto& c : session.document.harness().connections)
           if (c.state == harness::State::Planned) session.selection.select(QString::fromStdString(c.id));
         key(Qt::Key_D);
         CHECK(session.document.harness().openChanges() < n);
         session.document.undoStack().undo();
         session.document.undoStack().undo();
         w.settle();
       }},
      {"Copy the report",
       [&] {
         QGuiApplication::clipboard()->clear();
         key(Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
         CHECK(QGuiApplication::clipboard()->text().contains("Do not switch on"));
       }},
      {"Bench",
       [&] {
         key(Qt::Key_1);
         CHECK(step() == gui::Step::Bench);
       }},
      {"Stages",
       [&] {
         key(Qt::Key_2);
         CHECK(w.main.rail().step() == gui::Step::Stages);
       }},
      {"Wiring",
       [&] {
         key(Qt::Key_3);
         CHECK(step() == gui::Step::Wiring);
       }},
      {"Limits",
       [&] {
         key(Qt::Key_4);
         CHECK(step() == gui::Step::Limits);
       }},
      {"Program",
       [&] {
         key(Qt::Key_6);
         CHECK(step() == gui::Step::Program);
       }},
      {"Currents",
       [&] {
         key(Qt::Key_5);
         CHECK(step() == gui::Step::Currents);
       }},
      {"Next command",
       [&] {
         const auto at = w.find<QComboBox>("command")->currentIndex();
         key(Qt::Key_Right, Qt::AltModifier);
         CHECK(w.find<QComboBox>("command")->currentIndex() == at + 1);
       }},
      {"Previous command",
       [&] {
         const auto at = w.find<QComboBox>("command")->currentIndex();
         key(Qt::Key_Left, Qt::AltModifier);
         CHECK(w.find<QComboBox>("command")->currentIndex() == at - 1);
       }},
      {"Next matter",
       [&] {
         session.selection.pick({});
         key(Qt::Key_Down, Qt::AltModifier);
         CHECK_FALSE(session.selection.picked().isEmpty());
       }},
      {"Previous matter",
       [&] {
         key(Qt::Key_Down, Qt::AltModifier);
         const auto at = session.selection.picked();
         key(Qt::Key_Up, Qt::AltModifier);
         CHECK(session.selection.picked() != at);
       }},
      {"Zoom in",
       [&] {
         const auto z = zoom();
         key(Qt::Key_Plus);
         CHECK(zoom() > z);
       }},
      {"Zoom out",
       [&] {
         const auto z = zoom();
         key(Qt::Key_Minus);
         CHECK(zoom() < z);
       }},
      {"Fit the whole picture",
       [&] {
         key(Qt::Key_0);
         CHECK(picture.height() <= w.find<QWidget>("pictureView")->height() + 1);
       }},
      {"Fit what is picked",
       [&] {
         session.selection.pick({});
         session.selection.select("pump");
         key(Qt::Key_9);
         CHECK(zoom() > 1);
       }},
      {"Usual size",
       [&] {
         key(Qt::Key_8);
         CHECK(zoom() <= 1.25);
         CHECK(zoom() >= 0.85);
       }},
      {"Show or hide the panel",
       [&] {
         w.main.resize(1000, 700);
         QTest::qWait(20);
         key(Qt::Key_F9, {});
         CHECK_FALSE(w.find<QWidget>("side")->isVisible());
         key(Qt::Key_F9, {});
         CHECK(w.find<QWidget>("side")->isVisible());
         w.main.resize(1280, 756);
       }},
      {"Keys",
       [&] {
         key(Qt::Key_F1, {});
         CHECK(w.main.findChild<QDialog*>("keys"));
         for (auto* d : w.main.findChildren<QDialog*>("keys")) d->close();
         w.main.activateWindow();
       }},
      {"Choose a stage for a motor",
       [&] {
         session.selection.select("pump");
         key(Qt::Key_G);
         CHECK(w.main.rail().step() == gui::Step::Stages);
         CHECK(w.find<QComboBox>("stagesMotor")->currentData().toString() == "pump");
         w.main.rail().setStep(gui::Step::Limits);
       }},
      {"Find pins for signals…",
       [&] {
         key(Qt::Key_J);
         auto* dialog = w.find<QDialog>("pins");
         REQUIRE(dialog);
         CHECK(w.find<QTreeWidget>("pinsList")->topLevelItemCount() == 1);  // of the pump, which is picked
         dialog->close();
         w.main.activateWindow();
       }},
      {"Sums for a motor…",
       [&] {
         session.selection.select("pump");
         key(Qt::Key_M);
         auto* dialog = w.find<QDialog>("sums");
         REQUIRE(dialog);
         CHECK(dialog->windowTitle() == "Sums for Circulation pump");
         dialog->close();
         w.main.activateWindow();
       }},
      {"Go to the next terminal that way",
       [&] {
         session.selection.pick({});
         session.selection.select("uno.D12");
         key(Qt::Key_Up, {});
         CHECK(session.selection.subject() == "uno.D13");
       }},
      {"Begin a wire at this terminal, end it at another",
       [&] {
         const auto n = session.document.harness().connections.size();
         session.selection.select("uno.D12");
         key(Qt::Key_Return, {});
         key(Qt::Key_Up, {});
         key(Qt::Key_Return, {});
         CHECK(session.document.harness().connections.size() == n + 1);
         session.document.undoStack().undo();
       }},
      {"Let go of what is begun, then of what is picked",
       [&] {
         session.selection.select("uno.D12");
         key(Qt::Key_Return, {});
         key(Qt::Key_Escape, {});
         CHECK(session.selection.subject() == "uno.D12");
         key(Qt::Key_Escape, {});
         CHECK(session.selection.subject().isEmpty());
       }},
      {"Zoom at the pointer",
       [&] {
         auto* v = w.find<QScrollArea>("pictureView")->viewport();
         const auto z = zoom();
         wheel(*v, Qt::ControlModifier, 120);
         CHECK(zoom() > z);
         key(Qt::Key_8);
       }},
      {"Drag the picture about",
       [&] {
         auto* bar = w.find<QScrollArea>("pictureView")->verticalScrollBar();
         bar->setValue(0);
         QTest::mousePress(&picture, Qt::MiddleButton, {}, {200, 200});
         QMouseEvent m(QEvent::MouseMove, QPoint(200, 150), picture.mapToGlobal(QPoint(200, 150)), Qt::NoButton, Qt::MiddleButton,
                       Qt::NoModifier);
         QApplication::sendEvent(&picture, &m);
         QTest::mouseRelease(&picture, Qt::MiddleButton, {}, {200, 150});
         CHECK(bar->value() > 0);
       }},
      {"What can be done with what is there", [&] { CHECK_FALSE(menuOf(picture, picture.placeOf("d1")->toPoint()).isEmpty()); }},
      {"Go through findings, wires, devices",
       [&] {
         key(Qt::Key_1);
         auto* list = w.find<QListWidget>("devices");
         list->setFocus();
         list->setCurrentRow(1);
         QTest::keyClick(list, Qt::Key_Down);
         CHECK(list->currentRow() == 2);
       }},
      {"To the next part of the window and back",
       [&] {
         key(Qt::Key_1);
         auto* search = w.find<QLineEdit>("partSearch");
         search->setFocus();
         QTest::keyClick(search, Qt::Key_Tab);
         CHECK(w.main.focusWidget() != search);
         QTest::keyClick(w.main.focusWidget(), Qt::Key_Backtab);
         CHECK(w.main.focusWidget() == search);
       }},
  };
  for (const auto& line : lines) {
    INFO(line.toStdString());
    REQUIRE(done.contains(line));
    done.at(line)();
    QTest::qWait(1);
  }
  CHECK(lines.size() == static_cast<qsizetype>(done.size()));
}
