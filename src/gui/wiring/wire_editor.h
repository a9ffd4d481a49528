#pragma once

#include <QWidget>
#include <functional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/harness/edit.h"

class QComboBox;
class QLineEdit;
class QPushButton;

namespace bold::gui {

class Session;

/// What is changed of the wires that are picked: colour, gauge, length, ends; whether they are there at all. Each as one edit.
class WireEditor : public QWidget {
  Q_OBJECT
 public:
  using Picked = std::function<std::vector<std::string>()>;
  /// @param picked connections, in the order of the list
  WireEditor(Session& session, Picked picked, QWidget* parent = nullptr);

  void refresh();
  /// The field of that name (checks::Field); nullptr where there is none.
  QWidget* field(const QString& name) const;
  void removePicked();
  void markPickedDone();
  QList<QWidget*> inOrder() const;

 Q_SIGNALS:
  void said(const QString& sentence);  ///< what stands in the way; empty: nothing
  void moveWanted();                   ///< the picked wires are to go to other terminals

 private:
  Session& m_session;
  Picked m_picked;
  QComboBox *m_colour, *m_gauge;
  QLineEdit* m_length;
  QString m_lengthOf;  ///< the connection whose length is in the field
  QPushButton *m_remove, *m_done, *m_move, *m_swap, *m_byUse;

  void change(const std::string& what, const std::function<void(harness::Connection&)>& f);
  void takeLength();
  void swapEnds();
};

}  // namespace bold::gui
