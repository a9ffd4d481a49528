#pragma once

#include <QWidget>

namespace bold::gui {

/// Tab goes through these in this order, whenever each of them was made.
inline void tabInOrder(const QList<QWidget*>& chain) {
  for (qsizetype k = 1; k < chain.size(); ++k) QWidget::setTabOrder(chain[k - 1], chain[k]);
}

}  // namespace bold::gui
