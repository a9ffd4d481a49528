#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/queries.h"
#include "core/sums/sum.h"

// A name a sum, in the order in which they are shown: its file is <name>.cpp.
#define BOLD_SUMS(X)  \
  X(control_resistor) \
  X(current_reference) X(step_modes) X(pulses) X(pulse_rate) X(duty_scale) X(heat_sink) X(fuse) X(wire_gauge) X(supply_size)

namespace bold::sums {

#define BOLD_DECLARE_SUM(name) std::optional<Sum> name(const SumBench& bench);
BOLD_SUMS(BOLD_DECLARE_SUM)
#undef BOLD_DECLARE_SUM

std::vector<Sum> sumsFor(const SumBench& bench) {
  std::vector<Sum> out;
#define BOLD_ADD_SUM(name) \
  if (auto sum = name(bench)) out.push_back(std::move(*sum));
  BOLD_SUMS(BOLD_ADD_SUM)
#undef BOLD_ADD_SUM
  return out;
}

std::optional<SumBench> sumBench(const harness::Harness& document, const parts::Library& library, const bench::SolvedBench& solved,
                                 const std::string& motor) {
  const int device = solved.bench.deviceIndex(motor);
  const auto it = std::ranges::find(solved.motors, device, &bench::Motor::device);
  if (device < 0 || it == solved.motors.end()) return std::nullopt;
  return SumBench{document, library, solved, *it, static_cast<int>(it - solved.motors.begin())};
}

std::variant<SumResult, std::vector<SumProblem>> Sum::of(const std::vector<std::string>& values) const {
  std::vector<SumProblem> problems;
  std::vector<double> numbers;
  for (std::size_t k = 0; k < inputs.size(); ++k) {
    const auto& in = inputs[k];
    const auto q = parseQuantity(k < values.size() ? values[k] : in.value, in.unit);
    if (!q)
      problems.push_back({in.id, q.error().what});
    else if (q->value < in.least || q->value > in.most || !(q->value > 0 || in.least <= 0))
      problems.push_back({in.id, fmt::format("It lies between {} and {}.", displayText(AnyQuantity{in.least, in.unit}),
                                             displayText(AnyQuantity{in.most, in.unit}))});
    else
      numbers.push_back(q->value);
  }
  if (!problems.empty()) return problems;
  auto result = work(numbers);
  if (!result) return std::vector<SumProblem>{{result.error().where, result.error().what}};
  return *result;
}

const parts::Winding* SumBench::winding() const {
  return motor.windings.empty() ? nullptr : &bench::windingOf(solved.bench, motor, 0);
}

std::optional<double> SumBench::motorFigure(const std::string& id) const {
  const auto* f = solved.bench.devices[static_cast<std::size_t>(motor.device)].part->figure(id);
  return f ? f->figure.typical() : std::nullopt;
}

namespace {
std::optional<Amps> amps(const SumBench& b, const bench::OperatingPoint* p) {
  if (!p || !p->solved() || b.motor.windings.empty()) return std::nullopt;
  const Amps i{std::abs(p->element(b.motor.device, b.motor.windings[0]).value)};
  return i.value > 1e-4 ? std::optional(i) : std::nullopt;
}
}  // namespace

std::optional<Amps> SumBench::running() const {
  return amps(*this, solved.running(motorIndex, bench::Corner::Full));
}

std::optional<Amps> SumBench::stalled() const {
  return amps(*this, solved.point(motorIndex, bench::Action::Forward, bench::Moment::Stalled, bench::Corner::Full));
}

std::optional<Volts> SumBench::voltage() const {
  const auto* p = solved.running(motorIndex, bench::Corner::Nominal);
  const auto* w = winding();
  if (!p || !w) return std::nullopt;
  const auto v = p->across(solved.bench.terminal(motor.device, w->a), solved.bench.terminal(motor.device, w->b));
  return v && std::abs(v->value) > 1e-3 ? std::optional(Volts{std::abs(v->value)}) : std::nullopt;
}

const parts::Part* SumBench::stage() const {
  return motor.meant.device < 0 ? nullptr : solved.bench.devices[static_cast<std::size_t>(motor.meant.device)].part.get();
}

std::string SumBench::stageId() const {
  return motor.meant.device < 0 ? std::string() : solved.bench.devices[static_cast<std::size_t>(motor.meant.device)].doc.id;
}

}  // namespace bold::sums
