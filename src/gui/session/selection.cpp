#include "gui/session/selection.h"

namespace bold::gui {

void Selection::select(const QString& subject) {
  if (m_subject == subject) return;
  m_subject = subject;
  Q_EMIT changed();
}

void Selection::pick(const QString& identity) {
  if (m_picked == identity) return;
  m_picked = identity;
  Q_EMIT pickedChanged();
}

void Selection::jump(const checks::Field& field) {
  const auto subject = QString::fromStdString(field.subject);
  pick({});
  select(subject);
  Q_EMIT fieldWanted(subject, QString::fromStdString(field.name));
}

void Selection::showCommand(const QString& command, bench::Corner corner) {
  if (m_command == command && m_corner == corner) return;
  m_command = command;
  m_corner = corner;
  Q_EMIT commandShown();
}

void Selection::clear() {
  m_subject.clear();
  m_picked.clear();
  m_command.clear();
  m_corner = bench::Corner::Full;
}

}  // namespace bold::gui
