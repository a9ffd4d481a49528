#pragma once

#include <map>

#include "core/checks/queries.h"

namespace bold::checks {

/// What an input sees and what it needs, in volts against its part's own ground.
struct Reading {
  Volts volts, low, high;
  double lowShare = 0, highShare = 0;  ///< of the rail
  std::optional<Volts> rail;           ///< of the part's logic; nothing where its levels do not follow it

  std::string lowLevels() const;  ///< how the limits come about: "0.3 x 5 V"
  std::string highLevels() const;
};

/// Nothing when the part states no levels, has no logic supply, or no path joins input and ground.
std::optional<Reading> readingAt(const SolvedBench& s, const OperatingPoint& p, TerminalIndex input);

/// How far the rails of a pin and of the input it drives may lie from where they were solved, by the tolerance of the regulators that make
/// them: shares of the solved voltage. One where no regulator of theirs is known, and for both where they have the same rail.
struct RailEnds {
  double pin = 1, input = 1;  ///< the pin's rail at its lower end, the input's at its upper
  double inputLow = 1;        ///< the input's at its lower end
  bool apart() const { return pin != 1 || input != 1; }
};
RailEnds railEnds(const SolvedBench& s, TerminalIndex pin, TerminalIndex input);

/// The inputs that each pin's signal gets to, looked for once however many commands are asked about.
class InputsOfPins {
 public:
  explicit InputsOfPins(const SolvedBench& s) : m_solved(s) {}
  const std::vector<TerminalIndex>& of(TerminalIndex pin);

  /// Where an input is worst off while a pin that reaches it is written to this state.
  struct Worst {
    Reading reading;
    TerminalIndex pin;
    const OperatingPoint* point;
  };
  /// @param toSpare V; less is worse
  template <class ToSpare>
  std::map<TerminalIndex, Worst> worst(bench::PinState written, ToSpare toSpare) {
    std::map<TerminalIndex, Worst> out;
    for (const auto& p : m_solved.points) {
      if (!everyday(*p)) continue;
      for (const auto& [pin, state] : p->command().pins) {
        if (state != written) continue;
        for (const auto t : of(pin)) {
          const auto r = readingAt(m_solved, *p, t);
          if (!r) continue;
          const auto it = out.find(t);
          if (it == out.end() || toSpare(*r) < toSpare(it->second.reading)) out[t] = {*r, pin, p.get()};
        }
      }
    }
    return out;
  }

 private:
  const SolvedBench& m_solved;
  std::map<TerminalIndex, std::vector<TerminalIndex>> m_known;
};

}  // namespace bold::checks
