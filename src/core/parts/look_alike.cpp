#include "core/parts/look_alike.h"

#include <array>
#include <utility>

namespace bold::parts {
namespace {

// Cyrillic and Greek letters that are drawn like Latin ones, in UTF-8.
constexpr std::array<std::pair<std::string_view, char>, 40> kTwins{{
    {"А", 'a'}, {"а", 'a'}, {"В", 'b'}, {"в", 'b'}, {"С", 'c'}, {"с", 'c'}, {"Е", 'e'}, {"е", 'e'}, {"Н", 'h'}, {"н", 'h'},
    {"І", '1'}, {"і", '1'}, {"К", 'k'}, {"к", 'k'}, {"М", 'm'}, {"м", 'm'}, {"О", '0'}, {"о", '0'}, {"Р", 'p'}, {"р", 'p'},
    {"Т", 't'}, {"т", 't'}, {"Х", 'x'}, {"х", 'x'}, {"У", 'y'}, {"у", 'y'}, {"Α", 'a'}, {"Β", 'b'}, {"Ε", 'e'}, {"Η", 'h'},
    {"Ι", '1'}, {"Κ", 'k'}, {"Μ", 'm'}, {"Ν", 'n'}, {"Ο", '0'}, {"ο", '0'}, {"Ρ", 'p'}, {"Τ", 't'}, {"Χ", 'x'}, {"Υ", 'y'},
}};

}  // namespace

std::string skeleton(std::string_view name) {
  std::string out;
  while (!name.empty()) {
    bool twin = false;
    for (const auto& [letter, latin] : kTwins)
      if (name.starts_with(letter)) {
        out += latin;
        name.remove_prefix(letter.size());
        twin = true;
        break;
      }
    if (twin) continue;
    const auto byte = static_cast<unsigned char>(name.front());
    // Full-width forms U+FF01 to U+FF5E stand for ASCII.
    char c = name.front();
    if (byte == 0xEFU && name.size() > 2) {
      const unsigned code = 0xF000U | (static_cast<unsigned char>(name[1]) & 0x3FU) << 6U | (static_cast<unsigned char>(name[2]) & 0x3FU);
      c = code >= 0xFF01U && code <= 0xFF5EU ? static_cast<char>(code - 0xFEE0U) : ' ';
      name.remove_prefix(2);
    }
    name.remove_prefix(1);
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    if (c == 'o') c = '0';
    if (c == 'l' || c == 'i') c = '1';
    if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9')) out += c;
  }
  return out;
}

std::string lookAlike(const Part& part, const Library& library) {
  const auto id = skeleton(part.id);
  const auto name = skeleton(part.name);
  for (const auto& other : library.search({})) {
    if (other->own) continue;
    if (skeleton(other->id) == id || (!name.empty() && skeleton(other->name) == name)) return other->id;
  }
  return {};
}

}  // namespace bold::parts
