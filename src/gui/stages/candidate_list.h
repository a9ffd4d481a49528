#pragma once

#include <QListView>
#include <set>

#include "gui/session/stage_search.h"

class QStandardItemModel;

namespace bold::gui {

class Session;

/// Candidates below each other, all on the same columns: bars of their margins against the limit, pins, what they add. Space pins one to
/// the top.
class CandidateList : public QListView {
  Q_OBJECT
 public:
  CandidateList(Session& session, QWidget* parent);

  /// In this order; the one that was current stays so, and those that were pinned stay on top.
  void show(const std::vector<const StageSearch::Row*>& rows);
  const StageSearch::Row* currentRow() const;
  std::vector<const StageSearch::Row*> pinned() const;
  void pinCurrent();
  void clearPins();

  /// What identifies a candidate from one list to the next.
  static QString keyOf(const choose::Candidate& candidate);

  /// A column over the list, in its coordinates.
  struct Column {
    QString title, tip;
    int left = 0, width = 0;
    std::string row{};  ///< of marginRows; empty: text
  };
  std::vector<Column> columns() const;

 Q_SIGNALS:
  void picked();  ///< another one is current
  void pinsChanged();
  void resized();

 protected:
  void currentChanged(const QModelIndex& current, const QModelIndex& previous) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  Session& m_session;
  QStandardItemModel* m_model;
  std::vector<StageSearch::Row> m_rows;  // as they are shown
  std::set<QString> m_pinned;
  bool m_filling = false;

  friend class CandidateDelegate;
};

/// The titles of its columns.
class CandidateHeader : public QWidget {
  Q_OBJECT
 public:
  CandidateHeader(CandidateList& list, QWidget* parent);
  QSize sizeHint() const override { return {300, 26}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;

 private:
  CandidateList& m_list;
};

}  // namespace bold::gui
