#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>

#include "core/bench/bench.h"
#include "core/checks/finding.h"

namespace bold::checks {

/// Collects what a repair adds, takes away and sets, all of it as planned.
class Plan {
 public:
  explicit Plan(const bench::Bench& bench) : m_bench(bench), m_ids(*bench.ids) {}

  Plan& wire(const Address& a, const Address& b, const std::string& colour, std::optional<int> gauge = {},
             std::optional<Metres> length = {});
  Plan& wire(bench::TerminalIndex a, bench::TerminalIndex b, const std::string& colour);
  /// Two connectors that go into each other.
  Plan& plug(const Address& a, const Address& b);
  /// A loose part; returns its id.
  /// @param figures that are set, by figure id, with their units
  std::string device(const std::string& part, const std::string& stem, const std::string& group = {},
                     const std::map<std::string, std::string>& figures = {});
  Plan& remove(int connection);
  Plan& setting(int device, const std::string& id, const std::string& value);
  /// A figure of a device, replaced on this bench: for suppositions only, since a bench has the parts that it has.
  Plan& figure(int device, const std::string& id, AnyQuantity value);
  /// Takes a connection's end off one terminal and puts it on another.
  Plan& move(int connection, bench::TerminalIndex from, bench::TerminalIndex to);
  /// Takes the connections off terminals a and b and puts each back on the other one.
  Plan& exchange(bench::TerminalIndex a, bench::TerminalIndex b);

  Repair repair(std::string text) const;
  const harness::Edit& edit() const { return m_edit; }
  bool empty() const { return m_edit.changes.empty(); }

 private:
  const bench::Bench& m_bench;
  std::set<std::string> m_ids;
  harness::Edit m_edit;

  std::string freeId(const std::string& stem);
};

/// "S1 GND (screw)": a terminal as a person finds it.
std::string found(const bench::Bench& bench, bench::TerminalIndex t);

}  // namespace bold::checks
