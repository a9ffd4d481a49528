#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::module_regulator_setting {
namespace {

constexpr double kLogicLeast = 4.5;  // V that 5 V logic works from, where the part does not say
constexpr double kFed = 1.5;         // V at its input from which the regulator is fed at all

}  // namespace
// A link that would let the module make its own logic supply is off, and nothing else feeds it.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  if (!p) return out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    const int index = static_cast<int>(d);
    for (const auto& e : device.part->elements) {
      const auto* r = std::get_if<parts::Regulator>(&e.body);
      if (!r || e.when.size() != 1 || device.has(e)) continue;
      const auto outT = at(s.bench, index, r->out);
      const auto in = at(s.bench, index, r->in);
      const auto ground = at(s.bench, index, r->ground);
      if (outT < 0 || !s.bench.facts(outT).supply) continue;
      const auto v = p->across(outT, ground);
      const auto fed = p->across(in, ground);
      const double least = s.bench.facts(outT).supply->recommended.least().value_or(kLogicLeast);
      if (!fed || fed->value < kFed || (v && v->value > least / 2)) continue;
      auto f = finding(Severity::Stop, fmt::format("{} makes no logic supply", called(s.bench, index)),
                       fmt::format("The link of the regulator of {} is {} and nothing feeds {}: the stage stays off.",
                                   called(s.bench, index), device.settings.at(e.when.front().first), s.bench.called(outT)),
                       {s.bench.address(outT)});
      f.formula = fmt::format("{} at {}", v ? show(*v) : "nothing", s.bench.called(outT));
      if (!r->absolute.typical() || fed->value < *r->absolute.typical())
        f.repair = RepairDraft(s.bench)
                       .setting(index, e.when.front().first, e.when.front().second)
                       .repair(fmt::format("Set {} of {} to {}.", device.part->setting(e.when.front().first)->label, called(s.bench, index),
                                           e.when.front().second));
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"module-regulator-setting", "voltage", "The regulator link of a module", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::module_regulator_setting
