#include "core/base/address.h"

#include <fmt/core.h>

#include <algorithm>

namespace bold {

bool isId(std::string_view text) {
  return !text.empty() && std::ranges::all_of(text, [](char c) {
    return (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
  });
}

namespace {

// What is printed at a terminal may stand for its id ("+12V", "1,2EN", "3.3V"), and a connector's name for a whole connector
// ("power, left", "row B12 to 3.3").
bool isPrint(std::string_view text) {
  const auto inside = [](char c) { return isId({&c, 1}) || std::string_view("+,/()*#~:&'. ").find(c) != std::string_view::npos; };
  const auto atAnEnd = [](char c) { return c != ' ' && c != '.'; };
  return !text.empty() && text.size() <= 40 && std::ranges::all_of(text, inside) && atAnEnd(text.front()) && atAnEnd(text.back());
}

}  // namespace

Result<Address> parseAddress(std::string_view text) {
  const auto dot = text.find('.');
  if (dot == std::string_view::npos || !isId(text.substr(0, dot)) || !isPrint(text.substr(dot + 1)))
    return fail(fmt::format("\"{}\" is not a terminal address such as s1.IN1", text));
  return Address{std::string(text.substr(0, dot)), std::string(text.substr(dot + 1))};
}

}  // namespace bold
