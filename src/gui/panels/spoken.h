#pragma once

#include <QComboBox>

namespace bold::gui {

/// Says what a combo box is for. On Linux screen readers get its current text as its name, so what it is for has to be its
/// description too.
inline void speak(QComboBox* box, const QString& purpose) {
  box->setAccessibleName(purpose);
  box->setAccessibleDescription(purpose);
}

}  // namespace bold::gui
