#include "core/program/words.h"

#include <cctype>

namespace bold::program {
namespace {

bool nameStart(char c) {
  return std::isalpha(static_cast<unsigned char>(c)) || c == '_' || c == '$' || (static_cast<unsigned char>(c) & 0x80);
}
bool nameGoesOn(char c) {
  return nameStart(c) || std::isdigit(static_cast<unsigned char>(c));
}

class Cutting {
 public:
  Cutting(std::string_view text, int file, std::uint32_t offset) : m_text(text), m_file(file), m_offset(offset) {}

  Words run() {
    while (m_at < m_text.size()) {
      if (blank()) continue;
      const char c = m_text[m_at];
      const auto from = m_at;
      if (c == '\n') {
        ++m_at;
        put(Word::Kind::LineEnd, from);
        m_space = false;
      } else if (nameStart(c)) {
        while (m_at < m_text.size() && nameGoesOn(m_text[m_at])) ++m_at;
        if (m_at < m_text.size() && m_text[m_at] == '"' && m_text.substr(from, m_at - from).ends_with('R')) {
          rawText();
          put(Word::Kind::Text, from);
        } else
          put(Word::Kind::Name, from);
      } else if (std::isdigit(static_cast<unsigned char>(c)) || (c == '.' && std::isdigit(static_cast<unsigned char>(peek(1))))) {
        number();
        put(Word::Kind::Number, from);
      } else if (c == '"' || c == '\'') {
        quoted(c);
        put(Word::Kind::Text, from);
      } else {
        m_at += c == '#' && peek(1) == '#' ? 2 : m_text.substr(m_at, 3) == "..." ? 3 : 1;
        put(Word::Kind::Sign, from);
      }
    }
    return std::move(m_out);
  }

 private:
  std::string_view m_text;
  int m_file;
  std::uint32_t m_offset;
  std::size_t m_at = 0;
  bool m_space = false;
  Words m_out;

  char peek(std::size_t by) const { return m_at + by < m_text.size() ? m_text[m_at + by] : '\0'; }

  void put(Word::Kind kind, std::size_t from) {
    const Place place{m_file, m_offset + static_cast<std::uint32_t>(from), m_offset + static_cast<std::uint32_t>(m_at)};
    m_out.push_back({kind, std::string(m_text.substr(from, m_at - from)), place, place, m_space});
    m_space = false;
  }

  // Whether something that counts as a blank was passed over.
  bool blank() {
    const char c = m_text[m_at];
    if (c == ' ' || c == '\t' || c == '\f' || c == '\v') {
      ++m_at;
    } else if (c == '\\' && peek(1) == '\n') {
      m_at += 2;
    } else if (c == '/' && peek(1) == '/') {
      while (m_at < m_text.size() && m_text[m_at] != '\n') m_at += m_text[m_at] == '\\' && peek(1) == '\n' ? 2 : 1;
    } else if (c == '/' && peek(1) == '*') {
      const auto end = m_text.find("*/", m_at + 2);
      m_at = end == std::string_view::npos ? m_text.size() : end + 2;
    } else
      return false;
    m_at = std::min(m_at, m_text.size());
    m_space = true;
    return true;
  }

  void number() {
    while (m_at < m_text.size()) {
      const char c = m_text[m_at];
      const bool sign = (c == '+' || c == '-') && m_at > 0 && std::string_view("eEpP").find(m_text[m_at - 1]) != std::string_view::npos &&
                        !m_text.substr(0, m_at).ends_with('x');
      const bool divider = c == '\'' && nameGoesOn(peek(1));
      if (!nameGoesOn(c) && c != '.' && !sign && !divider) break;
      // 0xE+1 is a sum.
      if (sign && hexFrom()) break;
      ++m_at;
    }
  }

  bool hexFrom() const {
    auto from = m_at;
    while (from > 0 && (nameGoesOn(m_text[from - 1]) || m_text[from - 1] == '.')) --from;
    return m_text.substr(from, 2) == "0x" || m_text.substr(from, 2) == "0X";
  }

  void quoted(char quote) {
    for (++m_at; m_at < m_text.size() && m_text[m_at] != '\n'; ++m_at) {
      if (m_text[m_at] == '\\' && m_at + 1 < m_text.size())
        ++m_at;
      else if (m_text[m_at] == quote) {
        ++m_at;
        return;
      }
    }
  }

  void rawText() {
    const auto open = m_text.find('(', m_at);
    if (open == std::string_view::npos || open - m_at > 17) return quoted('"');
    const auto close = ")" + std::string(m_text.substr(m_at + 1, open - m_at - 1)) + "\"";
    const auto end = m_text.find(close, open);
    m_at = end == std::string_view::npos ? m_text.size() : end + close.size();
  }
};

}  // namespace

Words wordsOf(std::string_view text, int file, std::uint32_t offset) {
  return Cutting(text, file, offset).run();
}

}  // namespace bold::program
