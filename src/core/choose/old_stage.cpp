#include "core/choose/old_stage.h"

#include <algorithm>

#include "core/parts/roles.h"

namespace bold::choose {
namespace {

class Looking {
 public:
  Looking(const harness::Harness& h, const parts::Library& library, const std::string& motor)
      : m_h(h), m_library(library), m_motor(motor) {}

  OldStage run() {
    for (const auto& device : beside(m_motor))
      if (isStage(device) && onlyFor(device)) m_out.devices.insert(device);
    // A diode across the motor, a resistor before the gate, a capacitor at the supply: nothing but what goes, supplies and pins.
    for (const auto& d : m_h.devices)
      if (serves(d.id)) m_out.devices.insert(d.id);
    for (const auto& c : m_h.connections)
      if (goes(c.a.device) || goes(c.b.device)) m_out.connections.insert(c.id);
    for (const auto& device : beside(m_motor))
      if (isStage(device) && !goes(device)) leaveChannel(device);
    return std::move(m_out);
  }

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
  const std::string& m_motor;
  OldStage m_out;

  bool goes(const std::string& device) const { return device == m_motor || m_out.devices.contains(device); }
  std::shared_ptr<const parts::Part> partOf(const std::string& device) const {
    const auto* d = m_h.device(device);
    return d ? m_library.find(d->part) : nullptr;
  }
  bool isStage(const std::string& device) const {
    const auto p = partOf(device);
    return p && !p->channels.empty() && !parts::isMotor(*p) && !parts::isController(*p);
  }
  std::set<std::string> beside(const std::string& device) const {
    std::set<std::string> out;
    for (const auto& c : m_h.connections) {
      if (c.state == harness::State::ToBeRemoved) continue;
      if (c.a.device == device) out.insert(c.b.device);
      if (c.b.device == device) out.insert(c.a.device);
    }
    out.erase(device);
    return out;
  }
  bool onlyFor(const std::string& stage) const {
    return std::ranges::none_of(beside(stage), [&](const std::string& d) {
      const auto p = partOf(d);
      return d != m_motor && p && parts::isMotor(*p);
    });
  }
  // Of a stage that stays: the wires from pins to the channel that the motor hung on, as far as no other channel has them too.
  void leaveChannel(const std::string& stage) {
    const auto part = partOf(stage);
    const auto drives = [&](const parts::Channel& c, bool motorsOwn) {
      return std::ranges::any_of(m_h.connections, [&](const auto& x) {
        const auto* end = x.a.device == stage ? &x.a : x.b.device == stage ? &x.b : nullptr;
        const auto& other = end == &x.a ? x.b.device : x.a.device;
        return end && std::ranges::count(c.out, end->terminal) > 0 && (other == m_motor) == motorsOwn;
      });
    };
    std::set<std::string> own;
    std::set<std::string> kept;
    for (const auto& c : part->channels)
      for (const auto& s : c.signals) {
        if (drives(c, true)) own.insert(s.second);
        if (drives(c, false)) kept.insert(s.second);
      }
    for (const auto& x : m_h.connections)
      for (const auto* end : {&x.a, &x.b}) {
        const auto other = partOf(end == &x.a ? x.b.device : x.a.device);
        if (end->device == stage && own.contains(end->terminal) && !kept.contains(end->terminal) && other && parts::isController(*other))
          m_out.connections.insert(x.id);
      }
  }
  bool serves(const std::string& device) const {
    const auto p = partOf(device);
    if (!p || p->terminals.size() != 2 || parts::isSource(*p) || parts::isMotor(*p)) return false;
    const auto around = beside(device);
    const bool touches = std::ranges::any_of(around, [&](const auto& d) { return goes(d); });
    return touches &&
           std::ranges::all_of(around,
                               [&](const std::string& d) {
                                 const auto q = partOf(d);
                                 return goes(d) || (q && (parts::isSource(*q) || parts::isController(*q)));
                               }) &&
           !std::ranges::any_of(p->elements, [](const parts::Element& e) {
             const auto* r = std::get_if<parts::Resistor>(&e.body);
             return std::holds_alternative<parts::Contact>(e.body) || (r && r->fuse);  // a switch or fuse stays with its supply
           });
  }
};

}  // namespace

OldStage oldStageOf(const harness::Harness& h, const parts::Library& library, const std::string& motor) {
  return Looking(h, library, motor).run();
}

}  // namespace bold::choose
