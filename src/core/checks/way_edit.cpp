#include "core/checks/way_edit.h"

#include "core/base/quantity.h"
#include "core/harness/intent.h"

namespace bold::checks {

std::optional<harness::Edit> wayEdit(const harness::Harness& h, const Way& way) {
  if (way.edit) return way.edit;
  const auto* device = h.device(way.field.subject);
  if (!device || way.to.empty()) return std::nullopt;
  const auto end = way.field.name.find(' ');
  const auto kind = way.field.name.substr(0, end);
  const auto what = end == std::string::npos ? std::string() : way.field.name.substr(end + 1);
  auto changed = *device;
  if (kind == "figure" && !what.empty()) {
    changed.overrides[what] = way.to;
  } else if (kind == "setting" && !what.empty()) {
    changed.settings[what] = {way.to, {}};
  } else if (kind == "duty") {
    auto intent = harness::intentOf(h, way.field.subject);
    const auto share = parseQuantity(way.to, Unit::One);
    if (!intent || !share) return std::nullopt;
    intent->dutyCap = share->value;
    return harness::stating(h, *intent, way.text);
  } else {
    return std::nullopt;
  }
  return harness::Edit{way.text, {harness::Put<harness::Device>{std::move(changed), {}}}};
}

}  // namespace bold::checks
