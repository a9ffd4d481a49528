
#include "core/program/follower.h"

namespace bold::program {

using Kind = Code::Kind;

namespace {

// A number, or a list of them, or lists of these, as a declaration keeps them.
Value typed(Value v, const NumberType& type) {
  if (v.kind == Value::Kind::List) {
    for (auto& i : *v.items) i = typed(std::move(i), type);
    return v;
  }
  return v.isNumber() || v.kind == Value::Kind::Either || v.kind == Value::Kind::Unknown ? inType(std::move(v), type) : v;
}

}  // namespace

void Follower::declare(const Code& code, Scope& scope) {
  const bool array = code.kind == Kind::Array;
  const auto& called = code.names.front();
  const bool local = &scope != &module(-1, false);
  // A local one that keeps its value is made once.
  auto* where = code.whole && local ? nullptr : &scope.names[called];
  if (code.whole && local) {
    const auto [it, fresh] = m_statics[{&code, scope.self.object.get()}].try_emplace(called);
    scope.kept[called] = &it->second;
    if (!fresh) return;
    where = &it->second;
  }
  Value v;
  if (code.text == "enum" || (!array && code.parts.empty() && code.number == 0))
    v = code.parts.empty() ? shaped(code.text, unknown("it was given no value"), scope) : evaluate(code.parts.front(), scope);
  else if (!code.parts.empty())
    v = evaluate(code.parts.front(), scope);
  if (array) {
    // Sizes that are stated make a list of as many.
    if (v.kind != Value::Kind::List && code.parts.size() > 1) {
      const auto size = evaluate(code.parts[1], scope);
      Items items;
      if (size.isNumber() && size.number > 0 && size.number < 4096)
        for (int k = 0; k < static_cast<int>(size.number); ++k) items.push_back(shaped(code.text, unknown("it was given no value"), scope));
      v = items.empty() ? unknown("an array of a size that is not known") : list(std::move(items));
    } else if (v.kind == Value::Kind::List) {
      for (std::size_t k = 0; k < v.items->size(); ++k) {  // what makes them may add to them
        auto one = shaped(code.text, (*v.items)[k], scope);
        (*v.items)[k] = std::move(one);
      }
      const auto size = code.parts.size() > 1 ? evaluate(code.parts[1], scope) : Value{};
      if (size.isNumber() && size.number < 4096)
        while (static_cast<double>(v.items->size()) < size.number) v.items->push_back(number(0));
    }
  } else if (!code.parts.empty() && code.number == 0)
    v = shaped(code.text, v, scope);
  if (const auto type = scope.intBits > 0 && code.number == 0 ? numberType(code.text, scope.intBits) : std::nullopt)
    v = typed(std::move(v), *type);
  if ((v.isNumber() || v.kind == Value::Kind::Public) && v.name.empty()) v.name = called;
  put({where}, v);
  for (std::size_t k = 1; k < code.names.size(); ++k) put({&scope.names[code.names[k]]}, v);  // "Scope::name" of an enumerator
}

void Follower::defineClass(const Code& code, Scope& scope) {
  Value v;
  v.kind = Value::Kind::Class;
  v.code = &code;
  scope.names[code.text] = v;
  m_classes[code.text] = &code;
  for (const auto& n : code.names)
    if (n.starts_with('=')) {  // also called so
      scope.names[n.substr(1)] = v;
      m_classes[n.substr(1)] = &code;
    }
  for (const auto& m : code.parts) {
    if (m.kind == Kind::Class) defineClass(m, scope);
    if (m.kind == Kind::Declare && m.text == "enum") declare(m, scope);
    // What a class holds for all: "static const int kPin = 5;", in Python what stands in its body.
    if (m.kind == Kind::Declare && m.whole && !m.parts.empty()) {
      auto value = evaluate(m.parts.front(), scope);
      if (value.isNumber() && value.name.empty()) value.name = m.names.front();
      scope.names[code.text + "::" + m.names.front()] = value;
    }
    if (m.kind == Kind::Assign && m.text.empty() && m.parts.front().kind == Kind::Name) {
      auto value = evaluate(m.parts[1], scope);
      if (value.isNumber() && value.name.empty()) value.name = m.parts.front().text;
      scope.names[code.text + "::" + m.parts.front().text] = value;
    }
  }
}

void Follower::import(const Code& code, Scope& scope) {
  const auto it = m_imports.find({scope.file, code.text});
  if (it != m_imports.end()) {
    const auto& u = m_sources.units[it->second];
    auto& other = module(u.file, true);
    if (!other.names.contains("__name__")) {  // the first time it is run
      other.names["__name__"] = words(code.text);
      (void)block(u.code, other);
    }
    for (std::size_t k = 0; k + 1 < code.names.size(); k += 2) {
      if (code.names[k] == "*") {
        for (const auto& [n, v] : other.names)
          if (!n.starts_with('_')) scope.names[n] = v;
      } else if (code.names[k].empty()) {
        Value m;  // a module is a mapping whose members are names
        m.kind = Value::Kind::Object;
        m.object = newObject();
        m.object->type = "module " + std::to_string(u.file);
        scope.names[code.names[k + 1]] = m;
      } else if (const auto v = other.names.find(code.names[k]); v != other.names.end())
        scope.names[code.names[k + 1]] = v->second;
    }
    return;
  }
  for (std::size_t k = 0; k + 1 < code.names.size(); k += 2) {
    if (code.names[k] == "*")
      m_modulesOpen.push_back(code.text);
    else if (code.names[k].empty())
      // "import a.b" binds a, "import a.b as c" binds c to a.b
      scope.names[code.names[k + 1] == code.text ? code.text.substr(0, code.text.find('.')) : code.names[k + 1]] =
          publicName(code.names[k + 1] == code.text ? code.text.substr(0, code.text.find('.')) : code.text);
    else
      scope.names[code.names[k + 1]] = publicName(code.text + "." + code.names[k]);
  }
}

}  // namespace bold::program
