#pragma once

#include "core/parts/part.h"

namespace bold::parts {

/// Looks up every name inside a part once: afterwards Node::at tells where each stands.
void resolve(Part& part);

}  // namespace bold::parts
