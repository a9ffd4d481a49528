#include <algorithm>
#include <cmath>
#include <utility>

#include "core/program/follower.h"

namespace bold::program {

using Kind = Code::Kind;

namespace {
constexpr int kDeepestCall = 40;
constexpr int kDeepestMade = 16;            // things as members of things
constexpr std::size_t kMostCreated = 4096;  // things of the program's classes

double bytesOf(const NumberType& type) {
  return type.real ? 4 : std::max<int>(type.bits, 8) / 8.0;
}

// As far as loops over lists count with it: every thing that is no number or list counts alike.
double bytesOf(const Value& v) {
  constexpr double kOther = 4;
  if (v.kind != Value::Kind::List) return v.type.stated() ? bytesOf(v.type) : kOther;
  double out = 0;
  for (const auto& i : *v.items) out += bytesOf(i);
  return out;
}

// "*args" and "**more" by their names.
std::string starless(const std::string& name) {
  return name.substr(std::min(name.find_first_not_of('*'), name.size()));
}

}  // namespace

std::vector<Argument> Follower::arguments(const Code& code, std::size_t from, Scope& scope) {
  std::vector<Argument> out;
  for (auto k = from; k < code.parts.size(); ++k) {
    const auto& p = code.parts[k];
    if (p.kind != Kind::Keyword) {
      out.push_back({"", evaluate(p, scope)});
      continue;
    }
    auto v = evaluate(p.parts.front(), scope);
    if (p.text == "**") {
      if (v.kind == Value::Kind::Object && v.object->type.empty()) {
        for (const auto& [key, value] : v.object->fields)
          if (key.starts_with('\'')) out.push_back({key.substr(1), value});
      } else
        out.push_back({"", unknown("what is given by name is not known")});
    } else if (p.text != "*") {
      out.push_back({p.text, std::move(v)});
    } else if (v.kind == Value::Kind::List)
      for (const auto& i : *v.items) out.push_back({"", i});
    else
      out.push_back({"", unknown("how many values are given is not known")});
  }
  return out;
}

const Code* Follower::classNamed(const std::string& name, const Scope& scope) {
  for (const auto* s = &scope; s; s = s->outside)
    if (const auto it = s->names.find(name); it != s->names.end()) return it->second.kind == Value::Kind::Class ? it->second.code : nullptr;
  const auto it = m_classes.find(name);
  if (it != m_classes.end()) return it->second;
  // "Outer::Inner" by its last name.
  const auto colon = name.rfind("::");
  return colon == std::string::npos ? nullptr : classNamed(name.substr(colon + 2), scope);
}

const Code* Follower::method(const Code* klass, const std::string& name) {
  for (int depth = 0; klass && depth < 16; ++depth) {
    const Code* declared = nullptr;
    for (const auto& m : klass->parts)
      if (m.kind == Kind::Define && m.text == name) declared = &m;
    if (declared && !declared->parts.empty() && !declared->parts.front().parts.empty()) return declared;
    if (const auto it = m_methods.find(klass->text + "::" + name); it != m_methods.end()) return it->second;
    if (declared) return declared;
    const Code* base = nullptr;
    for (const auto& n : klass->names)
      if (!n.starts_with('='))
        if (const auto it = m_classes.find(n); it != m_classes.end()) base = it->second;
    klass = base == klass ? nullptr : base;
  }
  return nullptr;
}

Value Follower::call(const Code& code, Scope& scope) {
  const auto& callee = code.parts.front();
  if (callee.kind == Kind::Name && callee.text == "__either") {
    std::optional<Value> out;
    for (std::size_t k = 1; k < code.parts.size(); ++k) {
      const auto v = evaluate(code.parts[k], scope);
      out = out ? either(*out, v) : v;
    }
    return out ? *out : unknown("it depends on what the compiler defines");
  }
  if (callee.kind == Kind::Name && callee.text == "sizeof" && code.parts.size() > 1) {
    if (const auto& of = code.parts[1]; of.kind == Kind::Name)
      if (const auto type = numberType(of.text, std::max(scope.intBits, 16)); type && !slot(of, scope, false).at)
        return number(bytesOf(*type));
    const auto v = evaluate(code.parts[1], scope);
    return v.kind == Value::Kind::Unknown && !v.type.stated() ? v : number(bytesOf(v));
  }
  if (callee.kind == Kind::Name && callee.text == "super") {
    Value v = scope.self;
    v.text = "super";
    return v;
  }
  if (callee.kind == Kind::Member) {
    const auto of = evaluate(callee.parts.front(), scope);
    auto given = arguments(code, 1, scope);
    if (m_pending != Flow::On) return unknown("it is never come to");
    if (of.kind == Value::Kind::Either) {
      std::optional<Value> out;
      for (const auto& c : *of.items) {
        if (c.kind != Value::Kind::Object) continue;
        ++m_unsure;
        auto one = c.object->code ? callValue(member(c, callee, scope), given, code, scope)
                                  : publicCall(c.object->type + "." + callee.text, c.object, given, code, scope);
        --m_unsure;
        out = out ? either(*out, one) : one;
      }
      return out ? *out : unknown("it is not known what is called");
    }
    if (of.kind == Value::Kind::Object && of.text == "super" && of.object->code) {
      for (const auto& n : of.object->code->names)
        if (const auto* base = classNamed(n, scope))
          if (const auto* m = method(base, callee.text)) return callFunction(*m, of, std::move(given), module(scope.file, scope.python));
      return unknown("its base is not followed");
    }
    if (auto v = listMethod(of, callee.text, given)) return *v;
    if (of.kind == Value::Kind::Object && !of.object->code && !of.object->type.empty() && !of.object->type.starts_with("module ") &&
        !of.object->fields.contains(callee.text))
      return publicCall(of.object->type + "." + callee.text, of.object, given, code, scope);
    if (of.kind == Value::Kind::Class) {  // Base.method(self, …)
      if (const auto* m = method(of.code, callee.text)) {
        Value self;
        if (!given.empty() && given.front().value.kind == Value::Kind::Object && scope.python) {
          self = given.front().value;
          given.erase(given.begin());
        }
        return callFunction(*m, self, std::move(given), module(scope.file, scope.python));
      }
    }
    return callValue(member(of, callee, scope), std::move(given), code, scope);
  }
  const auto f = evaluate(callee, scope);
  auto given = arguments(code, 1, scope);
  if (m_pending != Flow::On) return unknown("it is never come to");
  if (f.kind == Value::Kind::Public)
    if (auto v = builtIn(f.text, given, scope)) return *v;
  return callValue(f, std::move(given), code, scope);
}

Value Follower::callValue(const Value& callee, std::vector<Argument> given, const Code& at, Scope& scope) {
  switch (callee.kind) {
    case Value::Kind::Function:
      return callFunction(*callee.code, callee, std::move(given), module(scope.file, scope.python));
    case Value::Kind::Class:
      return construct(*callee.code, std::move(given), at);
    case Value::Kind::Public:
      return publicCall(callee.text, nullptr, given, at, scope);
    case Value::Kind::Object:
      return callee.object->code ? callValue(member(
                                                 callee,
                                                 [] {
                                                   Code c;
                                                   c.text = "__call__";
                                                   return c;
                                                 }(),
                                                 scope),
                                             std::move(given), at, scope)
                                 : publicCall(callee.object->type + ".__call__", callee.object, given, at, scope);
    case Value::Kind::Either: {
      std::optional<Value> out;
      std::vector<std::function<Flow()>> all;
      for (const auto& c : *callee.items)
        all.emplace_back([&] {
          auto one = callValue(c, given, at, scope);
          out = out ? either(*out, one) : one;
          return std::exchange(m_pending, Flow::On);
        });
      (void)branches(all);
      return out ? *out : unknown("it is not known what is called");
    }
    default:
      unknownCallee(given, at, scope);
      return unknown(callee.text.empty() ? "it is not known what is called" : callee.text);
  }
}

// Of a call, or of a thing while it is made: held by who asks, and here while a branch may take back what changed in it.
std::shared_ptr<Scope> Follower::newScope() {
  if (m_journals.empty()) m_scopes.clear();
  return m_scopes.emplace_back(std::make_shared<Scope>());
}

// A function that is defined here; where another one is being run, it sees that run's names for as long as it lives.
Value Follower::functionHere(const Code& code, Scope& scope) {
  Value f;
  f.kind = Value::Kind::Function;
  f.code = &code;
  if (scope.closed < 0 && scope.outside && m_closed.size() < kMostCreated)
    if (auto kept = scope.weak_from_this().lock()) {
      scope.closed = static_cast<int>(m_closed.size());
      m_closed.push_back(std::move(kept));
    }
  f.within = scope.closed;
  return f;
}

// A coroutine that was called and that nobody waits for yet.
Value Follower::deferred(const Code& function, const Value& self, std::vector<Argument> given) {
  Value v;
  v.kind = Value::Kind::Deferred;
  v.code = &function;
  v.object = newObject();
  v.object->fields["self"] = self;
  for (std::size_t k = 0; k < given.size(); ++k) v.object->fields[fmt::format("{:04}{}", k, given[k].keyword)] = std::move(given[k].value);
  return v;
}

// NOLINTNEXTLINE(performance-unnecessary-value-param)
Value Follower::awaited(Value v, Scope& scope) {
  if (v.kind != Value::Kind::Deferred) return v;
  std::vector<Argument> given;
  Value self;
  for (const auto& [key, value] : v.object->fields)
    if (key == "self")
      self = value;
    else
      given.push_back({key.substr(4), value});
  m_runsNow = true;
  return callFunction(*v.code, self, std::move(given), scope);
}

Value Follower::callFunction(const Code& function, const Value& self, std::vector<Argument> given, Scope& outside) {
  const bool now = std::exchange(m_runsNow, false);
  if (!now && std::ranges::count(function.names, "@async") > 0) return deferred(function, self, std::move(given));
  if (m_depth >= kDeepestCall || spent() || function.parts.empty()) {
    // What calls itself was followed all the same, many times over; what is only ever called from so deep was not.
    if (m_depth >= kDeepestCall && !m_entered.contains(&function) && m_out.unread.size() < 100)
      m_out.unread.push_back({function.place, fmt::format("{} is called too deep to be followed", function.text)});
    return unknown("it is called too deep");
  }
  m_entered.insert(&function);
  // Runs in the module that it stands in.
  const bool known = function.place.file >= 0;
  const bool python = known ? m_pythonFiles.contains(function.place.file) : outside.python;
  auto& home = known && python ? module(function.place.file, true) : known ? module(-1, false) : outside;
  const auto kept = newScope();
  auto& scope = *kept;
  scope.outside = self.within < 0 ? &home : m_closed[static_cast<std::size_t>(self.within)].get();
  scope.python = home.python;
  scope.file = home.file;
  scope.intBits = home.intBits;
  scope.self = self;
  if (self.object) {
    scope.self.kind = Value::Kind::Object;
    scope.self.text.clear();
  }
  std::size_t first = 0;
  const auto& names = function.names;
  const bool isStatic = std::ranges::count(names, "@staticmethod") > 0;
  if (scope.python && self.object && !names.empty() && function.kind == Kind::Define && !isStatic) {
    scope.names[names.front()] = scope.self;
    first = 1;
  }
  std::size_t next = first;
  for (auto& g : given) {
    if (!g.keyword.empty()) {
      scope.names[g.keyword] = std::move(g.value);
      continue;
    }
    while (next < names.size() && names[next].starts_with('@')) ++next;
    if (next < names.size() && names[next].starts_with('*')) {  // all that come from here on
      auto& rest = scope.names[starless(names[next])];
      if (rest.kind != Value::Kind::List) rest = list({});
      if (rest.items->size() < 64) rest.items->push_back(std::move(g.value));
      continue;
    }
    if (next < names.size() && !names[next].empty()) scope.names[names[next]] = std::move(g.value);
    ++next;
  }
  for (std::size_t k = first; k < names.size(); ++k) {
    if (names[k].empty() || names[k].starts_with('@') || scope.names.contains(names[k])) continue;
    if (names[k].starts_with('*')) {
      scope.names.try_emplace(starless(names[k]), list({}));
      continue;
    }
    const bool standard = k + 1 < function.parts.size() && function.parts[k + 1].kind != Kind::None;
    scope.names[names[k]] = standard                                                            ? evaluate(function.parts[k + 1], home)
                            : k + 1 < function.parts.size() && function.kind == Kind::Define && scope.python ? [] { Value v; v.kind = Value::Kind::None; return v; }()
                                                                                                             : unknown("it is not given");
  }
  const auto typeAt = [&](std::size_t k) {
    return scope.intBits > 0 && k < function.types.size() ? numberType(function.types[k], scope.intBits) : std::nullopt;
  };
  for (std::size_t k = first; k < names.size(); ++k)
    if (const auto type = typeAt(k))
      if (const auto it = scope.names.find(names[k]); it != scope.names.end()) it->second = inType(std::move(it->second), *type);
  const auto returned = std::exchange(m_returned, Value{});
  const auto had = std::exchange(m_hasReturned, false);
  const auto mayBreak = std::exchange(m_mayBreak, false);
  ++m_depth;
  m_around.push_back(&function);
  Value out;
  out.kind = Value::Kind::None;
  if (function.kind == Kind::Lambda && function.parts.front().kind != Kind::Block) {
    out = evaluate(function.parts.front(), scope);
  } else {
    const bool generates = std::ranges::count(names, "@generator") > 0;
    auto yielded = generates ? std::exchange(m_yielded, newItems()) : nullptr;
    const auto flow = block(function.parts.front(), scope);
    if (generates) {  // who goes through what it yields stops it
      out = list(*std::exchange(m_yielded, std::move(yielded)));
      if (flow == Flow::Forever) out.text = "endless";
    } else if (flow == Flow::Forever || flow == Flow::Exit || flow == Flow::Raise)
      m_pending = flow;
    if (!generates && m_hasReturned) out = flow == Flow::Return ? m_returned : either(m_returned, out);
  }
  if (function.kind == Kind::Define)
    if (const auto type = typeAt(names.size())) out = inType(std::move(out), *type);
  --m_depth;
  m_around.pop_back();
  m_returned = returned;
  m_hasReturned = had;
  m_mayBreak = mayBreak;
  return out;
}

Value Follower::construct(const Code& klass, std::vector<Argument> given, const Code& at, bool braces) {
  if (m_created.size() >= kMostCreated || m_making >= kDeepestMade) return unknown("more is made than can be followed");
  Value v;
  v.kind = Value::Kind::Object;
  v.object = newObject();
  v.object->type = klass.text;
  v.object->code = &klass;
  v.object->number = ++m_objects;
  v.object->place = at.place;
  m_created.push_back(v);
  const bool python = m_pythonFiles.contains(klass.place.file);
  auto& home = python ? module(klass.place.file, true) : module(-1, false);
  // Bases first, then the members in order.
  std::vector<const Code*> chain;
  for (const auto* k = &klass; k && chain.size() < 8;) {
    chain.insert(chain.begin(), k);
    const Code* base = nullptr;
    for (const auto& n : k->names)
      if (!n.starts_with('=') && !base) base = classNamed(n, home);
    k = base;
  }
  const auto kept = newScope();
  auto& inside = *kept;
  inside.outside = &home;
  inside.python = python;
  inside.file = home.file;
  inside.intBits = home.intBits;
  inside.self = v;
  std::vector<std::string> fields;
  ++m_making;
  for (const auto* k : chain)
    for (const auto& m : k->parts) {
      if ((m.kind != Kind::Declare && m.kind != Kind::Array) || m.text == "enum" || python) continue;
      if (m.whole && !m.parts.empty()) continue;  // one for all
      declare(m, inside);
      v.object->fields[m.names.front()] = inside.names[m.names.front()];
      if (k == &klass || chain.size() == 1) fields.push_back(m.names.front());
    }
  --m_making;
  const auto* maker = method(&klass, python ? "__init__" : klass.text);
  if (!maker && !python)
    for (const auto* k : chain)
      if (const auto* m = method(k, k->text)) maker = m;
  const bool plain = !maker || maker->parts.empty();
  if (maker && !plain && !(braces && given.size() != maker->names.size() && maker->names.empty())) {
    (void)callFunction(*maker, v, std::move(given), home);
  } else if (!python) {
    for (std::size_t k = 0; k < given.size() && k < fields.size(); ++k) {
      auto value = given[k].value;
      auto& field = v.object->fields[fields[k]];
      if (field.kind == Value::Kind::Object && field.object->code && value.kind == Value::Kind::List) {
        std::vector<Argument> inner;
        for (const auto& i : *value.items) inner.push_back({"", i});
        value = construct(*field.object->code, std::move(inner), at, true);
      }
      if (value.isNumber() && value.name.empty()) value.name = fields[k];
      field = field.type.stated() ? inType(std::move(value), field.type) : std::move(value);
    }
  }
  return v;
}

// Something of a type by its name: a class of the program, a public one, or a plain value.
Value Follower::made(const std::string& type, std::vector<Argument> given, const Code& at, Scope& scope, bool braces) {
  if (const auto* klass = classNamed(type, scope)) return construct(*klass, std::move(given), at, braces);
  if (m_calls.isClass(type)) return publicCall(type, nullptr, given, at, scope);
  const bool one = given.size() == 1;
  const bool className = !type.empty() && std::isupper(static_cast<unsigned char>(type[0]));
  if ((type == "array" || type == "vector") && (braces || !one)) {
    Items items;
    for (auto& g : given) items.push_back(std::move(g.value));
    return items.size() == 1 && items.front().kind == Value::Kind::List ? items.front() : list(std::move(items));
  }
  if (!braces && (given.size() > 1 || (one && className) || (given.empty() && at.kind == Kind::New))) unknownCall(type, given, at, scope);
  // uint8_t{5}, speed_t(3): the value itself.
  const bool integer = type.ends_with("_t") && type.find("int") != std::string::npos;
  if (integer) return given.empty() ? number(0) : given.front().value;
  if (one && !braces && !className) return given.front().value;
  Value v;
  v.kind = Value::Kind::Object;
  v.object = newObject();
  v.object->type = type;
  v.object->number = ++m_objects;
  v.object->place = at.place;
  if (!braces)
    for (std::size_t k = 0; k < given.size() && k < 64; ++k) v.object->fields[fmt::format("#{}", k)] = given[k].value;
  if (braces && given.size() == 1 && given.front().value.kind == Value::Kind::Object) v.object->fields = given.front().value.object->fields;
  return v;
}

}  // namespace bold::program
