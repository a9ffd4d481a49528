#include "core/checks/current/stall_table.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
using parts::Protection;

namespace {

constexpr double kPeakShare = 1.5;  // of the continuous rating: the peak taken where none is stated (said as not known)
constexpr double kPastPeak = 1.5;   // times the peak rating: what a stage that protects itself may survive

Limit limitAt(double amps, Severity consequence, LimitKind kind, std::string_view name) {
  return atMost(kind, consequence, amps, name);
}

}  // namespace

// A row of the table: to its continuous rating a current is quiet. Past what follows it is a note, a caution, a stop. A peak
// rating below the continuous one moves no limit below that.
std::vector<Limit> shortLimits(const ShortLoad& c) {
  const auto stop = c.peakKnown ? Severity::Stop : Severity::Caution;
  const double peak = std::max(c.peak, c.continuous);
  // A pulse is held to the single-event row where there is one: what it may be, once, for as long as the row says.
  const double past = c.once ? std::max(*c.once, peak) : std::max(kPastPeak * c.peak, c.continuous);
  const auto above = c.once && c.brief ? Severity::Note : Severity::Caution;
  const auto continuous = [&](Severity s) { return limitAt(c.continuous, s, LimitKind::Recommended, "continuous"); };
  const auto atPeak = [&](Severity s) { return limitAt(peak, s, LimitKind::Absolute, "peak"); };
  const auto pastPeak = [&](Severity s) { return limitAt(past, s, LimitKind::Absolute, c.once ? "peak, once" : "1.5 x peak"); };
  switch (c.protection) {
    case Protection::CurrentLimit:
      return {continuous(Severity::Note)};
    case Protection::OverCurrent:
      if (c.running <= c.continuous && !c.once) return {continuous(Severity::Note), atPeak(Severity::Caution)};
      return {continuous(Severity::Note), atPeak(above), pastPeak(stop)};
    case Protection::Thermal:
      return {continuous(Severity::Note), atPeak(above), pastPeak(stop)};
    case Protection::None:
      if (c.once) return {atPeak(above), pastPeak(stop)};
      return {continuous(Severity::Caution), atPeak(stop)};
  }
  return {};
}

std::vector<Limit> lowered(std::vector<Limit> limits) {
  limits = withoutNotes(std::move(limits));
  for (auto& l : limits) l.consequence = l.consequence == Severity::Stop ? Severity::Caution : Severity::Note;
  return limits;
}

std::vector<Limit> withoutNotes(std::vector<Limit> limits) {
  std::erase_if(limits, [](const Limit& l) { return l.consequence == Severity::Note; });
  return limits;
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
  const auto& channel = bench::channelOf(bench, ref);
  const auto continuous = continuousOf(bench, ref).typical();
  if (!continuous) return std::nullopt;
  const auto peak = channel.peak.typical();
  return ShortLoad{amps.value, running.value, *continuous, peak.value_or(kPeakShare * *continuous), peak.has_value(), channel.protection};
}

Margin shortMargin(const ShortLoad& load, std::string quantity, std::vector<std::string> subjects, const OperatingPoint* at) {
  Margin m{.quantity = std::move(quantity),
           .subjects = std::move(subjects),
           .unit = Unit::Amp,
           .value = load.amps,
           .limits = shortLimits(load),
           .at = at};
  if (!load.peakKnown) m.assumed = {"a peak rating of 1.5 x continuous"};
  return m;
}

namespace {

// The row of a single event that allows most.
const parts::PeakRow* singleEvent(const parts::Channel& channel) {
  const parts::PeakRow* best = nullptr;
  for (const auto& row : channel.peaks)
    if (!row.duty.known() && row.current.typical() && (!best || *row.current.typical() > *best->current.typical())) best = &row;
  return best;
}

// How long a pulse stays above a current while the motor's own voltage dies with its mechanical time constant; nothing where nobody
// measured that.
std::optional<double> timeAbove(const SolvedBench& s, const Motor& motor, double amps, double limit) {
  const auto settles = bench::windingOf(s.bench, motor, 0).settles.typical();
  if (!settles || limit <= 0 || amps <= limit) return std::nullopt;
  return *settles * std::log(amps / limit);
}

}  // namespace

std::optional<Pulse> pulseThrough(const SolvedBench& s, const Motor& motor, ChannelRef ref, Amps amps, Amps running, std::string quantity,
                                  const OperatingPoint& at) {
  auto load = shortLoad(s.bench, ref, amps, running);
  if (!load || bench::chopperOf(s.bench, ref)) return std::nullopt;
  if (const auto* row = singleEvent(bench::channelOf(s.bench, ref))) {
    load->once = row->current.typical();
    const auto above = timeAbove(s, motor, load->amps, load->peak);
    load->brief = above && row->time.typical() && *above < *row->time.typical();
  }
  const auto out = s.bench.terminal(ref.device, bench::channelOf(s.bench, ref).out.front());
  auto margin = shortMargin(*load, std::move(quantity), {idOf(s.bench, motor.device), s.bench.address(out)}, &at);
  margin.limits = withoutNotes(std::move(margin.limits));
  if (margin.limits.empty()) return std::nullopt;
  return Pulse{std::move(margin), &motor, ref, *load};
}

Amps outputCurrent(const SolvedBench& s, const OperatingPoint& p, ChannelRef ref) {
  Amps most{};
  for (const auto& o : bench::channelOf(s.bench, ref).out)
    most = std::max(most, Amps{std::abs(leaving(s, p, s.bench.terminal(ref.device, o)).value)});
  return most;
}

}  // namespace bold::checks
