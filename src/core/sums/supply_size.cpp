#include <fmt/core.h>

#include <algorithm>

#include "core/sums/sum.h"

namespace bold::sums {
namespace {

// What one source gives while a motor runs, or is held; the largest over its commands.
std::optional<Amps> given(const bench::SolvedBench& s, const bench::Nets::Pole& pole, bool held) {
  double most = 0;
  for (const auto& p : s.points) {
    if (!p->solved() || p->corner() != bench::Corner::Full || p->command().supply >= 0) continue;
    const bool stalled = p->command().moment == bench::Moment::Stalled;
    if (stalled != held || (!stalled && p->command().moment != bench::Moment::Running)) continue;
    most = std::max(most, p->element(pole.device, pole.element).value);
  }
  return most > 1e-4 ? std::optional(Amps{most}) : std::nullopt;
}

}  // namespace

// What the supply of this motor has to give, with everything that it feeds.
std::optional<Sum> supply_size(const SumBench& b) {
  const auto& s = b.solved;
  for (const auto& pole : s.nets.sources()) {
    const bool feeds = std::ranges::any_of(s.nets.members(s.nets.of(pole.positive)), [&](bench::TerminalIndex t) {
      const int d = s.bench.deviceOf(t);
      return d == b.motor.device ||
             (d == b.motor.meant.device && s.bench.facts(t).supply && s.bench.facts(t).supply->purpose == parts::SupplyFor::Motor);
    });
    const auto run = feeds ? given(s, pole, false) : std::nullopt;
    if (!run) continue;
    const auto held = given(s, pole, true);
    const auto& device = s.bench.devices[static_cast<std::size_t>(pole.device)];
    const auto& source = std::get<parts::Source>(device.part->elements[static_cast<std::size_t>(pole.element)].body);
    const auto rating = source.continuous.typical();
    return Sum{"supply-size",
               "Size of the supply",
               {{"running", "all running", Unit::Amp, displayText(*run), 1e-3, 200},
                {"held", "one held, the others running", Unit::Amp, displayText(held.value_or(*run)), 1e-3, 500},
                {"spare", "to spare, percent", Unit::One, "30", 0, 200},
                {"hours", "hours on a pack", Unit::One, "2", 0.01, 100}},
               [name = device.called(), rating](const std::vector<double>& in) -> Result<SumResult> {
                 const double times = 1 + in[2] / 100;
                 SumResult out;
                 out.text = fmt::format("{} for long and {} for a moment; a pack of {:.2g} Ah for {:g} h.",
                                        displayText(Amps{times * in[0]}), displayText(Amps{in[1]}), times * in[0] * in[3], in[3]);
                 if (rating)
                   out.text +=
                       fmt::format(" {} gives {}{}.", name, displayText(Amps{*rating}), *rating < times * in[0] ? ": too little" : "");
                 out.formula = fmt::format("{} x {:g} = {}; x {:g} h = {:.2g} Ah", displayText(Amps{in[0]}), times,
                                           displayText(Amps{times * in[0]}), in[3], times * in[0] * in[3]);
                 return out;
               }};
  }
  return std::nullopt;
}

}  // namespace bold::sums
