#pragma once

#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/base/quantity.h"

namespace bold::report {

/// {"value": 1.5, "unit": "A"}
inline Json quantity(AnyQuantity q) {
  return Json{{"value", q.value}, {"unit", unitSign(q.unit)}};
}

}  // namespace bold::report
