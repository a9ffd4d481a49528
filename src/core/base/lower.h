#pragma once

#include <algorithm>
#include <cctype>
#include <string>
#include <string_view>

namespace bold {

/// In lower case, as far as letters are ASCII: for comparing what people type.
inline std::string lower(std::string_view text) {
  std::string out(text);
  std::ranges::transform(out, out.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return out;
}

}  // namespace bold
