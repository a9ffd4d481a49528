#include "gui/half_typed.h"

#include <QAbstractItemDelegate>
#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QCoreApplication>
#include <QLineEdit>
#include <QMessageBox>
#include <QPlainTextEdit>
#include <QPushButton>

#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr const char* kKind = "fieldKind";
constexpr const char* kWords = "fieldWords";
constexpr const char* kWork = "holdsWork";
constexpr const char* kRefused = "cellRefused";

QString halfWords(const char* text) {
  return QCoreApplication::translate("HalfTyped", text);
}

FieldKind kindOf(const QWidget* w) {
  return static_cast<FieldKind>(w->property(kKind).toInt());
}

// Of a cell that is being edited: no table of this program holds fields that always stand there.
QList<QWidget*> cellEditors(QAbstractItemView& view) {
  QList<QWidget*> out;
  for (auto* w : view.viewport()->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) {
    const bool edits = qobject_cast<QLineEdit*>(w) || qobject_cast<QComboBox*>(w) || qobject_cast<QAbstractSpinBox*>(w);
    if (edits && w->isVisible()) out << w;
  }
  return out;
}

void takeCells(QAbstractItemView& view, QStringList& refused) {
  for (auto* editor : cellEditors(view)) {
    view.setProperty(kRefused, QVariant());
    // What the view does when a cell is left.
    QMetaObject::invokeMethod(&view, "commitData", Qt::DirectConnection, Q_ARG(QWidget*, editor));
    QMetaObject::invokeMethod(&view, "closeEditor", Qt::DirectConnection, Q_ARG(QWidget*, editor),
                              Q_ARG(QAbstractItemDelegate::EndEditHint, QAbstractItemDelegate::NoHint));
    if (const auto why = view.property(kRefused).toString(); !why.isEmpty()) refused << why;
  }
}

void takeField(QLineEdit& field, QStringList& refused) {
  if (!field.isModified() || !field.property(kKind).isValid() || kindOf(&field) != FieldKind::Value) return;
  Q_EMIT field.editingFinished();
  if (field.isModified()) refused << halfWords("\"%1\" cannot be taken as %2.").arg(field.text(), field.property(kWords).toString());
}

}  // namespace

void declareField(QWidget* field, FieldKind kind, const QString& words) {
  field->setProperty(kKind, static_cast<int>(kind));
  field->setProperty(kWords, words);
}

void holdWork(QWidget* widget, const QString& words) {
  widget->setProperty(kWork, words);
}

void refuseCell(QWidget* table, const QString& sentence) {
  table->setProperty(kRefused, sentence);
}

QStringList takeUp(QWidget& window) {
  QStringList refused;
  for (auto* view : window.findChildren<QAbstractItemView*>()) takeCells(*view, refused);
  for (auto* field : window.findChildren<QLineEdit*>()) takeField(*field, refused);
  for (auto* box : window.findChildren<QAbstractSpinBox*>()) box->interpretText();
  QCoreApplication::sendPostedEvents(nullptr, QEvent::MetaCall);  // a table hands a cell's change on once it has delivered it
  return refused;
}

QStringList waitingIn(const QWidget& window) {
  QStringList out;
  const auto look = [&](const QWidget* w) {
    if (const auto work = w->property(kWork).toString(); !work.isEmpty()) out << work;
    if (!w->property(kKind).isValid() || kindOf(w) != FieldKind::Entry) return;
    const auto words = w->property(kWords).toString();
    if (const auto* line = qobject_cast<const QLineEdit*>(w); line && line->isModified() && !line->text().trimmed().isEmpty())
      out << halfWords("%1 \"%2\"").arg(words, line->text());
    if (const auto* text = qobject_cast<const QPlainTextEdit*>(w); text && text->document()->isModified() && !text->document()->isEmpty())
      out << words;
  };
  look(&window);
  for (const auto* w : window.findChildren<QWidget*>()) look(w);
  return out;
}

bool mayGiveUp(QWidget& window) {
  const auto waiting = waitingIn(window);
  if (waiting.isEmpty()) return true;
  QMessageBox box(QMessageBox::Question, halfWords("Typed and not entered"),
                  halfWords("This is typed and not entered yet: %1.").arg(waiting.join("; ")), QMessageBox::Cancel, &window);
  box.setObjectName("halfTyped");
  box.button(QMessageBox::Cancel)->setText(halfWords("Go back"));
  auto* give = box.addButton(halfWords("Give it up"), QMessageBox::DestructiveRole);
  box.setDefaultButton(QMessageBox::Cancel);
  makePlain(box);
  box.exec();
  return box.clickedButton() == give;
}

}  // namespace bold::gui
