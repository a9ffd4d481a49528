#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/program/code.h"

/// The preprocessor of C and C++, of our own and bounded: what a compiler would see, and where each word of it stands.
namespace bold::program {

/// A text after its macros and includes, with the way back to the sources.
class ExpandedText {
 public:
  std::string text;

  /// Where something was used: of words out of a macro, where the macro stands.
  Place used(std::uint32_t begin, std::uint32_t end) const { return place(begin, end, true); }
  /// Where it is spelled: of words out of a macro, in its definition.
  Place spelled(std::uint32_t begin, std::uint32_t end) const { return place(begin, end, false); }

  void append(std::string_view word, Place spelled, Place use);
  void append(std::string_view blank) { text += blank; }

 private:
  struct Segment {
    std::uint32_t begin, length;
    Place spelled, use;
  };
  std::vector<Segment> m_segments;
  Place place(std::uint32_t begin, std::uint32_t end, bool use) const;
};

/// What the world outside of the sources says.
struct Toolchain {
  /// Macros that are there before the first line: name or name(parameters), and what they stand for.
  std::map<std::string, std::string> macros;
  /// Whether a name that no source defines may be defined by the compiler: no: it is not, so that #ifdef of it is false.
  std::function<std::optional<bool>(std::string_view)> defines;
  /// The file that an include names, seen from a file; -1: none of the program's.
  std::function<int(int from, const std::string& name)> include;
  /// Asked now and then: whether what comes out is not wanted any more; may be empty.
  std::function<bool()> cancelled;
};

/// @param file where it begins
/// @param tabs what comes after it as if it stood in the same file: the other parts of a sketch
/// @param missing includes in quotes that are no file of the program
ExpandedText preprocess(const std::vector<SourceText>& files, int file, const std::vector<int>& tabs, const Toolchain& toolchain,
                        std::vector<Unread>& unread, std::vector<std::pair<Place, std::string>>& missing);

}  // namespace bold::program
