#pragma once

#include <QUndoCommand>

#include "core/harness/edit.h"

namespace bold::gui {

class Session;

/// The one undo command: wraps any edit.
class EditCommand : public QUndoCommand {
 public:
  EditCommand(Session& session, harness::Edit edit);
  void undo() override;
  void redo() override;

 private:
  Session& m_session;
  harness::Edit m_forward, m_back;
};

}  // namespace bold::gui
