#include "core/bench/cells.h"

#include <algorithm>
#include <map>
#include <unordered_map>

#include "core/base/groups.h"
#include "core/bench/nets.h"
#include "core/parts/roles.h"
#include "core/solver/cut_edges.h"

namespace bold::bench {
namespace {

using harness::Harness;
using harness::State;

// A ground wire's end keeps at least this many other connections when the wire is taken away, so that nothing that is said
// of the terminal (open, alone, one of several) changes.
constexpr int kOthers = 2;

bool negativePole(const parts::Part& part, const std::string& terminal) {
  return std::ranges::any_of(part.elements, [&](const parts::Element& e) {
    const auto* source = std::get_if<parts::Source>(&e.body);
    return source && source->negative == terminal;
  });
}

class Cutting {
 public:
  Cutting(const Harness& h, const parts::Library& library) : m_h(h), m_groups(h.devices.size()) {
    for (std::size_t d = 0; d < h.devices.size(); ++d) {
      m_index.emplace(h.devices[d].id, static_cast<int>(d));
      m_parts.push_back(library.find(h.devices[d].part));
    }
    for (const auto& c : h.connections)
      if (c.state == State::OnBench)
        for (const auto* end : {&c.a, &c.b}) ++m_ends[*end];
  }

  Cells run() {
    joinWhatBelongsTogether();
    joinLoops();
    joinUnfed();
    joinLonely();
    return parts();
  }

 private:
  struct GroundWire {
    const harness::Connection* wire;
    int a, b;  // devices
  };

  const Harness& m_h;
  Groups m_groups;  // of devices
  std::unordered_map<std::string, int> m_index;
  std::vector<std::shared_ptr<const parts::Part>> m_parts;  // per device; nullptr: unknown
  std::map<Address, int> m_ends;                            // connections at each terminal
  std::vector<GroundWire> m_between;                        // ground wires that may be cut

  int device(const std::string& id) const {
    const auto it = m_index.find(id);
    return it == m_index.end() ? -1 : it->second;
  }
  void join(int a, int b) {
    if (a >= 0 && b >= 0) m_groups.join(a, b);
  }
  bool groundEnd(const Address& end) const {
    const int d = device(end.device);
    const auto& part = d < 0 ? nullptr : m_parts[d];
    const auto* t = part ? part->find(end.terminal) : nullptr;
    return t && (t->ground || negativePole(*part, t->id));
  }

  void joinWhatBelongsTogether() {
    for (const auto& c : m_h.connections) {
      const int a = device(c.a.device);
      const int b = device(c.b.device);
      if (a != b && c.kind == harness::ConnectionKind::Wire && groundEnd(c.a) && groundEnd(c.b))
        m_between.push_back({&c, a, b});
      else
        join(a, b);
    }
    for (const auto& g : m_h.goals) join(device(g.motor), device(g.stage));
    for (const auto& a : m_h.assignments) join(device(a.motor), device(a.pin.device));
  }

  // Ground wires beside which there is another way.
  void joinLoops() {
    std::vector<std::pair<int, int>> edges;
    for (const auto& g : m_between) edges.emplace_back(m_groups.find(g.a), m_groups.find(g.b));
    const auto cut = solver::cutEdges(static_cast<int>(m_h.devices.size()), edges);
    for (std::size_t k = 0; k < m_between.size(); ++k)
      if (!cut[k]) join(m_between[k].a, m_between[k].b);
  }

  // What has no supply of its own goes with what its ground hangs on; loose parts go with the first cell.
  void joinUnfed() {
    std::vector<bool> fed;
    const auto findFed = [&] {
      fed.assign(m_h.devices.size(), false);
      for (std::size_t d = 0; d < m_parts.size(); ++d)
        if (m_h.devices[d].state == State::OnBench && m_parts[d] && parts::isSource(*m_parts[d]))
          fed[m_groups.find(static_cast<int>(d))] = true;
    };
    findFed();
    for (const auto& g : m_between) {
      const bool both = fed[m_groups.find(g.a)] && fed[m_groups.find(g.b)];
      if (both) continue;
      join(g.a, g.b);
      findFed();
    }
    int first = 0;
    for (std::size_t d = fed.size(); d > 0; --d)
      if (fed[d - 1]) first = static_cast<int>(d - 1);
    for (std::size_t d = 0; d < fed.size(); ++d)
      if (!fed[m_groups.find(static_cast<int>(d))]) join(first, static_cast<int>(d));
  }

  // Wires whose ends would keep too few connections if they, and all others that are cut there, were gone.
  void joinLonely() {
    for (bool again = true; again;) {
      again = false;
      std::map<Address, int> cut;
      const auto apart = [&](const GroundWire& g) { return m_groups.find(g.a) != m_groups.find(g.b); };
      for (const auto& g : m_between)
        if (apart(g) && g.wire->state == State::OnBench)
          for (const auto* end : {&g.wire->a, &g.wire->b}) ++cut[*end];
      for (const auto& g : m_between) {
        if (!apart(g)) continue;
        const auto keeps = [&](const Address& end) { return m_ends[end] - cut[end] >= kOthers; };
        if (keeps(g.wire->a) && keeps(g.wire->b)) continue;
        join(g.a, g.b);
        again = true;
        break;
      }
    }
  }

  Cells parts() {
    Cells out;
    std::map<int, std::size_t> cellOf;  // by group
    for (std::size_t d = 0; d < m_h.devices.size(); ++d) {
      const auto [it, fresh] = cellOf.emplace(m_groups.find(static_cast<int>(d)), out.parts.size());
      if (fresh) out.parts.push_back(emptyCell());
      out.parts[it->second].devices.push_back(m_h.devices[d]);
    }
    if (out.parts.size() < 2) return {{m_h}, {}};
    // What hangs on nothing known goes with the first cell.
    const auto cell = [&](int a, int b) { return a < 0 && b < 0 ? 0 : cellOf.at(m_groups.find(a < 0 ? b : a)); };
    for (const auto& c : m_h.connections) {
      const int a = device(c.a.device);
      const int b = device(c.b.device);
      if (a >= 0 && b >= 0 && m_groups.find(a) != m_groups.find(b))
        out.cuts.push_back(c.id);
      else
        out.parts[cell(a, b)].connections.push_back(c);
    }
    for (const auto& g : m_h.goals) out.parts[cell(device(g.motor), -1)].goals.push_back(g);
    for (const auto& a : m_h.assignments) out.parts[cell(device(a.motor), -1)].assignments.push_back(a);
    for (const auto& p : m_h.program) out.parts[cell(device(p.motor), -1)].program.push_back(p);
    for (const auto& s : m_h.sources) out.parts[cell(device(s.controller), -1)].sources.push_back(s);
    return out;
  }

  Harness emptyCell() const {
    Harness h;
    h.ambient = m_h.ambient;
    return h;
  }
};

}  // namespace

Cells cellsOf(const Harness& harness, const parts::Library& library) {
  if (harness.devices.empty()) return {{harness}, {}};
  return Cutting(harness, library).run();
}

}  // namespace bold::bench
