#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/queries.h"
#include "core/harness/edit_maker.h"
#include "core/sums/sum.h"

namespace bold::sums {

// The reference voltage of a stage that regulates coil current, and what a measured one gives.
std::optional<Sum> current_reference(const SumBench& b) {
  const auto* chopper = bench::chopperOf(b.solved.bench, b.motor.meant);
  const auto sense = chopper ? chopper->senseResistor.typical() : std::nullopt;
  const auto* w = b.winding();
  if (!sense || !w || chopper->perVolt <= 0 || !b.stage()->figure("reference")) return std::nullopt;
  const double crest = chopper->referenceIsRms ? 1 : std::sqrt(2.0);
  const double volts = crest * chopper->perVolt * *sense;  // a RMS ampere
  double wanted = parts::ratedCurrent(*w).value_or(1);
  if (const auto cooled = bench::continuousOf(b.solved.bench, b.motor.meant).typical()) wanted = std::min(wanted, *cooled);
  const auto measured = chopper->reference.typical().value_or(wanted * volts);
  return Sum{"current-reference",
             "Reference voltage for a coil current",
             {{"current", "coil current, RMS", Unit::Amp, displayText(Amps{wanted}), 0.01, 10},
              {"reference", "reference, as measured", Unit::Volt, displayText(Volts{measured}), 0.01, 10}},
             [volts, crest, sense = *sense, perVolt = chopper->perVolt, h = &b.document,
              stage = b.stageId()](const std::vector<double>& in) -> Result<SumResult> {
               SumResult out;
               const Volts reference{in[0] * volts};
               out.text = fmt::format("Trim the reference to {}. The measured {} let {} through each coil.", displayText(reference),
                                      displayText(Volts{in[1]}), displayText(Amps{in[1] / volts}));
               out.formula = fmt::format("V_ref = I{} x {:g} x R_sense = {} x {:g} x {} = {}", crest > 1 ? " x 1.414" : "", perVolt,
                                         displayText(Amps{in[0] * crest}), perVolt, displayText(Ohms{sense}), displayText(reference));
               if (const auto* device = h->device(stage)) {
                 out.use = fmt::format("Enter {} as measured", displayText(Volts{in[1]}));
                 harness::EditMaker maker(h->ids(), harness::State::Planned);
                 maker.figure(*device, "reference", Volts{in[1]});
                 out.edit = maker.take("Enter the reference as measured");
               }
               return out;
             }};
}

}  // namespace bold::sums
