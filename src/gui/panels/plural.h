#pragma once

#include <QString>

namespace bold::gui {

/// "1 motor", "3 motors": the first release is English and ships no translation files that %n would need.
inline QString plural(int n, const QString& one, const QString& many) {
  return QString::number(n) + " " + (n == 1 ? one : many);
}

}  // namespace bold::gui
