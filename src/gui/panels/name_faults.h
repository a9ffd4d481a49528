#pragma once

#include <QWidget>

class QLabel;
class QPlainTextEdit;
class QPushButton;

namespace bold::gui {

class Session;

/// Stands in the place of the findings while they are hidden: faults are named in words, a line each, then both lists stand beside each
/// other.
class NameFaults : public QWidget {
  Q_OBJECT
 public:
  explicit NameFaults(Session& session, QWidget* parent = nullptr);
  void refresh();

 private:
  Session& m_session;
  QLabel *m_how, *m_result;
  QPlainTextEdit* m_lines;
  QPushButton *m_compare, *m_close;

  void compare();
};

}  // namespace bold::gui
