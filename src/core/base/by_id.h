#pragma once

#include <algorithm>
#include <string>
#include <vector>

namespace bold {

/// The item with this id; nullptr when there is none.
template <class T>
const T* byId(const std::vector<T>& items, const std::string& id) {
  const auto it = std::ranges::find(items, id, &T::id);
  return it == items.end() ? nullptr : &*it;
}

}  // namespace bold
