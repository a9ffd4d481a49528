#include "core/harness/end_facts.h"

#include <algorithm>

namespace bold::harness {

const parts::Terminal* factsOf(const Harness& h, const parts::Library& library, const Address& a) {
  const auto* d = h.device(a.device);
  const auto part = d ? library.find(d->part) : nullptr;
  return part ? part->find(a.terminal) : nullptr;
}

bool isPole(const Harness& h, const parts::Library& library, const Address& a, bool positive) {
  const auto* d = h.device(a.device);
  const auto part = d ? library.find(d->part) : nullptr;
  if (!part) return false;
  return std::ranges::any_of(part->elements, [&](const auto& e) {
    const auto* s = std::get_if<parts::Source>(&e.body);
    return s && (positive ? s->positive : s->negative) == a.terminal;
  });
}

}  // namespace bold::harness
