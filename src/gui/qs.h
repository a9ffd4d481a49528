#pragma once

#include <QString>
#include <string_view>

namespace bold::gui {

/// A text of the core (UTF-8) as Qt's.
inline QString qs(std::string_view text) {
  return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

}  // namespace bold::gui
