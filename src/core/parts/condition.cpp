#include "core/parts/condition.h"

#include <fmt/core.h>

#include <vector>

#include "core/base/address.h"

namespace bold::parts {

Level operator!(Level v) {
  return v == Level::Undefined ? v : v == Level::High ? Level::Low : Level::High;
}
Level both(Level a, Level b) {
  if (a == Level::Low || b == Level::Low) return Level::Low;
  return a == Level::High && b == Level::High ? Level::High : Level::Undefined;
}
Level either(Level a, Level b) {
  return !both(!a, !b);
}

struct Condition::Term {
  enum Kind { Terminal, Not, And, Or, Above, Below } kind;
  Node a, b;
  double limit = 0;
  std::shared_ptr<const Term> left, right;

  Level evaluate(const World& w) const {
    switch (kind) {
      case Terminal:
        return w.level(a);
      case Not:
        return !left->evaluate(w);
      case And:
        return both(left->evaluate(w), right->evaluate(w));
      case Or:
        return either(left->evaluate(w), right->evaluate(w));
      case Above:
      case Below: {
        const auto v = w.volts(a, b);
        if (!v) return Level::Low;  // no common reference: no voltage between them
        return (kind == Above ? *v > limit : *v < limit) ? Level::High : Level::Low;
      }
    }
    return Level::Undefined;
  }

  static std::shared_ptr<const Term> resolved(const std::shared_ptr<const Term>& term, const std::function<int(const std::string&)>& find) {
    if (!term) return nullptr;
    auto copy = std::make_shared<Term>(*term);
    if (!copy->a.empty()) copy->a.at = find(copy->a);
    if (!copy->b.empty()) copy->b.at = find(copy->b);
    copy->left = resolved(term->left, find);
    copy->right = resolved(term->right, find);
    return copy;
  }
};

class ConditionParser {
 public:
  ConditionParser(std::string_view text, const std::map<std::string, Condition>& named) : m_text(text), m_named(named) {}

  Result<Condition> run() {
    Condition c;
    c.m_root = orExpression();
    skip();
    if (m_error.empty() && m_at < m_text.size()) error("something is left over");
    if (!m_error.empty()) return fail(fmt::format("The condition \"{}\" cannot be read: {}.", m_text, m_error));
    c.m_inputs = m_inputs;
    return c;
  }

 private:
  using NodePtr = std::shared_ptr<const Condition::Term>;
  std::string_view m_text;
  const std::map<std::string, Condition>& m_named;
  std::size_t m_at = 0;
  int m_depth = 0;
  std::string m_error;
  std::set<std::string> m_inputs;

  void error(const std::string& what) {
    if (m_error.empty()) m_error = fmt::format("{} at character {}", what, m_at + 1);
  }
  void skip() {
    while (m_at < m_text.size() && m_text[m_at] == ' ') ++m_at;
  }
  bool take(char c) {
    skip();
    if (m_at >= m_text.size() || m_text[m_at] != c) return false;
    ++m_at;
    return true;
  }
  std::string word() {
    skip();
    const auto from = m_at;
    while (m_at < m_text.size() && isId(m_text.substr(m_at, 1))) ++m_at;
    return std::string(m_text.substr(from, m_at - from));
  }
  static NodePtr node(Condition::Term n) { return std::make_shared<const Condition::Term>(std::move(n)); }

  NodePtr orExpression() {
    auto left = andExpression();
    while (m_error.empty() && take('|')) left = node({Condition::Term::Or, {}, {}, 0, left, andExpression()});
    return left;
  }
  NodePtr andExpression() {
    auto left = unary();
    while (m_error.empty() && take('&')) left = node({Condition::Term::And, {}, {}, 0, left, unary()});
    return left;
  }
  NodePtr unary() {
    if (++m_depth > 50) error("it is nested too deeply");
    NodePtr result;
    if (!m_error.empty()) {
      result = node({Condition::Term::Terminal, "-", {}, 0, nullptr, nullptr});
    } else if (take('!')) {
      result = node({Condition::Term::Not, {}, {}, 0, unary(), nullptr});
    } else if (take('(')) {
      result = orExpression();
      if (!take(')')) error("a closing parenthesis is missing");
    } else {
      result = atom();
    }
    --m_depth;
    return result;
  }
  NodePtr atom() {
    const auto name = word();
    if (name.empty()) error("a terminal is missing");
    if (name == "V" && take('(')) return voltage();
    if (const auto it = m_named.find(name); it != m_named.end()) {
      m_inputs.insert(it->second.m_inputs.begin(), it->second.m_inputs.end());
      return it->second.m_root;
    }
    m_inputs.insert(name);
    return node({Condition::Term::Terminal, name, {}, 0, nullptr, nullptr});
  }
  NodePtr voltage() {
    const auto a = word();
    if (!take(',')) error("V(a,b) needs two terminals");
    const auto b = word();
    if (!take(')')) error("a closing parenthesis is missing");
    const bool above = take('>');
    if (!above && !take('<')) error("V(a,b) needs > or <");
    skip();
    const auto from = m_at;
    while (m_at < m_text.size() && m_text[m_at] != '&' && m_text[m_at] != '|' && m_text[m_at] != ')') ++m_at;
    const auto limit = bold::parse<Volts>(m_text.substr(from, m_at - from));
    if (!limit) error(limit.error().what);
    return node({above ? Condition::Term::Above : Condition::Term::Below, a, b, limit ? limit->value : 0, nullptr, nullptr});
  }
};

Result<Condition> Condition::parse(std::string_view text, const std::map<std::string, Condition>& named) {
  return ConditionParser(text, named).run();
}

Condition Condition::resolved(const std::function<int(const std::string&)>& find) const {
  Condition out = *this;
  out.m_root = Term::resolved(m_root, find);
  return out;
}

Level Condition::evaluate(const World& world) const {
  return m_root ? m_root->evaluate(world) : Level::High;
}

}  // namespace bold::parts
