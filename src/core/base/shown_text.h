#pragma once

#include <string>
#include <string_view>

namespace bold {

/// Text from a file, a name or a message as it may be shown: characters that act on a terminal, on the order of reading or on
/// lines (controls, escapes, bidirectional marks, separators, invisible ones) are spelt out, such as \n or \u{202E}. What is no
/// UTF-8 becomes \u{FFFD}. Nothing else changes; shown again it stays the same.
std::string shownText(std::string_view text);

/// The same for a text of several lines that is ours, with data in it: line feeds stay.
std::string shownLines(std::string_view text);

/// JSON with such characters as escapes of JSON; it says the same.
std::string shownJson(std::string_view json);

}  // namespace bold
