#pragma once

#include <vector>

#include "core/picture/badges.h"
#include "core/picture/layout.h"

namespace bold::picture {

/// Where two pictures of the same size look different: rectangles around all that came, went or changed, as it is painted.
/// An edit changes little of a picture, and painting all of it takes longer than anything else that follows.
std::vector<Rect> changes(const Layout& before, const Layout& after);
std::vector<Rect> changes(const std::vector<Badge>& before, const std::vector<Badge>& after);

/// What each thing covers, everything that is painted with it included.
Rect covered(const Box& box);
std::vector<Rect> covered(const Thread& thread);  ///< one for each leg
Rect covered(const Bar& bar);
Rect covered(const Badge& badge);

}  // namespace bold::picture
