#include <fmt/core.h>

#include <cmath>

#include "core/sums/sum.h"

namespace bold::sums {

// Step pulses for an angle of the output, through microsteps, a gear and a divider in front of the stage.
std::optional<Sum> pulses(const SumBench& b) {
  const auto steps = b.motorFigure("steps");
  if (!steps) return std::nullopt;
  const double turn = b.motor.intent && b.motor.intent->stepsPerTurn ? *b.motor.intent->stepsPerTurn : *steps;
  return Sum{"pulses",
             "Pulses for an angle",
             {{"angle", "angle, degrees", Unit::One, "360", 0, 1e6},
              {"turn", "pulses a turn of the motor", Unit::One, fmt::format("{:g}", turn), 1, 1e6},
              {"gear", "gear behind the motor, to 1", Unit::One, "1", 1e-3, 1e4},
              {"divider", "divider before the stage", Unit::One, "1", 1, 1e6}},
             [](const std::vector<double>& in) -> Result<SumResult> {
               const double n = in[0] / 360 * in[1] * in[2] * in[3];
               SumResult out;
               const double whole = std::round(n);
               out.text = fmt::format("{:.0f} pulses ({:.4g} turns).", whole, in[0] / 360);
               if (std::abs(n - whole) > 1e-6 * std::max(1.0, n))
                 out.text +=
                     fmt::format(" It is not whole: {:.6g}; the rest is {:.2g} degrees.", n, (n - whole) / (in[1] * in[2] * in[3]) * 360);
               out.formula = fmt::format("{:g} / 360 x {:g} x {:g} x {:g} = {:.6g}", in[0], in[1], in[2], in[3], n);
               return out;
             }};
}

}  // namespace bold::sums
