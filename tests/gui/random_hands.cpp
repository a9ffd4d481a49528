#include "random_hands.h"

#include <QAction>
#include <QApplication>
#include <QComboBox>
#include <QDialog>
#include <QFileDialog>
#include <QLineEdit>
#include <QMenu>
#include <QPointer>
#include <QTimer>
#include <QWheelEvent>
#include <algorithm>
#include <array>

namespace bold::test {
namespace {

constexpr int kAnswersEvery = 30;  // ms

const char* const kTexts[]{"d9 s1.in1",
                           "usb uno",
                           "uno",
                           "28byj",
                           "12 V 0.5 A, 2 A stall",
                           "1.2 kHz",
                           "-3",
                           "80 %",
                           "4k7",
                           "",
                           "s1.",
                           "gnd",
                           "%1",
                           "<b>x",
                           "l298n",
                           "irlz44n",
                           "nema",
                           "5",
                           "d5 q1.gate",
                           "0.3 m",
                           "d4-d7 s1.in1-in4",
                           "open",
                           "loose",
                           "d8-d9",
                           "s1 in2"};

// What asks for files or printers, ends the program or leaves it: not for hands that know nothing.
bool leftAlone(const QString& text) {
  const auto plain = QString(text).remove('&');
  const bool asks =
      plain.contains("…") && std::ranges::any_of(std::array{"Open", "Export", "Compare", "Import", "From", "To", "Save", "Print"},
                                                 [&](const char* word) { return plain.startsWith(word); });
  return asks || plain == "Quit" || plain == "Save" || plain.startsWith("Save as") || plain.startsWith("Print");
}

}  // namespace

RandomHands::RandomHands(Window& window, unsigned seed) : m_window(window), m_random(seed) {
  answerLater();
}

// A timer does not strike while it is still being served: what waits may bring up the next thing that waits, so each gets its own.
void RandomHands::answerLater() {
  QTimer::singleShot(kAnswersEvery, &m_alive, [this] {
    answerLater();
    answer();
  });
}

RandomHands::~RandomHands() {
  for (auto* top : QApplication::topLevelWidgets())
    if (top != &m_window.main && top->isVisible() && !qobject_cast<QMenu*>(top)) top->close();
}

std::string RandomHands::lastDone() const {
  std::string out;
  for (std::size_t k = m_done.size() > 25 ? m_done.size() - 25 : 0; k < m_done.size(); ++k) out += m_done[k] + "\n";
  return out;
}

// Mostly what can be worked with, now and then anything at all.
QWidget* RandomHands::anyWidget(QWidget* top) {
  const bool controls = below(5) > 0;
  QWidgetList all;
  for (auto* w : top->findChildren<QWidget*>())
    if (w->isVisible() && w->isEnabled() && w->width() > 2 && w->height() > 2 && w->objectName() != "save" && w->objectName() != "open" &&
        (!controls || (w->focusPolicy() & Qt::TabFocus)))
      all << w;
  return all.isEmpty() ? top : all[below(static_cast<int>(all.size()))];
}

// What is shown beside the picture is one of many: the picked thing decides which fields there are.
void RandomHands::pickSomething() {
  const auto& h = m_window.session.document.harness();
  const int n = static_cast<int>(h.devices.size());
  const int k = static_cast<int>(h.connections.size());
  if (n == 0) return;
  const bool wire = k > 0 && below(4) == 0;
  const auto& id = wire ? h.connections[below(k)].id : h.devices[below(n)].id;
  note("picks " + id);
  m_window.main.rail().setStep(wire ? gui::Step::Wiring : gui::Step::Bench);
  m_window.session.selection.select(QString::fromStdString(id));
}

// Begins something in a field and leaves it half done for something else.
void RandomHands::halfDone(QWidget* top) {
  QList<QLineEdit*> fields;
  for (auto* f : top->findChildren<QLineEdit*>())
    if (f->isVisible() && f->isEnabled()) fields << f;
  if (fields.isEmpty()) return;
  auto* field = fields[below(static_cast<int>(fields.size()))];
  const auto text = QString(anyOf(kTexts));
  note("half done in " + field->objectName().toStdString() + ": " + text.toStdString());
  const QPointer<QLineEdit> still(field);
  field->setFocus();
  if (below(2) == 0) field->selectAll();
  QTest::keyClicks(field, text.left(1 + below(static_cast<int>(text.size()) + 1)));
  if (!still) return;
  switch (below(8)) {
    case 0:
      return pickSomething();
    case 1:
      return m_window.session.document.undoStack().undo();
    case 2:
      return m_window.session.file.openDemo(below(2) == 0 ? "wave-tank.harness" : "wave-tank-first-try.harness");
    case 3:
      return m_window.main.rail().setStep(static_cast<gui::Step>(below(5)));
    case 4:
      QTest::keyClick(field, Qt::Key_Return);
      return;
    case 5:
      QTest::keyClick(field, Qt::Key_Tab);
      return;
    case 6:
      return trigger();
    default:
      return;  // and something else comes next
  }
}

QPoint RandomHands::anyPlace(const QWidget& w) {
  return {below(w.width()), below(w.height())};
}

void RandomHands::type(QWidget& w) {
  static constexpr int kKeys[]{Qt::Key_Tab,   Qt::Key_Backtab,   Qt::Key_Return, Qt::Key_Escape, Qt::Key_Up,  Qt::Key_Down,
                               Qt::Key_Left,  Qt::Key_Right,     Qt::Key_Delete, Qt::Key_Home,   Qt::Key_End, Qt::Key_PageDown,
                               Qt::Key_Space, Qt::Key_Backspace, Qt::Key_PageUp, Qt::Key_F9,     Qt::Key_F1};
  static constexpr int kWithControl[]{Qt::Key_Z, Qt::Key_Y, Qt::Key_K,      Qt::Key_L,    Qt::Key_F,    Qt::Key_U, Qt::Key_D,
                                      Qt::Key_1, Qt::Key_2, Qt::Key_3,      Qt::Key_4,    Qt::Key_5,    Qt::Key_0, Qt::Key_9,
                                      Qt::Key_8, Qt::Key_A, Qt::Key_Return, Qt::Key_Plus, Qt::Key_Minus};
  if (below(4) == 0) {
    const auto text = QString(anyOf(kTexts));
    const auto half = text.left(below(static_cast<int>(text.size()) + 1));
    note("types \"" + half.toStdString() + "\"");
    QTest::keyClicks(&w, half);
    if (below(2) == 0) QTest::keyClick(&w, Qt::Key_Return);
    return;
  }
  const bool control = below(3) == 0;
  const int key = control ? anyOf(kWithControl) : anyOf(kKeys);
  note("key " + std::to_string(key) + (control ? " with control" : ""));
  QTest::keyClick(&w, static_cast<Qt::Key>(key), control ? Qt::ControlModifier : below(6) == 0 ? Qt::AltModifier : Qt::NoModifier);
}

void RandomHands::drag(QWidget& w) {
  auto& p = m_window.picture();
  QWidget* on = below(3) > 0 && p.isVisible() ? static_cast<QWidget*>(&p) : &w;
  const auto places = picture::places(p.pictureLayout());
  const auto place = [&] {
    if (on != &p || places.empty() || below(4) == 0) return anyPlace(*on);
    const auto& at = anyOf(places).second;
    return (QPointF(at.x, at.y) * p.zoom()).toPoint();
  };
  const auto from = place();
  const auto to = place();
  const auto button = below(5) == 0 ? Qt::MiddleButton : Qt::LeftButton;
  note("drags");
  QTest::mousePress(on, button, {}, from);
  QTest::mouseMove(on, (from + to) / 2);
  QMouseEvent move(QEvent::MouseMove, to, on->mapToGlobal(to), Qt::NoButton, button, Qt::NoModifier);
  QApplication::sendEvent(on, &move);
  QTest::mouseRelease(on, button, {}, to);
}

void RandomHands::turnWheel(QWidget& w) {
  const auto at = QPointF(anyPlace(w));
  const auto modifiers = below(3) == 0 ? Qt::ControlModifier : Qt::NoModifier;
  note("wheel");
  QWheelEvent e(at, w.mapToGlobal(at), {}, {0, below(2) == 0 ? 120 : -120}, Qt::NoButton, modifiers, Qt::NoScrollPhase, false);
  QApplication::sendEvent(&w, &e);
}

void RandomHands::trigger() {
  QList<QAction*> all;
  for (auto* a : m_window.main.findChildren<QAction*>())
    if (a->isEnabled() && !a->menu() && !a->text().isEmpty() && !leftAlone(a->text())) all << a;
  if (all.isEmpty()) return;
  auto* action = all[below(static_cast<int>(all.size()))];
  note("action " + action->text().toStdString());
  action->trigger();
}

// What waits, a message, a dialog or a menu, gets a key or a click; sooner or later it is closed.
void RandomHands::answer() {
  if (auto* popup = QApplication::activePopupWidget()) {
    if (below(3) == 0) {
      popup->close();
      return;
    }
    QTest::keyClick(popup, below(2) == 0 ? Qt::Key_Down : Qt::Key_Return);
    return;
  }
  auto* modal = QApplication::activeModalWidget();
  if (!modal) return;
  note(std::string("answers ") + modal->metaObject()->className() + " " + modal->windowTitle().toStdString());
  if (auto* files = qobject_cast<QFileDialog*>(modal)) {
    files->reject();
    return;
  }
  if (below(3) == 0) {
    if (auto* dialog = qobject_cast<QDialog*>(modal)) dialog->reject();
    return;
  }
  // Not "Save": that asks for a file.
  auto* w = anyWidget(modal);
  if (auto* b = qobject_cast<QAbstractButton*>(w); b && QString(b->text()).remove('&').startsWith("Save")) return;
  if (below(2) == 0)
    QTest::mouseClick(w, Qt::LeftButton, {}, anyPlace(*w));
  else
    type(*w);
}

void RandomHands::one(QWidget* top) {
  auto* w = below(3) == 0 && QApplication::focusWidget() && QApplication::focusWidget()->window() == top ? QApplication::focusWidget()
                                                                                                         : anyWidget(top);
  switch (below(26)) {
    case 0:
    case 1:
      return turnWheel(*w);
    case 2:
    case 3:
    case 4:
      return drag(*w);
    case 5:
    case 6:
      return trigger();
    case 7: {
      static constexpr QSize kSizes[]{{1280, 756}, {1024, 700}, {850, 530}, {1600, 1000}};
      note("another size");
      m_window.main.resize(anyOf(kSizes));
      return;
    }
    case 8: {
      note("right button");
      const auto at = anyPlace(*w);
      QContextMenuEvent e(QContextMenuEvent::Mouse, at, w->mapToGlobal(at));
      QApplication::sendEvent(w, &e);
      return;
    }
    case 9:
    case 10:
    case 11:
    case 12:
      note("clicks " + std::string(w->metaObject()->className()) + " " + w->objectName().toStdString());
      QTest::mouseClick(w, Qt::LeftButton, {}, anyPlace(*w));
      return;
    case 14:
    case 15:
      return pickSomething();
    case 16:
    case 17:
    case 18:
      return halfDone(top);
    case 13:
      QTest::mouseDClick(w, Qt::LeftButton, {}, anyPlace(*w));
      return;
    default:
      return type(*w);
  }
}

void RandomHands::move(int events) {
  for (int k = 0; k < events; ++k) {
    QWidgetList tops;
    for (auto* t : QApplication::topLevelWidgets())
      if (t->isVisible() && !qobject_cast<QMenu*>(t)) tops << t;
    // A few dialogs at once are enough.
    while (tops.size() > 4) {
      auto* t = tops.takeLast();
      if (t != &m_window.main) t->close();
    }
    QWidget* top = below(4) == 0 && !tops.isEmpty() ? tops[below(static_cast<int>(tops.size()))] : &m_window.main;
    if (!m_window.main.isVisible()) m_window.main.show();
    one(top);
    // Sometimes the next event comes while things are still worked out, sometimes everything has come to rest.
    if (below(12) == 0)
      QTest::qWait(20 + below(60));
    else
      QApplication::processEvents();
  }
}

}  // namespace bold::test
