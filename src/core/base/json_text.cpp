#include "core/base/json_text.h"

#include <algorithm>
#include <cassert>
#include <nlohmann/json.hpp>
#include <utility>

namespace bold {
namespace {

constexpr std::string_view kSpace = " \t\r\n";

// Reads over whole JSON without keeping anything.
class Scanner {
 public:
  explicit Scanner(std::string_view text) : m_text(text) {
    if (m_text.starts_with("\xEF\xBB\xBF")) m_at = 3;
    space();
  }
  std::size_t at() const { return m_at; }
  bool take(char c) {
    space();
    if (m_at >= m_text.size() || m_text[m_at] != c) return false;
    ++m_at;
    return true;
  }
  void space() { m_at = std::min(m_text.find_first_not_of(kSpace, m_at), m_text.size()); }
  std::string_view value() {
    space();
    const auto from = m_at;
    if (m_at >= m_text.size()) return {};
    if (m_text[m_at] == '"')
      string();
    else if (m_text[m_at] == '{' || m_text[m_at] == '[')
      nested();
    else
      m_at = std::min(m_text.find_first_of(",]} \t\r\n", m_at), m_text.size());
    return m_text.substr(from, m_at - from);
  }

 private:
  std::string_view m_text;
  std::size_t m_at = 0;

  void string() {
    for (++m_at; m_at < m_text.size() && m_text[m_at] != '"'; ++m_at)
      if (m_text[m_at] == '\\') ++m_at;
    m_at = std::min(m_at + 1, m_text.size());
  }
  void nested() {
    int depth = 0;
    do {
      const char c = m_text[m_at];
      if (c == '"') {
        string();
        continue;
      }
      depth += c == '{' || c == '[' ? 1 : c == '}' || c == ']' ? -1 : 0;
      ++m_at;
    } while (depth > 0 && m_at < m_text.size());
  }
};

std::string keyOf(std::string_view quoted) {
  return quoted.find('\\') == std::string_view::npos ? std::string(quoted.substr(1, quoted.size() - 2))
                                                     : Json::parse(quoted).get<std::string>();
}

// Where a part of a text begins and ends in it.
struct Span {
  std::size_t from, to;
};
Span spanOf(std::string_view whole, std::string_view part) {
  const auto from = static_cast<std::size_t>(part.data() - whole.data());
  assert(from + part.size() <= whole.size());  // only views into the text are ever asked for
  return {from, from + part.size()};
}

std::string replaced(std::string_view text, Span span, std::string_view by) {
  std::string out(text.substr(0, span.from));
  out += by;
  out += text.substr(span.to);
  return out;
}

// A member or element with the comma that belongs to it.
std::string cutOut(std::string_view text, Span span) {
  const auto next = text.find_first_not_of(kSpace, span.to);
  if (next != std::string_view::npos && text[next] == ',') {
    span.to = std::min(text.find_first_not_of(kSpace, next + 1), text.size());
  } else {
    const auto before = text.find_last_not_of(kSpace, span.from - 1);
    if (before != std::string_view::npos && text[before] == ',') span.from = before;
  }
  return replaced(text, span, {});
}

// A member from its key on.
Span memberSpan(std::string_view object, const TextMember& m) {
  auto span = spanOf(object, m.value);
  const auto colon = object.find_last_of(':', span.from - 1);
  const auto end = object.find_last_of('"', colon);
  for (auto at = object.find_last_of('"', end - 1);; at = object.find_last_of('"', at - 1)) {
    // A quote behind an odd number of backslashes belongs to the key.
    std::size_t slashes = 0;
    while (slashes < at && object[at - 1 - slashes] == '\\') ++slashes;
    if (slashes % 2 == 0) {
      span.from = at;
      return span;
    }
  }
}

// Of the members with this key all but the first are cut out, each with the comma before it.
std::string withoutRepeats(std::string_view text, std::string_view key) {
  std::string out;
  std::size_t kept = 0;
  bool seen = false;
  for (const auto& m : membersOf(text)) {
    if (m.key != key || !std::exchange(seen, true)) continue;
    const auto span = memberSpan(text, m);
    const auto comma = text.find_last_not_of(kSpace, span.from - 1);
    out += text.substr(kept, comma - kept);
    kept = span.to;
  }
  return out + std::string(text.substr(kept));
}

}  // namespace

std::vector<TextMember> membersOf(std::string_view object) {
  std::vector<TextMember> out;
  Scanner s(object);
  if (!s.take('{')) return out;
  while (!s.take('}')) {
    const auto key = s.value();
    if (key.size() < 2 || !s.take(':')) return out;
    out.push_back({keyOf(key), s.value()});
    s.take(',');
  }
  return out;
}

std::vector<std::string_view> elementsOf(std::string_view array) {
  std::vector<std::string_view> out;
  Scanner s(array);
  if (!s.take('[')) return out;
  while (!s.take(']')) {
    const auto v = s.value();
    if (v.empty()) return out;
    out.push_back(v);
    s.take(',');
  }
  return out;
}

std::string withFirstMember(std::string_view object, std::string_view key, std::string_view value) {
  const auto members = membersOf(object);
  if (const auto it = std::ranges::find(members, key, &TextMember::key); it != members.end())
    return replaced(object, spanOf(object, it->value), value);
  const auto member = lineText(Json(std::string(key))) + ": " + std::string(value);
  if (members.empty()) {
    const auto open = object.find('{');
    return replaced(object, {open + 1, object.find_last_of('}')}, member);
  }
  // As far from the comma as the last one stands from its own.
  const auto last = memberSpan(object, members.back());
  const auto comma = object.find_last_not_of(kSpace, last.from - 1);
  const auto gap = members.size() > 1 || object.find('\n', comma) < last.from ? object.substr(comma + 1, last.from - comma - 1) : " ";
  return replaced(object, {last.to, last.to}, "," + std::string(gap) + member);
}

std::string withMember(std::string_view object, std::string_view key, std::string_view value) {
  return withoutRepeats(withFirstMember(object, key, value), key);
}

std::string withoutMember(std::string_view object, std::string_view key) {
  auto text = withoutRepeats(object, key);
  const auto members = membersOf(text);
  const auto it = std::ranges::find(members, key, &TextMember::key);
  return it == members.end() ? text : cutOut(text, memberSpan(text, *it));
}

std::string without(std::string_view text, const TextPath& path, bool onlyRepeats) {
  if (path.empty()) return std::string(text);
  const bool last = path.size() == 1;
  const TextPath rest(path.begin() + 1, path.end());
  const auto first = text.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
  if (first != std::string_view::npos && text[first] == '[') {
    const auto elements = elementsOf(text);
    for (std::size_t i = 0; i < elements.size(); ++i) {
      if (std::to_string(i) != path.front()) continue;
      const auto span = spanOf(text, elements[i]);
      return last ? cutOut(text, span) : replaced(text, span, without(elements[i], rest, onlyRepeats));
    }
    return std::string(text);
  }
  if (last) return onlyRepeats ? withoutRepeats(text, path.front()) : withoutMember(text, path.front());
  for (const auto& m : membersOf(text))
    if (m.key == path.front()) return replaced(text, spanOf(text, m.value), without(m.value, rest, onlyRepeats));
  return std::string(text);
}

}  // namespace bold
