#pragma once

#include "core/checks/analysis.h"

namespace bold {

/// What the checks find that ask how the bench would be judged if something stood otherwise (checks::Check::Supposing). Each such
/// question is a trial; on a large bench not all are asked, and the assumptions say so. On a bench that destroys something as it stands
/// none is.
checks::Findings suppose(Analysis& analysis, const harness::Harness& harness, const parts::Library& library, const Options& options);

}  // namespace bold
