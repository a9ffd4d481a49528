#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/program/source_text.h"

/// A C or C++ text cut into words, as its preprocessor sees them.
namespace bold::program {

struct Word {
  enum class Kind { Name, Number, Text, Sign, LineEnd };
  Kind kind = Kind::Sign;
  std::string text;
  Place spelled;       ///< where it stands
  Place use;           ///< where it is used: elsewhere once it came out of a macro
  bool space = false;  ///< blanks or comments before it
};
using Words = std::vector<Word>;

/// Comments and continued lines count as blanks. Text that is never closed ends with its line.
Words wordsOf(std::string_view text, int file, std::uint32_t offset);

}  // namespace bold::program
