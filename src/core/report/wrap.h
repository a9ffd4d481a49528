#pragma once

#include <string>
#include <string_view>

namespace bold::report {

/// Breaks at spaces so that no line is wider than `width` columns (UTF-8 characters counted as one each).
/// The first line begins with `first`, the others with as many spaces. Ends with a newline.
std::string wrap(std::string_view first, std::string_view text, int width);

}  // namespace bold::report
