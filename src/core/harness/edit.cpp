#include "core/harness/edit.h"

#include <algorithm>

namespace bold::harness {
namespace {

template <class T>
std::vector<T>& list(Harness& h) {
  if constexpr (std::is_same_v<T, Device>)
    return h.devices;
  else if constexpr (std::is_same_v<T, Connection>)
    return h.connections;
  else
    return h.intents;
}

template <class T>
Change applyOne(Harness& h, const Put<T>& put) {
  auto& items = list<T>(h);
  const auto it = std::ranges::find(items, put.value.id, &T::id);
  if (it != items.end()) {
    Put<T> inverse{*it, {}};
    *it = put.value;
    return inverse;
  }
  const auto at = std::min(put.at.value_or(items.size()), items.size());
  items.insert(items.begin() + static_cast<std::ptrdiff_t>(at), put.value);
  return Drop<T>{put.value.id};
}

template <class T>
Change applyOne(Harness& h, const Drop<T>& drop) {
  auto& items = list<T>(h);
  const auto it = std::ranges::find(items, drop.id, &T::id);
  if (it == items.end()) return drop;
  Put<T> inverse{*it, static_cast<std::size_t>(it - items.begin())};
  items.erase(it);
  return inverse;
}

Change applyOne(Harness& h, const SetTitle& s) {
  SetTitle inverse{h.title};
  h.title = s.title;
  return inverse;
}

Change applyOne(Harness& h, const SetAmbient& s) {
  SetAmbient inverse{h.ambient};
  h.ambient = s.ambient;
  return inverse;
}

}  // namespace

Edit apply(Harness& harness, const Edit& edit) {
  Edit inverse{edit.title, {}};
  for (const auto& change : edit.changes)
    inverse.changes.push_back(std::visit([&](const auto& c) { return applyOne(harness, c); }, change));
  std::ranges::reverse(inverse.changes);
  return inverse;
}

}  // namespace bold::harness
