#pragma once

#include <string>
#include <string_view>

namespace bold {

/// Text as XML and HTML hold it, in an element or in quotes.
std::string markupText(std::string_view text);

}  // namespace bold
