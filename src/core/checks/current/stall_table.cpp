#include "core/checks/current/stall_table.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
using parts::Protection;

Weight weigh(const ShortLoad& c) {
  if (c.amps <= c.continuous) return Weight::Quiet;
  const bool runsOver = c.running > c.continuous;
  Weight w = Weight::Quiet;
  switch (c.protection) {
    case Protection::CurrentLimit:
      w = Weight::Note;
      break;
    case Protection::OverCurrent:
      w = c.amps <= c.peak ? Weight::Note : c.amps <= 1.5 * c.peak || !runsOver ? Weight::Caution : Weight::Stop;
      break;
    case Protection::Thermal:
      w = c.amps <= c.peak ? Weight::Note : c.amps <= 1.5 * c.peak ? Weight::Caution : Weight::Stop;
      break;
    case Protection::None:
      w = c.amps <= c.peak ? Weight::Caution : Weight::Stop;
      break;
  }
  return c.peakKnown ? w : std::min(w, Weight::Caution);
}

Weight lower(Weight w) {
  return w == Weight::Quiet ? w : static_cast<Weight>(static_cast<int>(w) - 1);
}

Severity severityOf(Weight w) {
  return w == Weight::Stop ? Severity::Stop : w == Weight::Caution ? Severity::Caution : Severity::Note;
}

std::string_view word(Protection p) {
  switch (p) {
    case Protection::CurrentLimit:
      return "a current limit";
    case Protection::OverCurrent:
      return "over-current and thermal protection";
    case Protection::Thermal:
      return "thermal protection only";
    case Protection::None:
      return "no protection";
  }
  return {};
}

std::optional<ShortLoad> shortLoad(const Bench& bench, ChannelRef ref, Amps amps, Amps running) {
  const auto& channel = circuit::channelOf(bench, ref);
  const auto continuous = continuousOf(bench, ref).typical();
  if (!continuous) return std::nullopt;
  const auto peak = channel.peak.typical();
  return ShortLoad{amps.value, running.value, *continuous, peak.value_or(1.5 * *continuous), peak.has_value(), channel.protection};
}

Amps outputCurrent(const SolvedBench& s, const OperatingPoint& p, ChannelRef ref) {
  Amps most{};
  for (const auto& o : circuit::channelOf(s.bench, ref).out)
    most = std::max(most, Amps{std::abs(leaving(s, p, s.bench.terminal(ref.device, o)).value)});
  return most;
}

}  // namespace bold::checks
