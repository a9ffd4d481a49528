#pragma once

#include <vector>

#include "core/draw/shapes.h"
#include "core/picture/badges.h"
#include "core/picture/layout.h"

/// What a layout looks like, piece by piece: the window paints those that are in sight, a file holds all of them.
namespace bold::picture {

inline constexpr double kFaded = 0.22;  ///< of a thread's colour, where it stands back

draw::Shapes boxShapes(const Box& box, bool selected);
/// @param strength 0 .. 1: how much of its colour is left. Mixed, not painted thinly: legs overlap where they meet.
draw::Shapes threadShapes(const Thread& thread, bool selected, double strength);
/// How far the thread has been looked at, in the middle of its longest leg: three cells, filled one by one; crossed out where something
/// else was found. Nothing where nobody looked yet.
draw::Shapes progressShapes(const Thread& thread);
/// Connectors, marks and labels of a box, which lie over its threads.
/// @param chosen terminal or connector that is picked, as text
draw::Shapes terminalShapes(const Box& box, const std::string& chosen);
draw::Shapes barShapes(const Bar& bar);
draw::Shapes barLabelShapes(const Bar& bar);
/// A finding's number in the shape of its severity: octagon, triangle, diamond. Black on white: what a window makes of it is its own.
draw::Shapes badgeShapes(const Badge& badge);

/// All of it, for a file or paper.
/// @param named with the id and colour code of each wire beside its ends, where colours may be lost
draw::Drawing loomDrawing(const Layout& layout, const std::vector<Badge>& badges, bool named);

}  // namespace bold::picture
