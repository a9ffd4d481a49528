#include "gui/panels/notice_bar.h"

#include <QAccessible>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

NoticeBar::NoticeBar(QWidget* parent) : QWidget(parent) {
  setObjectName("notices");
  m_column = new QVBoxLayout(this);
  m_column->setContentsMargins(0, 0, 0, 0);
  m_column->setSpacing(0);
  hide();
}

void NoticeBar::say(const QString& key, const QString& text, const std::vector<Answer>& answers) {
  withdraw(key);
  auto* line = new QWidget(this);
  line->setObjectName(key);
  line->setAutoFillBackground(true);
  auto colours = line->palette();
  colours.setColor(QPalette::Window, gui::palette().cautionSoft);
  colours.setColor(QPalette::WindowText, gui::palette().ink);
  line->setPalette(colours);
  auto* row = new QHBoxLayout(line);
  row->setContentsMargins(16, 6, 12, 6);
  row->setSpacing(8);
  auto* label = plainLabel(text, line);
  label->setObjectName("said");
  label->setWordWrap(true);
  row->addWidget(label, 1);
  for (const auto& a : answers) {
    auto* b = new QPushButton(a.text, line);
    b->setObjectName(a.name);
    row->addWidget(b);
    connect(b, &QPushButton::clicked, this, [this, key, then = a.then] {
      withdraw(key);
      if (then) then();
    });
  }
  m_column->addWidget(line);
  show();
  QAccessibleEvent event(label, QAccessible::Alert);
  QAccessible::updateAccessibility(&event);
}

void NoticeBar::withdraw(const QString& key) {
  for (auto* line : findChildren<QWidget*>(key, Qt::FindDirectChildrenOnly)) {
    m_column->removeWidget(line);
    line->setObjectName({});
    line->hide();
    line->deleteLater();  // its button may still be on the stack
  }
  setVisible(m_column->count() > 0);
}

QStringList NoticeBar::said() const {
  QStringList out;
  for (const auto* l : findChildren<QLabel*>("said"))
    if (!l->parentWidget()->objectName().isEmpty()) out << l->text();
  return out;
}

}  // namespace bold::gui
