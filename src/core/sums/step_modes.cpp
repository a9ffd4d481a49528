#include <fmt/core.h>

#include <cmath>

#include "core/bench/queries.h"
#include "core/harness/edit_maker.h"
#include "core/sums/sum.h"

namespace bold::sums {
namespace {

// The largest of a stage's current settings (switches) that its motor stands; nothing where it has none.
struct Switch {
  std::string setting, label, value, now;
};
std::optional<Switch> currentSwitch(const SumBench& b, double crest) {
  std::optional<Switch> out;
  double best = 0;
  for (const auto& s : b.stage()->settings)
    for (const auto& v : s.values)
      if (const auto amps = parse<Amps>(v); amps && amps->value <= crest * 1.001 && amps->value > best) {
        best = amps->value;
        const auto& all = b.solved.bench.devices[static_cast<std::size_t>(b.motor.meant.device)].settings;
        out = Switch{s.id, s.label, v, all.contains(s.id) ? all.at(s.id) : std::string()};
      }
  return out;
}

}  // namespace

// How the mode inputs of a step/dir stage have to stand for so many microsteps, and its current switches for this motor.
std::optional<Sum> step_modes(const SumBench& b) {
  const auto* stage = b.stage();
  const auto* w = b.winding();
  if (!stage || !w || !bench::chopperOf(b.solved.bench, b.motor.meant)) return std::nullopt;
  const auto rated = parts::ratedCurrent(*w);
  const auto current = rated ? currentSwitch(b, *rated * std::sqrt(2.0)) : std::nullopt;
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
             [table, labels, current, rated, h = &b.document, id = b.stageId()](const std::vector<double>& in) -> Result<SumResult> {
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
                 out.formula += fmt::format("{}{} <= {} x 1.414", out.formula.empty() ? "" : "; ", current->value, displayText(Amps{*rated}));
                 if (const auto* device = h->device(id); device && current->now != current->value) {
                   out.use = fmt::format("Plan {} at {}", current->label, current->value);
                   harness::EditMaker maker(h->ids(), harness::State::Planned);
                   maker.setting(*device, current->setting, current->now, current->value);
                   out.edit = maker.take("Set the current of the stage");
                 }
               }
               return out;
             }};
}

}  // namespace bold::sums
