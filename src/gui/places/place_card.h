#pragma once

#include <QWidget>
#include <memory>

#include "core/places/drawing.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;

namespace bold::gui {

class PlaceView;
class Session;

/// Where the terminals of a part are, turned as it lies on the table, in any of its numberings. Of a device on the bench the way it lies is
/// kept with the bench; an order that is only the usual one waits for somebody who compared it with the print.
class PlaceCard : public QWidget {
  Q_OBJECT
 public:
  /// @param device empty: of the part as such
  PlaceCard(Session& session, std::string part, std::string device, QWidget* parent = nullptr);

 private:
  Session& m_session;
  std::string m_part, m_device;
  places::Wish m_wish;
  QLabel *m_hold, *m_order, *m_said;
  PlaceView* m_view;
  QPushButton *m_turn, *m_mine;
  QCheckBox* m_below;
  QComboBox* m_names;

  std::shared_ptr<const parts::Part> part() const;
  void refresh();
  void lie(places::Lie lie);
  void confirm();
};

}  // namespace bold::gui
