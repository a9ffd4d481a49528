#pragma once

#include <string>
#include <string_view>
#include <vector>

/// Comma separated values (RFC 4180), as programs and people write them.
namespace bold {

struct CsvLine {
  int number = 0;                   ///< in the text, from 1, of its first character
  std::vector<std::string> fields;  ///< without quotes, without spaces around them
  std::string text;                 ///< as it stands, without its end
};

/// Lines that hold anything. The separator (comma, semicolon or tab) is the one that the first line has most of; a quoted field may hold
/// line ends, and a quote that nobody closes ends with its line.
std::vector<CsvLine> readCsv(std::string_view text);

/// One line with its end, as readCsv reads it. What a spreadsheet would run as a formula gets an apostrophe in front, which readCsv takes
/// away.
std::string csvLine(const std::vector<std::string>& fields);

}  // namespace bold
