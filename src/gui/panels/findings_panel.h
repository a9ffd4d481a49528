#pragma once

#include <QPointer>
#include <QScrollArea>
#include <QTimer>

#include "gui/panels/finding_card.h"

class QLabel;
class QVBoxLayout;

namespace bold::gui {

class LeftOutCard;
class MarginsList;
class NameFaults;
class UnstatedCard;
class Session;

/// Findings beside the picture, causes first, and under them how near everything is to its limits; picking one here picks it in the picture
/// and the other way round.
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
  UnstatedCard* m_unstated;
  NameFaults* m_naming;
  MarginsList* m_margins;
  QLabel *m_head, *m_judged, *m_quiet, *m_taken;
  QScrollArea* m_scroll;
  QWidget* m_inside;
  QVBoxLayout* m_column;
  QList<FindingCard*> m_cards;
  QString m_lookedAt;  ///< the finding that was scrolled to

  struct Anchor {
    QPointer<QWidget> widget;
    int offset;  ///< px below the upper edge of what is seen
  };
  Anchor m_held{};
  int m_heldAt = 0;  ///< where it was when the bar was last set
  QTimer m_settling;
  Anchor anchored() const;
  void hold(const Anchor& anchor);
  void holdStill();
  FindingCard* newCard();
  void showCards(const std::vector<FindingCard::Shown>& shown);
  void orderTabs();
  void refresh();
  void showPicked();
  void repair(const QString& identity);
};

}  // namespace bold::gui
