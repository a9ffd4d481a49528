#include <algorithm>
#include <array>

#include "core/program/follower.h"

namespace bold::program {

using Kind = Code::Kind;

namespace {

bool primitive(const std::string& type) {
  static constexpr std::array kTypes{"int",      "long",    "short",    "char",     "float",      "double",     "bool",
                                     "boolean",  "byte",    "word",     "unsigned", "signed",     "auto",       "size_t",
                                     "String",   "string",  "uint",     "void",     "u8",         "u16",        "uint",
                                     "enum",     "",        "const",    "uint8_t",  "int8_t",     "uint16_t",   "int16_t",
                                     "uint32_t", "int32_t", "uint64_t", "int64_t",  "pin_size_t", "gpio_num_t", "esp_err_t"};
  return std::ranges::find(kTypes, type) != kTypes.end() || type.starts_with("unsigned ") || type.starts_with("long ") ||
         type.starts_with("signed ");
}

}  // namespace

Follower::Slot Follower::slot(const Code& code, Scope& scope, bool make) {
  if (code.kind == Kind::Unary && (code.text == "*" || code.text == "&")) return slot(code.parts.front(), scope, make);
  if (code.kind == Kind::Name) {
    if (const auto kept = scope.kept.find(code.text); kept != scope.kept.end()) return {kept->second};
    const bool outside = scope.global.contains(code.text);
    if (!outside)
      if (const auto it = scope.names.find(code.text); it != scope.names.end()) return {&it->second};
    if (scope.python && make && !outside) return {&scope.names[code.text]};
    if (scope.self.object && !scope.python)
      if (const auto it = scope.self.object->fields.find(code.text); it != scope.self.object->fields.end())
        return {&it->second, scope.self.object};
    for (auto* s = scope.outside; s; s = s->outside)
      if (const auto it = s->names.find(code.text); it != s->names.end()) return {&it->second};
    // Namespaces and enumerations are not told apart: what is qualified is found by its last name too.
    if (const auto colon = code.text.rfind("::"); colon != std::string::npos && !make) {
      Code last;
      last.kind = Kind::Name;
      last.text = code.text.substr(colon + 2);
      const auto middle = code.text.rfind("::", colon - 1);
      if (middle != std::string::npos && colon > 1) {
        Code two;
        two.kind = Kind::Name;
        two.text = code.text.substr(middle + 2);
        if (const auto found = slot(two, scope, false); found.at) return found;
      }
      return slot(last, scope, false);
    }
    if (outside && make) {
      auto* s = &scope;
      while (s->outside) s = s->outside;
      return {&s->names[code.text]};
    }
    return {};
  }
  if (code.kind == Kind::Member) {
    const auto of = evaluate(code.parts.front(), scope);
    if (of.kind != Value::Kind::Object) return {};
    auto& fields = of.object->fields;
    if (const auto it = fields.find(code.text); it != fields.end()) return {&it->second, of.object};
    return make ? Slot{&fields[code.text], of.object} : Slot{};
  }
  if (code.kind == Kind::Item) {
    const auto of = evaluate(code.parts[0], scope);
    const auto index = evaluate(code.parts[1], scope);
    if (of.kind == Value::Kind::List && index.isNumber()) {
      auto at = index.number;
      if (at < 0 && scope.python) at += static_cast<double>(of.items->size());
      if (at >= 0 && at < static_cast<double>(of.items->size())) return {&(*of.items)[static_cast<std::size_t>(at)], of.items};
    }
    if (of.kind == Value::Kind::Object)
      if (const auto key = keyOf(index); !key.empty() && (make || of.object->fields.contains(key)))
        return {&of.object->fields[key], of.object};
  }
  return {};
}

void Follower::put(const Slot& where, Value value) {
  if (!m_journals.empty()) m_journals.back().push_back({where, *where.at});
  if (value.kind == Value::Kind::Unknown && !value.type.stated()) value.type = where.at->type;
  *where.at = std::move(value);
}

// All that changed since the last journal was begun is as it was.
void Follower::takeBack() {
  const auto journal = std::move(m_journals.back());
  m_journals.pop_back();
  for (auto c = journal.rbegin(); c != journal.rend(); ++c) *c->slot.at = c->before;
}

// What a declared type makes of braces and of nothing.
Value Follower::shaped(const std::string& type, Value value, Scope& scope) {
  if (primitive(type)) {  // "int pin{7}"
    const bool braces = value.kind == Value::Kind::List && value.items->size() == 1 && !type.empty() && type != "auto";
    return braces ? value.items->front() : value;
  }
  const auto* klass = classNamed(type, scope);
  Code at;
  if (value.kind == Value::Kind::List && klass) {
    std::vector<Argument> given;
    for (const auto& i : *value.items) given.push_back({"", i});
    return construct(*klass, std::move(given), at, true);
  }
  if (value.kind == Value::Kind::Object && value.object->type.empty()) {
    if (klass) {
      auto out = construct(*klass, {}, at, true);
      for (const auto& [n, v] : value.object->fields) out.object->fields[n] = v;
      return out;
    }
    value.object->type = type;
    return value;
  }
  if (value.kind == Value::Kind::List && type != "array" && type != "vector" && type != "initializer_list")
    return made(type, {}, at, scope);  // fields by position
  if (value.kind != Value::Kind::Unknown) return value;
  return made(type, {}, at, scope);
}

void Follower::assign(const Code& target, Value value, Scope& scope) {
  if (target.kind == Kind::List) {
    for (std::size_t k = 0; k < target.parts.size(); ++k)
      assign(target.parts[k],
             value.kind == Value::Kind::List && value.items->size() == target.parts.size()
                 ? (*value.items)[k]
                 : unknown("it is taken apart in a way that is not followed"),
             scope);
    return;
  }
  if (target.kind == Kind::Member) {
    const auto of = evaluate(target.parts.front(), scope);
    if (of.kind == Value::Kind::Either) {
      for (const auto& c : *of.items)
        if (c.kind == Value::Kind::Object && m_calls.knows(c.object->type + "." + target.text + "="))
          (void)publicCall(c.object->type + "." + target.text + "=", c.object, {{"", value}}, target, scope);
      return;
    }
    if (of.kind == Value::Kind::Public && setRegister(of.text + "." + target.text, value, target)) return;
    const bool described =
        of.kind == Value::Kind::Object && (of.object->code || of.object->type.empty() || of.object->type.starts_with("module ") ||
                                           m_calls.knows(of.object->type + "." + target.text + "="));
    if (!described) handOver(value, scope);  // "button.on_press = …"
    if (of.kind == Value::Kind::Object && !of.object->code && m_calls.knows(of.object->type + "." + target.text + "=")) {
      (void)publicCall(of.object->type + "." + target.text + "=", of.object, {{"", value}}, target, scope);
      return;
    }
  }
  if (value.isNumber() && value.name.empty() && value.digits.file >= 0) value.name = target.text;
  if (const auto where = slot(target, scope, scope.python || target.kind == Kind::Member); where.at) {
    const auto type = where.at->type;
    if (scope.intBits > 0 && type.stated() && (value.isNumber() || value.kind == Value::Kind::Either))
      value = inType(std::move(value), type);
    return put(where, std::move(value));
  }
  if (target.kind == Kind::Item) {
    // Which one is not known: each of them may be it.
    const auto of = evaluate(target.parts[0], scope);
    if (of.kind == Value::Kind::List && of.items->size() <= kMostChoices)
      for (auto& i : *of.items) put({&i, of.items}, either(i, value));
    return;
  }
  if (target.kind == Kind::Name || target.kind == Kind::Unary) {
    const auto& plain = target.kind == Kind::Unary ? target.parts.front() : target;
    (void)setRegister(plain.text, value, target);
  }
}

Value Follower::assignment(const Code& code, Scope& scope) {
  const auto& target = code.parts[0];
  if (code.text == "init") {  // a member, of what stands behind it
    if (const auto* base = target.kind == Kind::Member && scope.self.object ? classNamed(target.text, scope) : nullptr;
        base && base != scope.self.object->code) {
      if (const auto* maker = method(base, base->text))
        return callFunction(*maker, scope.self, arguments(code, 1, scope), module(scope.file, scope.python));
      return {};
    }
    const auto where = slot(target, scope, true);
    if (!where.at) return {};
    auto given = arguments(code, 1, scope);
    if (where.at->kind == Value::Kind::Object && !where.at->object->type.empty()) {
      auto v = made(where.at->object->type, std::move(given), code, scope);
      put(where, v);
      return v;
    }
    if (given.size() == 1) put(where, given.front().value);
    return *where.at;
  }
  auto value = evaluate(code.parts[1], scope);
  if (!code.text.empty()) value = operated(code.text, evaluate(target, scope), value, scope.python);
  if (m_pending != Flow::On) return value;
  assign(target, value, scope);
  return value;
}

}  // namespace bold::program
