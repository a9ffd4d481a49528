#include "gui/theme/plain_text.h"

#include <QFormLayout>
#include <QTextDocument>

namespace bold::gui {

QLabel* plainLabel(const QString& text, QWidget* parent) {
  auto* label = new QLabel(parent);
  label->setTextFormat(Qt::PlainText);
  label->setText(text);
  return label;
}

void plainRow(QFormLayout& form, const QString& label, QWidget* field, int at) {
  auto* named = plainLabel(label, form.parentWidget());
  named->setBuddy(field);
  form.insertRow(at < 0 ? form.rowCount() : at, named, field);
}

QString plainTip(const QString& text) {
  if (!Qt::mightBeRichText(text)) return text;
  return "<p style='white-space:pre-wrap'>" + text.toHtmlEscaped() + "</p>";
}

QString plainAction(const QString& text) {
  return QString(text).replace('&', "&&");
}

void makePlain(QMessageBox& box) {
  box.setTextFormat(Qt::PlainText);
  for (auto* label : box.findChildren<QLabel*>()) label->setTextFormat(Qt::PlainText);
}

void tell(QWidget* parent, const QString& title, const QString& text) {
  QMessageBox box(QMessageBox::Warning, title, text, QMessageBox::Ok, parent);
  makePlain(box);
  box.exec();
}

}  // namespace bold::gui
