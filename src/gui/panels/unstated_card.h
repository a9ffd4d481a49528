#pragma once

#include <QFrame>
#include <QStringList>

class QVBoxLayout;

namespace bold::gui {

class Session;

/// What nobody stated: motors without signals, each with the pins that its wires lead to and the way to state them.
class UnstatedCard : public QFrame {
  Q_OBJECT
 public:
  explicit UnstatedCard(Session& session, QWidget* parent = nullptr);
  void refresh();

 private:
  Session& m_session;
  QVBoxLayout* m_column;
  QStringList m_shown;
};

}  // namespace bold::gui
