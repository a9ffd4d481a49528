#include <algorithm>
#include <cmath>

#include "core/program/follower.h"

namespace bold::program {
namespace {

// What is said of one call only, not of the thing that it is called on.
bool passing(const std::string& role) {
  static const std::set<std::string> kPassing{"level", "duty",  "mode",  "pull",     "ms",     "us",   "s",
                                              "ns",    "angle", "steps", "function", "values", "mask", "width"};
  return kPassing.contains(role) || role.starts_with("level.");
}

bool isPin(const std::string& role) {
  return role == "pin" || role.starts_with("pin.");
}

constexpr double kMostPinNumber = 100;  // greater ones are masks
constexpr double kMostMask = 9e15;
constexpr int kDeepestHanded = 5;          // things within things that are handed over
constexpr std::size_t kMostHanded = 200;   // pins of one call
constexpr std::size_t kMostUnknown = 200;  // calls of what nobody describes

}  // namespace

Value Follower::publicCall(const std::string& path, const std::shared_ptr<Object>& self, const std::vector<Argument>& given, const Code& at,
                           Scope& scope) {
  std::vector<std::string> keywords;
  std::size_t inOrder = 0;
  for (const auto& g : given) {
    if (g.keyword.empty())
      ++inOrder;
    else
      keywords.push_back(g.keyword);
  }
  if (const auto* what = m_calls.find(path, inOrder, keywords, m_sources.headers)) return perform(*what, path, self, given, at, scope);
  if (!self && m_calls.isClass(path)) {
    Value v;
    v.kind = Value::Kind::Object;
    v.object = newObject();
    v.object->type = path;
    v.object->number = ++m_objects;
    v.object->place = at.place;
    return v;
  }
  unknownCall(path, given, at, scope, self);
  return unknown(fmt::format("nobody says what {} gives", path));
}

// A call of something that nobody describes: it may call the functions that it is handed, and drive the pins.
void Follower::unknownCall(const std::string& path, const std::vector<Argument>& given, const Code& at, Scope& scope,
                           const std::shared_ptr<Object>& self) {
  const auto effect = m_calls.effectOf(path);
  if (effect != PublicCalls::Effect::None)
    for (const auto& g : given) handOver(g.value, scope);
  if (effect != PublicCalls::Effect::Open || !m_reached) return;  // what nobody calls does nothing
  UnknownCall u{path, at.place, {}};
  for (const auto& g : given) pinsIn(g.value, u.pins);
  // A number may be a channel or a slice: that of any pin that was joined to one.
  if (std::ranges::any_of(given, [](const Argument& g) { return g.value.isNumber(); }))
    for (const auto& [unit, facts] : m_units)
      for (const auto* role : {"joined", "pin"})
        if (const auto it = facts.find(role); it != facts.end()) pinsIn(it->second, u.pins);
  if (self) {
    for (const auto& [role, v] : self->facts)
      if (isPin(role)) pinsIn(v, u.pins);
    for (const auto& [field, v] : self->fields) pinsIn(v, u.pins);
  }
  // What a thing does with the same pins, it does once.
  const auto root = path.substr(0, path.find_first_of(".:"));
  const auto known = [&](const UnknownCall& x) {
    return x.name.substr(0, x.name.find_first_of(".:")) == root && std::ranges::equal(x.pins, u.pins, {}, &PinWord::word, &PinWord::word);
  };
  if (std::ranges::any_of(m_out.unknown, known)) return;
  if (m_out.unknown.size() < kMostUnknown)
    m_out.unknown.push_back(std::move(u));
  else
    m_out.tooMuch = true;
}

// The same where not even its name is known: what is handed no pin does nothing more than what it came from.
void Follower::unknownCallee(const std::vector<Argument>& given, const Code& at, Scope& scope) {
  for (const auto& g : given) handOver(g.value, scope);
  std::vector<PinWord> pins;
  for (const auto& g : given) pinsIn(g.value, pins);
  if (pins.empty() || at.parts.empty()) return;
  std::string name;
  for (const auto* c = &at.parts.front(); c; c = c->kind == Code::Kind::Member && !c->parts.empty() ? &c->parts.front() : nullptr)
    if (c->kind == Code::Kind::Name || c->kind == Code::Kind::Member) name = fmt::format("{}{}{}", c->text, name.empty() ? "" : ".", name);
  if (!name.empty()) unknownCall(name, given, at, scope);
}

// The functions in what is handed to something that is not followed may be called, at any time.
// By value: what runs may change where it came from.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
void Follower::handOver(Value v, Scope& scope, int depth) {
  if (depth > kDeepestHanded) return;
  switch (v.kind) {
    case Value::Kind::Deferred:
    case Value::Kind::Function:
      if (m_handed.insert({v.code, v.object.get(), v.within}).second) runs(v, scope);
      return;
    case Value::Kind::Class:
      if (m_handed.insert({v.code, nullptr, -1}).second) methodsRun(*v.code, scope);
      return;
    case Value::Kind::List:
    case Value::Kind::Either:
      for (std::size_t k = 0; k < v.items->size() && k < kMostChoices; ++k) handOver((*v.items)[k], scope, depth + 1);
      return;
    case Value::Kind::Object:
      if (v.object->code) return;  // the program's own thing: its methods are its own to call
      for (const auto& [field, inner] : std::map(v.object->fields)) handOver(inner, scope, depth + 1);
      return;
    default:
      return;
  }
}

// A class that something else makes things of and whose methods it calls: the handler of a server.
void Follower::methodsRun(const Code& klass, Scope& scope) {
  Value made;
  made.kind = Value::Kind::Object;
  made.object = newObject();
  made.object->type = klass.text;
  made.object->code = &klass;
  if (m_created.size() < kMostChoices) m_created.push_back(made);
  for (const auto& m : klass.parts) {
    if (m.kind != Code::Kind::Define) continue;
    Value f = made;
    f.kind = Value::Kind::Function;
    f.code = &m;
    runs(f, scope);
  }
}

// Every pin in a value, by whatever it is named.
void Follower::pinsIn(const Value& v, std::vector<PinWord>& out, int depth) const {
  if (depth > kDeepestHanded || out.size() >= kMostHanded) return;
  const auto add = [&](std::string word, const char* numbering) {
    out.push_back({std::move(word), numbering, "", v.name, v.digits, "", false});
  };
  switch (v.kind) {
    case Value::Kind::Number:
      if (v.number < 0 || v.number > kMostMask || v.number != std::floor(v.number)) return;
      if (v.number < kMostPinNumber) {
        bool chosen = false;  // in whatever numbering the program has chosen
        for (const auto& [interface, numbering] : m_numbering) {
          add(fmt::format("{:g}", v.number), numbering.c_str());
          chosen = true;
        }
        if (!chosen) add(fmt::format("{:g}", v.number), "program");
      }
      if (v.number < kMostPinNumber && v.digits.file >= 0) return;
      for (int n = 0; n < 53; ++n)  // a mask
        if (static_cast<std::uint64_t>(v.number) >> n & 1) add(std::to_string(n), "program");
      return;
    case Value::Kind::Text:
      if (!v.text.empty() && v.text.size() < 10) add(v.text, "name");
      return;
    case Value::Kind::Public:
      // A port: all its pins.
      if (const char letter = v.text.back();
          (v.text.starts_with("GPIO") && v.text.size() == 5) || (v.text.starts_with("PORT") && v.text.size() == 5))
        for (int n = 0; n < 16; ++n) add(fmt::format("P{}{}", letter, n), "name");
      add(v.text.substr(v.text.rfind('.') == std::string::npos ? 0 : v.text.rfind('.') + 1), "name");
      return;
    case Value::Kind::List:
    case Value::Kind::Either:
      for (const auto& i : *v.items) pinsIn(i, out, depth + 1);
      return;
    case Value::Kind::Object:
      for (const auto& [role, fact] : v.object->facts)
        if (isPin(role)) pinsIn(fact, out, depth + 1);
      for (const auto& [field, inner] : v.object->fields) pinsIn(inner, out, depth + 1);
      return;
    default:
      return;
  }
}

// What was handed over, by role.
Follower::Facts Follower::taken(const PublicCall& what, const std::vector<Argument>& given) const {
  Facts out;
  const auto give = [&](const std::string& role, const Value& v) {
    if (role == "-" || role.empty()) return;
    if (role == "pins" && v.kind == Value::Kind::List) {
      for (std::size_t k = 0; k < v.items->size() && k < 64; ++k) out[fmt::format("pin.in{}", k + 1)] = (*v.items)[k];
      return;
    }
    if (role == "pins") {
      out["pin"] = v;
      return;
    }
    if (role == "struct") {
      if (v.kind == Value::Kind::Object)
        for (const auto& [field, to] : what.fields)
          if (const auto it = v.object->fields.find(field);
              it != v.object->fields.end() && (it->second.kind != Value::Kind::Unknown || isPin(to)))
            out[to] = it->second;
      return;
    }
    out[role] = v;
  };
  std::size_t next = 0;
  for (const auto& g : given) {
    if (g.keyword.empty()) {
      if (next < what.takes.size()) give(what.takes[next].role, g.value);
      ++next;
    } else if (const auto t = std::ranges::find(what.takes, g.keyword, &Taken::keyword); t != what.takes.end())
      give(t->role, g.value);
  }
  std::erase_if(out, [](const auto& f) { return f.second.kind == Value::Kind::None; });
  return out;
}

std::string Follower::unitOf(const PublicCall& what, const Facts& facts) const {
  if (what.unit.empty()) return {};
  const auto it = facts.find(what.unit == "pin" ? "pin" : "unit");
  return what.unit + ":" + (it == facts.end() ? std::string() : keyOf(it->second));
}

// What was said before of the thing, its unit, and all of its kind; then what follows from it.
void Follower::complete(Facts& facts, const PublicCall& what, const Object* self) {
  const auto merge = [&](const Facts& more) {
    for (const auto& [role, v] : more)
      if (!passing(role)) facts.try_emplace(role, v);
  };
  if (self) merge(self->facts);
  Scope formula;
  // In plain numbers: the formulas are the interface's, and no type of the source narrows what they work out.
  const auto work = [&](const Code& code) {
    for (const auto& [role, v] : facts) (formula.names[role] = v).type = {};
    return evaluate(code, formula);
  };
  for (const auto* first : {"unit", "shares"})  // by which the others are found
    if (const auto it = what.facts.find(first); it != what.facts.end()) facts[first] = work(it->second);
  if (const auto from = facts.find("from"); from != facts.end() && from->second.kind == Value::Kind::Object)
    merge(Facts(from->second.object->facts));
  const auto unit = unitOf(what, facts);
  if (!unit.empty())
    if (const auto it = m_units.find(unit); it != m_units.end()) merge(it->second);
  // What is said of a pin by itself holds for whatever drives it.
  if (what.unit != "pin")
    if (const auto pin = facts.find("pin"); pin != facts.end() && pin->second.isNumber())
      if (const auto it = m_units.find("pin:" + keyOf(pin->second)); it != m_units.end()) merge(it->second);
  if (const auto shared = facts.find("shares"); shared != facts.end() && !what.shares.empty())
    if (const auto it = m_units.find(what.shares + ":" + keyOf(shared->second)); it != m_units.end()) merge(it->second);
  if (what.of)
    if (const auto it = m_units.find("@" + what.of->id); it != m_units.end()) merge(it->second);
  for (const auto& [role, code] : what.defaults)
    if (!facts.contains(role)) facts[role] = work(code);
  for (const auto& [role, code] : what.facts) facts[role] = work(code);
  for (const auto& [role, word] : what.said) facts[role] = words(word);
}

// A function that something else calls later, or at the same time.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
void Follower::runs(Value function, Scope& scope) {
  const bool waits = function.kind == Value::Kind::Deferred;
  if (function.kind != Value::Kind::Function && function.kind != Value::Kind::Public && !waits) return;
  if (!waits && m_runs.size() < 64) m_runs.push_back(function);
  Code at;
  (void)branches({[&] {
                    (void)(waits ? awaited(function, scope) : awaited(callValue(function, {}, at, scope), scope));
                    m_pending = Flow::On;
                    return Flow::On;
                  },
                  [] { return Flow::On; }});
}

Value Follower::perform(const PublicCall& what, const std::string& called, const std::shared_ptr<Object>& self,
                        const std::vector<Argument>& given, const Code& at, Scope& scope) {
  // Pins and levels side by side are as many writes.
  if (what.does == "write" && given.size() == 2 && given[0].value.kind == Value::Kind::List && given[1].value.kind == Value::Kind::List &&
      given[0].value.items->size() == given[1].value.items->size()) {
    const auto pins = given[0].value.items, levels = given[1].value.items;
    for (std::size_t k = 0; k < pins->size() && k < kMostChoices; ++k)
      (void)perform(what, called, self, {{given[0].keyword, (*pins)[k]}, {given[1].keyword, (*levels)[k]}}, at, scope);
    Value none;
    none.kind = Value::Kind::None;
    return none;
  }
  auto own = taken(what, given);
  if (const auto it = own.find("object"); it != own.end() && !self) {  // what is filled in is handed over
    const auto on = it->second.kind == Value::Kind::Object ? it->second.object : nullptr;
    return on ? perform(what, called, on, given, at, scope) : unknown("what is filled in is not known");
  }
  own.erase("object");
  auto facts = own;
  complete(facts, what, self.get());
  const auto unit = unitOf(what, facts);
  if (what.does == "set" || what.does == "join" || (what.does == "pwm" && !what.unit.empty())) {
    auto& kept = m_units[what.unit == "@" ? "@" + what.of->id : unit];
    for (const auto& [role, v] : facts)
      if (!passing(role) && !(what.unit == "@" && isPin(role))) kept[role] = v;
    // A unit may have several pins.
    if (what.does == "join" && own.contains("pin")) {
      auto& all = kept["joined"];
      if (all.kind != Value::Kind::List) all = list({});
      if (std::ranges::none_of(*all.items, [&](const Value& v) { return same(v, own["pin"]); })) all.items->push_back(own["pin"]);
    }
  }
  Value out = unknown(fmt::format("what {} gives is not known before it runs", called));
  if (!what.makes.empty()) {
    out = {};
    out.kind = Value::Kind::Object;
    out.object = newObject();
    out.object->type = what.makes;
    out.object->number = ++m_objects;
    out.object->place = at.place;
    for (const auto& [role, v] : facts)
      if (!passing(role)) out.object->facts[role] = v;
  } else if (self)
    for (const auto& [role, v] : own)
      if (!passing(role)) self->facts[role] = v;
  if (what.does == "numbering") {
    if (const auto it = facts.find("mode"); it != facts.end() && it->second.kind == Value::Kind::Text) {
      m_numbering[what.of->id] = it->second.text;
      if (m_out.counted.file < 0) m_out.counted = at.place;
    }
  } else if (what.does == "end") {
    if (const auto it = facts.find("function"); it != facts.end()) m_atEnd.push_back(it->second);
  } else if (what.does == "stop") {
    m_pending = Flow::Exit;
  } else if (!what.does.empty() && what.does != "set" && what.does != "awaits") {
    Event e;
    e.does = what.does == "join" ? "mode" : what.does;
    e.call = &what;
    e.called = called;
    e.place = at.place;
    e.object = out.kind == Value::Kind::Object ? out.object->number : self ? self->number : 0;
    auto pins = facts;
    if (const auto all = facts.find("joined"); all != facts.end() && what.does != "join" && all->second.kind == Value::Kind::List) {
      pins.erase("pin");
      for (std::size_t k = 0; k < all->second.items->size(); ++k) pins[fmt::format("pin.{}", k)] = (*all->second.items)[k];
    }
    e.pins = pinsOf(pins, &what);
    e.facts = std::move(facts);
    if (const auto mode = e.facts.find("mode"); mode != e.facts.end() && !what.modes.empty()) {
      const auto said = what.modes.find(keyOf(mode->second).starts_with('\'') ? keyOf(mode->second).substr(1) : keyOf(mode->second));
      mode->second = said == what.modes.end() ? unknown("its mode is not known") : words(said->second);
    }
    if (const auto pull = e.facts.find("pull"); pull != e.facts.end()) {
      const auto said = what.pulls.find(keyOf(pull->second).starts_with('\'') ? keyOf(pull->second).substr(1) : keyOf(pull->second));
      pull->second = said == what.pulls.end() ? unknown("its pull is not known") : words(said->second);
    }
    for (auto& p : e.pins)
      if (p.role.size() == 1 && std::isdigit(static_cast<unsigned char>(p.role[0])) && what.does != "coils") p.role.clear();
    happens(std::move(e));
  }
  if (what.does == "awaits") {  // all of them, at the same time
    std::vector<Value> all;
    for (const auto& g : given) {
      if (g.value.kind == Value::Kind::List)
        all.insert(all.end(), g.value.items->begin(), g.value.items->end());
      else
        all.push_back(g.value);
    }
    bool forever = false;
    for (const auto& v : all) {
      out = awaited(v, scope);
      const auto flow = std::exchange(m_pending, Flow::On);
      forever = forever || flow == Flow::Forever;
      if (flow == Flow::Exit || flow == Flow::Raise) m_pending = flow;
    }
    if (forever) m_pending = Flow::Forever;
    return all.size() == 1 ? out : unknown("what several calls give");
  }
  if (what.does == "interrupt" || what.does == "runs")
    if (const auto it = own.find("function"); it != own.end()) runs(it->second, scope);
  if (what.returns) {
    Scope formula;
    formula.names = own;
    auto v = evaluate(*what.returns, formula);
    if (v.kind != Value::Kind::Unknown) return v;
  }
  return out;
}

}  // namespace bold::program
