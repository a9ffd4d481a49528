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
/// @param problems receives one entry for each duplicate key (the first value is kept), of many the first ones and their number
/// Errors: the text is not whole JSON, is nested deeper than 200 levels, or is larger than kLargestText.
[[nodiscard]] Result<Json> parseJson(std::string_view text, const std::string& where, std::vector<Problem>& problems);

/// Of a text that is known to be JSON: one that was written here or is compiled in.
/// Errors: throws what the JSON library throws.
Json parsedJson(std::string_view text);

/// Two-space indented text with a final newline; short arrays and objects on one line.
std::string jsonText(const Json& value);
/// The same inside another text, without the final newline: lines after the first stand this many columns in.
std::string nestedText(const Json& value, std::size_t indent);
/// All of it on one line, with the spaces people expect.
std::string lineText(const Json& value);

inline constexpr std::size_t kMostRepeatsNamed = 50;  ///< by parseJson; the others are counted

/// A key as it stands in a JSON pointer (RFC 6901).
std::string pointerKey(std::string_view key);

/// 16 hex digits that change with the content (FNV-1a over the compact text). Not a security measure.
std::string digest(const Json& value);

}  // namespace bold
