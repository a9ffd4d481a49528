#include <algorithm>
#include <array>

#include "core/base/number.h"
#include "core/program/follower.h"

namespace bold::program {

using Kind = Code::Kind;

namespace {

constexpr int kDeepestValue = 400;  // expressions within calls within expressions

// What Python knows without an import, as far as programs for pins use it.
bool builtInName(const std::string& name) {
  static const std::set<std::string> kNames{"abs",          "all",        "any",        "ascii",      "bin",
                                            "bool",         "bytearray",  "bytes",      "callable",   "chr",
                                            "classmethod",  "complex",    "const",      "dict",       "dir",
                                            "divmod",       "enumerate",  "eval",       "exec",       "exit",
                                            "filter",       "float",      "format",     "frozenset",  "getattr",
                                            "globals",      "hasattr",    "hash",       "hex",        "id",
                                            "input",        "int",        "isinstance", "issubclass", "iter",
                                            "len",          "list",       "locals",     "map",        "max",
                                            "memoryview",   "min",        "next",       "object",     "oct",
                                            "open",         "ord",        "pow",        "print",      "property",
                                            "quit",         "range",      "raw_input",  "repr",       "reversed",
                                            "round",        "set",        "setattr",    "slice",      "sorted",
                                            "staticmethod", "str",        "sum",        "super",      "tuple",
                                            "type",         "vars",       "viper",      "zip",        "self",
                                            "cls",          "__file__",   "__name__",   "__doc__",    "NotImplemented",
                                            "Ellipsis",     "micropython"};
  return kNames.contains(name) || name.ends_with("Error") || name.ends_with("Exception") || name.ends_with("Exit") ||
         name.ends_with("Warning") || name.ends_with("Interrupt") || name == "StopIteration" || name.starts_with("__");
}

}  // namespace

Value Follower::evaluate(const Code& code, Scope& scope) {
  ++m_steps;
  if (spent()) return unknown("there was too much to follow");
  if (m_deep > kDeepestValue) return unknown("it is nested too deep");
  ++m_deep;
  auto v = evaluated(code, scope);
  --m_deep;
  return v;
}

Value Follower::evaluated(const Code& code, Scope& scope) {
  const std::string_view sign = code.text;
  switch (code.kind) {
    case Kind::Number: {
      auto v = number(code.number, code.whole);
      v.digits = code.digits;
      if (scope.intBits > 0 && code.whole)
        v.type = literalType(code.number, code.text, code.text.starts_with('0'), scope.intBits);
      else if (scope.intBits > 0)
        v.type.real = true;
      return v;
    }
    case Kind::Text:
      return words(code.text);
    case Kind::None: {
      Value v;
      v.kind = Value::Kind::None;
      return v;
    }
    case Kind::Name:
      return name(code, scope);
    case Kind::Member: {
      const auto of = evaluate(code.parts.front(), scope);
      return member(of, code, scope);
    }
    case Kind::Item: {
      const auto of = evaluate(code.parts[0], scope);
      return item(of, evaluate(code.parts[1], scope));
    }
    case Kind::Call:
      return call(code, scope);
    case Kind::Await:
      return awaited(evaluate(code.parts.front(), scope), scope);
    case Kind::Yield: {
      const auto v = evaluate(code.parts.front(), scope);
      if (!m_yielded) return unknown("nobody asks for it");
      const auto all = code.text == "from" ? gone(v) : std::optional(std::vector<Value>{v});
      for (const auto& one : all.value_or(std::vector<Value>{unknown("what is gone through is not known")}))
        if (m_yielded->size() < kLongest) m_yielded->push_back(one);
      return unknown("what is sent to a generator is not known");
    }
    case Kind::Cast: {
      auto v = evaluate(code.parts.front(), scope);
      const auto type = numberType(code.text, scope.intBits);
      return type && scope.intBits > 0 ? inType(std::move(v), *type) : v;
    }
    case Kind::Unary: {
      if (sign == "&") {
        // A place of its own stands for what is kept there: calls that fill it in are not followed.
        return evaluate(code.parts.front(), scope);
      }
      if (sign == "*") {
        const auto v = evaluate(code.parts.front(), scope);
        return v.kind == Value::Kind::List && !v.items->empty() ? v.items->front() : v;
      }
      const auto v = evaluate(code.parts.front(), scope);
      if (sign == "!") readBits(v, code);
      auto out = negated(code.text, v);
      if (out.isNumber() && sign != "!") out.name = v.name;
      return out;
    }
    case Kind::Step: {
      const auto before = evaluate(code.parts.front(), scope);
      const auto after = operated(code.text, before, number(1), scope.python);
      assign(code.parts.front(), after, scope);
      return code.whole ? before : after;
    }
    case Kind::Binary: {
      const auto a = evaluate(code.parts[0], scope);
      if (sign == "&&" || sign == "||") {
        if (const auto t = truth(a); t && *t == (sign == "||")) return scope.python ? a : number(*t);
      }
      const auto b = evaluate(code.parts[1], scope);
      m_steps += costOf(a) * costOf(b) / kMembersAStep;
      auto out = operated(code.text, a, b, scope.python);
      if (out.kind == Value::Kind::List) m_steps += static_cast<long>(out.items->size()) / kMembersAStep;
      if (a.kind == Value::Kind::Bits || b.kind == Value::Kind::Bits)
        if (sign == "&" || sign == "==" || sign == "!=") readBits(out.kind == Value::Kind::Bits ? out : a, code);
      return out;
    }
    case Kind::Assign:
      return assignment(code, scope);
    case Kind::Choose: {
      const auto t = truth(evaluate(code.parts[0], scope));
      if (t) return evaluate(code.parts[*t ? 1 : 2], scope);
      std::optional<Value> out;
      (void)branches({[&] {
                        out = evaluate(code.parts[1], scope);
                        return Flow::On;
                      },
                      [&] {
                        out = either(*out, evaluate(code.parts[2], scope));
                        return Flow::On;
                      }});
      return *out;
    }
    case Kind::List: {
      Items items;
      for (const auto& p : code.parts) items.push_back(evaluate(p, scope));
      if (code.text == "set") return setOf({items.begin(), items.end()});
      auto v = list(std::move(items));
      v.text = code.text;
      return v;
    }
    case Kind::Fields:
    case Kind::Pairs: {
      Value v;
      v.kind = Value::Kind::Object;
      v.object = newObject();
      if (code.kind == Kind::Fields)
        for (const auto& p : code.parts)
          v.object->fields[p.kind == Kind::Keyword ? p.text : fmt::format("{}", v.object->fields.size())] =
              evaluate(p.kind == Kind::Keyword ? p.parts.front() : p, scope);
      else
        for (std::size_t k = 0; k + 1 < code.parts.size(); k += 2)
          if (const auto key = keyOf(evaluate(code.parts[k], scope)); !key.empty())
            v.object->fields[key] = evaluate(code.parts[k + 1], scope);
      return v;
    }
    case Kind::New: {
      auto given = arguments(code, 0, scope);
      const bool braces = !code.names.empty();
      return made(code.text, std::move(given), code, scope, braces);
    }
    case Kind::Lambda: {
      auto f = functionHere(code, scope);
      f.object = scope.self.object;
      return f;
    }
    case Kind::Each:
      return comprehension(code, scope);
    case Kind::Block: {  // a, b
      Value v;
      for (const auto& p : code.parts) v = evaluate(p, scope);
      return v;
    }
    case Kind::Unread:
      return unknown(code.text.empty() ? "it could not be read" : code.text);
    default:
      (void)statement(code, scope);
      return unknown("it has no value");
  }
}

Value Follower::name(const Code& code, Scope& scope) {
  if (code.text == "this" && scope.self.object) return scope.self;
  if (const auto where = slot(code, scope, false); where.at) {
    auto v = *where.at;
    if ((v.isNumber() || v.kind == Value::Kind::Public) && v.name.empty()) v.name = code.text;
    return v;
  }
  // What a class holds for all, seen from inside.
  if (scope.self.object && scope.self.object->code) {
    const auto held = scope.self.object->code->text + "::" + code.text;
    for (auto* s = &scope; s; s = s->outside)
      if (const auto it = s->names.find(held); it != s->names.end()) return it->second;
    if (!scope.python)
      if (const auto* m = method(scope.self.object->code, code.text)) {
        Value f;
        f.kind = Value::Kind::Function;
        f.code = m;
        f.object = scope.self.object;
        return f;
      }
  }
  if (!scope.python && code.text.size() > 1 && code.text.size() < 10 && code.text[0] == 'B' &&
      code.text.find_first_not_of("01", 1) == std::string::npos)
    return number(static_cast<double>(wholeOf(code.text.substr(1), 2).value_or(0)));
  for (const auto& module : m_modulesOpen)
    if (scope.python && m_calls.knows(module + "." + code.text)) return resolvedPublic(module + "." + code.text);
  if (scope.python && code.place.file >= 0 && m_modulesOpen.empty() && !builtInName(code.text) &&
      !m_bound[code.place.file].contains(code.text)) {
    if (m_out.unread.size() < 100) m_out.unread.push_back({code.place, fmt::format("nothing is called \"{}\" here", code.text)});
    return unknown(fmt::format("nothing is called \"{}\"", code.text));
  }
  auto v = resolvedPublic(code.text);
  if (v.kind == Value::Kind::Public) v.digits = code.place;
  return v;
}

// A public name that stands for a number is that number.
Value Follower::resolvedPublic(const std::string& path) {
  if (const auto* n = m_calls.constant(path)) {
    auto v = number(*n, *n == static_cast<double>(static_cast<long long>(*n)));
    v.name = path;
    return v;
  }
  if (const auto* w = m_calls.named(path)) return words(*w);
  if (auto bits = readRegister(path)) return *bits;
  return publicName(path);
}

Value Follower::member(const Value& of, const Code& code, Scope& scope) {
  if (of.kind == Value::Kind::Either) {
    std::optional<Value> out;
    for (const auto& c : *of.items) {
      auto one = member(c, code, scope);
      out = out ? either(*out, one) : one;
    }
    return *out;
  }
  if (of.kind == Value::Kind::Public) return resolvedPublic(of.text + "." + code.text);
  if (of.kind == Value::Kind::Class) {
    for (const auto* s = &scope; s; s = s->outside)
      if (const auto it = s->names.find(of.code->text + "::" + code.text); it != s->names.end()) return it->second;
    if (const auto* m = method(of.code, code.text)) {
      Value f;
      f.kind = Value::Kind::Function;
      f.code = m;
      return f;
    }
    return unknown("the class has nothing of that name");
  }
  if (scope.python && code.text == "value" && (of.isNumber() || of.kind == Value::Kind::Text)) return of;  // of an enumeration's member
  if (of.kind != Value::Kind::Object) return of.kind == Value::Kind::Unknown ? of : unknown("it is nothing with members");
  if (of.object->type.starts_with("module ")) {
    auto& m = module(static_cast<int>(wholeOf(of.object->type.substr(7)).value_or(0)), true);
    const auto it = m.names.find(code.text);
    if (it == m.names.end()) return unknown("the module has nothing of that name");
    auto v = it->second;
    if (v.isNumber() && v.name.empty()) v.name = code.text;
    return v;
  }
  if (const auto it = of.object->fields.find(code.text); it != of.object->fields.end()) {
    auto v = it->second;
    if (v.isNumber() && v.name.empty()) v.name = code.text;
    return v;
  }
  if (of.object->code) {
    if (const auto* m = method(of.object->code, code.text)) {
      Value f;
      f.kind = Value::Kind::Function;
      f.code = m;
      f.object = of.object;
      if (std::ranges::count(m->names, "@property") > 0) return callFunction(*m, f, {}, module(scope.file, scope.python));
      return f;
    }
    for (const auto* k = of.object->code; k; k = k->names.empty() ? nullptr : classNamed(k->names.front(), scope))
      for (const auto* s = &scope; s; s = s->outside)
        if (const auto it = s->names.find(k->text + "::" + code.text); it != s->names.end()) return it->second;
  }
  // A member of a public class: a constant of it, or something that it is asked for.
  const auto path = of.object->type + "." + code.text;
  if (m_calls.constant(path) || m_calls.named(path)) return resolvedPublic(path);
  if (m_calls.knows(path + "?")) return publicCall(path + "?", of.object, {}, code, scope);
  return unknown("what it holds is not followed");
}

Value Follower::item(const Value& of, const Value& index) {
  if (of.kind == Value::Kind::Either) {
    std::optional<Value> out;
    for (const auto& c : *of.items) {
      auto one = item(c, index);
      out = out ? either(*out, one) : one;
    }
    return *out;
  }
  if (of.kind == Value::Kind::List) {
    const auto size = static_cast<double>(of.items->size());
    if (index.isNumber() && of.text != "set") {
      const auto at = index.number < 0 ? index.number + size : index.number;
      return at >= 0 && at < size ? (*of.items)[static_cast<std::size_t>(at)] : unknown("it is outside of the list");
    }
    if (index.kind == Value::Kind::List && index.text == "slice") {
      const auto bound = [&](std::size_t k, double standard) {
        const auto& v = (*index.items)[k];
        return v.isNumber() ? std::clamp(v.number < 0 ? v.number + size : v.number, 0.0, size) : standard;
      };
      if (!(*index.items)[2].isNumber() || (*index.items)[2].number == 1) {
        const auto from = static_cast<long>(bound(0, 0)), to = static_cast<long>(bound(1, size));
        return list(from < to ? Items(of.items->begin() + from, of.items->begin() + to) : Items{});
      }
      if ((*index.items)[2].number == -1 && !(*index.items)[0].isNumber() && !(*index.items)[1].isNumber())
        return list(Items(of.items->rbegin(), of.items->rend()));
      return unknown("a part of a list that is not followed");
    }
    // Which one is not known: any of them.
    if (of.items->empty() || of.items->size() > kMostChoices) return unknown("which of a list is not known");
    std::optional<Value> out;
    const auto possible = index.kind == Value::Kind::Either ? choices(index) : std::vector<Value>{};
    for (std::size_t k = 0; k < of.items->size(); ++k) {
      if (!possible.empty() &&
          std::ranges::none_of(possible, [&](const Value& p) { return !p.isNumber() || p.number == static_cast<double>(k); }))
        continue;
      out = out ? either(*out, (*of.items)[k]) : (*of.items)[k];
    }
    return out ? *out : unknown("it is outside of the list");
  }
  if (of.kind == Value::Kind::Object && of.object->type.empty()) {
    if (const auto key = keyOf(index); !key.empty()) {
      const auto it = of.object->fields.find(key);
      return it == of.object->fields.end() ? unknown("the mapping has no such key") : it->second;
    }
    std::optional<Value> out;
    for (const auto& [key, v] : of.object->fields) out = out ? either(*out, v) : v;
    return out ? *out : unknown("the mapping is empty");
  }
  return of.kind == Value::Kind::Unknown ? of : unknown("which of it is not known");
}

Value Follower::comprehension(const Code& code, Scope& scope) {
  const auto members = gone(evaluate(code.parts[1], scope));
  if (!members) return unknown("what is gone through is not known");
  Items out;
  Value map;
  map.kind = Value::Kind::Object;
  map.object = newObject();
  for (const auto& v : *members) {
    if (spent()) break;
    if (code.names.size() == 1)
      scope.names[code.names.front()] = v;
    else
      for (std::size_t k = 0; k < code.names.size(); ++k)
        scope.names[code.names[k]] = v.kind == Value::Kind::List && v.items->size() == code.names.size()
                                         ? (*v.items)[k]
                                         : unknown("it is taken apart in a way that is not followed");
    if (code.parts.size() > 2 && code.parts[2].kind != Kind::None)
      if (const auto t = truth(evaluate(code.parts[2], scope)); t && !*t) continue;
    auto one = evaluate(code.parts[0], scope);
    if (code.text == "pairs" && one.kind == Value::Kind::List && one.items->size() == 2)
      map.object->fields[keyOf((*one.items)[0])] = (*one.items)[1];
    else
      out.push_back(std::move(one));
  }
  return code.text == "pairs" ? map : list(std::move(out));
}

}  // namespace bold::program
