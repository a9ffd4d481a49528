#include "gui/field_manners.h"

#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollBar>

namespace bold::gui {
namespace {

bool turnsWithTheWheel(const QWidget* w) {
  return qobject_cast<const QComboBox*>(w) || qobject_cast<const QAbstractSpinBox*>(w) ||
         (qobject_cast<const QAbstractSlider*>(w) && !qobject_cast<const QScrollBar*>(w));
}

// Some platforms give fields Ctrl+K and Ctrl+U for deleting half a line: here they are commands, wherever one types.
bool isCommand(const QKeyEvent& key) {
  static const QList<int> kOfFields{Qt::Key_A, Qt::Key_C, Qt::Key_V, Qt::Key_X, Qt::Key_Y, Qt::Key_Z};
  return key.modifiers() == Qt::ControlModifier && key.key() >= Qt::Key_A && key.key() <= Qt::Key_Z && !kOfFields.contains(key.key());
}

}  // namespace

bool FieldManners::eventFilter(QObject* watched, QEvent* event) {
  auto* widget = qobject_cast<QWidget*>(watched);
  if (!widget) return false;
  switch (event->type()) {
    case QEvent::Polish:
      if (turnsWithTheWheel(widget) && widget->focusPolicy() == Qt::WheelFocus) widget->setFocusPolicy(Qt::StrongFocus);
      return false;
    case QEvent::Wheel:
      if (!turnsWithTheWheel(widget) || widget->hasFocus()) return false;
      event->ignore();  // what is around it gets it
      return true;
    case QEvent::ShortcutOverride: {
      const auto* field = qobject_cast<QLineEdit*>(widget);
      const auto* key = static_cast<QKeyEvent*>(event);
      if (!field) return false;
      const bool benchs = (key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo)) && !field->isModified();
      const bool nothing = key->key() == Qt::Key_Delete && key->modifiers() == Qt::NoModifier && field->text().isEmpty();
      if (!benchs && !nothing && !isCommand(*key)) return false;
      event->ignore();
      return true;
    }
    default:
      return false;
  }
}

}  // namespace bold::gui
