#pragma once

#include "core/parts/part.h"

namespace bold {
class ObjectReader;
}

namespace bold::parts {

/// What one field alone cannot show: names that lead nowhere, ids used twice. Problems go to the reader's list.
void verifyPart(const Part& part, const ObjectReader& root);

/// Figures of a part that cannot both hold, as "has the channel ..."; empty: none.
std::string contradiction(const Part& part);

}  // namespace bold::parts
