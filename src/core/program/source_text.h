#pragma once

#include <cstdint>
#include <string>
#include <vector>

/// A source file as text: whatever encoding it came in, one that every later step can trust.
namespace bold::program {

/// Where something stands in a source: bytes of a file's text as it was read.
struct Place {
  int file = -1;  ///< into the files of the program; -1: nowhere in them
  std::uint32_t begin = 0, end = 0;
  bool operator==(const Place&) const = default;
};

struct SourceText {
  std::string file;                  ///< relative to the folder of the program, "/" between folders
  std::string text;                  ///< UTF-8, lines ended by "\n"
  std::string digest;                ///< of the bytes as they came
  std::vector<std::string> remarks;  ///< what had to be made good: "line 3 holds bytes that are no text: shown as ?"
  bool cut = false;                  ///< longer than kMostSource: the rest was not read
  std::vector<std::uint32_t> lines;  ///< where each line begins

  /// From 1. A column counts characters (code points), as people and editors do.
  int line(std::uint32_t at) const;
  int column(std::uint32_t at) const;
  std::string lineText(int line) const;  ///< without its end; empty where there is no such line
};

/// No source is longer: what people write by hand is far below, what is above was generated.
inline constexpr std::size_t kMostSource = 4'000'000;

/// Whether bytes are a text at all, and not a picture, an archive or a program that was compiled.
bool isText(const std::string& bytes);

/// Takes UTF-8 and UTF-16 with or without a mark, else takes the bytes for Latin-1; all ends of lines.
SourceText readSource(std::string file, const std::string& bytes);

}  // namespace bold::program
