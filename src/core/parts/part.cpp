#include "core/parts/part.h"

#include <algorithm>

#include "core/base/by_id.h"

namespace bold::parts {

Part::Part() = default;
Part::Part(const Part&) = default;
Part::Part(Part&&) noexcept = default;
Part& Part::operator=(const Part&) = default;
Part& Part::operator=(Part&&) noexcept = default;
Part::~Part() = default;

int Part::indexOf(const std::string& terminal) const {
  for (std::size_t i = 0; i < terminals.size(); ++i)
    if (terminals[i].id == terminal) return static_cast<int>(i);
  for (std::size_t i = 0; i < terminals.size(); ++i)
    if (std::ranges::count(terminals[i].formerly, terminal) > 0) return static_cast<int>(i);
  return -1;
}
const Terminal* Part::find(const std::string& terminal) const {
  const int i = indexOf(terminal);
  return i < 0 ? nullptr : &terminals[i];
}
const NamedFigure* Part::figure(const std::string& which) const {
  return byId(figures, which);
}
const Channel* Part::channel(const std::string& which) const {
  return byId(channels, which);
}
const Package* Part::package(const std::string& which) const {
  return byId(packages, which);
}
const Setting* Part::setting(const std::string& which) const {
  return byId(settings, which);
}

}  // namespace bold::parts
