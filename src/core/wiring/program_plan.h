#pragma once

#include <string>
#include <vector>

#include "core/checks/analysis.h"
#include "core/harness/intent.h"

/// What a program tells of what its motors shall do: proposals, each to be confirmed by whoever wrote it.
namespace bold::wiring {

struct PlanProposal {
  std::string motor;       ///< device
  std::string text;        ///< "Wave paddle: speed from D9 (PADDLE_EN)"
  harness::Intent wanted;  ///< the motor's intent with this, and nothing else, changed
  harness::Spot spot;      ///< what says so
};

/// In bench order; only what is not stated yet.
std::vector<PlanProposal> planFromProgram(const harness::Harness& harness, const Analysis& analysis);

/// Those that were confirmed, as one edit.
harness::Edit planEdit(const harness::Harness& harness, const std::vector<PlanProposal>& confirmed);

}  // namespace bold::wiring
