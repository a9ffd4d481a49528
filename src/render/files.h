#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/draw/shapes.h"

class QImage;

/// Drawings as the bytes of files. Same drawing, same bytes: nothing of them tells when or where they were made.
/// A QGuiApplication has to be there.
namespace bold::render {

/// One page a drawing, as large as it is; drawings in points.
/// @param cancelled asked before every page; where it says yes the rest is left out
std::string pdf(const std::vector<draw::Drawing>& pages, const std::string& title, const std::function<bool()>& cancelled = {});

/// @param by pixels for each of the drawing's
/// Errors: it would be larger than a picture can be.
[[nodiscard]] Result<std::string> png(const draw::Drawing& drawing, double by);

}  // namespace bold::render
