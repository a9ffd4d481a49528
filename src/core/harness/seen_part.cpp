#include "core/harness/seen_part.h"

#include <algorithm>

#include "core/parts/roles.h"
#include "core/places/numbering.h"

namespace bold::harness {

std::shared_ptr<const parts::Part> seenPart(std::shared_ptr<const parts::Part> part, const Device& device, const Harness& h) {
  if (!part) return part;
  const auto numbering = places::numberingNamed(h.names).value_or(places::Numbering::Printed);
  const bool renamed = numbering != places::Numbering::Printed && parts::isController(*part);
  const bool confirmed = device.orderSeen && !part->layoutKnown && !part->layout.empty();
  if (!renamed && !confirmed) return part;
  auto out = std::make_shared<parts::Part>(*part);
  if (confirmed) out->layoutKnown = true;
  if (renamed)
    for (std::size_t t = 0; t < out->terminals.size(); ++t) {
      auto& facts = out->terminals[t];
      facts.label = places::shownIn(*part, part->terminals[t], numbering);
      if (facts.label != part->terminals[t].label) facts.aliases.push_back(part->terminals[t].label);
    }
  return out;
}

}  // namespace bold::harness
