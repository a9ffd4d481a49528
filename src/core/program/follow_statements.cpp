#include <algorithm>
#include <utility>

#include "core/base/number.h"
#include "core/program/follower.h"

namespace bold::program {

using Kind = Code::Kind;

namespace {

constexpr long kStepsOfMerging = 4;  // a value that two branches leave
constexpr int kDeepestStatement = 400;
constexpr int kMostRounds = 6000;  // of a loop that is counted
constexpr long kMostStepsOfLoop = 120'000;
constexpr int kSameAgain = 100;  // of one that is counted: it only does the same again
constexpr long kStepsOfQuiet = 2'000;
constexpr int kUnsureRounds = 4;  // of one whose end is not known
constexpr int kEndlessRounds = 24;
constexpr long kStepsOfEndless = 20'000;

// Everything that a piece of code gives a value to.
void targetsOf(const Code& c, std::vector<const Code*>& out) {
  if (c.kind == Kind::Assign || c.kind == Kind::Step)
    if (!c.parts.empty()) out.push_back(&c.parts.front());
  if (c.kind == Kind::Define || c.kind == Kind::Lambda) return;
  for (const auto& p : c.parts) targetsOf(p, out);
}

bool mentions(const Code& c, const std::string& name) {
  if ((c.kind == Kind::Name || c.kind == Kind::Member) && c.text == name) return true;
  return std::ranges::any_of(c.parts, [&](const Code& p) { return mentions(p, name); });
}

bool endless(const Code& condition) {
  return condition.kind == Kind::Number && condition.number != 0;
}

}  // namespace

Flow Follower::block(const Code& code, Scope& scope) {
  for (const auto& s : code.parts) {
    if (spent()) return Flow::On;
    if (const auto flow = statement(s, scope); flow != Flow::On) return flow;
  }
  return Flow::On;
}

Flow Follower::statement(const Code& code, Scope& scope) {
  ++m_steps;
  if (m_deep > kDeepestStatement) {
    m_out.tooMuch = true;
    return Flow::On;
  }
  ++m_deep;
  const auto flow = stated(code, scope);
  --m_deep;
  return flow;
}

Flow Follower::stated(const Code& code, Scope& scope) {
  switch (code.kind) {
    case Kind::Block:
      return block(code, scope);
    case Kind::Declare:
    case Kind::Array:
      declare(code, scope);
      break;
    case Kind::If:
      return choose(code, scope);
    case Kind::While:
      return loop(code, scope);
    case Kind::For:
      return each(code, scope);
    case Kind::Define: {
      put({&scope.names[code.text]}, functionHere(code, scope));
      break;
    }
    case Kind::Class:
      defineClass(code, scope);
      break;
    case Kind::Return: {
      auto v = code.parts.empty() ? Value{} : evaluate(code.parts.front(), scope);
      if (code.parts.empty()) v.kind = Value::Kind::None;
      if (m_pending != Flow::On) return std::exchange(m_pending, Flow::On);
      m_returned = m_hasReturned ? either(m_returned, v) : v;
      m_hasReturned = true;
      return Flow::Return;
    }
    case Kind::Goto: {  // where it goes on is not followed: what stands around it may happen in any order, or not at all
      const auto& around = m_around.empty() ? code : *m_around.back();
      const auto here = [&](const Unread& u) { return u.place.file == code.place.file && u.place.begin == code.place.begin; };
      if (m_out.unread.size() < 100 && std::ranges::none_of(m_out.unread, here))
        m_out.unread.push_back({code.place, "a goto is not followed", around.place});
      break;
    }
    case Kind::Break:
      return Flow::Break;
    case Kind::Continue:
      return Flow::Continue;
    case Kind::Raise:
      return code.text.find("SystemExit") != std::string::npos ? Flow::Exit : Flow::Raise;
    case Kind::Try:
      return tried(code, scope);
    case Kind::With:
      return with(code, scope);
    case Kind::Switch:
      return switched(code, scope);
    case Kind::Alternative: {
      std::vector<std::function<Flow()>> all;
      for (const auto& b : code.parts) all.emplace_back([this, &b, &scope] { return block(b, scope); });
      return branches(all);
    }
    case Kind::Import:
      import(code, scope);
      break;
    case Kind::Global:
      scope.global.insert(code.names.begin(), code.names.end());
      break;
    default:
      (void)evaluate(code, scope);
  }
  return std::exchange(m_pending, Flow::On);
}

// Of what nobody knows which comes true: each is followed from the same state, and what they leave is one or the other.
Flow Follower::branches(const std::vector<std::function<Flow()>>& all) {
  struct Left {
    std::map<Value*, std::pair<Slot, Value>> values;
    Flow flow;
  };
  std::vector<Left> left;
  ++m_unsure;
  int happening = 0;  // branches in which something happens: they exclude each other, and none follows another
  const auto cut = [&] {
    if (m_widened == 0 && m_reached) m_out.moments.push_back({"", -1, -1, -1, true});
  };
  for (const auto& one : all) {
    auto from = m_out.moments.size();
    if (happening > 0) cut();
    const auto begins = m_out.moments.size();
    m_journals.emplace_back();
    Left l{{}, one()};
    auto journal = std::move(m_journals.back());
    m_journals.pop_back();
    m_steps += static_cast<long>(journal.size());
    for (const auto& c : journal) l.values.try_emplace(c.slot.at, c.slot, *c.slot.at);
    for (auto c = journal.rbegin(); c != journal.rend(); ++c) *c->slot.at = c->before;
    if (l.flow == Flow::Break) m_mayBreak = true;
    left.push_back(std::move(l));
    if (m_out.moments.size() > begins)
      ++happening;
    else
      m_out.moments.resize(from);
  }
  if (happening > 1) cut();
  --m_unsure;
  const auto stays = [](const Left& l) { return l.flow != Flow::Exit && l.flow != Flow::Raise && l.flow != Flow::Forever; };
  const bool any = std::ranges::any_of(left, stays);
  std::map<Value*, Slot> slots;
  for (const auto& l : left)
    if (stays(l) || !any)
      for (const auto& [at, v] : l.values) slots.try_emplace(at, v.first);
  for (const auto& [at, where] : slots) {
    std::optional<Value> merged;
    for (const auto& l : left) {
      if (any && !stays(l)) continue;
      const auto it = l.values.find(at);
      const auto& v = it != l.values.end() ? it->second.second : *at;
      m_steps += kStepsOfMerging;
      if (merged) m_steps += costOf(*merged) * costOf(v) / kMembersAStep;
      merged = merged ? either(*merged, v) : v;
    }
    put(where, *merged);
  }
  for (const auto f : {Flow::On, Flow::Continue, Flow::Break, Flow::Return, Flow::Raise, Flow::Forever, Flow::Exit})
    if (std::ranges::any_of(left, [&](const Left& l) { return l.flow == f; })) return f;
  return Flow::On;
}

Flow Follower::choose(const Code& code, Scope& scope) {
  if (code.parts.size() < 2) return Flow::On;
  const auto condition = evaluate(code.parts[0], scope);
  if (m_pending != Flow::On) return std::exchange(m_pending, Flow::On);
  const auto t = truth(condition);
  const auto other = [&] { return code.parts.size() > 2 ? statement(code.parts[2], scope) : Flow::On; };
  if (t) return *t ? block(code.parts[1], scope) : other();
  return branches({[&] { return block(code.parts[1], scope); }, other});
}

void Follower::widen(const Code& code, Scope& scope) {
  std::vector<const Code*> targets;
  targetsOf(code, targets);
  for (const auto* t : targets)
    if (t->kind == Kind::Name)
      if (const auto where = slot(*t, scope, false); where.at && where.at->kind != Value::Kind::Object)
        put(where, unknown("it changes in a loop whose end is not known"));
}

void Follower::countTargets(const Code& code, bool inside) {
  if (inside && (code.kind == Kind::Assign || code.kind == Kind::Step) && !code.parts.empty()) {
    const auto& t = code.parts.front();
    if (t.kind == Kind::Name || t.kind == Kind::Member)
      m_targets[t.text] += code.kind == Kind::Step || !code.text.empty() || mentions(code.parts.back(), t.text) ? 2 : 1;
  }
  for (const auto& p : code.parts) countTargets(p, inside || code.kind == Kind::Define);
}

// What functions give other values to, once or at several places, is not known any more.
void Follower::widenCalled(Blur which) {
  if (m_targets.empty())
    for (const auto& u : m_sources.units) countTargets(u.code, false);
  const auto moves = [&](const std::string& called) {
    const auto it = m_targets.find(called);
    return it != m_targets.end() && (which == Blur::All || it->second > 1);
  };
  const auto blur = [&](const Slot& where) {
    if (where.at->isNumber() || where.at->kind == Value::Kind::Either) put(where, unknown("it changes while the program runs"));
  };
  for (auto& [file, scope] : m_modules)
    for (auto& [called, v] : scope.names) {
      if (moves(called)) blur({&v});
      if (v.kind == Value::Kind::Object && v.object)
        for (auto& [field, value] : v.object->fields)
          if (moves(field)) blur({&value, v.object});
    }
  for (auto& [of, kept] : m_statics)
    for (auto& [called, v] : kept)
      if (moves(called)) blur({&v});
  for (const auto& made : m_created)
    for (auto& [field, value] : made.object->fields)
      if (moves(field)) blur({&value, made.object});
}

// A round of a loop without end that may come once, however late: a counter has come to where something is done. Only what no earlier
// round did counts, and nothing of it stays.
Flow Follower::sweep(const std::function<Flow()>& round) {
  if (m_late) return Flow::On;
  ++m_unsure, ++m_widened;
  m_late = true;
  m_before = m_seen;
  m_journals.emplace_back();
  widenCalled(Blur::All);
  const auto flow = round();
  takeBack();
  --m_unsure, --m_widened;
  m_late = false;
  return flow;
}

// A loop that only does the same again is taken as run: what it counts by has gone on to where nobody looks, all else is as it stands.
void Follower::finish(const Code& code, Scope& scope) {
  std::vector<const Code*> counters;
  if (code.parts.size() > 2) targetsOf(code.parts[2], counters);
  targetsOf(code.parts[0], counters);
  for (const auto* t : counters)
    if (t->kind == Kind::Name)
      if (const auto where = slot(*t, scope, false); where.at) put(where, unknown("it is counted in a long loop"));
}

Flow Follower::loop(const Code& code, Scope& scope) {
  if (code.parts.size() < 2) return Flow::On;
  const auto& condition = code.parts[0];
  const auto& body = code.parts[1];
  const bool forever = endless(condition);
  const auto outerBreak = std::exchange(m_mayBreak, false);
  const auto from = m_steps;
  const auto done = [&](Flow f) {
    m_mayBreak = outerBreak;
    return f;
  };
  int unsure = 0, quiet = 0;
  bool checked = code.whole;  // do … while
  for (int round = 0;; ++round) {
    const auto t = checked ? std::optional(true) : truth(evaluate(condition, scope));
    checked = false;
    if (m_pending != Flow::On) return done(std::exchange(m_pending, Flow::On));
    if (t && !*t) return done(Flow::On);
    if (spent()) return done(Flow::On);
    const auto events = m_out.events.size();
    const bool certain = t && !m_mayBreak;
    if (!certain && ++unsure > kUnsureRounds) break;
    if (!forever && (round > kMostRounds || m_steps - from > kMostStepsOfLoop)) break;
    const auto inside = [&] { return block(body, scope); };
    const auto flow = certain ? inside() : branches({inside, [] { return Flow::On; }});
    if (flow == Flow::Break) return done(Flow::On);
    if (flow == Flow::Return || flow == Flow::Raise || flow == Flow::Exit || flow == Flow::Forever) return done(flow);
    if (code.parts.size() > 2) (void)evaluate(code.parts[2], scope);
    quiet = m_out.events.size() == events ? quiet + 1 : 0;
    if (!forever && quiet > kSameAgain && m_steps - from > kStepsOfQuiet) {
      (void)sweep([&] {
        widen(code, scope);
        return block(body, scope);
      });
      finish(code, scope);
      return done(Flow::On);
    }
    if (forever && (round >= kEndlessRounds || (quiet >= 2 && round >= 3) || m_steps - from > kStepsOfEndless)) {
      const auto late = sweep([&] {
        widen(code, scope);
        return block(body, scope);
      });
      return done(m_mayBreak || late == Flow::Break ? Flow::On : late == Flow::Return || late == Flow::Exit ? late : Flow::Forever);
    }
  }
  // Once more for every round that may still come.
  ++m_widened;
  (void)branches({[&] {
                    widen(code, scope);
                    return block(body, scope);
                  },
                  [] { return Flow::On; }});
  widen(code, scope);
  --m_widened;
  return done(Flow::On);
}

std::optional<std::vector<Value>> Follower::gone(const Value& through) {
  if (through.kind == Value::Kind::List) {
    m_steps += static_cast<long>(through.items->size()) / kMembersAStep;
    return std::vector<Value>(through.items->begin(), through.items->end());
  }
  if (through.kind == Value::Kind::Class &&
      std::ranges::any_of(through.code->names, [](const auto& base) { return base.ends_with("Enum"); })) {
    std::vector<Value> members;  // in the order in which they stand
    const auto& names = module(through.code->place.file, true).names;
    for (const auto& m : through.code->parts)
      if (m.kind == Kind::Assign && m.parts.front().kind == Kind::Name)
        if (const auto it = names.find(through.code->text + "::" + m.parts.front().text); it != names.end()) members.push_back(it->second);
    return members;
  }
  if (through.kind == Value::Kind::Object && through.object->type.empty()) {
    std::vector<Value> keys;
    for (const auto& [key, v] : through.object->fields)
      keys.push_back(key.starts_with('\'') ? words(key.substr(1)) : number(realOf(key).value_or(0)));
    return keys;
  }
  return std::nullopt;
}

namespace {

// "for a, b in …": each name its part.
void spread(const std::vector<std::string>& names, const Value& v, const std::function<void(const std::string&, Value)>& give) {
  if (names.size() == 1) return give(names.front(), v);
  const bool fits = v.kind == Value::Kind::List && v.items->size() == names.size();
  // "for i, (a, b) in enumerate(…)": the names of the inner one follow on.
  if (v.kind == Value::Kind::List && v.items->size() == 2 && names.size() > 2 && v.items->back().kind == Value::Kind::List) {
    give(names.front(), v.items->front());
    return spread({names.begin() + 1, names.end()}, v.items->back(), give);
  }
  for (std::size_t k = 0; k < names.size(); ++k)
    give(names[k], fits ? (*v.items)[k] : unknown("it is taken apart in a way that is not followed"));
}

}  // namespace

Flow Follower::each(const Code& code, Scope& scope) {
  if (code.parts.size() < 2) return Flow::On;
  const auto through = evaluate(code.parts[0], scope);
  if (m_pending != Flow::On) return std::exchange(m_pending, Flow::On);
  const auto give = [&](const std::string& called, Value v) {
    if (called.empty()) return;
    Code target;
    target.kind = Kind::Name;
    target.text = called;
    if (scope.python || slot(target, scope, false).at)
      assign(target, std::move(v), scope);
    else
      put({&scope.names[called]}, std::move(v));
  };
  const auto outerBreak = std::exchange(m_mayBreak, false);
  const auto done = [&](Flow f) {
    m_mayBreak = outerBreak;
    return f;
  };
  const auto members = gone(through);
  if (!members) {
    return done(branches({[&] {
                            spread(code.names, unknown("what is gone through is not known"), give);
                            return block(code.parts[1], scope);
                          },
                          [] { return Flow::On; }}));
  }
  const auto from = m_steps;
  int unsure = 0;
  for (const auto& v : *members) {
    if (spent() || m_steps - from > kMostStepsOfLoop) break;
    const auto inside = [&] {
      spread(code.names, v, give);
      return block(code.parts[1], scope);
    };
    const bool certain = !m_mayBreak;
    if (!certain && ++unsure > 64) break;
    const auto flow = certain ? inside() : branches({inside, [] { return Flow::On; }});
    if (flow == Flow::Break) return done(Flow::On);
    if (flow != Flow::On && flow != Flow::Continue) return done(flow);
  }
  return done(through.text == "endless" && !m_mayBreak ? Flow::Forever : Flow::On);
}

// Nobody knows where in a loop it was stopped: each pin stands at one of the levels that it had meanwhile.
void Follower::levelsOfAll(std::size_t since) {
  std::map<std::string, Value> seen;
  for (auto k = since; k < m_out.moments.size(); ++k) {
    const auto& m = m_out.moments[k];
    if (m.pin.empty()) continue;
    const auto v = m.level < 0 ? unknown("its level is not known") : number(m.level);
    const auto [it, fresh] = seen.try_emplace(m.pin, v);
    if (!fresh) it->second = either(it->second, v);
  }
  for (const auto& [pin, v] : seen) {
    auto& now = m_out.levels[pin];
    put({&now}, either(now, v));
  }
}

Flow Follower::tried(const Code& code, Scope& scope) {
  if (code.parts.empty()) return Flow::On;
  const auto moments = m_out.moments.size();
  auto flow = block(code.parts.front(), scope);
  std::vector<const Code*> handlers;
  const Code* last = nullptr;
  const Code* otherwise = nullptr;
  for (std::size_t k = 1; k < code.parts.size(); ++k)
    (code.parts[k].text == "finally" ? last : code.parts[k].text == "else" ? otherwise : handlers.emplace_back()) = &code.parts[k];
  const auto byHand = [](const Code* h) {
    return h->text.find("KeyboardInterrupt") != std::string::npos || h->text == "BaseException" || h->text.empty();
  };
  if (flow == Flow::Forever) {
    levelsOfAll(moments);
    const auto stop = std::ranges::find_if(handlers, byHand);
    flow = Flow::Exit;
    if (stop != handlers.end()) {
      flow = block(**stop, scope);
      std::erase(handlers, *stop);
    }
  } else if (flow == Flow::Raise && !handlers.empty()) {
    flow = block(*handlers.front(), scope);
    handlers.erase(handlers.begin());
  } else if (flow == Flow::On && otherwise)
    flow = block(*otherwise, scope);
  if (!handlers.empty()) {
    std::vector<std::function<Flow()>> all{[] { return Flow::On; }};
    // Stopped by hand anywhere in it, each pin stands where it was at that moment.
    for (const auto* h : handlers)
      all.emplace_back([this, h, &scope, &byHand, moments] {
        if (byHand(h)) levelsOfAll(moments);
        return block(*h, scope);
      });
    (void)branches(all);
  }
  if (last)
    if (const auto f = block(*last, scope); f != Flow::On) flow = f;
  return flow;
}

Flow Follower::with(const Code& code, Scope& scope) {
  std::vector<Value> held;
  for (std::size_t k = 0; k + 1 < code.parts.size(); ++k) {
    held.push_back(evaluate(code.parts[k], scope));
    if (k < code.names.size() && !code.names[k].empty()) {
      Code target;
      target.kind = Kind::Name;
      target.text = code.names[k];
      assign(target, held.back(), scope);
    }
  }
  if (m_pending != Flow::On) return std::exchange(m_pending, Flow::On);
  const auto moments = m_out.moments.size();
  const auto flow = code.parts.empty() ? Flow::On : block(code.parts.back(), scope);
  if (flow == Flow::Forever) levelsOfAll(moments);
  for (auto& v : held)
    if (v.kind == Value::Kind::Object) (void)publicCall(v.object->type + ".close", v.object, {}, code, scope);
  return flow;
}

Flow Follower::switched(const Code& code, Scope& scope) {
  const auto value = evaluate(code.parts.front(), scope);
  if (m_pending != Flow::On) return std::exchange(m_pending, Flow::On);
  // From a case on until it breaks.
  const auto from = [&](std::size_t k) {
    for (; k < code.parts.size(); ++k) {
      const auto flow = block(code.parts[k].parts.front(), scope);
      if (flow == Flow::Break) return Flow::On;
      if (flow != Flow::On) return flow;
      if (code.parts[k].whole) break;
    }
    return Flow::On;
  };
  std::vector<std::size_t> fits;
  std::size_t standard = 0;
  bool certain = value.known();
  for (std::size_t k = 1; k < code.parts.size(); ++k) {
    const auto& c = code.parts[k];
    if (c.parts.size() < 2) {
      standard = k;
      continue;
    }
    const auto v = evaluate(c.parts[1], scope);
    const auto equal = truth(operated("==", value, v, scope.python));
    if (equal && !*equal) continue;
    fits.push_back(k);
    if (!equal) certain = false;
  }
  if (certain && fits.size() <= 1) return fits.empty() ? (standard > 0 ? from(standard) : Flow::On) : from(fits.front());
  std::vector<std::function<Flow()>> all;
  for (const auto k : fits) all.emplace_back([&from, k] { return from(k); });
  all.emplace_back([&] { return standard > 0 ? from(standard) : Flow::On; });
  return branches(all);
}

}  // namespace bold::program
