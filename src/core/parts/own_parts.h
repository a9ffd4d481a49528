#pragma once

#include <string>

namespace bold::parts {

/// $XDG_DATA_HOME/bold-harness/parts, else ~/.local/share/bold-harness/parts; empty when neither is known.
std::string ownFolder();

}  // namespace bold::parts
