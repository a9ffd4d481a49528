#include <fmt/core.h>

#include <algorithm>

#include "core/bench/queries.h"
#include "core/checks/heat/package_heat.h"
#include "core/harness/edit_maker.h"
#include "core/sums/sum.h"

namespace bold::sums {

// What thermal resistance keeps a stage cool with what it turns into heat.
std::optional<Sum> heat_sink(const SumBench& b) {
  const auto* stage = b.stage();
  if (!stage || stage->packages.empty()) return std::nullopt;
  const auto& package = stage->packages.front();
  const auto hottest = package.hottest.typical();
  const auto bare = package.thermal.typical();
  if (!hottest || !bare) return std::nullopt;
  double most = 0;
  for (const auto& p : b.solved.points)
    if (bench::steady(*p)) most = std::max(most, checks::packagePower(b.solved, *p, b.motor.meant.device, package.id).value);
  if (most <= 1e-3) return std::nullopt;
  const auto sink = package.thermalSink.typical();
  const auto& settings = b.solved.bench.devices[static_cast<std::size_t>(b.motor.meant.device)].settings;
  const bool fitted = settings.contains("heatSink") && settings.at("heatSink") == "fitted";
  const bool may = stage->setting("heatSink") && sink && !fitted;
  return Sum{"heat-sink",
             "Heat sink of the stage",
             {{"power", "heat of the stage", Unit::Watt, displayText(Watts{most}), 1e-3, 500},
              {"ambient", "air around it", Unit::Celsius, displayText(Celsius{checks::ambient(b.solved.bench)}), -40,
               *hottest - checks::kToSpare - 1}},
             [=, hot = *hottest, bareOf = *bare, h = &b.document, id = b.stageId()](const std::vector<double>& in) -> Result<SumResult> {
               const double enough = (hot - checks::kToSpare - in[1]) / in[0];
               SumResult out;
               out.text = bareOf <= enough ? fmt::format("None is needed: bare it has {:.3g} K/W, {:.3g} would do.", bareOf, enough)
                                           : fmt::format("{:.3g} K/W or less from the junction to the air; bare it has {:.3g}{}.", enough,
                                                         bareOf, sink ? fmt::format(", with a small sink {:.3g}", *sink) : std::string());
               out.formula = fmt::format("({} - {:g} K to spare - {}) / {} = {:.3g} K/W", displayText(Celsius{hot}), checks::kToSpare,
                                         displayText(Celsius{in[1]}), displayText(Watts{in[0]}), enough);
               if (const auto* device = h->device(id); device && may && bareOf > enough && *sink <= enough) {
                 out.use = "Plan a heat sink";
                 harness::EditMaker maker(h->ids(), harness::State::Planned);
                 maker.setting(*device, "heatSink", settings.at("heatSink"), "fitted");
                 out.edit = maker.take("Fit a heat sink");
               }
               return out;
             }};
}

}  // namespace bold::sums
