#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/bench/sensed_pins.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_no_analog {
namespace {

using parts::Moved;

// Why this pin reads nothing of what the contact makes of it; nothing: it does, or its part does not say.
std::optional<Finding> wrongKind(const SolvedBench& s, const bench::SensedPin& x, const PinGroup& group, Moved moved) {
  const auto& pin = s.bench.called(x.pin);
  const auto& name = called(s.bench, x.device);
  const auto& analog = group.pins->analog;
  if (moved != Moved::Slides && s.bench.facts(x.pin).pin->digital) return std::nullopt;
  if (moved == Moved::Slides && (!analog || std::ranges::count(*analog, s.bench.facts(x.pin).id) > 0)) return std::nullopt;
  if (moved != Moved::Slides) {
    auto f = finding(Severity::Caution, fmt::format("{} reads no level", pin),
                     fmt::format("{} is on {}, which only measures a voltage: read as high or low it never changes.", name, pin), {});
    f.ways = {{fmt::format("Take another pin, or let the program measure {} and compare.", pin)}};
    f.formula = pin + " is no digital input";
    return f;
  }
  auto f = finding(Severity::Stop, fmt::format("{} measures no voltage", pin),
                   fmt::format("{} gives any voltage between its ends; {} tells only high from low.", name, pin), {});
  std::string which;
  for (const auto& id : *analog) which += (which.empty() ? "" : ", ") + std::string(id);
  f.ways = {{analog->empty()
                 ? fmt::format("{} has no pin that measures one: it needs a converter chip between.", called(s.bench, group.device))
                 : fmt::format("Take a pin that measures: {}.", which)}};
  f.formula = pin + " has no analogue input";
  return f;
}

}  // namespace

// A slider on a pin that tells only high from low, a contact on one that only measures.
Findings judge(const SolvedBench& s) {
  Findings out;
  std::set<std::pair<int, TerminalIndex>> told;
  for (const auto& x : bench::sensedPins(s)) {
    if (x.element < 0) continue;
    const auto& c = std::get<parts::Contact>(s.bench.devices[x.device].part->elements[x.element].body);
    auto f = wrongKind(s, x, *pinGroup(s.bench, x.pin), c.moved);
    if (!f || !told.emplace(x.device, x.pin).second) continue;
    f->subjects = {s.bench.address(x.pin), s.bench.address(x.end), idOf(s.bench, x.device)};
    out.push_back(std::move(*f));
  }
  return out;
}

Check check() {
  return {"pin-no-analog", "pins", "A dial on a pin that measures no voltage", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_no_analog
