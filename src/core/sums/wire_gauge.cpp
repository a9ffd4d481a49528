#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/choose/fitting_parts.h"
#include "core/sums/sum.h"

namespace bold::sums {
namespace {

constexpr double kCopper = 1.79e-8;  // ohm m, at 30 degC
constexpr int kThinnest = 30, kThickest = 8;

double area(int awg) {  // m2
  const double d = 0.127e-3 * std::pow(92, (36 - awg) / 39.0);
  return std::numbers::pi * d * d / 4;
}

}  // namespace

// The thinnest wire for a length, there and back, that carries the current and takes no more than a share of the voltage.
std::optional<Sum> wire_gauge(const SumBench& b) {
  const auto run = b.running();
  const auto volts = b.voltage();
  if (!run || !volts) return std::nullopt;
  double length = 0.3;
  for (const auto& c : b.document.connections)
    if ((c.a.device == b.motorId() || c.b.device == b.motorId()) && c.length) length = c.length->value;
  return Sum{"wire-gauge",
             "Gauge for length and drop",
             {{"length", "length, one way", Unit::Metre, displayText(Metres{length}), 0.01, 100},
              {"current", "current", Unit::Amp, displayText(*run), 1e-3, 100},
              {"drop", "drop, percent", Unit::One, "3", 0.1, 50}},
             [v = *volts, h = &b.document, library = &b.library, motor = b.motorId()](const std::vector<double>& in) -> Result<SumResult> {
               const double most = in[2] / 100 * v.value / in[1];  // ohm
               int awg = kThinnest;
               while (awg > kThickest && 2 * in[0] * kCopper / area(awg) > most) awg -= 2;
               const bool enough = 2 * in[0] * kCopper / area(awg) <= most;
               if (!enough)
                 return fail(Problem{fmt::format("Not even {} AWG is enough: shorten it, or allow more.", kThickest), "drop", {}});
               const int carries = choose::gaugeFor(*library, Amps{in[1]});
               const bool heat = carries < awg;
               awg = std::min(awg, carries);
               const double lost = in[1] * 2 * in[0] * kCopper / area(awg);
               SumResult out;
               out.text =
                   fmt::format("{} AWG ({:.2g} mm²): {} are lost, {:.1f} %.{}", awg, area(awg) * 1e6, displayText(Volts{lost}),
                               100 * lost / v.value, heat ? " A thinner one would do for the drop and grow too warm in a bundle." : "");
               out.formula = fmt::format("{} x 2 x {} x 0.0179 ohm mm²/m / {:.2g} mm² = {}", displayText(Amps{in[1]}),
                                         displayText(Metres{in[0]}), area(awg) * 1e6, displayText(Volts{lost}));
               out.edit.title = "Set the gauge of the motor's wires";
               for (auto c : h->connections) {
                 if (c.kind != harness::ConnectionKind::Wire || (c.a.device != motor && c.b.device != motor)) continue;
                 if (c.gauge == awg && c.length == Metres{in[0]}) continue;
                 c.gauge = awg;
                 c.length = Metres{in[0]};
                 out.edit.changes.push_back(harness::Put<harness::Connection>{std::move(c), {}});
               }
               if (!out.edit.changes.empty()) out.use = fmt::format("Give its wires {} AWG and {}", awg, displayText(Metres{in[0]}));
               return out;
             }};
}

}  // namespace bold::sums
