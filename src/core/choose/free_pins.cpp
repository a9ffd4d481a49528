#include "core/choose/free_pins.h"

#include "core/places/numbering.h"

namespace bold::choose {

FreePins::FreePins(const harness::Harness& h, const parts::Library& library, const std::set<std::string>& gone)
    : m_h(h), m_library(library) {
  // By id, whatever name or number a file has for it.
  const auto take = [&](const Address& end) {
    const auto* d = h.device(end.device);
    const auto part = d ? library.find(d->part) : nullptr;
    const int t = part ? places::terminalMeant(*part, end.terminal) : -1;
    if (t >= 0) m_taken.insert(Address{end.device, part->terminals[static_cast<std::size_t>(t)].id}.text());
  };
  for (const auto& c : h.connections)
    if (!gone.contains(c.id) && c.state != harness::State::ToBeRemoved)
      for (const auto* end : {&c.a, &c.b}) take(*end);
  for (const auto& a : h.assignments) take(a.pin);
}

std::optional<Address> FreePins::take(const std::string& controller, bool pwm) {
  const auto* d = m_h.device(controller);
  const auto part = d ? m_library.find(d->part) : nullptr;
  if (!part) return std::nullopt;
  for (const bool plain : {true, false})  // a pin with PWM is kept for who needs it
    for (const auto& t : part->terminals) {
      const Address at{controller, t.id};
      if (!t.pin || !t.pin->output || !t.pin->reserved.empty() || !t.pin->serial.empty() || !t.pin->strap.empty() || t.pin->boot != "float")
        continue;
      const bool has = !t.pin->pwm.empty();
      if (pwm ? !has : has == plain) continue;
      if (m_taken.insert(at.text()).second) return at;
    }
  return std::nullopt;
}

}  // namespace bold::choose
