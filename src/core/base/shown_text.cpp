#include "core/base/shown_text.h"

#include <fmt/core.h>

namespace bold {
namespace {

struct Letter {
  std::uint32_t code = 0xFFFD;
  std::size_t bytes = 1;
};

Letter letterAt(std::string_view text) {
  const auto byte = [&](std::size_t i) { return i < text.size() ? static_cast<unsigned char>(text[i]) : 0U; };
  const unsigned lead = byte(0);
  if (lead < 0x80U) return {lead, 1};
  const std::size_t bytes = lead >= 0xF0U && lead < 0xF5U ? 4 : lead >= 0xE0U && lead < 0xF0U ? 3 : lead >= 0xC2U && lead < 0xE0U ? 2 : 0;
  if (bytes == 0) return {};
  std::uint32_t code = lead & (0xFFU >> (bytes + 1));
  for (std::size_t i = 1; i < bytes; ++i) {
    if ((byte(i) & 0xC0U) != 0x80U) return {};
    code = code << 6U | (byte(i) & 0x3FU);
  }
  return {code, bytes};
}

bool acts(std::uint32_t c) {
  return c < 0x20 || (c >= 0x7F && c < 0xA0) || c == 0xAD || c == 0x61C || (c >= 0x200B && c <= 0x200F) || (c >= 0x2028 && c <= 0x202E) ||
         (c >= 0x2060 && c <= 0x206F) || c == 0xFEFF || c == 0xFFFD || (c >= 0xFFF9 && c <= 0xFFFB) || (c >= 0xE0000 && c <= 0xE007F);
}

template <class Spell>
std::string spelt(std::string_view text, bool lines, Spell spell) {
  std::string out;
  out.reserve(text.size());
  while (!text.empty()) {
    const auto letter = letterAt(text);
    if (acts(letter.code) && !(lines && letter.code == '\n'))
      out += spell(letter.code);
    else
      out += text.substr(0, letter.bytes);
    text.remove_prefix(letter.bytes);
  }
  return out;
}

std::string spell(std::uint32_t code) {
  if (code == '\n') return "\\n";
  if (code == '\r') return "\\r";
  if (code == '\t') return "\\t";
  return fmt::format("\\u{{{:X}}}", code);
}

}  // namespace

std::string shownText(std::string_view text) {
  return spelt(text, false, spell);
}

std::string shownLines(std::string_view text) {
  return spelt(text, true, spell);
}

std::string shownJson(std::string_view json) {
  return spelt(json, true, [](std::uint32_t code) {
    if (code <= 0xFFFF) return fmt::format("\\u{:04x}", code);
    return fmt::format("\\u{:04x}\\u{:04x}", 0xD800 + ((code - 0x10000) >> 10U), 0xDC00 + ((code - 0x10000) & 0x3FFU));
  });
}

}  // namespace bold
