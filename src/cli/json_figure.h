#pragma once

#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/parts/part.h"

namespace bold::cli {

/// A figure of a part, for programs.
inline Json figure(const parts::NamedFigure& f) {
  const auto end = [](const std::optional<double>& v) { return v ? Json(*v) : Json(nullptr); };
  return {{"id", f.id},
          {"label", f.label},
          {"unit", unitSign(f.figure.unit)},
          {"min", end(f.figure.min)},
          {"typ", end(f.figure.typ)},
          {"max", end(f.figure.max)},
          {"source", f.figure.source}};
}

}  // namespace bold::cli
