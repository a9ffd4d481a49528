#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/harness/harness.h"

namespace bold::harness {

/// Puts a value in the place of the one with the same id, or at `at` (the end when unset).
template <class T>
struct Put {
  T value;
  std::optional<std::size_t> at;
};

/// Takes out the one with this id; silently nothing when there is none.
template <class T>
struct Drop {
  std::string id;
};

struct SetTitle {
  std::string title;
};
struct SetAmbient {
  std::optional<Celsius> ambient;
};

using Change = std::variant<Put<Device>, Drop<Device>, Put<Connection>, Drop<Connection>, Put<Intent>, Drop<Intent>, SetTitle, SetAmbient>;

/// The only road by which a document changes.
struct Edit {
  std::string title;  ///< "Add a wire s1.GND to uno.GND"
  std::vector<Change> changes;
};

/// Applies in order and returns the edit that takes it all back, to the byte.
Edit apply(Harness& harness, const Edit& edit);

}  // namespace bold::harness
