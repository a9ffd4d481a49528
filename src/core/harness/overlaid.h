#pragma once

#include "core/harness/harness.h"

namespace bold::harness {

/// Two benches in one picture: the second, with what it has and the first has not as planned, and what only the first has as to be removed.
/// A connection that goes elsewhere is there twice, once as each.
Harness overlaid(const Harness& from, const Harness& to);

}  // namespace bold::harness
