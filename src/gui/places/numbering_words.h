#pragma once

#include <QString>

#include "core/places/numbering.h"

namespace bold::gui {

/// "as printed", "by position": how pins are called, for a menu or list.
QString numberingWords(places::Numbering numbering);

}  // namespace bold::gui
