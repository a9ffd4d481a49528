#pragma once

#include <map>
#include <set>
#include <string>
#include <vector>

#include "core/bench/nets.h"
#include "core/choose/assign_pins.h"
#include "core/choose/pin_plan.h"

namespace bold::choose {

/// The pins of the controllers of a bench, as signals may have them: in the order of the numbers that a program uses, where it uses
/// numbers, else as they lie.
class BoardPins {
 public:
  struct Pin {
    Address address;
    const parts::Terminal* facts;
    const parts::Pins* group;
    PinSpot spot;
    bool busSaid;       ///< its board says where its bus stands
    parts::Boot boot;   ///< as PinFacts::boot, resistors of the board counted
    std::string taken;  ///< by what, in words; empty: it is free
  };

  /// @param gone connections that count as taken away
  /// @param controllers whose pins are asked for; empty: of all
  BoardPins(const harness::Harness& harness, const parts::Library& library, const std::set<std::string>& gone,
            const std::set<std::string>& controllers = {});

  const std::vector<Pin>& pins() const { return m_pins; }
  int find(const std::string& controller, const std::string& terminal) const;  ///< by id; -1: none
  const std::vector<PinBudget>& budgets() const { return m_budgets; }
  /// As it stands in a sentence: "D5".
  const std::string& called(int pin) const { return m_pins[static_cast<std::size_t>(pin)].facts->label; }

 private:
  std::vector<std::shared_ptr<const parts::Part>> m_parts;
  std::vector<Pin> m_pins;
  std::map<Address, int> m_byAddress;
  std::vector<PinBudget> m_budgets;
};

/// Why this signal may not have this pin, whatever else stands where; empty: it may. What it is wired to already is asked for what it can
/// do, not for what it does at the start: what that means for the load is for the checks to say.
std::string against(const PinDemand& demand, const BoardPins::Pin& pin);
/// Weakly pulled to where this signal is on, while the board starts.
bool pulledOn(const PinDemand& demand, const BoardPins::Pin& pin);
/// Why two signals may not have these two pins; empty: they may.
std::string againstBoth(const PinDemand& a, const BoardPins::Pin& pinOfA, const PinDemand& b, const BoardPins::Pin& pinOfB);

}  // namespace bold::choose
