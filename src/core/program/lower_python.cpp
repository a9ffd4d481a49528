#include <utility>

#include "core/program/lowering.h"
#include "core/program/node_kinds.h"

namespace bold::program {
namespace {

class LoweringPython : Lowering {
 public:
  LoweringPython(const SourceText& source, int file, std::vector<Unread>& unread) : Lowering(source.text, unread), m_file(file) {}

  Code file(TSNode root) {
    auto out = make(Kind::Block, root);
    for (const auto child : namedChildren(root)) statement(child, out.parts, 0);
    return out;
  }

 private:
  int m_file;
  bool m_yields = false;  // the function around here

  Place used(TSNode n) const override { return {m_file, ts_node_start_byte(n), ts_node_end_byte(n)}; }
  Place spelled(TSNode n) const override { return used(n); }

  Code quoted(TSNode n, int depth) {
    auto out = make(Kind::Text, n);
    std::vector<Code> inside;
    bool plain = true;
    const auto take = [&](TSNode s) {
      for (const auto c : namedChildren(s)) {
        if (type(c) == "string_content") out.text += text(c);
        if (type(c) != "interpolation") continue;
        plain = false;
        for (const auto e : namedChildren(c))  // what is called within a text is called
          if (nodeKind(Language::Python, type(e)) == NodeKind::Followed) inside.push_back(expression(e, depth + 1));
      }
    };
    if (type(n) == "concatenated_string")
      for (const auto s : namedChildren(n)) take(s);
    else
      take(n);
    if (plain) return out;
    auto block = make(Kind::Block, n);
    block.parts = std::move(inside);
    block.parts.push_back(make(Kind::Unread, n));
    return block;
  }

  Code binary(TSNode n, std::string op, Code left, Code right) const {
    auto out = make(Kind::Binary, n);
    out.text = std::move(op);
    out.parts.push_back(std::move(left));
    out.parts.push_back(std::move(right));
    return out;
  }

  // a < b < c is a < b and b < c.
  Code comparison(TSNode n, int depth) {
    std::vector<TSNode> sides;
    std::vector<std::string> signs;
    for (const auto c : allChildren(n)) {
      if (ts_node_is_named(c) && type(c) != "comment") {
        sides.push_back(c);
        if (signs.size() + 1 < sides.size()) signs.emplace_back("?");
      } else if (signs.size() < sides.size())
        signs.emplace_back(text(c));
      else
        signs.back() += " " + std::string(text(c));  // "not in", "is not"
    }
    Code out;
    for (std::size_t k = 0; k + 1 < sides.size(); ++k) {
      auto op = signs[k];
      if (op == "is") op = "==";
      if (op == "is not") op = "!=";
      auto one = binary(n, op, expression(sides[k], depth + 1), expression(sides[k + 1], depth + 1));
      out = k == 0 ? std::move(one) : binary(n, "&&", std::move(out), std::move(one));
    }
    return out;
  }

  void arguments(TSNode list, Code& out, int depth) {
    if (type(list) == "generator_expression") {
      out.parts.push_back(expression(list, depth + 1));
      return;
    }
    for (const auto a : namedChildren(list)) {
      if (type(a) == "keyword_argument") {
        auto k = make(Kind::Keyword, a);
        k.text = text(field(a, "name"));
        k.parts.push_back(expression(field(a, "value"), depth + 1));
        out.parts.push_back(std::move(k));
      } else if (type(a) == "list_splat") {
        auto k = make(Kind::Keyword, a);
        k.text = "*";
        const auto inside = namedChildren(a);
        k.parts.push_back(inside.empty() ? Code{} : expression(inside.front(), depth + 1));
        out.parts.push_back(std::move(k));
      } else if (type(a) == "dictionary_splat") {
        auto k = make(Kind::Keyword, a);
        k.text = "**";
        const auto inside = namedChildren(a);
        k.parts.push_back(inside.empty() ? Code{} : expression(inside.front(), depth + 1));
        out.parts.push_back(std::move(k));
      } else
        out.parts.push_back(expression(a, depth + 1));
    }
  }

  Code expression(TSNode n, int depth) {
    if (none(n)) return {};
    if (depth > kDeepestCode) return unread(n, "it is nested too deep");
    const auto t = type(n);
    if (among(t, {"integer", "float"})) return number(n);
    if (among(t, {"identifier", "dotted_name"})) return name(n, std::string(text(n)));
    if (among(t, {"true", "false"})) return constant(n, t == "true");
    if (t == "none") return make(Kind::None, n);
    if (among(t, {"string", "concatenated_string"})) return quoted(n, depth);
    if (among(t, {"parenthesized_expression", "as_pattern", "with_item", "expression_statement"})) {
      const auto inside = namedChildren(n);
      return inside.empty() ? Code{} : expression(inside.front(), depth + 1);
    }
    if (t == "await" || t == "yield") {
      auto out = make(t == "await" ? Kind::Await : Kind::Yield, n);
      const auto inside = namedChildren(n);
      out.parts.push_back(inside.empty() ? Code{} : expression(inside.front(), depth + 1));
      if (t == "yield") {
        m_yields = true;
        if (text(n).starts_with("yield from")) out.text = "from";
      }
      return out;
    }
    if (t == "attribute") {
      auto out = make(Kind::Member, n);
      out.text = text(field(n, "attribute"));
      out.parts.push_back(expression(field(n, "object"), depth + 1));
      return out;
    }
    if (t == "subscript") {
      auto out = make(Kind::Item, n);
      out.parts.push_back(expression(field(n, "value"), depth + 1));
      const auto index = field(n, "subscript");
      out.parts.push_back(type(index) == "slice" ? slice(index, depth) : expression(index, depth + 1));
      return out;
    }
    if (t == "call") {
      auto out = make(Kind::Call, n);
      out.parts.push_back(expression(field(n, "function"), depth + 1));
      arguments(field(n, "arguments"), out, depth);
      return out;
    }
    if (t == "unary_operator" || t == "not_operator") {
      auto out = make(Kind::Unary, n);
      out.text = t == "not_operator" ? "!" : std::string(text(field(n, "operator")));
      out.parts.push_back(expression(field(n, "argument"), depth + 1));
      return out;
    }
    if (t == "binary_operator" || t == "boolean_operator") {
      std::string op(text(field(n, "operator")));
      if (op == "and") op = "&&";
      if (op == "or") op = "||";
      return binary(n, op, expression(field(n, "left"), depth + 1), expression(field(n, "right"), depth + 1));
    }
    if (t == "comparison_operator") return comparison(n, depth);
    if (t == "conditional_expression") {
      const auto all = namedChildren(n);
      if (all.size() != 3) return make(Kind::Unread, n);
      auto out = make(Kind::Choose, n);
      for (const int k : {1, 0, 2}) out.parts.push_back(expression(all[k], depth + 1));
      return out;
    }
    if (among(t, {"list", "tuple", "set", "expression_list", "pattern_list", "tuple_pattern", "list_pattern"})) {
      auto out = make(Kind::List, n);
      if (t != "list") out.text = t == "set" ? "set" : "tuple";
      for (const auto c : namedChildren(n)) out.parts.push_back(expression(c, depth + 1));
      return out;
    }
    if (t == "dictionary") {
      auto out = make(Kind::Pairs, n);
      for (const auto c : namedChildren(n))
        if (type(c) == "pair") {
          out.parts.push_back(expression(field(c, "key"), depth + 1));
          out.parts.push_back(expression(field(c, "value"), depth + 1));
        }
      return out;
    }
    if (among(t, {"list_comprehension", "generator_expression", "set_comprehension", "dictionary_comprehension"}))
      return comprehension(n, depth);
    if (t == "lambda") {
      auto out = make(Kind::Lambda, n);
      parameters(field(n, "parameters"), out, nullptr, depth);
      out.parts.push_back(expression(field(n, "body"), depth + 1));
      return out;
    }
    if (t == "named_expression") {
      auto out = make(Kind::Assign, n);
      out.parts.push_back(expression(field(n, "name"), depth + 1));
      out.parts.push_back(expression(field(n, "value"), depth + 1));
      return out;
    }
    if (t == "ERROR") return make(Kind::Unread, n);
    return make(Kind::Unread, n);
  }

  Code slice(TSNode n, int depth) {
    auto out = make(Kind::List, n);
    out.text = "slice";
    out.parts.resize(3);
    std::size_t at = 0;
    for (const auto c : allChildren(n)) {
      if (text(c) == ":")
        at = std::min<std::size_t>(at + 1, 2);
      else if (ts_node_is_named(c))
        out.parts[at] = expression(c, depth + 1);
    }
    return out;
  }

  Code comprehension(TSNode n, int depth) {
    auto out = make(Kind::Each, n);
    const auto body = field(n, "body");
    if (type(body) == "pair") {
      out.text = "pairs";
      auto pair = make(Kind::List, body);
      pair.parts = {expression(field(body, "key"), depth + 1), expression(field(body, "value"), depth + 1)};
      out.parts.push_back(std::move(pair));
    } else
      out.parts.push_back(expression(body, depth + 1));
    int clauses = 0;
    Code condition;
    for (const auto c : namedChildren(n)) {
      if (type(c) == "for_in_clause") {
        if (++clauses > 1) return make(Kind::Unread, n);
        targets(field(c, "left"), out.names);
        out.parts.push_back(expression(field(c, "right"), depth + 1));
      }
      if (type(c) == "if_clause") {
        const auto inside = namedChildren(c);
        if (!inside.empty()) condition = expression(inside.front(), depth + 1);
      }
    }
    if (out.parts.size() < 2) return make(Kind::Unread, n);
    out.parts.push_back(std::move(condition));
    return out;
  }

  void targets(TSNode n, std::vector<std::string>& out) const {
    if (type(n) == "identifier") {
      out.emplace_back(text(n));
      return;
    }
    for (const auto c : namedChildren(n))
      if (out.size() < 100) {
        if (type(c) == "identifier")
          out.emplace_back(text(c));
        else if (among(type(c), {"tuple_pattern", "list_pattern", "pattern_list"}))  // one level: "for i, (a, b) in …"
          targets(c, out);
        else
          out.emplace_back();
      }
  }

  void parameters(TSNode list, Code& out, std::vector<Code>* defaults, int depth) {
    for (const auto p : namedChildren(list)) {
      const auto t = type(p);
      auto at = p;
      if (among(t, {"default_parameter", "typed_default_parameter"}))
        at = field(p, "name");
      else if (t == "typed_parameter") {
        const auto inside = namedChildren(p);
        if (!inside.empty()) at = inside.front();
      } else if (among(t, {"list_splat_pattern", "dictionary_splat_pattern"})) {
        const auto inside = namedChildren(p);
        if (!inside.empty()) out.names.push_back((t == "list_splat_pattern" ? "*" : "**") + std::string(text(inside.front())));
        if (defaults) defaults->emplace_back();
        continue;
      } else if (among(t, {"keyword_separator", "positional_separator"}))
        continue;
      out.names.emplace_back(text(at));
      if (defaults) {
        const auto value = field(p, "value");
        defaults->push_back(none(value) ? Code{} : expression(value, depth + 1));
      }
    }
  }

  // ---- statements

  Code block(TSNode n, int depth) {
    auto out = make(Kind::Block, n);
    if (none(n)) return out;
    if (depth > kDeepestCode) return unread(n, "it is nested too deep");
    for (const auto s : namedChildren(n)) statement(s, out.parts, depth + 1);
    return out;
  }

  Code inner(TSNode clause, int depth) {
    auto body = field(clause, "body");
    if (none(body)) body = field(clause, "consequence");
    if (none(body))
      for (const auto c : namedChildren(clause))
        if (type(c) == "block") body = c;
    return block(body, depth + 1);
  }

  void simple(TSNode n, std::vector<Code>& out, int depth) {
    const auto t = type(n);
    if (t == "assignment") {
      const auto right = field(n, "right");
      if (none(right)) return;  // only a type
      auto one = make(Kind::Assign, n);
      one.parts.push_back(expression(field(n, "left"), depth + 1));
      if (type(right) == "assignment") {  // a = b = value
        simple(right, out, depth + 1);
        if (!out.empty() && out.back().kind == Kind::Assign && !out.back().parts.empty()) one.parts.push_back(out.back().parts.front());
      } else
        one.parts.push_back(expression(right, depth + 1));
      if (one.parts.size() == 2) out.push_back(std::move(one));
    } else if (t == "augmented_assignment") {
      auto one = make(Kind::Assign, n);
      one.text = text(field(n, "operator"));
      if (!one.text.empty()) one.text.pop_back();
      one.parts.push_back(expression(field(n, "left"), depth + 1));
      one.parts.push_back(expression(field(n, "right"), depth + 1));
      out.push_back(std::move(one));
    } else
      out.push_back(expression(n, depth + 1));
  }

  void statement(TSNode n, std::vector<Code>& out, int depth) {
    if (depth > kDeepestCode) {
      out.push_back(unread(n, "it is nested too deep"));
      return;
    }
    const auto t = type(n);
    if (t == "expression_statement") {
      for (const auto e : namedChildren(n)) simple(e, out, depth + 1);
    } else if (t == "function_definition") {
      auto one = make(Kind::Define, n);
      one.text = text(field(n, "name"));
      std::vector<Code> defaults;
      parameters(field(n, "parameters"), one, &defaults, depth);
      const bool outer = std::exchange(m_yields, false);
      one.parts.push_back(inner(n, depth));
      if (std::exchange(m_yields, outer)) one.names.emplace_back("@generator");
      if (text(n).starts_with("async")) one.names.emplace_back("@async");
      one.parts.insert(one.parts.end(), std::make_move_iterator(defaults.begin()), std::make_move_iterator(defaults.end()));
      out.push_back(std::move(one));
    } else if (t == "class_definition") {
      auto one = make(Kind::Class, n);
      one.text = text(field(n, "name"));
      for (const auto b : namedChildren(field(n, "superclasses"))) one.names.emplace_back(text(b));
      const auto body = inner(n, depth);
      one.parts = body.parts;
      out.push_back(std::move(one));
    } else if (t == "decorated_definition") {
      statement(field(n, "definition"), out, depth + 1);
      if (out.empty() || (out.back().kind != Kind::Define && out.back().kind != Kind::Class)) return;
      std::vector<Code> handed;
      for (const auto d : namedChildren(n)) {
        const auto inside = namedChildren(d);
        if (type(d) != "decorator" || inside.empty()) continue;
        const auto what = text(inside.front());
        if (out.back().kind == Kind::Define && among(what, {"property", "staticmethod", "classmethod"})) {
          out.back().names.insert(out.back().names.end(), "@" + std::string(what));
          continue;
        }
        if (what.find("asm_pio") != std::string_view::npos) out.back().parts.front() = make(Kind::Block, n);  // not Python's own statements
        // What decorates a function may call it: "@app.route".
        auto one = make(Kind::Call, d);
        one.parts.push_back(expression(inside.front(), depth + 1));
        one.parts.push_back(name(d, out.back().text));
        handed.push_back(std::move(one));
      }
      out.insert(out.end(), std::make_move_iterator(handed.begin()), std::make_move_iterator(handed.end()));
    } else if (t == "if_statement") {
      auto one = make(Kind::If, n);
      one.parts.push_back(expression(field(n, "condition"), depth + 1));
      one.parts.push_back(block(field(n, "consequence"), depth + 1));
      std::vector<TSNode> clauses;
      for (const auto c : namedChildren(n))
        if (among(type(c), {"elif_clause", "else_clause"})) clauses.push_back(c);
      Code other;
      for (auto c = clauses.rbegin(); c != clauses.rend(); ++c) {
        auto b = make(Kind::Block, *c);
        if (type(*c) == "else_clause") {
          b = inner(*c, depth + 1);
        } else {
          auto next = make(Kind::If, *c);
          next.parts.push_back(expression(field(*c, "condition"), depth + 1));
          next.parts.push_back(block(field(*c, "consequence"), depth + 1));
          if (other.kind != Kind::None) next.parts.push_back(std::move(other));
          b.parts.push_back(std::move(next));
        }
        other = std::move(b);
        if (clauses.size() > 400) break;
      }
      if (other.kind != Kind::None) one.parts.push_back(std::move(other));
      out.push_back(std::move(one));
    } else if (t == "for_statement") {
      auto one = make(Kind::For, n);
      targets(field(n, "left"), one.names);
      one.parts.push_back(expression(field(n, "right"), depth + 1));
      one.parts.push_back(block(field(n, "body"), depth + 1));
      out.push_back(std::move(one));
      if (const auto other = field(n, "alternative"); !none(other)) out.push_back(inner(other, depth + 1));
    } else if (t == "while_statement") {
      auto one = make(Kind::While, n);
      one.parts.push_back(expression(field(n, "condition"), depth + 1));
      one.parts.push_back(block(field(n, "body"), depth + 1));
      out.push_back(std::move(one));
      if (const auto other = field(n, "alternative"); !none(other)) out.push_back(inner(other, depth + 1));
    } else if (t == "try_statement") {
      auto one = make(Kind::Try, n);
      one.parts.push_back(block(field(n, "body"), depth + 1));
      for (const auto c : namedChildren(n)) {
        const auto k = type(c);
        if (!among(k, {"except_clause", "except_group_clause", "finally_clause", "else_clause"})) continue;
        auto b = inner(c, depth + 1);
        b.text = k == "finally_clause" ? "finally" : k == "else_clause" ? "else" : "BaseException";
        if (k.starts_with("except"))
          for (const auto v : namedChildren(c))
            if (type(v) != "block") b.text = text(v);
        one.parts.push_back(std::move(b));
      }
      out.push_back(std::move(one));
    } else if (t == "with_statement") {
      auto one = make(Kind::With, n);
      for (const auto clause : namedChildren(n)) {
        if (type(clause) != "with_clause") continue;
        for (const auto item : namedChildren(clause)) {
          const auto value = field(item, "value");
          std::string as;
          if (type(value) == "as_pattern")
            for (const auto c : namedChildren(value))
              if (type(c) == "as_pattern_target") as = text(c);
          one.names.push_back(as);
          one.parts.push_back(expression(value, depth + 1));
        }
      }
      one.parts.push_back(block(field(n, "body"), depth + 1));
      out.push_back(std::move(one));
    } else if (t == "return_statement") {
      auto one = make(Kind::Return, n);
      for (const auto e : namedChildren(n)) one.parts.push_back(expression(e, depth + 1));
      out.push_back(std::move(one));
    } else if (among(t, {"break_statement", "continue_statement"})) {
      out.push_back(make(t == "break_statement" ? Kind::Break : Kind::Continue, n));
    } else if (t == "raise_statement") {
      out.push_back(make(Kind::Raise, n));
      out.back().text = text(n);
    } else if (among(t, {"global_statement", "nonlocal_statement"})) {
      auto one = make(Kind::Global, n);
      for (const auto c : namedChildren(n)) one.names.emplace_back(text(c));
      out.push_back(std::move(one));
    } else if (t == "import_statement") {
      for (const auto c : namedChildren(n)) {
        auto one = make(Kind::Import, c);
        const bool alias = type(c) == "aliased_import";
        one.text = text(alias ? field(c, "name") : c);
        one.names = {"", alias ? std::string(text(field(c, "alias"))) : one.text};
        out.push_back(std::move(one));
      }
    } else if (t == "import_from_statement") {
      auto one = make(Kind::Import, n);
      const auto module = field(n, "module_name");
      one.text = text(module);
      for (const auto c : namedChildren(n)) {
        if (ts_node_eq(c, module)) continue;
        if (type(c) == "wildcard_import") one.names = {"*", "*"};
        const bool alias = type(c) == "aliased_import";
        if (!alias && type(c) != "dotted_name") continue;
        one.names.emplace_back(text(alias ? field(c, "name") : c));
        one.names.emplace_back(text(alias ? field(c, "alias") : c));
      }
      out.push_back(std::move(one));
    } else if (t == "match_statement") {
      auto one = make(Kind::Switch, n);
      one.parts.push_back(expression(field(n, "subject"), depth + 1));
      for (const auto c : namedChildren(field(n, "body"))) {
        if (type(c) != "case_clause") continue;
        auto which = make(Kind::Case, c);
        which.whole = true;  // does not go on into the next
        which.parts.push_back(block(field(c, "consequence"), depth + 1));
        which.parts.push_back(make(Kind::Unread, c));  // a pattern: any of them may fit
        one.parts.push_back(std::move(which));
      }
      out.push_back(std::move(one));
    } else if (t == "ERROR") {
      for (const auto s : namedChildren(n))
        if (type(s).ends_with("_statement") || type(s).ends_with("_definition") || type(s) == "assignment" || type(s) == "call") {
          if (type(s) == "assignment" || type(s) == "call")
            simple(s, out, depth + 1);
          else
            statement(s, out, depth + 1);
        }
    } else if (nodeKind(Language::Python, t) == NodeKind::Open)
      out.push_back(unread(n, "it is nothing that is followed"));
  }
};

}  // namespace

Code lowerPython(const SourceText& source, int file, std::vector<Unread>& unread, const std::function<bool()>& cancelled) {
  const auto parsed = parse(Language::Python, source.text, cancelled);
  if (parsed.read < source.text.size())
    unread.push_back({{file, static_cast<std::uint32_t>(parsed.read), static_cast<std::uint32_t>(source.text.size())},
                      "it took too long to read: what comes after was left out"});
  for (const auto& [from, to] : errorsOf(parsed.tree.root())) unread.push_back({{file, from, to}, kNotAsItStands});
  return LoweringPython(source, file, unread).file(parsed.tree.root());
}

}  // namespace bold::program
