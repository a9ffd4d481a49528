#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/parts/part.h"

namespace bold::parts {

/// What one output does for one row of inputs.
enum class Drive { Open, Low, High, Short };

struct TruthRow {
  std::map<std::string, Level> inputs;  ///< by terminal id
  std::vector<Drive> outputs;           ///< as Channel::out; for choppers High / Low stand for "regulating"
};

/// Every row of a channel, from the conditions of its switches, supplies taken as present.
/// Rows are in counting order with the first input (by id) as the lowest digit.
std::vector<TruthRow> truthTable(const Part& part, const Channel& channel);

/// Whether an input has a say in what an output does.
bool decides(const std::vector<TruthRow>& rows, const std::string& input, std::size_t output);

/// What a two-ended load on outputs (first, second) does: the plain names of a bridge.
enum class BridgeAction { Coast, Forward, Reverse, Brake, Short };
BridgeAction bridgeAction(Drive first, Drive second);

/// The level of an input without which the outputs of a register or expander do not drive; nothing for other inputs.
std::optional<Level> enablingLevel(const Part& part, const std::string& input);

}  // namespace bold::parts
