#pragma once

#include <map>

#include "core/picture/layout.h"

namespace bold::picture {

/// Where a terminal's thread begins: which channel it leaves into.
enum class Zone { Trunk, Leads, Top };

struct Port {
  Point at;
  double exitY = 0;
  Zone zone = Zone::Trunk;
};

/// Boxes in their columns, with the room between them that threads run in.
struct Placement {
  std::vector<Box> boxes;
  std::map<Address, Port> ports;
  std::map<Address, Port> connectors;  ///< whole connectors of plugs, by device.connector
  double width = 0, height = 0;
  double margin = 0;                    ///< x of the first track left of the controllers
  double feeds = 0;                     ///< x of the first track, further in, of plugs to controllers that stand below others
  double trunk = 0, trunkWidth = 0;     ///< between controllers and stages
  double leads = 0, leadsWidth = 0;     ///< between stages and motors
  double top = 0, topHeight = 0;        ///< under the sources: supply bars
  double bottom = 0, bottomHeight = 0;  ///< under everything: ground bars
};

Placement place(const harness::Harness& harness, const parts::Library& library);

inline constexpr double kPitch = 20;      // between terminals of a strip
inline constexpr double kTrack = 7;       // between threads side by side
inline constexpr double kTabs = 18;       // of sockets, above a controller
inline constexpr double kFeedAbove = 12;  // a plug comes to a controller this far above it
inline constexpr double kBarGap = 26;     // between ground bars, their labels included

}  // namespace bold::picture
