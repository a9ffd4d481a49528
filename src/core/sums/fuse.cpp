#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "core/sums/sum.h"

namespace bold::sums {
namespace {

constexpr double kSpare = 1.35;  // a fuse carries three quarters of its rating for good
constexpr std::array kRatings{0.1, 0.125, 0.16, 0.2,  0.25, 0.315, 0.4, 0.5, 0.63, 0.8,  1.0,  1.25,
                              1.6, 2.0,   2.5,  3.15, 4.0,  5.0,   6.3, 7.5, 10.0, 15.0, 20.0, 30.0};

}  // namespace

// The smallest usual rating that carries the motor for good, and what it does when the motor is held.
std::optional<Sum> fuse(const SumBench& b) {
  const auto* w = b.winding();
  const auto run = b.running();
  if (!w || !run) return std::nullopt;
  const auto stall = b.stalled();
  return Sum{"fuse",
             "Fuse before the motor",
             {{"running", "current while running", Unit::Amp, displayText(*run), 1e-3, 22},
              {"stalled", "current while held", Unit::Amp, displayText(stall.value_or(*run)), 1e-3, 500}},
             [](const std::vector<double>& in) -> Result<SumResult> {
               if (in[1] < in[0]) return fail(Problem{"A held motor draws more than a running one.", "stalled", {}});
               const auto* it = std::ranges::find_if(kRatings, [&](double r) { return r >= kSpare * in[0]; });
               if (it == kRatings.end()) return fail(Problem{"That is more than usual fuses carry.", "running", {}});
               SumResult out;
               const double times = in[1] / *it;
               out.text = fmt::format("{}, slow. ", displayText(Amps{*it}));
               out.text +=
                   times >= 2 ? fmt::format("A held motor draws {:.1f} times as much: it blows in seconds.", times)
                   : times > 1.3
                       ? fmt::format("A held motor draws {:.1f} times as much: it blows in minutes, the motor may be hot by then.", times)
                       : "It does not blow when the motor is held: it saves the wires, not the motor.";
               out.formula = fmt::format("{:g} x {} = {}, the next in the row {}", kSpare, displayText(Amps{in[0]}),
                                         displayText(Amps{kSpare * in[0]}), displayText(Amps{*it}));
               return out;
             }};
}

}  // namespace bold::sums
