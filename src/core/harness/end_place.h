#pragma once

#include <string>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::harness {

/// Where a finger finds an end of a connection, as its part lies on the table (places/words.h). Empty of a connector, or of what is not
/// there.
std::string endPlace(const Harness& harness, const parts::Library& library, const Address& end);
/// The same with all that tells it from any other terminal of the part.
std::string fullEndPlace(const Harness& harness, const parts::Library& library, const Address& end);

}  // namespace bold::harness
