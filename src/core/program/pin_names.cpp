#include "core/program/pin_names.h"

#include <algorithm>
#include <array>

#include "core/base/lower.h"

namespace bold::program {
namespace {

bool letter(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) || c == '_';
}

std::string trimmed(std::string text) {
  while (!text.empty() && std::isspace(static_cast<unsigned char>(text.back()))) text.pop_back();
  return text;
}

// The identifier that a text ends with; empty: it ends with none.
std::string lastName(const std::string& text) {
  auto from = text.size();
  while (from > 0 && letter(text[from - 1])) --from;
  const auto out = text.substr(from);
  return out.empty() || std::isdigit(static_cast<unsigned char>(out[0])) ? std::string() : out;
}

bool keyword(const std::string& name) {
  static constexpr std::array kWords{"return", "if", "while", "for", "switch", "case", "in", "and", "or", "not", "new"};
  return std::ranges::find(kWords, name) != kWords.end();
}

// "#define NAME ", "NAME = ", "NAME=" right before it.
std::string direct(const std::string& before) {
  const auto text = trimmed(before);
  if (text.ends_with('=') && text.size() > 1 && std::string_view("=!<>+-*/").find(text[text.size() - 2]) == std::string_view::npos) {
    const auto names = trimmed(text.substr(0, text.size() - 1));
    const auto name = lastName(names);
    // "A, B = 5, 6": which name is whose does not stand right before the number.
    const auto others = trimmed(names.substr(0, names.size() - name.size()));
    if (others.ends_with(',') && others.find('=') == std::string::npos) return {};
    return name;
  }
  if (const auto define = text.find("#define"); define != std::string::npos && text != before) {
    const auto name = lastName(text);
    return name == "define" ? std::string() : name;
  }
  return {};
}

constexpr std::string_view kInFlash = "PROGMEM";  // says where a list is kept, and no more

// "NAME[] = {1, 2, ", "NAME = (", "Stage NAME(", "\"name\": (": what the innermost open bracket belongs to.
std::string owner(const std::string& before) {
  int depth = 0;
  for (auto k = before.size(); k > 0; --k) {
    const char c = before[k - 1];
    if (c == ')' || c == ']' || c == '}') ++depth;
    if (c != '(' && c != '[' && c != '{') continue;
    if (depth-- > 0) continue;
    depth = 0;
    auto head = trimmed(before.substr(0, k - 1));
    if (head.ends_with('=')) head = trimmed(head.substr(0, head.size() - 1));
    if (head.ends_with(kInFlash)) head = trimmed(head.substr(0, head.size() - kInFlash.size()));
    while (head.ends_with(']')) {
      const auto open = head.rfind('[');
      if (open == std::string::npos) break;
      head = trimmed(head.substr(0, open));
    }
    if (head.ends_with(':')) {  // a key of a mapping
      head = trimmed(head.substr(0, head.size() - 1));
      if (head.ends_with('"') || head.ends_with('\'')) head = head.substr(0, head.size() - 1);
    }
    const auto name = lastName(head);
    if (name.empty()) continue;  // a bracket within another
    // "Stage carriage(…" and "carriage = Stage(…" name the thing; a plain call of something names nothing.
    auto rest = trimmed(head.substr(0, head.size() - name.size()));
    if (c == '(' && rest.ends_with('=')) return lastName(trimmed(rest.substr(0, rest.size() - 1)));
    if (c == '(' && (rest.empty() || !letter(rest.back()))) return {};
    return keyword(name) ? std::string() : name;
  }
  return {};
}

}  // namespace

bool tellsNothing(const std::string& name) {
  static constexpr std::array kPlain{"pin",        "pins", "p",      "n",     "i", "k",  "x",       "pinnumber",
                                     "pin_number", "num",  "number", "value", "v", "id", "channel", "gpio"};
  return name.size() < 2 || std::ranges::find(kPlain, lower(name)) != kPlain.end();
}

std::string nameOfNumber(const SourceText& source, std::uint32_t at, const std::string& part) {
  constexpr std::uint32_t kBack = 600;  // characters: a list over some lines
  const int line = source.line(at);
  const auto lineStart = source.lines[static_cast<std::size_t>(line) - 1];
  if (auto name = direct(source.text.substr(lineStart, at - lineStart)); !name.empty() && !tellsNothing(name)) return name;
  // Back to the end of the statement before.
  auto from = at;
  while (from > 0 && at - from < kBack && source.text[from - 1] != ';') --from;
  const auto of = owner(source.text.substr(from, at - from));
  const bool plain = tellsNothing(part);
  if (of.empty() || tellsNothing(of)) return plain ? std::string() : part;
  return plain || of == part ? of : of + "." + part;
}

}  // namespace bold::program
