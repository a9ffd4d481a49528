#pragma once

#include <string_view>

/// What hostile input is let loose on. Each takes any bytes; it aborts (an assertion) when a promise is broken: nothing is
/// lost between reading and writing, every answer is one sentence, the engine always ends with a verdict.
namespace bold::fuzz {

void harnessFile(std::string_view bytes);
void partFile(std::string_view bytes);
void typedText(std::string_view bytes);
/// What lies in the drawer, and a wire list: both come from spreadsheets.
void lists(std::string_view bytes);
/// A source: its first byte tells the language (p: Python, c: C, else C++).
void program(std::string_view bytes);

}  // namespace bold::fuzz
