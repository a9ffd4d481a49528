#pragma once

#include <QListWidget>

class QLineEdit;

namespace bold::gui {

class Session;

/// Under a line in which wires are typed: the terminals that its last word may become, those that fit and are free first. Down goes into
/// it, Tab takes the first or the one that is marked, Escape puts it away.
class EndList : public QListWidget {
  Q_OBJECT
 public:
  /// @param line that it serves; it stands under it, over whatever is there
  EndList(Session& session, QLineEdit* line, QWidget* parent);
  void refresh();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Session& m_session;
  QLineEdit* m_line;

  void take(int row);
};

}  // namespace bold::gui
