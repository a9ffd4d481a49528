#pragma once

#include "core/bench/bench.h"
#include "core/checks/finding.h"
#include "core/harness/edit_maker.h"

namespace bold::checks {

/// A repair in the making: an EditMaker that speaks of a bench by its terminals, devices and connections. All of it is planned.
class RepairDraft {
 public:
  explicit RepairDraft(const bench::Bench& bench) : m_bench(bench), m_maker(bench.ids, harness::State::Planned) {}

  RepairDraft& wire(const Address& a, const Address& b, const std::string& colour, std::optional<int> gauge = {},
                    std::optional<Metres> length = {});
  RepairDraft& wire(bench::TerminalIndex a, bench::TerminalIndex b, const std::string& colour);
  RepairDraft& plug(const Address& a, const Address& b);
  /// A loose part; returns its id.
  /// @param figures that are set, by figure id, with their units
  std::string device(const std::string& part, const std::string& stem, const std::string& group = {},
                     const std::map<std::string, std::string>& figures = {});
  RepairDraft& remove(int connection);
  RepairDraft& setting(int device, const std::string& id, const std::string& value);
  /// For suppositions only, since a bench has the parts that it has.
  RepairDraft& figure(int device, const std::string& id, AnyQuantity value);
  /// Takes a connection's end off one terminal and puts it on another.
  RepairDraft& move(int connection, bench::TerminalIndex from, bench::TerminalIndex to);
  /// Takes the connections off terminals a and b and puts each back on the other one.
  RepairDraft& exchange(bench::TerminalIndex a, bench::TerminalIndex b);

  bool empty() const { return m_maker.empty(); }
  Repair repair(const std::string& text) const;
  /// The same as a way: nobody is offered it by one click, and it is tried before it is shown.
  Way way(const std::string& text) const;
  harness::Edit edit() const { return m_maker.take({}); }

 private:
  const bench::Bench& m_bench;
  harness::EditMaker m_maker;
};

/// "S1 GND (screw)": a terminal as a person finds it.
std::string found(const bench::Bench& bench, bench::TerminalIndex t);

/// ": one position off", where one terminal is taken for another of its part by such a slip; else empty. For the end of a sentence.
std::string slipped(const bench::Bench& bench, bench::TerminalIndex meant, bench::TerminalIndex taken);

}  // namespace bold::checks
