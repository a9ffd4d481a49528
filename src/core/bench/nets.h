#pragma once

#include <vector>

#include "core/bench/bench.h"

namespace bold::bench {

/// What is joined by copper: connections, joints inside parts, fuses and closed contacts.
class Nets {
 public:
  /// @param moved whether contacts that are moved while the bench runs count, as they stand at rest
  explicit Nets(const Bench& bench, bool moved = true);

  int of(TerminalIndex t) const { return m_net[t]; }
  bool same(TerminalIndex a, TerminalIndex b) const { return a >= 0 && b >= 0 && of(a) == of(b); }
  /// Terminals of a net, in bench order.
  const std::vector<TerminalIndex>& members(int net) const { return m_members[net]; }
  int count() const { return static_cast<int>(m_members.size()); }

  /// Whether a source's pole, a ground or a supply terminal is on the net: signals end there.
  bool rail(int net) const { return m_rails[net]; }

  /// Whether a ground or a source's minus is on the net.
  bool grounded(int net) const { return m_grounds[net]; }

  /// A source's poles: which sources have this net as their positive / negative.
  struct Pole {
    int device, element;
    TerminalIndex positive, negative;
  };
  const std::vector<Pole>& sources() const { return m_sources; }

  /// The circuit's node of each terminal: what parts join inside is one, wires are not. -1: nothing touches it.
  const std::vector<int>& nodes() const { return m_nodes; }
  int nodeCount() const { return m_nodeCount; }

 private:
  void numberNodes(const Bench& bench);
  std::vector<int> m_nodes;
  int m_nodeCount = 0;
  std::vector<int> m_net;
  std::vector<std::vector<TerminalIndex>> m_members;
  std::vector<Pole> m_sources;
  std::vector<bool> m_rails, m_grounds;  // per net
};

}  // namespace bold::bench
