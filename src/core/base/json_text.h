#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/json.h"

namespace bold {

/// JSON as it was written, to the byte: for writing back what nobody changed exactly as it stood. Every text given to these
/// functions has been read by parseJson before, and so is whole.

/// One member of an object. The views look into the text it was taken from.
struct TextMember {
  std::string key;
  std::string_view value;
};
/// In the order they stand in; a key that stands there twice comes twice.
std::vector<TextMember> membersOf(std::string_view object);
std::vector<std::string_view> elementsOf(std::string_view array);

/// The object with this member set to a value: in its place, or behind the last one. Later members of the same key go.
std::string withMember(std::string_view object, std::string_view key, std::string_view value);
/// As withMember, but later members of the same key stay.
std::string withFirstMember(std::string_view object, std::string_view key, std::string_view value);
/// The object without this member; unchanged when there is none.
std::string withoutMember(std::string_view object, std::string_view key);

/// Where in a text: the keys and indices of a JSON pointer.
using TextPath = std::vector<std::string>;
/// The text without the member or element at this place; unchanged when there is none.
/// @param onlyRepeats of a key that stands there several times, only the first stays
std::string without(std::string_view text, const TextPath& path, bool onlyRepeats);

}  // namespace bold
