#include <fmt/core.h>

#include "core/harness/intent.h"
#include "core/sums/sum.h"

namespace bold::sums {

// Pulses a second for a speed of the output, and the speed that a rate gives.
std::optional<Sum> pulse_rate(const SumBench& b) {
  const auto steps = b.motorFigure("steps");
  if (!steps) return std::nullopt;
  const double turn = b.motor.intent && b.motor.intent->stepsPerTurn ? *b.motor.intent->stepsPerTurn : *steps;
  const double rate = b.motor.intent && b.motor.intent->rate ? b.motor.intent->rate->value : turn;
  return Sum{"pulse-rate",
             "Pulse rate and speed",
             {{"speed", "turns a minute of the output", Unit::One, fmt::format("{:.4g}", 60 * rate / turn), 1e-6, 1e5},
              {"rate", "or a rate", Unit::Hertz, displayText(Hertz{rate}), 1e-6, 1e6},
              {"turn", "pulses a turn of the motor", Unit::One, fmt::format("{:g}", turn), 1, 1e6},
              {"gear", "gear behind the motor, to 1", Unit::One, "1", 1e-3, 1e4}},
             [h = &b.document, motor = b.motorId()](const std::vector<double>& in) -> Result<SumResult> {
               const Hertz wanted{in[0] / 60 * in[2] * in[3]};
               SumResult out;
               out.text = fmt::format("{:g} turns a minute take {}; {} give {:.4g} turns a minute.", in[0], displayText(wanted),
                                      displayText(Hertz{in[1]}), 60 * in[1] / (in[2] * in[3]));
               out.formula = fmt::format("{:g} / 60 x {:g} x {:g} = {}", in[0], in[2], in[3], displayText(wanted));
               out.use = fmt::format("Plan {} pulses", displayText(wanted));
               auto intent = harness::intentFor(*h, motor);
               intent.rate = wanted;
               out.edit = harness::stating(*h, intent, "State the pulse rate");
               return out;
             }};
}

}  // namespace bold::sums
