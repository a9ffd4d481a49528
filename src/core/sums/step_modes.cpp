#include <fmt/core.h>

#include <cmath>
#include <numbers>

#include "core/bench/queries.h"
#include "core/choose/stage_questions.h"
#include "core/harness/edit_maker.h"
#include "core/sums/sum.h"

namespace bold::sums {
// How the mode inputs of a step/dir stage have to stand for so many microsteps, and its current switches for this motor.
std::optional<Sum> step_modes(const SumBench& b) {
  const auto* stage = b.stage();
  const auto* w = b.winding();
  if (!stage || !w || !bench::chopperOf(b.solved.bench, b.motor.meant)) return std::nullopt;
  const auto rated = parts::ratedCurrent(*w);
  const auto current = rated ? choose::currentSwitch(*stage, Amps{*rated * std::numbers::sqrt2}) : std::nullopt;
  const auto& settings = b.solved.bench.devices[static_cast<std::size_t>(b.motor.meant.device)].settings;
  const std::string set = current && settings.contains(current->setting) ? settings.at(current->setting) : std::string();
  const auto& table = stage->microsteps;
  if (table.rows.empty() && !current) return std::nullopt;
  std::vector<SumInput> inputs;
  if (!table.rows.empty()) {
    double now = table.rows.back().second;
    const auto steps = b.motorFigure("steps");
    if (b.motor.intent && b.motor.intent->stepsPerTurn && steps) now = std::max(1.0, std::round(*b.motor.intent->stepsPerTurn / *steps));
    inputs.push_back({"microsteps", "microsteps a full step", Unit::One, fmt::format("{:g}", now), 1, 256});
  }
  std::vector<std::string> labels;
  for (const auto& in : table.inputs) labels.push_back(stage->find(in)->label);
  return Sum{"step-modes", "Switches and mode inputs", std::move(inputs),
             [table, labels, current, set, rated, h = &b.document, id = b.stageId()](const std::vector<double>& in) -> Result<SumResult> {
               SumResult out;
               if (!in.empty()) {
                 std::string all, levels;
                 int last = 0;
                 for (const auto& [row, steps] : table.rows) {
                   if (steps != last) all += (all.empty() ? "" : ", ") + std::to_string(steps);
                   last = steps;
                   if (std::abs(steps - in[0]) > 1e-9 || !levels.empty()) continue;
                   for (std::size_t k = 0; k < labels.size(); ++k)
                     levels += (k ? ", " : "") + labels[k] + (row[k] == '1' ? " high" : " low");
                 }
                 if (levels.empty()) return fail(Problem{fmt::format("It makes {}.", all), "microsteps", {}});
                 out.text = levels + ".";
                 out.formula = fmt::format("{:g} microsteps: {}", in[0], levels);
               }
               if (current) {
                 out.text += fmt::format("{}Set its {} to {}.", out.text.empty() ? "" : " ", current->label, current->value);
                 out.formula +=
                     fmt::format("{}{} <= {} x 1.414", out.formula.empty() ? "" : "; ", current->value, displayText(Amps{*rated}));
                 if (const auto* device = h->device(id); device && set != current->value) {
                   out.use = fmt::format("Plan {} at {}", current->label, current->value);
                   harness::EditMaker maker(h->ids(), harness::State::Planned);
                   maker.setting(*device, current->setting, set, current->value);
                   out.edit = maker.take("Set the current of the stage");
                 }
               }
               return out;
             }};
}

}  // namespace bold::sums
