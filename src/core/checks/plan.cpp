#include "core/checks/plan.h"

#include "core/base/ordinal.h"

namespace bold::checks {

using harness::Connection;
using harness::Device;
using harness::State;

std::string Plan::freeId(const std::string& stem) {
  for (int n = 1;; ++n)
    if (auto id = stem + std::to_string(n); m_ids.insert(id).second) return id;
}

Plan& Plan::wire(const Address& a, const Address& b, const std::string& colour, std::optional<int> gauge, std::optional<Metres> length) {
  Connection c;
  c.id = freeId("w");
  c.a = a;
  c.b = b;
  c.colour = colour;
  c.gauge = gauge;
  c.length = length;
  c.state = State::Planned;
  m_edit.changes.emplace_back(harness::Put<Connection>{c, {}});
  return *this;
}

Plan& Plan::wire(bench::TerminalIndex a, bench::TerminalIndex b, const std::string& colour) {
  const auto address = [&](bench::TerminalIndex t) { return Address{m_bench.devices[m_bench.deviceOf(t)].doc.id, m_bench.facts(t).id}; };
  return wire(address(a), address(b), colour);
}

Plan& Plan::plug(const Address& a, const Address& b) {
  Connection c;
  c.id = freeId("p");
  c.kind = harness::ConnectionKind::Plug;
  c.a = a;
  c.b = b;
  c.state = State::Planned;
  m_edit.changes.emplace_back(harness::Put<Connection>{c, {}});
  return *this;
}

std::string Plan::device(const std::string& part, const std::string& stem, const std::string& group,
                         const std::map<std::string, std::string>& figures) {
  Device d;
  d.id = freeId(stem);
  d.part = part;
  d.group = group;
  d.overrides = figures;
  d.state = State::Planned;
  m_edit.changes.emplace_back(harness::Put<Device>{d, {}});
  return d.id;
}

Plan& Plan::remove(int connection) {
  auto c = m_bench.connections[connection];
  c.state = State::ToBeRemoved;
  m_edit.changes.emplace_back(harness::Put<Connection>{c, {}});
  return *this;
}

Plan& Plan::setting(int device, const std::string& id, const std::string& value) {
  const auto& d = m_bench.devices[device];
  Device changed = d.doc;
  changed.settings[id] = {d.settings.at(id), value};
  m_edit.changes.emplace_back(harness::Put<Device>{changed, {}});
  return *this;
}

Plan& Plan::figure(int device, const std::string& id, AnyQuantity value) {
  Device changed = m_bench.devices[device].doc;
  changed.overrides[id] = displayText(value);
  m_edit.changes.emplace_back(harness::Put<Device>{changed, {}});
  return *this;
}

Plan& Plan::move(int connection, bench::TerminalIndex from, bench::TerminalIndex to) {
  remove(connection);
  auto moved = m_bench.connections[connection];
  moved.id = freeId(moved.kind == harness::ConnectionKind::Wire ? "w" : "p");
  for (auto* end : {&moved.a, &moved.b})
    if (m_bench.terminal(*end) == from) *end = {m_bench.devices[m_bench.deviceOf(to)].doc.id, m_bench.facts(to).id};
  moved.state = State::Planned;
  moved.raw = nullptr;
  m_edit.changes.emplace_back(harness::Put<Connection>{moved, {}});
  return *this;
}

Plan& Plan::exchange(bench::TerminalIndex a, bench::TerminalIndex b) {
  const auto address = [&](bench::TerminalIndex t) { return Address{m_bench.devices[m_bench.deviceOf(t)].doc.id, m_bench.facts(t).id}; };
  for (std::size_t i = 0; i < m_bench.connections.size(); ++i) {
    const auto& c = m_bench.connections[i];
    const auto other = [&](const Address& end) {
      const auto t = m_bench.terminal(end);
      return t == a ? address(b) : t == b ? address(a) : end;
    };
    if (other(c.a) == c.a && other(c.b) == c.b) continue;
    remove(static_cast<int>(i));
    auto moved = c;
    moved.id = freeId(c.kind == harness::ConnectionKind::Wire ? "w" : "p");
    moved.a = other(c.a);
    moved.b = other(c.b);
    moved.state = State::Planned;
    moved.raw = nullptr;
    m_edit.changes.emplace_back(harness::Put<Connection>{moved, {}});
  }
  return *this;
}

Repair Plan::repair(std::string text) const {
  Repair r{std::move(text), m_edit};
  r.edit.title = r.text;
  return r;
}

std::string found(const bench::Bench& bench, bench::TerminalIndex t) {
  const auto& place = bench.facts(t).place;
  std::string where = place.contact;
  const bool counted = place.position > 0 && bench.devices[bench.deviceOf(t)].part->layoutKnown;
  if (counted && !place.connector.empty()) where = place.connector + ", " + ordinal(place.position);
  return bench.called(t) + " (" + where + ")";
}

}  // namespace bold::checks
