#pragma once

#include <vector>

#include "core/checks/finding.h"
#include "core/picture/layout.h"

namespace bold::picture {

/// A finding's number, at the place it is about.
struct Badge {
  Point at;  ///< centre
  int number = 0;
  checks::Severity severity = checks::Severity::Stop;
  std::string identity;
  bool operator==(const Badge&) const = default;
};

/// One badge for each cause that is more than a note, at the first of its subjects that is in the picture; those at one place stand side by
/// side.
std::vector<Badge> placeBadges(const Layout& layout, const std::vector<checks::Finding>& findings);

inline constexpr double kBadge = 20;  // across

}  // namespace bold::picture
