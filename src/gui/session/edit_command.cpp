#include "gui/session/edit_command.h"

#include "gui/session/session.h"

namespace bold::gui {

EditCommand::EditCommand(Session& session, harness::Edit edit)
    : QUndoCommand(QString::fromStdString(edit.title)), m_session(session), m_forward(std::move(edit)) {}

void EditCommand::redo() {
  m_back = m_session.applyNow(m_forward);
}
void EditCommand::undo() {
  m_session.applyNow(m_back);
}

}  // namespace bold::gui
