#pragma once

#include <string>
#include <vector>

#include "core/checks/analysis.h"
#include "core/draw/shapes.h"
#include "core/sheet/page_maker.h"

namespace bold::sheet {

struct SheetOf {
  std::string file;  ///< its name
  std::string date;  ///< as it is printed
  Paper paper = kA4;
};

/// What goes to the bench on paper: verdict, loom, the list of both ends of every wire with boxes to tick, where the terminals are,
/// settings and figures of this bench, the tightest margins, lines to sign. Black and white; pages in points.
std::vector<draw::Drawing> benchSheet(const harness::Harness& harness, const parts::Library& library, const Analysis& analysis,
                                      const SheetOf& of);

}  // namespace bold::sheet
