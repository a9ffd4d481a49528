#include <array>
#include <map>

#include "core/program/lowering.h"
#include "core/program/node_kinds.h"

namespace bold::program {
namespace {

class LoweringC : Lowering {
 public:
  LoweringC(Language language, const ExpandedText& expanded, std::vector<Unread>& unread)
      : Lowering(expanded.text, unread), m_language(language), m_expanded(expanded) {}

  Code file(TSNode root) {
    auto out = make(Kind::Block, root);
    for (const auto child : namedChildren(root)) statement(child, out.parts, 0);
    return out;
  }

  Code expression(TSNode n, int depth) {
    if (none(n)) return {};
    if (depth > kDeepestCode) return unread(n, "it is nested too deep");
    const auto t = type(n);
    if (t == "number_literal") return number(n);
    if (among(t, {"identifier", "field_identifier", "type_identifier", "primitive_type", "this", "namespace_identifier"}))
      return name(n, std::string(text(n)));
    if (among(t, {"true", "false"})) return constant(n, t == "true");
    if (among(t, {"null", "nullptr"})) return constant(n, 0);
    if (among(t, {"string_literal", "raw_string_literal", "concatenated_string"})) return quoted(n);
    if (t == "char_literal") return character(n);
    if (among(t, {"parenthesized_expression", "condition_clause"})) {
      const auto value = field(n, "value");
      const auto inside = namedChildren(n);
      return expression(!none(value) ? value : inside.empty() ? TSNode{} : inside.back(), depth + 1);
    }
    if (t == "cast_expression") return cast(n, field(n, "type"), field(n, "value"), depth);
    if (t == "field_expression") {
      auto out = make(Kind::Member, n);
      out.text = text(field(n, "field"));
      out.parts.push_back(expression(field(n, "argument"), depth + 1));
      return out;
    }
    if (among(t, {"qualified_identifier", "template_function", "template_type", "template_method", "dependent_name"})) return qualified(n);
    if (t == "subscript_expression") {
      auto out = make(Kind::Item, n);
      out.parts.push_back(expression(field(n, "argument"), depth + 1));
      auto index = field(n, "index");
      if (none(index)) {
        const auto inside = namedChildren(field(n, "indices"));
        if (!inside.empty()) index = inside.front();
      }
      out.parts.push_back(expression(index, depth + 1));
      return out;
    }
    if (t == "call_expression") return call(n, depth);
    if (among(t, {"unary_expression", "pointer_expression"})) {
      auto out = make(Kind::Unary, n);
      out.text = text(field(n, "operator"));
      if (out.text == "not") out.text = "!";
      if (out.text == "compl") out.text = "~";
      out.parts.push_back(expression(field(n, "argument"), depth + 1));
      return out;
    }
    if (t == "update_expression") {
      auto out = make(Kind::Step, n);
      const auto sign = field(n, "operator");
      out.text = text(sign).substr(0, 1);
      out.whole = ts_node_start_byte(sign) > ts_node_start_byte(field(n, "argument"));
      out.parts.push_back(expression(field(n, "argument"), depth + 1));
      return out;
    }
    if (t == "binary_expression") {
      auto out = make(Kind::Binary, n);
      out.text = text(field(n, "operator"));
      static constexpr std::array<std::array<std::string_view, 2>, 5> kWords{
          {{"and", "&&"}, {"or", "||"}, {"bitand", "&"}, {"bitor", "|"}, {"xor", "^"}}};
      for (const auto& [w, sign] : kWords)
        if (out.text == w) out.text = sign;
      out.parts.push_back(expression(field(n, "left"), depth + 1));
      out.parts.push_back(expression(field(n, "right"), depth + 1));
      return out;
    }
    if (t == "assignment_expression") {
      auto out = make(Kind::Assign, n);
      out.text = text(field(n, "operator"));
      if (out.text == "and_eq") out.text = "&=";
      if (out.text == "or_eq") out.text = "|=";
      if (!out.text.empty()) out.text.pop_back();
      out.parts.push_back(expression(field(n, "left"), depth + 1));
      out.parts.push_back(expression(field(n, "right"), depth + 1));
      return out;
    }
    if (t == "conditional_expression") {
      auto out = make(Kind::Choose, n);
      for (const auto* part : {"condition", "consequence", "alternative"}) out.parts.push_back(expression(field(n, part), depth + 1));
      return out;
    }
    if (t == "comma_expression") {
      auto out = make(Kind::Block, n);
      out.parts.push_back(expression(field(n, "left"), depth + 1));
      out.parts.push_back(expression(field(n, "right"), depth + 1));
      return out;
    }
    if (t == "sizeof_expression") {
      auto out = make(Kind::Call, n);
      out.parts.push_back(name(n, "sizeof"));
      const auto value = field(n, "value");
      out.parts.push_back(expression(none(value) ? field(n, "type") : value, depth + 1));
      return out;
    }
    if (t == "type_descriptor") return expression(field(n, "type"), depth + 1);
    if (t == "initializer_list") return braces(n, depth);
    if (t == "compound_literal_expression") {
      auto out = make(Kind::New, n);
      out.text = typeName(field(n, "type"));
      out.parts.push_back(expression(field(n, "value"), depth + 1));
      out.names.emplace_back("{}");  // what the braces hold are its fields
      return out;
    }
    if (t == "new_expression") {
      auto out = make(Kind::New, n);
      out.text = typeName(field(n, "type"));
      arguments(field(n, "arguments"), out, depth);
      return out;
    }
    if (t == "lambda_expression") {
      auto out = make(Kind::Lambda, n);
      parameters(field(field(n, "declarator"), "parameters"), out, nullptr, depth);
      out.parts.push_back(block(field(n, "body"), depth + 1));
      return out;
    }
    if (t == "delete_expression") return {};
    if (t == "ERROR") return make(Kind::Unread, n);
    const auto inside = namedChildren(n);  // co_await, extension, _Generic and the like
    if (nodeKind(m_language, t) == NodeKind::Open) return unread(n, "it is nothing that is followed");
    return inside.size() == 1 ? expression(inside.front(), depth + 1) : make(Kind::Unread, n);
  }

 private:
  Language m_language;
  const ExpandedText& m_expanded;
  std::map<std::string, std::string, std::less<>> m_aliases;  // other names of types

  Place used(TSNode n) const override { return m_expanded.used(ts_node_start_byte(n), ts_node_end_byte(n)); }
  Place spelled(TSNode n) const override { return m_expanded.spelled(ts_node_start_byte(n), ts_node_end_byte(n)); }

  Code quoted(TSNode n) const {
    auto out = make(Kind::Text, n);
    for (std::string_view rest = text(n); !rest.empty();) {
      const auto open = rest.find('"');
      const auto close = open == std::string_view::npos ? open : rest.find('"', open + 1);
      if (close == std::string_view::npos) break;
      out.text += rest.substr(open + 1, close - open - 1);
      rest.remove_prefix(close + 1);
    }
    return out;
  }

  Code character(TSNode n) const {
    const auto t = text(n);
    if (t.size() == 3) return constant(n, t[1]);
    static constexpr std::string_view kFrom = "ntr0\\'\"", kTo("\n\t\r\0\\'\"", 7);
    const auto at = t.size() == 4 && t[1] == '\\' ? kFrom.find(t[2]) : std::string_view::npos;
    return at == std::string_view::npos ? make(Kind::Unread, n) : constant(n, kTo[at]);
  }

  // a::b::c by its last names, template arguments left out: a class keeps its own before a member's.
  Code qualified(TSNode n) const {
    std::string out;
    const auto t = type(n);
    if (t == "qualified_identifier") {
      const auto scope = field(n, "scope");
      const auto inner = field(n, "name");
      const auto left = none(scope) ? std::string() : qualified(scope).text;
      const auto right = qualified(inner).text;
      out = left.empty() || left == "std" ? right : left + "::" + right;
    } else if (const auto own = field(n, "name"); !none(own))
      out = text(own);
    else
      out = text(n);
    return name(n, std::move(out));
  }

  static bool isCast(std::string_view f) { return among(f, {"static_cast", "reinterpret_cast", "const_cast", "dynamic_cast"}); }

  void arguments(TSNode list, Code& out, int depth) {
    for (const auto a : namedChildren(list))
      out.parts.push_back(type(a) == "compound_statement" ? block(a, depth + 1) : expression(a, depth + 1));
  }

  Code cast(TSNode n, TSNode to, TSNode value, int depth) {
    auto inner = expression(value, depth + 1);
    const auto pointer = type(to) == "type_descriptor" && !none(field(to, "declarator"));
    if (none(to) || pointer) return inner;
    auto out = make(Kind::Cast, n);
    out.text = typeName(to);
    out.parts.push_back(std::move(inner));
    return out;
  }

  Code call(TSNode n, int depth) {
    const auto function = field(n, "function");
    const auto given = field(n, "arguments");
    auto out = make(Kind::Call, n);
    auto callee = type(function) == "primitive_type" ? name(function, std::string(text(function))) : expression(function, depth + 1);
    const auto inside = namedChildren(given);
    if (inside.size() == 1 && isCast(callee.text)) {
      const auto types = namedChildren(field(function, "arguments"));
      return cast(n, types.empty() ? TSNode{} : types.front(), inside.front(), depth);
    }
    if (inside.size() == 1 && type(function) == "primitive_type") return cast(n, function, inside.front(), depth);  // int(x)
    out.parts.push_back(std::move(callee));
    arguments(given, out, depth);
    return out;
  }

  Code braces(TSNode n, int depth) {
    auto out = make(Kind::List, n);
    for (const auto c : namedChildren(n)) {
      if (type(c) != "initializer_pair") {
        out.parts.push_back(expression(c, depth + 1));
        continue;
      }
      out.kind = Kind::Fields;
      auto one = make(Kind::Keyword, c);
      for (const auto d : namedChildren(c))
        if (type(d) == "field_designator" || type(d) == "subscript_designator")
          for (const auto word : namedChildren(d)) one.text += (one.text.empty() ? "" : ".") + std::string(text(word));
      one.parts.push_back(expression(field(c, "value"), depth + 1));
      out.parts.push_back(std::move(one));
    }
    return out;
  }

  // ---- declarations

  std::string typeName(TSNode n) const {
    const auto t = type(n);
    if (among(t, {"struct_specifier", "class_specifier", "enum_specifier", "union_specifier"})) return std::string(text(field(n, "name")));
    if (among(t, {"qualified_identifier", "template_type"})) return qualified(n).text;
    if (t == "type_descriptor") return typeName(field(n, "type"));
    const auto alias = m_aliases.find(text(n));
    return alias != m_aliases.end() ? alias->second : std::string(text(n));
  }

  struct Declared {
    std::string name;
    bool pointer = false, function = false;
    std::vector<TSNode> sizes;
    TSNode functionNode{};
  };

  Declared declarator(TSNode n) const {
    Declared out;
    std::vector<TSNode> sizes;
    for (int guard = 0; !none(n) && guard < kDeepestCode; ++guard) {
      const auto t = type(n);
      if (among(t, {"pointer_declarator", "reference_declarator"})) out.pointer = true;
      if (t == "array_declarator") sizes.push_back(field(n, "size"));
      if (t == "function_declarator") {
        out.function = true;
        out.functionNode = n;
      }
      auto inner = field(n, "declarator");
      if (none(inner)) {
        const auto inside = namedChildren(n);
        if (among(t, {"reference_declarator", "parenthesized_declarator", "attributed_declarator"}) && !inside.empty())
          inner = inside.front();
        else {
          out.name = among(t, {"qualified_identifier", "destructor_name", "operator_name", "template_function"}) ? qualified(n).text
                                                                                                                 : std::string(text(n));
          break;
        }
      }
      n = inner;
    }
    // "int f(char *)" names nothing.
    const auto first = out.name.empty() ? '*' : out.name.front();
    if (!std::isalpha(static_cast<unsigned char>(first)) && first != '_' && first != '~' && first != ':' && !(first & 0x80))
      out.name.clear();
    out.sizes.assign(sizes.rbegin(), sizes.rend());
    return out;
  }

  void parameters(TSNode list, Code& out, std::vector<Code>* defaults, int depth) {
    for (const auto p : namedChildren(list)) {
      if (!among(type(p), {"parameter_declaration", "optional_parameter_declaration"})) continue;
      if (text(p) == "void") continue;
      const auto d = none(field(p, "declarator")) ? Declared{} : declarator(field(p, "declarator"));
      out.names.push_back(d.name);
      out.types.push_back(d.pointer || !d.sizes.empty() ? std::string() : typeName(field(p, "type")));
      if (defaults) {
        const auto value = field(p, "default_value");
        defaults->push_back(none(value) ? Code{} : expression(value, depth + 1));
      }
    }
  }

  Code function(TSNode n, int depth) {
    auto out = make(Kind::Define, n);
    const auto d = declarator(field(n, "declarator"));
    out.text = d.name;
    std::vector<Code> defaults;
    parameters(field(d.functionNode, "parameters"), out, &defaults, depth);
    out.types.push_back(d.pointer ? std::string() : typeName(field(n, "type")));
    auto body = make(Kind::Block, n);
    for (const auto c : namedChildren(n))
      if (type(c) == "field_initializer_list")
        for (const auto init : namedChildren(c)) {
          const auto inside = namedChildren(init);
          if (inside.empty()) continue;
          auto one = make(Kind::Assign, init);
          one.text = "init";
          auto target = make(Kind::Member, inside.front());
          target.text = text(inside.front());
          target.parts.push_back(name(inside.front(), "this"));
          one.parts.push_back(std::move(target));
          if (inside.size() > 1) arguments(inside[1], one, depth);
          body.parts.push_back(std::move(one));
        }
    if (const auto inside = field(n, "body"); !none(inside)) body.parts.push_back(block(inside, depth + 1));
    out.parts.push_back(std::move(body));
    out.parts.insert(out.parts.end(), std::make_move_iterator(defaults.begin()), std::make_move_iterator(defaults.end()));
    return out;
  }

  // "Stepper m(STEPS, IN1)" reads like a function that takes types of those names.
  static bool madeOfNames(TSNode functionDeclarator) {
    const auto all = namedChildren(field(functionDeclarator, "parameters"));
    return !all.empty() && std::ranges::all_of(all, [](TSNode p) {
      return type(p) == "parameter_declaration" && none(field(p, "declarator")) &&
             among(type(field(p, "type")), {"type_identifier", "qualified_identifier"});
    });
  }

  void declaration(TSNode n, std::vector<Code>& out, int depth) {
    const auto typeNode = field(n, "type");
    specifier(typeNode, out, depth);
    const auto of = typeName(typeNode);
    const bool keeps = text(n).starts_with("static") || text(n).find("static ") < 24;
    for (const auto child : namedChildren(n)) {
      const auto t = type(child);
      const bool init = t == "init_declarator";
      if (!init && !among(t, {"identifier", "field_identifier", "array_declarator", "pointer_declarator", "reference_declarator",
                              "function_declarator"}))
        continue;
      if (ts_node_eq(child, typeNode)) continue;
      const auto d = declarator(init ? field(child, "declarator") : child);
      if (d.name.empty()) continue;
      auto one = make(d.sizes.empty() ? Kind::Declare : Kind::Array, child);
      one.text = of;
      one.whole = keeps;
      one.number = d.pointer;
      one.names.push_back(d.name);
      auto value = init ? field(child, "value") : field(n, "default_value");
      if (d.function && !d.pointer) {
        if (init || type(typeNode) == "primitive_type" || !madeOfNames(d.functionNode)) continue;  // a prototype
        auto made = make(Kind::New, child);
        made.text = of;
        for (const auto p : namedChildren(field(d.functionNode, "parameters")))
          made.parts.push_back(expression(field(p, "type"), depth + 1));
        one.parts.push_back(std::move(made));
        out.push_back(std::move(one));
        continue;
      }
      if (type(value) == "argument_list" ||
          (type(value) == "initializer_list" && type(typeNode) != "primitive_type" && d.sizes.empty() && !assigned(child))) {
        auto made = make(Kind::New, child);
        made.text = of;
        if (type(value) == "initializer_list") made.names.emplace_back("?{}");  // arguments, or fields of what has no constructor
        arguments(value, made, depth);
        one.parts.push_back(std::move(made));
      } else if (!none(value))
        one.parts.push_back(expression(value, depth + 1));
      else if (!d.sizes.empty())
        one.parts.emplace_back();
      for (const auto s : d.sizes) one.parts.push_back(expression(s, depth + 1));
      out.push_back(std::move(one));
    }
  }

  bool assigned(TSNode initDeclarator) const {
    const auto all = allChildren(initDeclarator);
    return std::ranges::any_of(all, [](TSNode c) { return type(c) == "="; });
  }

  // What a type that is spelled out defines besides: enumerators, a class.
  void specifier(TSNode n, std::vector<Code>& out, int depth) {
    const auto t = type(n);
    const auto body = field(n, "body");
    if (none(body)) return;
    if (t == "enum_specifier") {
      Code before;
      const auto scope = std::string(text(field(n, "name")));
      for (const auto e : namedChildren(body)) {
        if (type(e) != "enumerator") continue;
        auto one = make(Kind::Declare, e);
        one.text = "enum";
        one.names.emplace_back(text(field(e, "name")));
        if (!scope.empty()) one.names.push_back(scope + "::" + one.names.front());
        const auto value = field(e, "value");
        if (!none(value))
          one.parts.push_back(expression(value, depth + 1));
        else if (before.kind == Kind::None)
          one.parts.push_back(constant(e, 0));
        else {
          auto sum = make(Kind::Binary, e);
          sum.text = "+";
          sum.parts = {before, constant(e, 1)};
          one.parts.push_back(std::move(sum));
        }
        before = make(Kind::Name, e);
        before.text = one.names.front();
        out.push_back(std::move(one));
      }
      return;
    }
    if (!among(t, {"struct_specifier", "class_specifier", "union_specifier"})) return;
    auto one = make(Kind::Class, n);
    one.text = text(field(n, "name"));
    if (one.text.empty()) one.text = "__unnamed" + std::to_string(ts_node_start_byte(n));
    for (const auto c : namedChildren(n))
      if (type(c) == "base_class_clause")
        for (const auto b : namedChildren(c))
          if (type(b) != "access_specifier") one.names.push_back(qualified(b).text);
    members(body, one.parts, depth + 1);
    out.push_back(std::move(one));
  }

  void members(TSNode body, std::vector<Code>& out, int depth) {
    if (depth > kDeepestCode) return;
    for (const auto m : namedChildren(body)) {
      const auto t = type(m);
      if (t == "function_definition")
        out.push_back(function(m, depth + 1));
      else if (among(t, {"field_declaration", "declaration"}))
        declaration(m, out, depth + 1);
      else if (t == "template_declaration" || t.starts_with("preproc_"))
        members(m, out, depth + 1);
    }
  }

  // ---- statements

  Code block(TSNode n, int depth) {
    auto out = make(Kind::Block, n);
    if (none(n)) return out;
    if (depth > kDeepestCode) return unread(n, "it is nested too deep");
    if (type(n) == "compound_statement")
      for (const auto s : namedChildren(n)) statement(s, out.parts, depth + 1);
    else
      statement(n, out.parts, depth + 1);
    return out;
  }

  void alternatives(TSNode n, std::vector<Code>& out, int depth) {
    auto one = make(Kind::Alternative, n);
    bool last = false;
    for (auto at = n; !none(at) && one.parts.size() < 64;) {
      auto branch = make(Kind::Block, at);
      const auto condition = field(at, "condition");
      const auto more = field(at, "alternative");
      for (const auto s : namedChildren(at)) {
        if ((!none(condition) && ts_node_eq(s, condition)) || (!none(more) && ts_node_eq(s, more))) continue;
        statement(s, branch.parts, depth + 1);
      }
      last = type(at) == "preproc_else";
      one.parts.push_back(std::move(branch));
      at = more;
    }
    if (!last) one.parts.push_back(make(Kind::Block, n));
    out.push_back(std::move(one));
  }

  void statement(TSNode n, std::vector<Code>& out, int depth) {
    if (depth > kDeepestCode) {
      out.push_back(unread(n, "it is nested too deep"));
      return;
    }
    const auto t = type(n);
    if (t == "expression_statement") {
      for (const auto e : namedChildren(n)) out.push_back(expression(e, depth + 1));
    } else if (t == "declaration") {
      declaration(n, out, depth);
    } else if (t == "function_definition") {
      out.push_back(function(n, depth));
    } else if (among(t, {"compound_statement", "else_clause"})) {
      auto inner = make(Kind::Block, n);
      for (const auto s : namedChildren(n)) statement(s, inner.parts, depth + 1);
      out.push_back(std::move(inner));
    } else if (among(t, {"declaration_list", "namespace_definition", "linkage_specification", "template_declaration"})) {
      const auto body = field(n, "body");
      if (!none(body) && t != "template_declaration") return statement(body, out, depth + 1);
      for (const auto s : namedChildren(n))
        if (!among(type(s), {"template_parameter_list", "string_literal"})) statement(s, out, depth + 1);
    } else if (among(t, {"enum_specifier", "struct_specifier", "class_specifier", "union_specifier"})) {
      specifier(n, out, depth);
    } else if (t == "type_definition") {
      const auto typeNode = field(n, "type");
      const auto before = out.size();
      specifier(typeNode, out, depth);
      const auto d = declarator(field(n, "declarator"));
      if (out.size() > before && out.back().kind == Kind::Class && !d.name.empty()) out.back().names.push_back("=" + d.name);
      if (out.size() == before && !d.name.empty() && !d.pointer && !d.function && d.sizes.empty()) m_aliases[d.name] = typeName(typeNode);
    } else if (t == "alias_declaration") {
      m_aliases[std::string(text(field(n, "name")))] = typeName(field(n, "type"));
    } else if (t == "if_statement") {
      auto one = make(Kind::If, n);
      one.parts.push_back(expression(field(n, "condition"), depth + 1));
      one.parts.push_back(block(field(n, "consequence"), depth + 1));
      const auto other = field(n, "alternative");
      if (!none(other)) one.parts.push_back(block(other, depth + 1));
      out.push_back(std::move(one));
    } else if (among(t, {"while_statement", "do_statement"})) {
      auto one = make(Kind::While, n);
      one.whole = t == "do_statement";
      one.parts.push_back(expression(field(n, "condition"), depth + 1));
      one.parts.push_back(block(field(n, "body"), depth + 1));
      out.push_back(std::move(one));
    } else if (t == "for_statement") {
      auto scope = make(Kind::Block, n);
      const auto begin = field(n, "initializer");
      if (type(begin) == "declaration")
        declaration(begin, scope.parts, depth + 1);
      else if (!none(begin))
        scope.parts.push_back(expression(begin, depth + 1));
      auto one = make(Kind::While, n);
      const auto condition = field(n, "condition");
      one.parts.push_back(none(condition) ? constant(n, 1) : expression(condition, depth + 1));
      one.parts.push_back(block(field(n, "body"), depth + 1));
      const auto update = field(n, "update");
      if (!none(update)) one.parts.push_back(expression(update, depth + 1));
      scope.parts.push_back(std::move(one));
      out.push_back(std::move(scope));
    } else if (t == "for_range_loop") {
      auto one = make(Kind::For, n);
      one.names.push_back(declarator(field(n, "declarator")).name);
      one.parts.push_back(expression(field(n, "right"), depth + 1));
      one.parts.push_back(block(field(n, "body"), depth + 1));
      out.push_back(std::move(one));
    } else if (t == "switch_statement") {
      auto one = make(Kind::Switch, n);
      one.parts.push_back(expression(field(n, "condition"), depth + 1));
      for (const auto c : namedChildren(field(n, "body"))) {
        if (type(c) != "case_statement") continue;
        auto body = make(Kind::Block, c);
        const auto value = field(c, "value");
        for (const auto s : namedChildren(c))
          if (none(value) || !ts_node_eq(s, value)) statement(s, body.parts, depth + 1);
        auto which = make(Kind::Case, c);
        which.parts.push_back(std::move(body));
        if (!none(value)) which.parts.push_back(expression(value, depth + 1));
        one.parts.push_back(std::move(which));
      }
      out.push_back(std::move(one));
    } else if (t == "return_statement") {
      auto one = make(Kind::Return, n);
      for (const auto e : namedChildren(n)) one.parts.push_back(expression(e, depth + 1));
      out.push_back(std::move(one));
    } else if (among(t, {"break_statement", "continue_statement"})) {
      out.push_back(make(t == "break_statement" ? Kind::Break : Kind::Continue, n));
    } else if (t == "try_statement") {
      auto one = make(Kind::Try, n);
      one.parts.push_back(block(field(n, "body"), depth + 1));
      for (const auto c : namedChildren(n))
        if (type(c) == "catch_clause") {
          one.parts.push_back(block(field(c, "body"), depth + 1));
          one.parts.back().text = "Exception";
        }
      out.push_back(std::move(one));
    } else if (t == "throw_statement") {
      out.push_back(make(Kind::Raise, n));
    } else if (t == "goto_statement") {
      out.push_back(make(Kind::Goto, n));
      out.back().text = text(field(n, "label"));
    } else if (t == "labeled_statement") {
      const auto inside = namedChildren(n);
      if (inside.size() > 1) statement(inside.back(), out, depth + 1);
    } else if (t == "preproc_if" || t == "preproc_ifdef") {
      alternatives(n, out, depth);
    } else if (t == "case_statement") {
      for (const auto s : namedChildren(n)) statement(s, out, depth + 1);
    } else if (t == "ERROR") {
      for (const auto s : namedChildren(n))  // what stands whole inside of it is read all the same
        if (!among(type(s), {"identifier", "type_identifier", "primitive_type", "number_literal"})) statement(s, out, depth + 1);
    } else if (t.ends_with("_expression") || among(t, {"identifier", "number_literal"})) {
      out.push_back(expression(n, depth + 1));
    } else if (nodeKind(m_language, t) == NodeKind::Open) {
      out.push_back(unread(n, "it is nothing that is followed"));
    }
  }
};

}  // namespace

Code lowerC(Language language, const ExpandedText& expanded, std::vector<Unread>& unread, const std::function<bool()>& cancelled) {
  const auto parsed = parse(language, expanded.text, cancelled);
  if (parsed.read < expanded.text.size())
    unread.push_back({expanded.used(static_cast<std::uint32_t>(parsed.read), static_cast<std::uint32_t>(expanded.text.size())),
                      "it took too long to read: what comes after was left out"});
  for (const auto& [from, to] : errorsOf(parsed.tree.root())) unread.push_back({expanded.used(from, to), kNotAsItStands});
  return LoweringC(language, expanded, unread).file(parsed.tree.root());
}

Code lowerFormula(const std::string& formula) {
  ExpandedText expanded;
  expanded.append("x = " + formula + ";", {}, {});
  const auto parsed = parse(Language::C, expanded.text);
  if (ts_node_has_error(parsed.tree.root())) return {};
  std::vector<Unread> unread;
  auto file = LoweringC(Language::C, expanded, unread).file(parsed.tree.root());
  return file.parts.empty() || file.parts.front().parts.size() < 2 ? Code{} : std::move(file.parts.front().parts[1]);
}

}  // namespace bold::program
