#include "core/bench/nets.h"

#include "core/base/groups.h"
#include "core/parts/read_element.h"

namespace bold::bench {

Nets::Nets(const Bench& bench, bool moved) : m_net(bench.terminalCount()) {
  Groups groups(bench.terminalCount());
  for (const auto& l : bench.links) groups.join(l.a, l.b);
  std::vector<TerminalIndex> regulated;
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    const auto& device = bench.devices[d];
    const auto at = [&](const parts::Node& n) { return bench.terminal(static_cast<int>(d), n); };
    // Points inside a part are no terminals.
    const auto join = [&](const parts::Node& a, const parts::Node& b) {
      if (at(a) >= 0 && at(b) >= 0) groups.join(at(a), at(b));
    };
    for (std::size_t e = 0; e < device.part->elements.size(); ++e) {
      const auto& element = device.part->elements[e];
      if (!device.has(element)) continue;
      if (const auto* j = std::get_if<parts::Joint>(&element.body)) {
        for (const auto& n : j->nodes) join(j->nodes.front(), n);
      } else if (const auto* c = std::get_if<parts::Contact>(&element.body); c && c->closedInUse()) {
        if (moved || c->moved == parts::Moved::No) join(c->a, c->b);
      } else if (const auto* r = std::get_if<parts::Resistor>(&element.body); r && r->conductor) {
        join(r->a, r->b);
      } else if (const auto* g = std::get_if<parts::Regulator>(&element.body)) {
        if (at(g->out) >= 0) regulated.push_back(at(g->out));
      } else if (const auto* s = std::get_if<parts::Source>(&element.body)) {
        m_sources.push_back({static_cast<int>(d), static_cast<int>(e), at(s->positive), at(s->negative)});
      }
    }
  }
  std::vector<int> number(bench.terminalCount(), -1);
  for (std::size_t t = 0; t < bench.terminalCount(); ++t) {
    const auto root = static_cast<std::size_t>(groups.find(static_cast<int>(t)));
    if (number[root] < 0) {
      number[root] = static_cast<int>(m_members.size());
      m_members.emplace_back();
    }
    m_net[t] = number[root];
    m_members[number[root]].push_back(static_cast<int>(t));
  }
  m_grounds.assign(m_members.size(), false);
  const auto mark = [&](std::vector<bool>& nets, TerminalIndex t) { nets[of(t)] = true; };
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (bench.facts(t).ground) mark(m_grounds, t);
  for (const auto& pole : m_sources) mark(m_grounds, pole.negative);
  m_rails = m_grounds;
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (bench.facts(t).supply) mark(m_rails, t);
  for (const auto& pole : m_sources) mark(m_rails, pole.positive);
  for (const auto out : regulated) mark(m_rails, out);
  numberNodes(bench);
}

void Nets::numberNodes(const Bench& bench) {
  Groups groups(bench.terminalCount());
  std::vector<bool> touched(bench.terminalCount(), false);
  for (std::size_t t = 0; t < touched.size(); ++t) touched[t] = bench.connected(static_cast<int>(t));
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    const auto& device = bench.devices[d];
    const auto touch = [&](const parts::Node& n) {
      if (const auto t = bench.terminal(static_cast<int>(d), n); t >= 0) touched[t] = true;
    };
    for (const auto& e : device.part->elements) {
      if (!device.has(e)) continue;
      if (const auto* j = std::get_if<parts::Joint>(&e.body)) {
        const auto first = bench.terminal(static_cast<int>(d), j->nodes.front());
        for (const auto& n : j->nodes) groups.join(first, bench.terminal(static_cast<int>(d), n));
      } else if (const auto* p = std::get_if<parts::Pins>(&e.body)) {
        touch(p->rail);
        touch(p->ground);
        if (p->behind)
          for (const auto& n : p->pins) touch(n);  // no wire reaches them, and they drive all the same
      } else {
        for (const auto& n : parts::nodesOf(e)) touch(n);
      }
    }
  }
  std::vector<int> number(touched.size(), -1);
  m_nodes.assign(touched.size(), -1);
  std::vector<bool> groupTouched(touched.size(), false);
  for (std::size_t t = 0; t < touched.size(); ++t)
    if (touched[t]) groupTouched[groups.find(static_cast<int>(t))] = true;
  for (std::size_t t = 0; t < touched.size(); ++t) {
    const auto root = static_cast<std::size_t>(groups.find(static_cast<int>(t)));
    if (!groupTouched[root]) continue;
    if (number[root] < 0) number[root] = m_nodeCount++;
    m_nodes[t] = number[root];
  }
}

}  // namespace bold::bench
