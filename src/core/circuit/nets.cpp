#include "core/circuit/nets.h"

#include <numeric>
#include <utility>

#include "core/parts/read_element.h"

namespace bold::circuit {

Groups::Groups(std::size_t n) : m_parent(n) {
  std::iota(m_parent.begin(), m_parent.end(), 0);
}

int Groups::find(int i) {
  auto& p = m_parent;
  while (p[static_cast<std::size_t>(i)] != i) {
    auto& up = p[static_cast<std::size_t>(i)];
    up = p[static_cast<std::size_t>(up)];
    i = up;
  }
  return i;
}

void Groups::join(int a, int b) {
  a = find(a);
  b = find(b);
  if (a > b) std::swap(a, b);
  m_parent[static_cast<std::size_t>(b)] = a;
}

Nets::Nets(const Bench& bench) : m_net(bench.terminalCount()) {
  Groups groups(bench.terminalCount());
  for (const auto& l : bench.links) groups.join(l.a, l.b);
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
      } else if (const auto* c = std::get_if<parts::Contact>(&element.body); c && c->closed) {
        join(c->a, c->b);
      } else if (const auto* r = std::get_if<parts::Resistor>(&element.body); r && r->conductor) {
        join(r->a, r->b);
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
    m_members[static_cast<std::size_t>(number[root])].push_back(static_cast<int>(t));
  }
  m_grounds.assign(m_members.size(), false);
  const auto mark = [&](std::vector<bool>& nets, TerminalIndex t) { nets[static_cast<std::size_t>(of(t))] = true; };
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (bench.facts(t).ground) mark(m_grounds, t);
  for (const auto& pole : m_sources) mark(m_grounds, pole.negative);
  m_rails = m_grounds;
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (bench.facts(t).supply) mark(m_rails, t);
  for (const auto& pole : m_sources) mark(m_rails, pole.positive);
  numberNodes(bench);
}

void Nets::numberNodes(const Bench& bench) {
  Groups groups(bench.terminalCount());
  std::vector<bool> touched(bench.terminalCount(), false);
  for (std::size_t t = 0; t < touched.size(); ++t) touched[t] = bench.connected(static_cast<int>(t));
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    const auto& device = bench.devices[d];
    const auto touch = [&](const parts::Node& n) {
      if (const auto t = bench.terminal(static_cast<int>(d), n); t >= 0) touched[static_cast<std::size_t>(t)] = true;
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
    if (touched[t]) groupTouched[static_cast<std::size_t>(groups.find(static_cast<int>(t)))] = true;
  for (std::size_t t = 0; t < touched.size(); ++t) {
    const auto root = static_cast<std::size_t>(groups.find(static_cast<int>(t)));
    if (!groupTouched[root]) continue;
    if (number[root] < 0) number[root] = m_nodeCount++;
    m_nodes[t] = number[root];
  }
}

}  // namespace bold::circuit
