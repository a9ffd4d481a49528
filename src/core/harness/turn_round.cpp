#include "core/harness/turn_round.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/harness/names.h"
#include "core/parts/roles.h"

namespace bold::harness {

std::optional<Edit> turnRound(const Harness& h, const parts::Library& library, const std::string& device) {
  const auto* d = h.device(device);
  const auto part = d ? library.find(d->part) : nullptr;
  if (!part || parts::isController(*part) || parts::isSource(*part) || parts::isMotor(*part)) return std::nullopt;
  const auto n = part->terminals.size();
  if (n != 2 && n != 3) return std::nullopt;
  auto legs = part->terminals;
  std::ranges::stable_sort(legs, {}, [](const parts::Terminal& t) { return t.place.position; });
  const auto& first = legs.front().id;
  const auto& last = legs.back().id;
  Edit edit{fmt::format("Turn {} round", shownName(h, *d)), {}};
  for (const auto& c : h.connections) {
    auto turned = c;
    for (auto* end : {&turned.a, &turned.b})
      if (end->device == device) end->terminal = end->terminal == first ? last : end->terminal == last ? first : end->terminal;
    if (!(turned == c)) edit.changes.emplace_back(Put<Connection>{turned, {}});
  }
  return edit.changes.empty() ? std::nullopt : std::optional(std::move(edit));
}

}  // namespace bold::harness
