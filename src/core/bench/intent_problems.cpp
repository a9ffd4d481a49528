#include "core/bench/intent_problems.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <set>

#include "core/harness/intent.h"
#include "core/parts/roles.h"
#include "core/places/numbering.h"

namespace bold::bench {
namespace {

// Roles that follow from how a motor is wired; the others are named by the channels of stages.
constexpr std::array kWiredRoles{"in",     "in1",   "in2",     "in3",     "in4",    "in5", "in6",  "speed",
                                 "speed2", "pulse", "forward", "reverse", "enable", "dir", "dir2", "step"};

// A transistor without a channel of its own, as one above the load: what drives it is found by its wires.
bool switches(const parts::Part& part) {
  return std::ranges::any_of(part.elements, [](const parts::Element& e) {
    return std::holds_alternative<parts::Mosfet>(e.body) || std::holds_alternative<parts::Bipolar>(e.body);
  });
}

class Naming {
 public:
  Naming(const harness::Harness& h, const parts::Library& library) : m_h(h), m_library(library) {
    for (const auto* r : kWiredRoles) m_roles.insert(r);
    for (const auto& d : h.devices)
      if (const auto part = library.find(d.part))
        for (const auto& c : part->channels)
          for (const auto& [role, input] : c.signals) m_roles.insert(role);
  }

  std::vector<Problem> run() {
    for (const auto& g : m_h.goals) {
      about(g);
      ofMotorsOnly(g.bothDirections.value_or(false) || g.speedControl.value_or(false) || g.hold.value_or(false) ||
                   g.together.value_or(false) || g.rate || g.switched != harness::Switched::Unsaid || !g.forwardLead.empty() ||
                   !g.stage.empty());
      goal(g);
    }
    for (const auto& a : m_h.assignments) {
      about(a);
      assignment(a);
    }
    for (const auto& p : m_h.program) {
      about(p);
      ofMotorsOnly(p.pwm || p.dutyCap || p.ramp.value_or(false) || p.stepsPerTurn || p.pulse || !p.sequence.empty());
    }
    for (auto& d : harness::disagreements(m_h)) m_out.push_back(std::move(d));
    return std::move(m_out);
  }

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
  std::set<std::string> m_roles;
  std::string m_id, m_motor;      // of the statement that is looked at, and the motor it is about
  std::set<std::string> m_known;  // motors that were looked at
  std::vector<Problem> m_out;

  void say(std::string what) { m_out.push_back({std::move(what), "#" + m_id, "It was kept but is not judged."}); }
  // Null where the part is unknown: that is said already.
  std::shared_ptr<const parts::Part> partOf(const harness::Device& d) const { return m_library.find(d.part); }
  std::string whose() const {
    const auto* d = m_h.device(m_motor);
    return d ? d->called() : m_motor;
  }

  void about(const auto& statement) {
    m_id = statement.id;
    m_motor = statement.motor;
    if (!m_known.insert(m_motor).second) return;
    const auto* d = m_h.device(m_motor);
    if (!d) return say(fmt::format("The plan {} is for \"{}\", which is not on the bench.", m_id, m_motor));
    if (const auto part = partOf(*d); part && !parts::isMotor(*part) && !parts::isPeripheral(*part))
      say(fmt::format("The plan {} is for {}, which is neither a motor nor a sensor.", m_id, d->called()));
  }

  // A sensor or register has lines that a program uses, and nothing that it shall do.
  std::shared_ptr<const parts::Part> peripheral() const {
    const auto* d = m_h.device(m_motor);
    const auto part = d ? partOf(*d) : nullptr;
    return part && parts::isPeripheral(*part) ? part : nullptr;
  }
  void ofMotorsOnly(bool says) {
    if (says && peripheral()) say(fmt::format("The plan {} says what {} shall do, which is no motor.", m_id, whose()));
  }

  void goal(const harness::Goal& g) {
    const auto* motor = m_h.device(m_motor);
    const auto part = motor ? partOf(*motor) : nullptr;
    if (part && parts::isMotor(*part) && !g.forwardLead.empty() && !part->find(g.forwardLead))
      say(fmt::format("The plan of {} names the lead \"{}\", which it does not have.", motor->called(), g.forwardLead));
    if (g.switched == harness::Switched::ByHand || g.switched == harness::Switched::AlwaysOn)
      if (std::ranges::any_of(m_h.assignments, [&](const harness::Assignment& a) { return a.motor == m_motor; }))
        say(fmt::format("{} is stated to be {}, and pins are stated for it too.", whose(),
                        g.switched == harness::Switched::ByHand ? "switched by hand" : "always on"));
    stage(g.stage, g.channel);
  }

  void stage(const std::string& id, const std::string& channel) {
    if (id.empty()) {
      if (!channel.empty()) say(fmt::format("The plan of {} names the channel \"{}\", but no stage.", whose(), channel));
      return;
    }
    const auto* d = m_h.device(id);
    if (!d) return say(fmt::format("The plan of {} names the stage \"{}\", which is not on the bench.", whose(), id));
    const auto part = partOf(*d);
    if (!part) return;
    if (part->channels.empty() && !switches(*part))
      return say(fmt::format("The plan of {} names {} as its stage, which drives no motor.", whose(), d->called()));
    if (!channel.empty() && !part->channel(channel))
      say(fmt::format("The plan of {} names the channel \"{}\", which {} does not have.", whose(), channel, d->called()));
  }

  void assignment(const harness::Assignment& s) {
    if (const auto part = peripheral()) {
      const auto lines = parts::peripheralLines(*part);
      if (std::ranges::count(lines, s.role) == 0)
        say(fmt::format("The plan of {} has a line \"{}\", which it does not have.", whose(), s.role));
      if (s.active != harness::Active::Unsaid)
        say(fmt::format("The plan of {} states an active level of \"{}\": what it is at rest follows from its wires.", whose(), s.role));
    } else if (!m_roles.contains(s.role))
      say(fmt::format("The plan of {} has a signal \"{}\", which no stage has.", whose(), s.role));
    const auto* d = m_h.device(s.pin.device);
    if (!d) return say(fmt::format("The signal {} of {} names {}, which is not on the bench.", s.role, whose(), s.pin.text()));
    if (const auto part = partOf(*d); part && places::terminalMeant(*part, s.pin.terminal) < 0)
      say(fmt::format("The signal {} of {} names {}, which {} does not have.", s.role, whose(), s.pin.text(), d->called()));
  }
};

}  // namespace

std::vector<Problem> problemsOfIntents(const harness::Harness& harness, const parts::Library& library) {
  return Naming(harness, library).run();
}

}  // namespace bold::bench
