#include "core/checks/repair_draft.h"

#include "core/harness/names.h"
#include "core/places/neighbours.h"
#include "core/places/words.h"

namespace bold::checks {

RepairDraft& RepairDraft::wire(const Address& a, const Address& b, const std::string& colour, std::optional<int> gauge,
                               std::optional<Metres> length) {
  m_maker.wire(a, b, colour, gauge, length);
  return *this;
}

RepairDraft& RepairDraft::wire(bench::TerminalIndex a, bench::TerminalIndex b, const std::string& colour) {
  return wire(m_bench.place(a), m_bench.place(b), colour);
}

RepairDraft& RepairDraft::plug(const Address& a, const Address& b) {
  m_maker.plug(a, b);
  return *this;
}

std::string RepairDraft::device(const std::string& part, const std::string& stem, const std::string& group,
                                const std::map<std::string, std::string>& figures) {
  harness::Device d;
  d.part = part;
  d.group = group;
  d.overrides = figures;
  return m_maker.device(std::move(d), stem);
}

RepairDraft& RepairDraft::remove(int connection) {
  m_maker.remove(m_bench.connections[connection]);
  return *this;
}

RepairDraft& RepairDraft::setting(int device, const std::string& id, const std::string& value) {
  const auto& d = m_bench.devices[device];
  m_maker.setting(d.doc, id, d.settings.at(id), value);
  return *this;
}

RepairDraft& RepairDraft::figure(int device, const std::string& id, AnyQuantity value) {
  m_maker.figure(m_bench.devices[device].doc, id, value);
  return *this;
}

RepairDraft& RepairDraft::move(int connection, bench::TerminalIndex from, bench::TerminalIndex to) {
  const auto& c = m_bench.connections[connection];
  const auto other = [&](const Address& end) { return m_bench.terminal(end) == from ? m_bench.place(to) : end; };
  m_maker.move(c, other(c.a), other(c.b));
  return *this;
}

RepairDraft& RepairDraft::exchange(bench::TerminalIndex a, bench::TerminalIndex b) {
  const auto other = [&](const Address& end) {
    const auto t = m_bench.terminal(end);
    return t == a ? m_bench.place(b) : t == b ? m_bench.place(a) : end;
  };
  for (const auto& c : m_bench.connections)
    if (const auto x = other(c.a), y = other(c.b); x != c.a || y != c.b) m_maker.move(c, x, y);
  return *this;
}

Repair RepairDraft::repair(const std::string& text) const {
  return {text, m_maker.take(text)};
}

Way RepairDraft::way(const std::string& text) const {
  return {.text = text, .edit = m_maker.take(text)};
}

std::string found(const bench::Bench& bench, bench::TerminalIndex t) {
  const auto& device = bench.devices[bench.deviceOf(t)];
  return bench.called(t) + " (" + places::placeWords(*device.part, bench.facts(t), device.doc.lie) + ")";
}

std::string slipped(const bench::Bench& bench, bench::TerminalIndex meant, bench::TerminalIndex taken) {
  const int d = bench.deviceOf(meant);
  if (d != bench.deviceOf(taken)) return {};
  const auto& device = bench.devices[d];
  const auto how = places::slip(*device.part, meant - device.first, taken - device.first);
  return how ? ": " + *how : std::string();
}

}  // namespace bold::checks
