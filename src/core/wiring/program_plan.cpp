#include "core/wiring/program_plan.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/program/coil_group.h"
#include "core/checks/program/on_bench.h"

namespace bold::wiring {

using harness::Intent;

namespace {

// Eight states are half steps; of four, those with two pins high are full steps, the others a wave.
std::string sequenceOf(const std::vector<std::string>& states) {
  if (states.size() >= 8) return "half";
  if (states.size() != 4) return {};
  return std::ranges::count(states.front(), '1') == 2 ? "full" : "wave";
}

class Planning {
 public:
  Planning(const harness::Harness& h, const bench::SolvedBench& s) : m_h(h), m_s(s), m_program(s) {}

  std::vector<PlanProposal> run() {
    for (std::size_t k = 0; k < m_s.motors.size(); ++k) motor(static_cast<int>(k));
    return std::move(m_out);
  }

 private:
  const harness::Harness& m_h;
  const bench::SolvedBench& m_s;
  checks::ProgramOnBench m_program;
  std::vector<PlanProposal> m_out;
  Intent m_typed;

  // Unless the intent says so already.
  template <class Change>
  void propose(const std::string& text, const harness::PinUse* use, Change change) {
    auto wanted = m_typed;
    change(wanted);
    if (wanted == m_typed) return;
    const auto* d = m_h.device(m_typed.motor);
    const auto spots = use ? checks::spotsOf(*use) : std::vector<harness::Spot>{};
    m_out.push_back({m_typed.motor, fmt::format("{}: {}", d ? d->called() : m_typed.motor, text), std::move(wanted),
                     spots.empty() ? harness::Spot{} : spots.front()});
  }

  // What is typed of it; what an earlier reading stated counts as not said by anybody.
  Intent typedOf(const std::string& motor) const {
    auto h = m_h;
    std::erase_if(h.assignments, [](const auto& a) { return !a.source.typed(); });
    std::erase_if(h.program, [](const auto& p) { return !p.source.typed(); });
    return harness::intentFor(h, motor);
  }

  void motor(int k) {
    const auto& m = m_s.motors[k];
    m_typed = typedOf(checks::idOf(m_s.bench, m.device));
    std::map<std::string, const checks::UsedPin*> at;
    for (const auto* r : m_program.rolesOf(k)) {
      const auto* u = m_program.at(r->pin);
      if (!u || !checks::drives(*u->use)) continue;
      at[r->role] = u;
      if (std::ranges::count(m_typed.signals, r->role, &harness::Signal::role) > 0) continue;
      const auto pin = m_s.bench.place(r->pin);
      propose(fmt::format("{} from {}{}", r->role, m_s.bench.called(r->pin), u->use->name.empty() ? "" : " (" + u->use->name + ")"), u->use,
              [&](Intent& i) {
                i.signals.push_back({r->role, pin, harness::numberingOfPlan(u->use->numbering), harness::Active::Unsaid});
              });
    }
    if (at.empty()) return;
    ways(m, at);
    speed(at);
    steps(k, m, at);
  }

  using Roles = std::map<std::string, const checks::UsedPin*>;

  static bool changes(const Roles& at, const std::string& role) {
    const auto it = at.find(role);
    if (it == at.end()) return false;
    const auto& d = it->second->use->does;
    return d.contains("pwm") || (d.contains("high") && d.contains("low"));
  }

  void ways(const bench::Motor& m, const Roles& at) {
    const bool both = (changes(at, "in1") && changes(at, "in2")) || changes(at, "dir");
    if (m.kind == bench::MotorKind::Servo || !both) return;
    propose("turns both ways", at.contains("dir") ? at.at("dir")->use : at.at("in1")->use, [](Intent& i) { i.bothDirections = true; });
  }

  void speed(const Roles& at) {
    for (const auto* role : {"speed", "in", "in1", "in2"}) {
      const auto it = at.find(role);
      if (it == at.end() || !it->second->use->does.contains("pwm")) continue;
      const auto& u = *it->second->use;
      propose("its speed is set by PWM", &u, [](Intent& i) { i.speedControl = true; });
      if (u.frequency) propose("PWM at " + displayText(*u.frequency), &u, [&](Intent& i) { i.pwm = *u.frequency; });
      if (u.duty && *u.duty > 0 && *u.duty < 1)
        propose(fmt::format("a duty of {:.0f} % at most", 100 * *u.duty), &u, [&](Intent& i) { i.dutyCap = *u.duty; });
      return;
    }
  }

  void steps(int k, const bench::Motor&, const Roles& at) {
    if (const auto it = at.find("step"); it != at.end()) {
      const auto& u = *it->second->use;
      if (u.rate) propose(fmt::format("{} step pulses a second", displayText(*u.rate)), &u, [&](Intent& i) { i.rate = *u.rate; });
      if (u.pulse && u.pulse->value > 0) propose("step pulses of " + displayText(*u.pulse), &u, [&](Intent& i) { i.pulse = *u.pulse; });
    }
    for (const auto& c : checks::coilGroups(m_program)) {
      if (c.motor != k) continue;
      propose("turns both ways, as a stepper can", c.any->use, [](Intent& i) { i.bothDirections = true; });
      if (const auto s = sequenceOf(c.group->states); !s.empty()) propose(s + " sequence", c.any->use, [&](Intent& i) { i.sequence = s; });
      if (c.group->turn)
        propose(fmt::format("{} steps a turn", *c.group->turn), c.any->use, [&](Intent& i) { i.stepsPerTurn = *c.group->turn; });
    }
  }
};

// Each proposal changed one thing: that one is taken over.
void take(Intent& to, const Intent& from, const Intent& before) {
  if (from.bothDirections != before.bothDirections) to.bothDirections = from.bothDirections;
  if (from.speedControl != before.speedControl) to.speedControl = from.speedControl;
  if (from.pwm != before.pwm) to.pwm = from.pwm;
  if (from.dutyCap != before.dutyCap) to.dutyCap = from.dutyCap;
  if (from.rate != before.rate) to.rate = from.rate;
  if (from.pulse != before.pulse) to.pulse = from.pulse;
  if (from.sequence != before.sequence) to.sequence = from.sequence;
  if (from.stepsPerTurn != before.stepsPerTurn) to.stepsPerTurn = from.stepsPerTurn;
  for (const auto& s : from.signals)
    if (std::ranges::count(to.signals, s.role, &harness::Signal::role) == 0) to.signals.push_back(s);
}

}  // namespace

std::vector<PlanProposal> planFromProgram(const harness::Harness& h, const Analysis& a) {
  return a.solved ? Planning(h, *a.solved).run() : std::vector<PlanProposal>{};
}

harness::Edit planEdit(const harness::Harness& h, const std::vector<PlanProposal>& confirmed) {
  // What the program was found to say of these pins becomes the user's own word.
  harness::Harness now = h;
  harness::Edit out{"Plan from the program", {}};
  std::map<std::string, Intent> wanted;
  auto typed = h;
  std::erase_if(typed.assignments, [](const auto& x) { return !x.source.typed(); });
  std::erase_if(typed.program, [](const auto& x) { return !x.source.typed(); });
  for (const auto& p : confirmed) {
    const auto before = harness::intentFor(typed, p.motor);
    take(wanted.try_emplace(p.motor, before).first->second, p.wanted, before);
  }
  for (const auto& [motor, intent] : wanted) {
    // Stated against what is typed alone, on a document whose ids are all known.
    auto base = now;
    std::erase_if(base.assignments, [](const auto& x) { return !x.source.typed(); });
    std::erase_if(base.program, [](const auto& x) { return !x.source.typed(); });
    auto edit = harness::stating(base, intent, out.title);
    for (auto& change : edit.changes)
      if (auto* put = change.as<harness::Put<harness::Assignment>>()) {
        const auto stands = std::ranges::find_if(
            now.assignments, [&](const auto& a) { return !a.source.typed() && a.motor == put->value.motor && a.role == put->value.role; });
        if (stands != now.assignments.end())
          put->value.id = stands->id;
        else if (std::ranges::any_of(now.assignments, [&](const auto& a) {
                   return a.id == put->value.id && (a.motor != put->value.motor || a.role != put->value.role);
                 }))
          put->value.id = now.freeId("pin");
      }
    harness::apply(now, edit);
    out.changes.insert(out.changes.end(), edit.changes.begin(), edit.changes.end());
  }
  return out;
}

}  // namespace bold::wiring
