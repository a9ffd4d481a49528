#pragma once

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/checks/margin.h"

/// What stages are compared by, the same for every candidate.
namespace bold::choose {

struct MarginRow {
  std::string_view id;                   ///< "stall"
  std::string_view label;                ///< "Stalled": over a column of bars
  std::string_view means;                ///< a sentence for who asks
  std::vector<std::string_view> checks;  ///< whose margins count
};
std::span<const MarginRow> marginRows();

/// The tightest of each row, by its id, of those that are about one of these things (device ids; their terminals count). A row without
/// a known margin has none.
std::map<std::string, checks::Margin> inRows(const checks::Margins& margins, const std::vector<std::string>& about);

}  // namespace bold::choose
