#include "core/choose/control_resistor.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/bench/queries.h"
#include "core/bench/signal_nets.h"
#include "core/choose/fitting_parts.h"
#include "core/choose/stage_questions.h"
#include "core/sums/sum.h"

namespace bold::sums {
namespace {

// The transistor that a pin drives by itself, its control, and the loose resistor between.
struct Path {
  const parts::Bipolar* bipolar = nullptr;
  bool gate = false;
  std::optional<bench::PinGroup> group;
  int resistor = -1;  // device
};

Path pathOf(const SumBench& b) {
  Path out;
  const auto& s = b.solved;
  const auto* stage = b.stage();
  if (!stage) return out;
  for (const auto& e : stage->elements) {
    const bench::TerminalIndex control = [&] {
      if (const auto* t = std::get_if<parts::Bipolar>(&e.body)) return bench::at(s.bench, b.motor.meant.device, t->base);
      if (const auto* t = std::get_if<parts::Mosfet>(&e.body)) return bench::at(s.bench, b.motor.meant.device, t->gate);
      return -1;
    }();
    if (control < 0) continue;
    const auto pins = bench::programPins(s.bench, s.nets, control);
    if (pins.size() != 1) continue;
    out.bipolar = std::get_if<parts::Bipolar>(&e.body);
    out.gate = !out.bipolar;
    out.group = bench::pinGroup(s.bench, *pins.begin());
    for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
      const auto& part = *s.bench.devices[d].part;
      if (part.terminals.size() != 2 || part.elements.size() != 1 || !std::holds_alternative<parts::Resistor>(part.elements[0].body))
        continue;
      const int a = s.bench.devices[d].first;
      const auto joins = [&](int x, int y) { return s.nets.same(x, control) && s.nets.same(y, *pins.begin()); };
      if (joins(a, a + 1) || joins(a + 1, a)) out.resistor = static_cast<int>(d);
    }
    return out;
  }
  return out;
}

// Another resistor in the place of the one that is there.
harness::Edit exchange(const harness::Harness& h, const std::string& device, const choose::Fitting& fitting) {
  harness::Edit out{"Take another resistor", {}};
  if (const auto* d = h.device(device)) {
    auto changed = *d;
    changed.part = fitting.part;
    changed.overrides = fitting.figures;
    out.changes.push_back(harness::Put<harness::Device>{std::move(changed), {}});
  }
  return out;
}

}  // namespace

// Between a pin and the base or gate that it drives.
std::optional<Sum> control_resistor(const SumBench& b) {
  const auto path = pathOf(b);
  if (!path.group) return std::nullopt;
  const auto& board = *b.solved.bench.devices[static_cast<std::size_t>(path.group->device)].part;
  const Volts level = choose::pinLevel(board);
  std::vector<SumInput> inputs;
  if (path.bipolar) {
    const auto* w = b.winding();
    const double load = w && w->run.typical() ? *w->run.typical() : b.running().value_or(Amps{0.1}).value;
    inputs.push_back({"load", "load current", Unit::Amp, displayText(Amps{load}), 0.001, 50});
  }
  const std::string resistor = path.resistor < 0 ? std::string() : b.solved.bench.devices[static_cast<std::size_t>(path.resistor)].doc.id;
  return Sum{path.gate ? "gate-resistor" : "base-resistor", path.gate ? "Gate resistor" : "Base resistor", std::move(inputs),
             [path, level, pins = path.group->pins, resistor, h = &b.document,
              library = &b.library](const std::vector<double>& in) -> Result<SumResult> {
               const choose::Drive drive{level, *pins};
               SumResult out;
               const auto r = path.bipolar ? choose::baseResistor(*path.bipolar, drive, Amps{in[0]}) : choose::gateResistor(drive);
               out.text = fmt::format("{} (E12 row).", displayText(r));
               if (path.bipolar) {
                 const auto base = choose::baseCurrent(*path.bipolar, drive, r);
                 out.text += fmt::format(" {} flow into the base: {:.0f} times less than the load.", displayText(base), in[0] / base.value);
                 out.formula = fmt::format("({} - {}) / ({} + {} in the pin) = {}", displayText(level),
                                           displayText(Volts{path.bipolar->vbe.typical().value_or(0.7)}), displayText(r),
                                           displayText(Ohms{pins->resistance.typical().value_or(0)}), displayText(base));
               } else {
                 out.formula = fmt::format(
                     "{} / {} - {} in the pin = {}, the next above in the row", displayText(level),
                     displayText(Amps{pins->recommended.typical().value_or(20e-3)}),
                     displayText(Ohms{pins->resistance.typical().value_or(0)}),
                     displayText(level / Amps{pins->recommended.typical().value_or(20e-3)} - Ohms{pins->resistance.typical().value_or(0)}));
               }
               if (const auto fitted = choose::resistor(*library, r); fitted && !resistor.empty()) {
                 out.use = fmt::format("Take {} there", displayText(r));
                 out.edit = exchange(*h, resistor, *fitted);
               }
               return out;
             }};
}

}  // namespace bold::sums
