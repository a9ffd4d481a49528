#pragma once

#include <fmt/core.h>

#include <functional>
#include <set>
#include <unordered_map>

#include "core/program/follow.h"

/// Who follows a program. For the files follow*.cpp only.
namespace bold::program {

/// Names of one function's run, or of all that stand outside.
struct Scope : std::enable_shared_from_this<Scope> {
  std::map<std::string, Value> names;
  std::set<std::string> global;        ///< names that mean those outside
  std::map<std::string, Value*> kept;  ///< names whose values outlive a call
  Scope* outside = nullptr;
  Value self;
  bool python = false;
  int file = -1;
  int intBits = 0;  ///< of int on the controller; 0: numbers have no width
  int closed = -1;  ///< its place among those that functions standing in it see; -1: there are none yet
};

enum class Flow { On, Break, Continue, Return, Raise, Exit, Forever };

struct Argument {
  std::string keyword;
  Value value;
};

constexpr int kMembersAStep = 4;  ///< what handling the members of a list counts

class Follower {
 public:
  Follower(const Sources& sources, const PublicCalls& calls, const std::map<std::pair<int, std::string>, int>& imports,
           const std::function<bool()>& cancelled);
  Followed run();

 private:
  const Sources& m_sources;
  const PublicCalls& m_calls;
  const std::map<std::pair<int, std::string>, int>& m_imports;
  const std::function<bool()>& m_cancelled;
  Followed m_out;
  std::set<int> m_pythonFiles;
  std::map<int, std::set<std::string>> m_bound;      // every name that a Python file gives to anything
  std::unordered_map<std::string, Scope> m_modules;  // Python: one a file; C: all share ""
  std::map<std::string, const Code*> m_classes;      // C and C++
  std::map<std::string, const Code*> m_methods;      // "Class::method" defined outside of it
  std::map<std::pair<const Code*, const Object*>, std::map<std::string, Value>> m_statics;
  std::set<const Code*> m_entered;                              // functions that were followed
  std::map<std::string, std::map<std::string, Value>> m_units;  // facts of channels, slices, timers, pins
  std::map<std::string, std::string> m_numbering;               // of an interface, where the program chooses it
  std::map<std::string, std::uint64_t> m_everSet;               // registers that nobody describes: bits that ever were
  std::set<std::string> m_registersSeen;
  std::set<std::string> m_noRegister;                              // names that were looked for among them
  std::vector<std::string> m_modulesOpen;                          // Python modules taken whole
  std::map<std::string, int> m_known;                              // events by what they do and where
  std::vector<Value> m_created;                                    // objects of public classes, for "release all"
  std::set<std::string> m_neverLevels;                             // pins that only what nobody calls gives a level
  std::vector<Value> m_runs;                                       // what something else calls while the program goes on
  std::set<std::tuple<const Code*, const Object*, int>> m_handed;  // functions that were handed over
  std::vector<std::shared_ptr<Scope>> m_closed;                    // runs of functions that functions standing in them see

  // Where a value is kept, and what keeps that place in being.
  struct Slot {
    Value* at = nullptr;
    std::shared_ptr<void> keeps{};
  };
  // What a branch changed, so that it can be taken back and both results kept.
  struct Change {
    Slot slot;
    Value before;
  };
  std::vector<std::vector<Change>> m_journals;

  std::vector<const Code*> m_around;  // functions that are being followed, the innermost last
  int m_depth = 0;                    // calls
  int m_making = 0;                   // things that are members of things
  int m_deep = 0;                     // statements and expressions within each other, calls and all: what the stack has to bear
  long m_steps = 0;
  long m_mostSteps = 0;
  int m_unsure = 0;  // conditions that are not known around here
  bool m_reached = true;
  int m_objects = 0;
  Value m_returned;
  bool m_hasReturned = false;
  bool m_runsNow = false;              // the next call of a coroutine is one that somebody waits for
  std::shared_ptr<Items> m_yielded{};  // of the generator around here
  std::string m_raised;
  bool m_mayBreak = false;
  Flow m_pending = Flow::On;             // what a call within an expression came to, for its statement
  std::map<std::string, int> m_targets;  // what functions give values to: at how many places, two for what counts up or down
  using Places = std::set<std::pair<int, std::uint32_t>>;
  Places m_seen;    // where something happened
  Places m_before;  // the same before a late round, which looks for other places only
  bool m_late = false;
  int m_widened = 0;                             // values stand for many: nothing is in order any more
  std::vector<std::shared_ptr<Scope>> m_scopes;  // of calls, while a branch may take back what it changed in them
  std::vector<Value> m_atEnd;                    // functions that run when it is over

  // follow.cpp
  void pythonUnits();
  void cUnits();
  void define(const Code& block);
  void entry(const Code* function, int times);
  void atEnd();
  void rest();
  void interrupts();
  void names();
  void withNothingKnown(const Code& function, const Value& self, Scope& outside);
  void unreached(const Code& function, const Value& self, Scope& outside);
  Scope& module(int file, bool python);
  const Code* functionNamed(const std::string& name);

  // follow_statements.cpp
  Flow block(const Code& code, Scope& scope);
  Flow statement(const Code& code, Scope& scope);
  Flow stated(const Code& code, Scope& scope);
  Flow branches(const std::vector<std::function<Flow()>>& all);
  Flow choose(const Code& code, Scope& scope);
  Flow loop(const Code& code, Scope& scope);
  Flow each(const Code& code, Scope& scope);
  Flow tried(const Code& code, Scope& scope);
  Flow with(const Code& code, Scope& scope);
  Flow switched(const Code& code, Scope& scope);
  void levelsOfAll(std::size_t sinceMoment);
  void widen(const Code& code, Scope& scope);
  enum class Blur { All, Moved };
  void widenCalled(Blur which);
  void countTargets(const Code& code, bool inside);
  void finish(const Code& code, Scope& scope);
  Flow sweep(const std::function<Flow()>& round);
  bool spent() const { return m_steps > m_mostSteps || (m_cancelled && m_cancelled()); }

  // follow_definitions.cpp
  void declare(const Code& code, Scope& scope);
  void defineClass(const Code& code, Scope& scope);
  void import(const Code& code, Scope& scope);

  // follow_expressions.cpp
  Value evaluate(const Code& code, Scope& scope);
  Value evaluated(const Code& code, Scope& scope);
  Value name(const Code& code, Scope& scope);
  Value member(const Value& of, const Code& code, Scope& scope);
  Value item(const Value& of, const Value& index);
  Value resolvedPublic(const std::string& path);
  Value comprehension(const Code& code, Scope& scope);
  std::optional<std::vector<Value>> gone(const Value& through);

  // follow_assignments.cpp
  Slot slot(const Code& code, Scope& scope, bool make);
  void assign(const Code& target, Value value, Scope& scope);
  void put(const Slot& slot, Value value);
  void takeBack();
  Value assignment(const Code& code, Scope& scope);
  Value shaped(const std::string& type, Value value, Scope& scope);

  // follow_calls.cpp
  std::shared_ptr<Scope> newScope();
  Value functionHere(const Code& code, Scope& scope);
  Value call(const Code& code, Scope& scope);
  std::vector<Argument> arguments(const Code& code, std::size_t from, Scope& scope);
  Value callValue(const Value& callee, std::vector<Argument> given, const Code& at, Scope& scope);
  Value deferred(const Code& function, const Value& self, std::vector<Argument> given);
  Value awaited(Value v, Scope& scope);
  Value callFunction(const Code& function, const Value& self, std::vector<Argument> given, Scope& outside);
  Value construct(const Code& klass, std::vector<Argument> given, const Code& at, bool braces = false);
  const Code* method(const Code* klass, const std::string& name);
  const Code* classNamed(const std::string& name, const Scope& scope);
  Value made(const std::string& type, std::vector<Argument> given, const Code& at, Scope& scope, bool braces = false);

  // follow_built_ins.cpp
  std::optional<Value> builtIn(std::string_view name, const std::vector<Argument>& given, Scope& scope);
  std::optional<Value> listMethod(const Value& of, std::string_view name, const std::vector<Argument>& given);

  // follow_public.cpp
  using Facts = std::map<std::string, Value>;
  Value publicCall(const std::string& path, const std::shared_ptr<Object>& self, const std::vector<Argument>& given, const Code& at,
                   Scope& scope);
  Value perform(const PublicCall& what, const std::string& called, const std::shared_ptr<Object>& self, const std::vector<Argument>& given,
                const Code& at, Scope& scope);
  Facts taken(const PublicCall& what, const std::vector<Argument>& given) const;
  void complete(Facts& facts, const PublicCall& what, const Object* self);
  void unknownCall(const std::string& path, const std::vector<Argument>& given, const Code& at, Scope& scope,
                   const std::shared_ptr<Object>& self = {});
  void unknownCallee(const std::vector<Argument>& given, const Code& at, Scope& scope);
  void handOver(Value v, Scope& scope, int depth = 0);
  void methodsRun(const Code& klass, Scope& scope);
  void pinsIn(const Value& v, std::vector<PinWord>& out, int depth = 0) const;
  void runs(Value function, Scope& scope);
  std::string unitOf(const PublicCall& what, const Facts& facts) const;

  // follow_pins.cpp
  std::vector<PinWord> pinsOf(const Facts& facts, const PublicCall* what) const;
  void pinWords(const Value& v, const std::string& role, const PublicCall* what, bool choice, std::vector<PinWord>& out,
                int depth = 0) const;
  bool known(const Place& place) const { return m_late && m_before.contains({place.file, place.begin}); }
  void happens(Event event);
  void takeLevels(const Event& event, int index);
  void level(const std::string& pin, const Value& v, int index);

  // follow_registers.cpp
  void dropOwnless();
  bool setRegister(const std::string& path, const Value& value, const Code& at);
  std::optional<Value> readRegister(const std::string& path);
  void readBits(const Value& bits, const Code& at);
  void bit(const Register& r, char letter, int n, const std::string& path, const Value& level, const Code& at, bool turned = false);
};

}  // namespace bold::program
