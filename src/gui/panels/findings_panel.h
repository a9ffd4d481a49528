#pragma once

#include <QScrollArea>

class QLabel;
class QVBoxLayout;

namespace bold::gui {

class FindingCard;
class LeftOutCard;
class Session;

/// Findings beside the picture, causes first; picking one here picks it in the picture and the other way round.
class FindingsPanel : public QWidget {
  Q_OBJECT
 public:
  explicit FindingsPanel(Session& session, QWidget* parent = nullptr);
  void step(int by);  ///< to the next / previous open matter
  void repairPicked();

 Q_SIGNALS:
  void explain(const QString& check);

 private:
  Session& m_session;
  LeftOutCard* m_leftOut;
  QLabel *m_head, *m_judged, *m_quiet;
  QScrollArea* m_scroll;
  QWidget* m_inside;
  QVBoxLayout* m_column;
  QList<FindingCard*> m_cards;

  void refresh();
  void showPicked();
  void repair(const QString& identity);
};

}  // namespace bold::gui
