#include "core/program/follow.h"

#include <algorithm>

#include "core/program/follower.h"

namespace bold::program {
namespace {

// How much is followed: far more than any program by hand needs, and well under a second.
constexpr long kMostSteps = 400'000;
constexpr long kMostStepsOfTheRest = 150'000;
constexpr int kRoundsOfLoop = 24;  // loop() of framework C++
constexpr int kQuietRounds = 2;    // as many rounds that do nothing new end a loop without end
constexpr int kMostInstances = 8;  // of a class whose methods nobody calls
constexpr std::size_t kMostInterrupts = 32;

bool runByHardware(const std::string& name) {
  return name.starts_with("isr_") || name.ends_with("IRQHandler") || (name.starts_with("HAL_") && name.ends_with("Callback"));
}

// Every name that a piece of code gives to something, wherever.
void bound(const Code& c, std::set<std::string>& out) {
  const auto add = [&](const std::string& name) {
    const auto from = std::min(name.find_first_not_of("*@"), name.size());
    out.insert(name.substr(from, name.find('.') - from));
  };
  for (const auto& n : c.names) add(n);
  if (c.kind == Code::Kind::Define || c.kind == Code::Kind::Class) add(c.text);
  if (c.kind == Code::Kind::Assign) {
    std::vector<const Code*> targets{&c.parts.front()};
    while (!targets.empty()) {
      const auto* t = targets.back();
      targets.pop_back();
      if (t->kind == Code::Kind::Name) add(t->text);
      if (t->kind == Code::Kind::List)
        for (const auto& p : t->parts) targets.push_back(&p);
    }
  }
  if (c.kind == Code::Kind::Block)  // "except Error as e"
    if (const auto as = c.text.rfind(" as "); as != std::string::npos) add(c.text.substr(as + 4));
  for (const auto& p : c.parts) bound(p, out);
}

}  // namespace

Follower::Follower(const Sources& sources, const PublicCalls& calls, const std::map<std::pair<int, std::string>, int>& imports,
                   const std::function<bool()>& cancelled)
    : m_sources(sources), m_calls(calls), m_imports(imports), m_cancelled(cancelled) {
  for (const auto& u : sources.units)
    if (u.python) {
      m_pythonFiles.insert(u.file);
      bound(u.code, m_bound[u.file]);
    }
}

Scope& Follower::module(int file, bool python) {
  const auto name = python ? std::to_string(file) : std::string();
  auto [it, fresh] = m_modules.try_emplace(name);
  if (fresh) {
    it->second.python = python;
    it->second.file = file;
    it->second.intBits = python ? 0 : m_sources.intBits;
  }
  return it->second;
}

Followed Follower::run() {
  m_mostSteps = kMostSteps;
  cUnits();
  pythonUnits();
  m_out.tooMuch = m_out.tooMuch || spent();
  m_steps = 0;
  m_mostSteps = kMostStepsOfTheRest;
  interrupts();
  rest();
  for (const auto& pin : m_neverLevels) m_out.levels.erase(pin);
  dropOwnless();
  names();
  for (const auto& v : m_created) v.object->fields.clear();  // things that know each other would never go
  return std::move(m_out);
}

// What the names of the source mean, for what could not be read.
void Follower::names() {
  for (const auto& [file, scope] : m_modules)
    for (const auto& [called, v] : scope.names) {
      if (v.kind == Value::Kind::Function && v.code)
        m_out.functions[called] = v.code->place;
      else if (v.kind != Value::Kind::Public && v.kind != Value::Kind::Text)
        pinsIn(v, m_out.names[called]);
    }
  for (const auto& [called, klass] : m_classes) m_out.functions[called] = klass->place;
}

// Functions and classes count from anywhere, whatever stands before what.
void Follower::define(const Code& block) {
  auto& scope = module(-1, false);
  for (const auto& c : block.parts) {
    if (c.kind == Code::Kind::Define) {
      if (c.text.find("::") != std::string::npos)
        m_methods[c.text] = &c;
      else if (!c.parts.empty() && !c.parts.front().parts.empty()) {
        Value f;
        f.kind = Value::Kind::Function;
        f.code = &c;
        scope.names[c.text] = f;
      } else
        scope.names.try_emplace(c.text, [&] {
          Value f;
          f.kind = Value::Kind::Function;
          f.code = &c;
          return f;
        }());
    } else if (c.kind == Code::Kind::Class) {
      defineClass(c, scope);
    } else if (c.kind == Code::Kind::Block || c.kind == Code::Kind::Alternative) {
      define(c);
    }
  }
}

const Code* Follower::functionNamed(const std::string& name) {
  const auto& names = module(-1, false).names;
  const auto it = names.find(name);
  return it != names.end() && it->second.kind == Value::Kind::Function ? it->second.code : nullptr;
}

void Follower::cUnits() {
  for (const auto& u : m_sources.units)
    if (!u.python) define(u.code);
  auto& scope = module(-1, false);
  for (const auto& u : m_sources.units)
    if (!u.python)
      for (const auto& c : u.code.parts)
        if (c.kind != Code::Kind::Define && c.kind != Code::Kind::Class) (void)statement(c, scope);
  m_pending = Flow::On;
  if (const auto* setup = functionNamed("setup"); setup && functionNamed("loop")) {
    entry(setup, 1);
    m_out.moments.push_back({"", -1, 0, Moment::kBegun});
    entry(functionNamed("loop"), kRoundsOfLoop);
  } else if (const auto* main = functionNamed("main"))
    entry(main, 1);
  else if (const auto* app = functionNamed("app_main"))
    entry(app, 1);
  else if (setup)
    entry(setup, 1);
}

void Follower::entry(const Code* function, int times) {
  for (int k = 0, quiet = 0; k < times && quiet < kQuietRounds && !spent(); ++k) {
    const auto before = m_out.events.size();
    (void)callFunction(*function, {}, {}, module(-1, false));
    quiet = m_out.events.size() == before ? quiet + 1 : 0;
    if (m_pending == Flow::Forever || m_pending == Flow::Exit) break;
  }
  if (times > 1 && m_pending == Flow::On && !spent())
    (void)sweep([&] {
      (void)callFunction(*function, {}, {}, module(-1, false));
      return Flow::On;
    });
  m_pending = Flow::On;
}

void Follower::pythonUnits() {
  std::set<int> imported;
  for (const auto& [from, to] : m_imports)
    if (from.first != m_sources.units[to].file) imported.insert(to);
  bool any = false;
  for (std::size_t k = 0; k < m_sources.units.size(); ++k) {
    const auto& u = m_sources.units[k];
    if (!u.python || imported.contains(static_cast<int>(k))) continue;
    any = true;
    auto& scope = module(u.file, true);
    scope.names["__name__"] = words("__main__");
    const auto moments = m_out.moments.size();
    const auto flow = block(u.code, scope);
    const bool forever = flow == Flow::Forever || m_pending == Flow::Forever;
    m_pending = Flow::On;
    if (forever && std::ranges::any_of(m_out.events, [](const Event& e) { return e.call && e.call->of && e.call->of->stays; })) continue;
    if (forever) levelsOfAll(moments);  // stopped by hand
    m_out.ends = true;
  }
  if (any) atEnd();
}

void Follower::atEnd() {
  for (std::size_t k = 0; k < m_atEnd.size() && k < 64; ++k) {  // more may come while these run
    Code at;
    const auto f = m_atEnd[k];
    (void)callValue(f, {}, at, module(-1, false));
    m_pending = Flow::On;
  }
}

// What nobody calls, or only what is not followed does: what it would do, with all that it takes not known.
void Follower::unreached(const Code& function, const Value& self, Scope& outside) {
  m_reached = false;
  withNothingKnown(function, self, outside);
  m_reached = true;
}

void Follower::withNothingKnown(const Code& function, const Value& self, Scope& outside) {
  ++m_unsure;
  std::vector<Argument> given;
  for (std::size_t k = 0; k < function.names.size(); ++k)
    if (!function.names[k].starts_with('@')) given.push_back({"", unknown("nobody in the program calls " + function.text)});
  if (self.object && !given.empty() && outside.python) given.erase(given.begin());
  const auto levels = m_out.levels;
  m_runsNow = true;  // a coroutine too
  (void)callFunction(function, self, std::move(given), outside);
  for (auto& [pin, v] : m_out.levels)  // in place: a journal may know where they are kept
    if (const auto it = levels.find(pin); it != levels.end())
      v = it->second;
    else
      m_neverLevels.insert(pin);
  m_pending = Flow::On;
  --m_unsure;
}

// Functions that no call in the program comes to, and the hardware or a library does: interrupts, timers, other threads.
void Follower::interrupts() {
  auto& outside = module(-1, false);
  for (const auto& [called, v] : outside.names)
    if (v.kind == Value::Kind::Function && v.code && runByHardware(called)) m_runs.push_back(v);
  if (m_runs.empty()) return;
  m_journals.emplace_back();
  widenCalled(Blur::Moved);  // they may come at any time
  std::set<std::pair<const Code*, int>> seen;
  for (std::size_t k = 0; k < m_runs.size() && k < kMostInterrupts && !spent(); ++k) {
    const auto f = m_runs[k];
    if (f.code && seen.insert({f.code, f.within}).second) withNothingKnown(*f.code, f, outside);
  }
  takeBack();
}

void Follower::rest() {
  std::vector<std::pair<Scope*, const Code*>> functions;
  for (auto& [file, scope] : m_modules)
    for (const auto& [called, v] : scope.names)
      if (v.kind == Value::Kind::Function && v.code && v.code->kind == Code::Kind::Define) functions.emplace_back(&scope, v.code);
  std::ranges::sort(functions, {}, [](const auto& f) { return std::pair(f.second->place.file, f.second->place.begin); });
  for (const auto& [scope, code] : functions)
    if (!m_entered.contains(code) && !spent()) unreached(*code, {}, *scope);
  std::map<const Code*, int> instances;
  for (std::size_t k = 0; k < m_created.size(); ++k) {
    const auto made = m_created[k];
    if (!made.object->code || instances[made.object->code]++ >= kMostInstances) continue;
    for (const auto& m : made.object->code->parts)
      if (m.kind == Code::Kind::Define && !m_entered.contains(&m) && !spent()) unreached(m, made, module(-1, false));
  }
}

Followed follow(const Sources& sources, const PublicCalls& calls, const std::map<std::pair<int, std::string>, int>& imports,
                const std::function<bool()>& cancelled) {
  return Follower(sources, calls, imports, cancelled).run();
}

}  // namespace bold::program
