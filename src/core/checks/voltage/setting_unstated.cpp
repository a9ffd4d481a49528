#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::setting_unstated {
namespace {

// Of a row of step switches its ends, of a link all it can be.
std::vector<std::string> others(const parts::Setting& setting, const std::string& now) {
  constexpr std::size_t kFew = 3;
  std::vector<std::string> out;
  for (const auto& v : setting.values)
    if (v != now && (setting.values.size() <= kFew || v == setting.values.front() || v == setting.values.back())) out.push_back(v);
  return out;
}

// The gravest of what would be destroyed then and is not now.
const Finding* destroyed(const Findings& then, const Findings& now) {
  std::set<std::string> known;
  for (const auto& f : now)
    if (f.severity == Severity::Stop) known.insert(f.identity());
  const Finding* out = nullptr;
  for (const auto& f : then) {
    const bool tooLittle = f.bar && f.bar->floor;  // what is not fed is not destroyed
    if (f.severity == Severity::Stop && f.harm != Harm::WillNotWork && !tooLittle && !known.contains(f.identity()) &&
        (!out || f.harm < out->harm))
      out = &f;
  }
  return out;
}

Finding said(const SolvedBench& s, const bench::BenchDevice& device, const parts::Setting& setting, const std::string& value,
             const Finding& then) {
  const auto id = idOf(s.bench, static_cast<int>(&device - s.bench.devices.data()));
  const auto& name = device.called();
  const auto now = device.settings.at(setting.id);
  const auto stated = device.doc.settings.find(setting.id);
  if (stated != device.doc.settings.end() && stated->second.value == now) {
    auto f = finding(Severity::Note, fmt::format("The {} of {} never at {}", setting.label, name, value),
                     fmt::format("The {} of {} is stated as {}. At {}: {}.", setting.label, name, now, value, then.headline), {id});
    f.formula = fmt::format("{} at {}: {}", setting.label, value, then.formula.empty() ? then.headline : then.formula);
    f.ways = {{fmt::format("Leave the {} of {} at {}.", setting.label, name, now)}};
    return f;
  }
  auto f = finding(
      Severity::Caution, fmt::format("How does the {} of {} stand?", setting.label, name),
      fmt::format("Nothing says how the {} of {} stands; it is taken as {}. At {}: {}.", setting.label, name, now, value, then.headline),
      {id});
  f.formula = fmt::format("{} at {}: {}", setting.label, value, then.formula.empty() ? then.headline : then.formula);
  f.ways = {{fmt::format("Look at {}, and state how the {} stands: {} is right here.", name, setting.label, now),
             Field{id, "setting " + setting.id}}};
  return f;
}

}  // namespace

// A link, jumper or step switch that would destroy something in another position.
Findings judge(const SolvedBench& s, const Findings& now, const Check::Otherwise& otherwise) {
  Findings out;
  for (const auto& device : s.bench.devices)
    for (const auto& setting : device.part->settings) {
      const auto at = device.settings.find(setting.id);
      if (!setting.byHand || at == device.settings.end()) continue;
      for (const auto& value : others(setting, at->second)) {
        auto changed = device.doc;
        changed.settings[setting.id] = {value, {}};
        const auto then = otherwise({setting.label, {harness::Put<harness::Device>{std::move(changed), {}}}});
        const auto* worst = then ? destroyed(*then, now) : nullptr;
        if (!worst) continue;
        out.push_back(said(s, device, setting, value, *worst));
        break;
      }
    }
  return out;
}

Check check() {
  return {"setting-unstated", "voltage", "How a link or step switch stands", Harm::Damage, judge};
}

}  // namespace bold::checks::setting_unstated
