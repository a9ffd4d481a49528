#pragma once

#include <QWidget>
#include <optional>
#include <set>

#include "core/picture/badges.h"
#include "core/picture/flows.h"
#include "core/picture/layout.h"

namespace bold::gui {

class Session;

/// The loom picture: draws a layout, and turns clicks, drags and keys into selections and wires.
class Picture : public QWidget {
  Q_OBJECT
 public:
  explicit Picture(Session& session, QWidget* parent = nullptr);

  QSize sizeHint() const override;
  void setZoom(double zoom);
  double zoom() const { return m_zoom; }
  /// What is not lit is dimmed, or what is lit is outlined: while wires are made everything has to be seen.
  void setDimming(bool dimming);
  /// Another bench than the document in its place: what would be there. Nothing: the document.
  void showInstead(std::optional<harness::Harness> bench);
  /// Currents and voltages of the shown operating point instead of the findings' badges.
  void showCurrents(bool shown);
  /// How far each wire has been looked at.
  void showProgress(bool shown);
  const std::optional<picture::Flows>& flows() const { return m_flows; }
  const picture::Layout& pictureLayout() const { return m_layout; }
  /// Where a terminal or badge is, in widget coordinates (for tests and for scrolling to it).
  std::optional<QPointF> placeOf(const QString& subject) const;
  std::optional<QRectF> badgeOf(const QString& identity) const;
  /// Everything that belongs to a subject or finding, in widget coordinates: of a wire both ends.
  std::optional<QRectF> extentOf(const QString& subject) const;
  /// Of what is picked: a finding's places, else the selection.
  std::optional<QRectF> pickedExtent() const;

 Q_SIGNALS:
  void layoutChanged();
  /// A wire is on its way from one place to another, or to none yet; both empty: no more.
  void joining(const QString& from, const QString& to);
  void wireDrawn(const QString& from, const QString& to);
  /// An end of the connection that was picked has been drawn to another place.
  void endDrawn(const QString& connection, bool second, const QString& to);
  void look(const QRectF& place);    ///< so that this is seen, in widget coordinates; of what is larger than the room its beginning
  void reveal(const QRectF& place);  ///< so that all of this is seen, if it has to be from further away
  void follow(const QRectF& place);  ///< the same without another size: where a wire is being drawn to
  void panned(const QPoint& by);
  void menuWanted(const QString& subject, const QPoint& global);
  void litChanged(const QString& what);  ///< what is lit while all else is dimmed, in words; empty: nothing is dimmed

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  bool event(QEvent* event) override;

 private:
  Session& m_session;
  picture::Layout m_layout;
  std::vector<picture::Badge> m_badges;
  std::optional<picture::Flows> m_flows;      ///< set while currents are shown
  std::optional<harness::Harness> m_instead;  ///< is shown in the place of the document
  bool m_currents = false;
  bool m_dimming = true;
  bool m_progress = false;
  bool m_opened = true;  ///< another bench comes next: nothing of it is fresh
  double m_zoom = 1;
  std::optional<Address> m_from;  ///< a wire being drawn
  QString m_moved;                ///< the connection whose end is being drawn elsewhere; m_from is where it stays
  bool m_movedSecond = false;
  Address m_movedFrom;
  QPointF m_pointer;
  bool m_dragged = false;
  std::optional<QPoint> m_pan;    ///< where the hand was last, in global coordinates
  std::set<std::string> m_fresh;  ///< what the last edit added: picked, it dims nothing
  std::set<std::string> m_lit;    ///< connections and devices that are not faded; empty: all

  const harness::Harness& shown() const;
  void relayout();
  bool relight();  ///< whether other things are lit now
  QString litWords() const;
  void reflow();
  void placeBadges();
  void updateAround(const std::vector<picture::Rect>& places);
  std::optional<Address> placeAt(QPointF p) const;
  QString subjectAt(QPointF p) const;
  void moveFocus(int key);
  void letGo();
};

/// A finding's number in the shape of its severity: octagon, triangle, diamond.
void paintBadge(QPainter& painter, QPointF at, int number, checks::Severity severity, bool picked);

/// Paints a layout without a window: what the picture shows.
/// @param progress how far each wire has been looked at
void paintPicture(QPainter& painter, const picture::Layout& layout, const std::vector<picture::Badge>& badges,
                  const std::set<std::string>& lit, bool dimming, bool progress, const QString& selection, const QString& picked);
/// Current along threads and voltages at terminals, over a painted layout.
void paintFlows(QPainter& painter, const picture::Layout& layout, const picture::Flows& flows);

}  // namespace bold::gui
