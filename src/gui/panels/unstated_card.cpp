#include "gui/panels/unstated_card.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>
#include <functional>

#include "core/checks/wired_signals.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

UnstatedCard::UnstatedCard(Session& session, QWidget* parent) : QFrame(parent), m_session(session) {
  setObjectName("unstated");
  setFrameShape(QFrame::StyledPanel);
  m_column = new QVBoxLayout(this);
  m_column->setContentsMargins(12, 10, 12, 10);
  m_column->setSpacing(8);
  hide();
}

void UnstatedCard::refresh() {
  const auto& a = m_session.analyser.analysis();
  QStringList sentences;
  for (const auto& u : a.unstated) sentences << QString::fromStdString(u.text);
  if (sentences == m_shown) return;
  m_shown = sentences;
  for (auto* old : findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) {
    m_column->removeWidget(old);
    old->hide();
    old->deleteLater();  // a button that was pressed is still on the stack
  }
  setVisible(!sentences.isEmpty());
  for (const auto& u : a.unstated) {
    auto* line = new QWidget(this);
    auto* rows = new QVBoxLayout(line);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(4);
    auto* label = plainLabel(QString::fromStdString(u.text) + ".", line);
    label->setWordWrap(true);
    rows->addWidget(label);
    auto* buttons = new QHBoxLayout;
    rows->addLayout(buttons);
    const auto button = [&](const QString& text, const char* name, const std::function<void()>& then) {
      auto* b = new QPushButton(text, line);
      b->setObjectName(name);
      b->setAccessibleDescription(label->text());
      connect(b, &QPushButton::clicked, this, then);
      buttons->addWidget(b);
    };
    if (!m_session.document.readOnly() && a.solved && checks::stateAsWired(m_session.document.harness(), *a.solved, u.field.subject))
      button(tr("My program uses these pins"), "stateWired", [this, motor = u.field.subject] {
        const auto& solved = m_session.analyser.analysis().solved;
        if (const auto edit = solved ? checks::stateAsWired(m_session.document.harness(), *solved, motor) : std::nullopt)
          m_session.document.apply(*edit);
      });
    button(tr("Go there"), "unstatedGo", [this, field = u.field] { m_session.selection.jump(field); });
    buttons->addStretch();
    m_column->addWidget(line);
  }
}

}  // namespace bold::gui
