#include "core/checks/near_repairs.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/roles.h"
#include "core/places/neighbours.h"

namespace bold::checks {
namespace {

constexpr std::size_t kSmall = 24;      // terminals of a device that is looked at as a whole
constexpr std::size_t kPartners = 10;   // that one open terminal is tried with
constexpr std::size_t kNeighbours = 3;  // to each side that a wire's end is moved to

class Near {
 public:
  Near(const SolvedBench& s, const std::vector<Finding>& findings, std::size_t most) : m_s(s), m_b(s.bench), m_most(most) {
    for (const auto& f : findings)
      if (f.severity <= Severity::Caution)
        for (const auto& subject : f.subjects) look(subject);
    for (const auto& intent : m_b.intents)
      for (const auto& sig : intent.signals)
        if (const auto t = m_b.terminal(sig.pin); t >= 0) m_pins.push_back(t);
  }

  std::vector<Repair> all() {
    for (const auto t : m_places)
      if (!m_b.connected(t)) add(t);
    exchanges();
    for (std::size_t c = 0; c < m_b.connections.size(); ++c) move(static_cast<int>(c));
    return std::move(m_out);
  }

 private:
  const SolvedBench& m_s;
  const Bench& m_b;
  std::size_t m_most;
  std::vector<TerminalIndex> m_places;  // where something was found
  std::vector<TerminalIndex> m_pins;    // of the intent
  std::vector<Repair> m_out;

  void place(TerminalIndex t) {
    if (t >= 0 && std::ranges::count(m_places, t) == 0) m_places.push_back(t);
  }
  void look(const std::string& subject) {
    const auto dot = subject.find('.');
    const int d = m_b.deviceIndex(subject.substr(0, dot));
    if (d < 0) {
      for (const auto& c : m_b.connections)
        if (c.id == subject) {
          place(m_b.terminal(c.a));
          place(m_b.terminal(c.b));
        }
      return;
    }
    if (dot != std::string::npos) return place(m_b.terminal(d, subject.substr(dot + 1)));
    const auto& device = m_b.devices[d];
    if (device.part->terminals.size() > kSmall) return;
    for (std::size_t i = 0; i < device.part->terminals.size(); ++i) place(device.first + static_cast<int>(i));
  }
  // The words only of what is offered: places and slips take their time.
  template <class Words>
  void offer(const RepairDraft& draft, Words words) {
    if (m_out.size() < m_most) m_out.push_back(draft.repair(words()));
  }
  bool loose(TerminalIndex t) const { return m_b.devices[m_b.deviceOf(t)].part->terminals.size() <= 3; }

  // What an open terminal may have been meant to be joined to.
  std::vector<TerminalIndex> partners(TerminalIndex t) const {
    std::vector<TerminalIndex> out;
    const auto take = [&](TerminalIndex o) {
      if (o >= 0 && m_b.deviceOf(o) != m_b.deviceOf(t) && std::ranges::count(out, o) == 0) out.push_back(o);
    };
    for (const auto& m : m_s.motors)
      if (m.intent)
        for (const auto& sig : m.intent->signals) {
          const auto pin = m_b.terminal(sig.pin);
          const auto input = bench::inputOf(m_b, m, sig.role);
          if (input == t) take(pin);
          if (pin == t) take(input);
        }
    for (const auto p : m_pins)
      if (!m_b.connected(p)) take(p);
    for (const auto o : m_places)
      if (!m_b.connected(o) && !m_b.facts(o).optional) take(o);
    const auto& facts = m_b.facts(t);
    const bool returns = facts.ground || std::ranges::any_of(m_b.devices[m_b.deviceOf(t)].part->channels,
                                                             [&](const parts::Channel& c) { return c.returnTerminal == facts.id; });
    for (const auto& pole : m_s.nets.sources()) {
      if (returns) take(pole.negative);
      if (facts.supply || loose(t)) take(pole.positive);
      if (loose(t)) take(pole.negative);
    }
    eachElement<parts::Pins>(m_b, [&](int d, int, const parts::Pins& p) {
      if (returns || loose(t)) take(m_b.terminal(d, p.ground));
      if ((facts.supply && facts.supply->purpose == parts::SupplyFor::Logic) || facts.input) take(m_b.terminal(d, p.rail));
    });
    // Legs of loose parts and motor leads hang on what else is near.
    for (const auto o : m_places)
      if (m_b.connected(o) && !m_s.nets.rail(m_s.nets.of(o))) take(o);
    if (out.size() > kPartners) out.resize(kPartners);
    return out;
  }
  void add(TerminalIndex t) {
    for (const auto o : partners(t))
      offer(RepairDraft(m_b).wire(t, o, m_b.facts(t).ground ? "BK" : "WH"),
            [&] { return fmt::format("Add a wire from {} to {}.", found(m_b, t), found(m_b, o)); });
  }

  void exchanges() {
    for (std::size_t i = 0; i < m_places.size(); ++i)
      for (std::size_t k = i + 1; k < m_places.size(); ++k) {
        const auto a = m_places[i];
        const auto b = m_places[k];
        if (m_b.deviceOf(a) != m_b.deviceOf(b) || !m_b.connected(a) || !m_b.connected(b) || m_s.nets.same(a, b)) continue;
        offer(RepairDraft(m_b).exchange(a, b),
              [&] { return fmt::format("Exchange the wires at {} and {}{}.", found(m_b, a), found(m_b, b), slipped(m_b, a, b)); });
      }
  }

  // A button or sensor: to put its wire where it disturbs nothing, and says nothing, is no repair.
  bool senses(int device) const {
    return std::ranges::any_of(m_b.devices[device].part->elements, [](const parts::Element& e) {
      const auto* c = std::get_if<parts::Contact>(&e.body);
      return c && c->moved != parts::Moved::No;
    });
  }

  // Not a controller's reset, reference or free pin: what lies there is neither fed nor driven.
  bool meansSomething(TerminalIndex t) const {
    const auto& facts = m_b.facts(t);
    return !parts::isController(*m_b.devices[m_b.deviceOf(t)].part) || facts.pin || facts.supply || facts.ground || facts.input;
  }

  // An end that may sit beside where it belongs.
  void move(int connection) {
    const auto& c = m_b.connections[connection];
    if (c.kind != harness::ConnectionKind::Wire) return;
    const TerminalIndex ends[2] = {m_b.terminal(c.a), m_b.terminal(c.b)};
    if (ends[0] >= 0 && ends[1] >= 0 && (senses(m_b.deviceOf(ends[0])) || senses(m_b.deviceOf(ends[1])))) return;
    if (ends[0] < 0 || ends[1] < 0 || (std::ranges::count(m_places, ends[0]) == 0 && std::ranges::count(m_places, ends[1]) == 0)) return;
    for (const auto end : ends) {
      const auto& device = m_b.devices[m_b.deviceOf(end)];
      std::vector<TerminalIndex> to;
      for (const auto p : m_pins)
        if (m_b.deviceOf(p) == m_b.deviceOf(end) && !m_b.connected(p)) to.push_back(p);
      const int at = end - device.first;
      for (int step = 1; step <= static_cast<int>(kNeighbours); ++step)
        for (const int i : {at - step, at + step})
          if (i >= 0 && i < static_cast<int>(device.part->terminals.size()) && std::ranges::count(to, device.first + i) == 0)
            to.push_back(device.first + i);
      const auto near = places::neighboursOf(*device.part, at);
      std::vector<int> mistaken{near.across};
      for (const auto& m : near.sameNumber) mistaken.push_back(m.terminal);
      for (const int i : mistaken)
        if (i >= 0 && std::ranges::count(to, device.first + i) == 0) to.push_back(device.first + i);
      for (const auto t : to)
        if (!m_s.nets.same(t, end) && meansSomething(t))
          offer(RepairDraft(m_b).move(connection, end, t),
                [&] { return fmt::format("Move the wire from {} to {}{}.", found(m_b, end), found(m_b, t), slipped(m_b, t, end)); });
    }
  }
};

}  // namespace

std::vector<Repair> nearRepairs(const SolvedBench& solved, const std::vector<Finding>& findings, std::size_t most) {
  return Near(solved, findings, most).all();
}

}  // namespace bold::checks
