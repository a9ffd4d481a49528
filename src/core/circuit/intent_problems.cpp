#include "core/circuit/intent_problems.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <set>

#include "core/parts/roles.h"

namespace bold::circuit {
namespace {

// Roles that follow from how a motor is wired; the others are named by the channels of stages.
constexpr std::array kWiredRoles{"in",     "in1",   "in2",     "in3",     "in4",    "in5", "in6", "speed",
                                 "speed2", "pulse", "forward", "reverse", "enable", "dir", "step"};

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
    std::set<std::string> motors;
    for (const auto& i : m_h.intents) {
      m_intent = &i;
      motor(motors);
      stage();
      for (const auto& s : i.signals) signal(s);
    }
    return std::move(m_out);
  }

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
  std::set<std::string> m_roles;
  const harness::Intent* m_intent = nullptr;
  std::vector<Problem> m_out;

  void say(std::string what) { m_out.push_back({std::move(what), "#" + m_intent->id, "It was kept but is not judged."}); }
  // Null where the part is unknown: that is said already.
  std::shared_ptr<const parts::Part> partOf(const harness::Device& d) const { return m_library.find(d.part); }
  std::string whose() const {
    const auto* d = m_h.device(m_intent->motor);
    return d ? d->called() : m_intent->motor;
  }

  void motor(std::set<std::string>& motors) {
    const auto* d = m_h.device(m_intent->motor);
    if (!d) return say(fmt::format("The plan {} is for \"{}\", which is not on the bench.", m_intent->id, m_intent->motor));
    if (!motors.insert(d->id).second) say(fmt::format("There is a second plan for {}: {}.", d->called(), m_intent->id));
    const auto part = partOf(*d);
    if (!part) return;
    if (!parts::isMotor(*part)) return say(fmt::format("The plan {} is for {}, which is no motor.", m_intent->id, d->called()));
    if (const auto& lead = m_intent->forwardLead; !lead.empty() && !part->find(lead))
      say(fmt::format("The plan of {} names the lead \"{}\", which it does not have.", d->called(), lead));
  }

  void stage() {
    const auto& id = m_intent->stage;
    const auto& channel = m_intent->channel;
    if (id.empty()) {
      if (!channel.empty()) say(fmt::format("The plan of {} names the channel \"{}\", but no stage.", whose(), channel));
      return;
    }
    const auto* d = m_h.device(id);
    if (!d) return say(fmt::format("The plan of {} names the stage \"{}\", which is not on the bench.", whose(), id));
    const auto part = partOf(*d);
    if (!part) return;
    if (part->channels.empty())
      return say(fmt::format("The plan of {} names {} as its stage, which drives no motor.", whose(), d->called()));
    if (!channel.empty() && !part->channel(channel))
      say(fmt::format("The plan of {} names the channel \"{}\", which {} does not have.", whose(), channel, d->called()));
  }

  void signal(const harness::Signal& s) {
    if (!m_roles.contains(s.role)) say(fmt::format("The plan of {} has a signal \"{}\", which no stage has.", whose(), s.role));
    const auto* d = m_h.device(s.pin.device);
    if (!d) return say(fmt::format("The signal {} of {} names {}, which is not on the bench.", s.role, whose(), s.pin.text()));
    if (const auto part = partOf(*d); part && !part->find(s.pin.terminal))
      say(fmt::format("The signal {} of {} names {}, which {} does not have.", s.role, whose(), s.pin.text(), d->called()));
  }
};

}  // namespace

std::vector<Problem> problemsOfIntents(const harness::Harness& harness, const parts::Library& library) {
  return Naming(harness, library).run();
}

}  // namespace bold::circuit
