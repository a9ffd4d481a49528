#include "core/program/condition_value.h"

#include <array>
#include <charconv>

namespace bold::program {
namespace {

using Maybe = std::optional<long long>;
constexpr int kDeepestCondition = 100;

// By the precedence of C; what is unknown stays so unless the other side decides.
class Reading {
 public:
  Reading(const Words& words, const std::function<Maybe(const std::string&)>& name) : m_words(words), m_name(name) {}

  Maybe run() {
    const auto v = choice(0);
    return m_at == m_words.size() ? v : std::nullopt;
  }

 private:
  const Words& m_words;
  const std::function<Maybe(const std::string&)>& m_name;
  std::size_t m_at = 0;

  bool sign(std::string_view text) {
    // Two characters stand as two words.
    if (m_at + text.size() > m_words.size()) return false;
    for (std::size_t k = 0; k < text.size(); ++k)
      if (m_words[m_at + k].text != text.substr(k, 1) || (k > 0 && m_words[m_at + k].space)) return false;
    m_at += text.size();
    return true;
  }

  Maybe choice(int depth) {
    const auto condition = binary(0, depth);
    if (!sign("?")) return condition;
    const auto a = choice(depth + 1);
    if (!sign(":")) return std::nullopt;
    const auto b = choice(depth + 1);
    return condition ? (*condition != 0 ? a : b) : a && b && *a == *b ? a : std::nullopt;
  }

  static Maybe apply(std::string_view op, long long a, long long b) {
    const auto ua = static_cast<unsigned long long>(a), ub = static_cast<unsigned long long>(b);
    if (op == "||") return a != 0 || b != 0;
    if (op == "&&") return a != 0 && b != 0;
    if (op == "|") return a | b;
    if (op == "^") return a ^ b;
    if (op == "&") return a & b;
    if (op == "==") return a == b;
    if (op == "!=") return a != b;
    if (op == "<=") return a <= b;
    if (op == ">=") return a >= b;
    if (op == "<") return a < b;
    if (op == ">") return a > b;
    if (op == "<<") return b >= 0 && b < 63 ? Maybe(static_cast<long long>(ua << ub)) : std::nullopt;
    if (op == ">>") return b >= 0 && b < 63 ? Maybe(a >> b) : std::nullopt;
    if (op == "+") return static_cast<long long>(ua + ub);
    if (op == "-") return static_cast<long long>(ua - ub);
    if (op == "*") return static_cast<long long>(ua * ub);
    if (b == 0 || b == -1) return std::nullopt;
    return op == "/" ? a / b : a % b;
  }

  Maybe binary(std::size_t level, int depth) {
    static constexpr std::array<std::array<std::string_view, 4>, 10> kLevels{
        {{"||"}, {"&&"}, {"|"}, {"^"}, {"&"}, {"==", "!="}, {"<=", ">=", "<", ">"}, {"<<", ">>"}, {"+", "-"}, {"*", "/", "%"}}};
    if (level == kLevels.size()) return unary(depth);
    auto left = binary(level + 1, depth);
    for (;;) {
      std::string_view found;
      for (const auto op : kLevels[level]) {
        if (op.empty() || !follows(op, level)) continue;
        found = op;
        break;
      }
      if (found.empty()) return left;
      m_at += found.size();
      const auto right = binary(level + 1, depth);
      if (found == "||" && ((left && *left != 0) || (right && *right != 0)))
        left = 1;
      else if (found == "&&" && ((left && *left == 0) || (right && *right == 0)))
        left = 0;
      else
        left = left && right ? apply(found, *left, *right) : std::nullopt;
    }
  }

  // "|" is no half of "||", "<" none of "<<".
  bool follows(std::string_view op, std::size_t level) {
    const auto before = m_at;
    if (!sign(op)) return false;
    const bool longer = (level == 2 && m_at < m_words.size() && m_words[m_at].text == "|") ||
                        (level == 4 && m_at < m_words.size() && m_words[m_at].text == "&") ||
                        (level == 6 && op.size() == 1 && m_at < m_words.size() && m_words[m_at].text == op);
    m_at = before;
    return !longer;
  }

  Maybe unary(int depth) {
    if (depth > kDeepestCondition || m_at >= m_words.size()) return std::nullopt;
    if (sign("!")) {
      const auto v = unary(depth + 1);
      return v ? Maybe(*v == 0) : std::nullopt;
    }
    if (sign("-")) {
      const auto v = unary(depth + 1);
      return v ? Maybe(static_cast<long long>(0ULL - static_cast<unsigned long long>(*v))) : std::nullopt;
    }
    if (sign("+")) return unary(depth + 1);
    if (sign("~")) {
      const auto v = unary(depth + 1);
      return v ? Maybe(~*v) : std::nullopt;
    }
    if (sign("(")) {
      const auto v = choice(depth + 1);
      return sign(")") ? v : std::nullopt;
    }
    const auto& w = m_words[m_at++];
    if (w.kind == Word::Kind::Number) return wholeNumber(w.text);
    if (w.kind == Word::Kind::Text) return w.text.size() == 3 ? Maybe(w.text[1]) : std::nullopt;
    if (w.kind != Word::Kind::Name) return std::nullopt;
    if (m_at < m_words.size() && m_words[m_at].text == "(") {  // a macro that nobody knows
      int open = 0;
      do {
        open += m_words[m_at].text == "(" ? 1 : m_words[m_at].text == ")" ? -1 : 0;
        ++m_at;
      } while (open > 0 && m_at < m_words.size());
      return std::nullopt;
    }
    return m_name(w.text);
  }
};

}  // namespace

std::optional<long long> conditionValue(const Words& words, const std::function<std::optional<long long>(const std::string&)>& name) {
  return Reading(words, name).run();
}

std::optional<long long> wholeNumber(std::string text) {
  std::erase(text, '\'');
  std::erase(text, '_');
  while (!text.empty() && std::string_view("uUlLzZ").find(text.back()) != std::string_view::npos) text.pop_back();
  int base = 10;
  std::size_t from = 0;
  if (text.size() > 1 && text[0] == '0') {
    const char c = text[1];
    base = c == 'x' || c == 'X' ? 16 : c == 'b' || c == 'B' ? 2 : 8;
    from = base == 8 && c != 'o' && c != 'O' ? 1 : 2;
  } else if (text.size() > 1 && text[0] == 'B' && text.find_first_not_of("01", 1) == std::string::npos) {
    base = 2;
    from = 1;
  }
  unsigned long long v = 0;
  const auto [end, error] = std::from_chars(text.data() + from, text.data() + text.size(), v, base);
  if (error != std::errc() || end != text.data() + text.size() || from >= text.size()) return std::nullopt;
  return static_cast<long long>(v);
}

}  // namespace bold::program
