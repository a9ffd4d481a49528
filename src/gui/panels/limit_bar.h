#pragma once

#include <QWidget>

#include "core/checks/finding.h"

class QPainter;

namespace bold::gui {

/// A number on its way to a limit. What lies past the limit, or is missing to it, has the colour of what follows from that; what is
/// within has none.
/// @param used share of the way: 1 is at the limit
void paintWay(QPainter& painter, const QRectF& place, double used, checks::Severity past, double inner = -1);

/// A finding's number against the limit it is past.
class LimitBar : public QWidget {
  Q_OBJECT
 public:
  LimitBar(const checks::Bar& bar, checks::Severity severity, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {200, 40}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  checks::Bar m_bar;
  checks::Severity m_severity;
};

}  // namespace bold::gui
