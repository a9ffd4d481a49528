#pragma once

#include <QWidget>
#include <array>
#include <optional>

#include "core/base/address.h"

class QLabel;

namespace bold::gui {

class PlaceView;
class Session;

/// Both ends of a wire, side by side, as the parts lie on the table: where each finger goes.
class EndsView : public QWidget {
  Q_OBJECT
 public:
  explicit EndsView(Session& session, QWidget* parent = nullptr);
  /// @param colour of the wire; empty: none yet
  /// Addresses as texts; what is none is no end.
  /// Names in large type, to be read from where the bench is.
  void setLarge(bool large);
  /// How high the drawings are, 0: none are shown; what is said below them has room besides.
  void setTall(int pixels);
  void show(const QString& a, const QString& b, const QString& colour = {});
  void show(const std::optional<Address>& a, const std::optional<Address>& b, const QString& colour = {});

 private:
  struct End {
    QLabel* name;
    PlaceView* place;
    QLabel* words;
    QWidget* box;
  };
  Session& m_session;
  std::array<End, 2> m_ends;
  int m_tall = 0;

  void fill(End& end, const std::optional<Address>& at, const QString& colour);
};

}  // namespace bold::gui
