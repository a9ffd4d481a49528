#pragma once

#include <string>

#include "core/harness/harness.h"
#include "core/parts/library.h"

/// What has to be there before a bench can be wired, as CSV.
namespace bold::report {

/// Wires to cut: how many of each colour, gauge and length, longest first, and how much wire that is. What has no length yet is counted
/// without.
std::string cutList(const harness::Harness& harness);

/// Parts to buy: how many of each, what it is, and what it is called on the bench. What is to be removed is left out.
std::string partsList(const harness::Harness& harness, const parts::Library& library);

}  // namespace bold::report
