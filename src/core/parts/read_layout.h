#pragma once

#include "core/base/reader.h"
#include "core/parts/part.h"

namespace bold::parts {

/// Reads a part's "layout" once its terminals are known, and puts the terminals of every row in their order.
void readLayout(ObjectReader& part, Part& p);

}  // namespace bold::parts
