#include <fmt/core.h>

#include <array>
#include <cmath>

#include "core/harness/intent.h"
#include "core/sums/sum.h"

namespace bold::sums {

// A duty in the scales that boards' own functions take, and from where on the motor starts under its load.
std::optional<Sum> duty_scale(const SumBench& b) {
  if (!b.motor.intent || !b.motor.intent->speedControl) return std::nullopt;
  const auto* w = b.winding();
  const auto volts = b.voltage();
  std::optional<double> start;  // share
  std::string of;
  if (w && w->brushed && volts && w->run.typical() && w->resistance.typical()) {
    start = *w->run.typical() * *w->resistance.typical() / volts->value;
    of = fmt::format("{} x {} / {} = {:.0f} %", displayText(Amps{*w->run.typical()}), displayText(Ohms{*w->resistance.typical()}),
                     displayText(*volts), 100 * *start);
  }
  const double now = b.motor.intent->dutyCap.value_or(0.5);
  return Sum{"duty-scale",
             "Duty in the scale of a program",
             {{"duty", "duty, percent", Unit::One, fmt::format("{:g}", 100 * now), 0, 100}},
             [start, of, h = &b.document, motor = b.motorId()](const std::vector<double>& in) -> Result<SumResult> {
               static constexpr std::array kScales{255, 1023, 65535};
               SumResult out;
               const double share = in[0] / 100;
               out.text = fmt::format("{:g} of 100", in[0]);
               for (const int s : kScales) out.text += fmt::format(", {:.0f} of {}", std::round(share * s), s);
               out.text += ".";
               out.formula = fmt::format("{:g} / 100 x 255 = {:.0f}", in[0], std::round(share * 255));
               if (start) {
                 out.text += fmt::format(" Under its load it starts from {:.0f} % on ({:.0f} of 255): use {:.0f} to 255.", 100 * *start,
                                         std::ceil(*start * 255), std::ceil(*start * 255));
                 if (share < *start && share > 0) out.text += " At this duty it hums and stands.";
                 out.formula += "; starts at " + of;
               }
               if (share <= 0) return out;
               out.use = fmt::format("State a cap of {:g} %", in[0]);
               auto intent = harness::intentFor(*h, motor);
               intent.dutyCap = share;
               out.edit = harness::stating(*h, intent, "State the duty cap");
               return out;
             }};
}

}  // namespace bold::sums
