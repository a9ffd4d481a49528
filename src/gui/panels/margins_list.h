#pragma once

#include <QStringList>
#include <QWidget>
#include <set>

class QLabel;
class QVBoxLayout;

namespace bold::gui {

class Session;

/// How near everything comes to its limits, also where all is well: each motor, stage, board and supply with its margins as bars, the
/// tightest first. A line that is pressed says which limits there are, of what kind and from where, and what was taken for granted.
class MarginsList : public QWidget {
  Q_OBJECT
 public:
  explicit MarginsList(Session& session, QWidget* parent = nullptr);
  /// From the last analysis; lines that say the same stay the widgets they were.
  void refresh();
  /// Its lines and buttons as they are seen, from above.
  QList<QWidget*> inOrder() const;

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  Session& m_session;
  QVBoxLayout* m_column;
  QLabel *m_head, *m_none;
  std::set<QString> m_whole;   ///< groups that are shown whole
  std::set<QString> m_opened;  ///< margins whose limits are shown
};

}  // namespace bold::gui
