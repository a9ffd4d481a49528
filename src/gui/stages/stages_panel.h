#pragma once

#include <QWidget>

#include "gui/session/stage_search.h"
#include "gui/stages/candidate_words.h"
#include "gui/stages/drawer.h"

class QBoxLayout;
class QButtonGroup;
class QComboBox;
class QLabel;
class QPushButton;
class QSpinBox;

namespace bold::gui {

class AreaChart;
class CandidateHeader;
class CandidateList;
class Session;

/// Every stage of the library, tried for one motor as the planned bench that it would be: side by side, filtered, compared, and put on the
/// plan with every wire.
class StagesPanel : public QWidget {
  Q_OBJECT
 public:
  explicit StagesPanel(Session& session, QWidget* parent = nullptr);
  void chooseFor(const std::string& motor);
  /// The whole window, or beside the picture, which then shows the current one as it would be wired.
  bool wide() const { return !m_inLoom; }
  /// The bench with the current candidate on it; nothing where the picture shall show the bench as it is.
  std::optional<harness::Harness> ghost() const;
  void putCurrent();

 Q_SIGNALS:
  void loomChanged();  ///< wide() or ghost() is another
  void placed();       ///< one is on the plan now

 protected:
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  enum Filter { All, InDrawer, Fits, NothingBesides, LeavesChannel, kFilters };

  Session& m_session;
  StageSearch m_search;
  Drawer m_drawer;
  QComboBox *m_motor, *m_supply, *m_kind;
  QLabel *m_facts, *m_said, *m_gets, *m_comes, *m_why;
  QButtonGroup* m_filters;
  CandidateHeader* m_header;
  CandidateList* m_list;
  QBoxLayout* m_outer;  ///< list and facts beside each other, or below each other beside the loom
  QWidget* m_side;
  std::vector<QWidget*> m_onlyWide;
  AreaChart* m_area;
  QSpinBox* m_benches;
  QPushButton *m_put, *m_putChanged, *m_loom;
  bool m_inLoom = false;
  bool m_due = true;  ///< the bench is another one than was tried

  void buildTop(QBoxLayout& column);
  void buildSide();
  void fillChoices();
  void restart();
  bool passes(const StageSearch::Row& row, int filter) const;
  void refresh();
  void showCurrent();
  void put(bool withChange);
  void setInLoom(bool in);
};

}  // namespace bold::gui
