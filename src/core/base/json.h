#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"

namespace bold {

using Json = nlohmann::ordered_json;

inline constexpr std::size_t kLargestText = std::size_t{16} << 20U;  ///< bytes; a bench of 3,000 wires is under 1 MB

/// Parses text, keeping the order of keys.
/// @param where named in problems, usually the file
/// @param problems receives one entry for each duplicate key (the first value is kept)
/// Errors: the text is not whole JSON, is nested deeper than 200 levels, or is larger than kLargestText.
[[nodiscard]] Result<Json> parseJson(std::string_view text, const std::string& where, std::vector<Problem>& problems);

/// Two-space indented text with a final newline; short arrays and objects on one line.
std::string jsonText(const Json& value);

/// 16 hex digits that change with the content (FNV-1a over the compact text). Not a security measure.
std::string digest(const Json& value);

}  // namespace bold
