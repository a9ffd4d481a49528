#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/parts/part.h"

namespace bold::parts {

/// The terminals of a part that people mean by a word, whatever the case of its letters: by id, else by what is printed, else by another
/// name, a pin's number in a program or its chip's own name, else by function ("VM" for the one motor supply, "VCC" for the one logic
/// supply). Several where it is printed several times; none where nothing is called that.
std::vector<std::string> terminalsNamed(const Part& part, std::string_view word);

/// The one that is meant where only one is, or all of them are grounds of one print; empty otherwise.
std::string terminalNamed(const Part& part, std::string_view word);

}  // namespace bold::parts
