#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/absence.h"
#include "core/checks/program/absences.h"

namespace bold::checks::program_goal_unserved {
namespace {

struct Levels {
  bool high = false, low = false;
  bool both() const { return high && low; }
};

Levels levelsOf(const harness::PinUse& u) {
  const auto& d = u.does;
  Levels out{d.contains("high"), d.contains("low")};
  if (!out.high && !out.low) out = {true, true};  // worked out while it runs
  return out;
}

class Serving {
 public:
  Serving(const ProgramOnBench& program, int motor) : m_program(program), m_roles(program.rolesOf(motor)) {}

  // What of a motor's goal no write of the program can bring about; empty: nothing. What is wired and not driven is another check's matter.
  std::string unserved(const harness::Intent* intent) const {
    if (m_roles.empty() || std::ranges::any_of(m_roles, [&](const WiredRole* r) { return needed(r->role) && !driven(r->role); })) return {};
    if (never()) return "run at all";
    if (has("step") && (!both("step") || !driven("step")->does.contains("pulse"))) return "make a step";
    if (coils() && std::ranges::any_of(m_roles, [&](const WiredRole* r) { return !both(r->role); })) return "go through all its coils";
    if (intent && intent->bothDirections && oneWay()) return "turn the other way";
    if (intent && intent->speedControl && !chopped()) return "change its speed";
    if (!stops()) return "stop";
    return {};
  }

 private:
  const ProgramOnBench& m_program;
  const std::vector<const WiredRole*> m_roles;

  static bool needed(const std::string& role) {
    return role.starts_with("in") || role.starts_with("speed") || role == "step" || role == "dir" || role == "pulse";
  }
  const harness::PinUse* driven(const std::string& role) const {
    const auto it = std::ranges::find(m_roles, role, &WiredRole::role);
    const auto* u = it == m_roles.end() ? nullptr : m_program.at((*it)->pin);
    return u && drives(*u->use) ? u->use : nullptr;
  }
  bool has(const std::string& role) const { return driven(role) != nullptr; }
  bool both(const std::string& role) const { return levelsOf(*driven(role)).both(); }
  bool high(const std::string& role) const { return has(role) && levelsOf(*driven(role)).high; }
  bool low(const std::string& role) const { return has(role) && levelsOf(*driven(role)).low; }
  // A pin may have to be low for its motor to run: through a transistor above it, or an opto input to the plus.
  bool needsLow(const std::string& role) const {
    const auto it = std::ranges::find(m_roles, role, &WiredRole::role);
    const auto* p = m_program.solved().running((*it)->motor, Corner::Nominal);
    const auto pin = p ? p->command().pins.find((*it)->pin) : decltype(p->command().pins.end()){};
    return p && pin != p->command().pins.end() && pin->second == bench::PinState::Low;
  }
  bool coils() const { return has("in3") && has("in4"); }

  // Nothing that sets it going is ever high. (One direction input alone may stand on a rail.)
  bool never() const {
    if (coils() || has("step") || has("pulse")) return false;
    if (has("speed")) return !high("speed");
    if (has("in")) return needsLow("in") ? !low("in") : !high("in");
    return has("in1") && has("in2") && !high("in1") && !high("in2");
  }
  bool oneWay() const {
    if (has("in1") && has("in2") && !coils()) return !both("in1") || !both("in2");
    if (has("forward") && has("reverse")) return !both("forward") || !both("reverse");
    return has("dir") && !both("dir");
  }
  bool chopped() const {
    bool any = has("step") || coils();
    for (const auto* r : m_roles)
      if (const auto* u = driven(r->role)) any = any || u->does.contains("pwm") || u->does.contains("tone");
    return any;
  }
  bool stops() const {
    if (has("step") || coils() || has("pulse")) return true;
    for (const auto* r : m_roles)
      if (const auto* u = driven(r->role); u && !u->last.empty()) return true;  // program-left-on says what it comes to
    for (const auto* role : {"speed", "in"})
      if (has(role) && levelsOf(*driven(role)).both()) return true;
    if (has("in1") && has("in2")) return low("in1") || low("in2");  // both low, or both ways in turn
    return !has("speed") && !has("in");
  }
};

}  // namespace

Absences absences(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Absences out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    const auto roles = program.rolesOf(static_cast<int>(k));
    const auto what = Serving(program, static_cast<int>(k)).unserved(m.intent);
    if (what.empty()) continue;
    const auto& motor = called(s, m);
    const auto* u = program.at(roles.front()->pin);
    auto f = finding(Severity::Caution, fmt::format("The program never lets {} {}", motor, what),
                     fmt::format("{} is meant to {}, and nothing that the program writes to its pins does that.", motor, what),
                     {idOf(s.bench, m.device)});
    if (u) f.spots = spotsOf(*u->use);
    for (const auto* r : roles)
      if (const auto* x = program.at(r->pin)) {
        const auto l = levelsOf(*x->use);
        f.formula += fmt::format("{}{} {}", f.formula.empty() ? "" : ", ", said(*x->use),
                                 x->use->does.contains("pwm") ? "PWM"
                                 : l.both()                   ? "high and low"
                                 : l.high                     ? "only high"
                                                              : "only low");
      }
    f.ways = {{fmt::format("Write the pins of {} so that it can {}.", motor, what)},
              {"Or state what it is meant to do otherwise.", fieldOf(s, m, what == "change its speed" ? "speed" : "directions")}};
    Absence one{std::move(f), {}, {static_cast<int>(k)}};
    for (const auto* r : roles) one.pins.push_back(r->pin);
    out.push_back(std::move(one));
  }
  return out;
}

// What a motor is meant to do, against everything that the program ever writes to its pins.
Findings judge(const ProgramOnBench& program) {
  return standing(program, absences(program));
}

Check check() {
  return {"program-goal-unserved", "program", "A goal that no write of the program serves", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_goal_unserved
