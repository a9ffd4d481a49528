#include "core/choose/margin_rows.h"

#include <algorithm>

namespace bold::choose {

std::span<const MarginRow> marginRows() {
  static const std::vector<MarginRow> rows{
      {"supply",
       "Supply",
       "The motor supply in the window of the stage.",
       {"motor-supply-too-high", "motor-supply-too-low", "regulator-input"}},
      {"run", "Running", "The current while the motor runs, against what the stage stands for long.", {"running-current"}},
      {"stall",
       "Stalled",
       "The current of a held or reversed motor, against what the stage stands for a moment or lets go at.",
       {"stall-current", "reversal-current", "brake-current", "stage-undersized"}},
      {"trip", "Trip", "The current a step/dir stage is set to, against driver and motor.", {"current-limit-setting"}},
      {"level",
       "Levels",
       "What the pins give, against what the inputs need.",
       {"level-high", "level-low", "gate-drive", "base-drive", "opto-input-current", "input-overvoltage", "gate-overvoltage",
        "darlington-input"}},
      {"heat", "Heat", "The junction, against the hottest it stands.", {"junction-temperature", "heat-sink-needed"}},
      {"board", "Board", "What the controller gives: its rails and its pins.", {"board-rail-current", "pin-current", "pin-total-current"}},
  };
  return rows;
}

std::map<std::string, checks::Margin> inRows(const checks::Margins& margins, const std::vector<std::string>& about) {
  const auto mine = [&](const checks::Margin& m) {
    return std::ranges::any_of(m.subjects, [&](const std::string& s) {
      return std::ranges::any_of(about, [&](const std::string& a) { return s == a || s.starts_with(a + "."); });
    });
  };
  std::map<std::string, checks::Margin> out;
  for (const auto& row : marginRows())
    for (const auto& m : margins) {  // the tightest comes first
      if (std::ranges::count(row.checks, m.check) == 0 || m.onlyNotes() || !m.used() || !mine(m)) continue;
      const auto had = out.find(std::string(row.id));
      if (had == out.end() || *m.used() > *had->second.used()) out[std::string(row.id)] = m;
    }
  return out;
}

}  // namespace bold::choose
