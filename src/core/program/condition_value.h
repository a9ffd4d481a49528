#pragma once

#include <functional>
#include <optional>
#include <string>

#include "core/program/words.h"

namespace bold::program {

/// The value of a condition of #if whose macros are expanded; nothing where it depends on what is not known, or is no condition.
/// @param name what a name that stands for nothing counts as
std::optional<long long> conditionValue(const Words& words, const std::function<std::optional<long long>(const std::string&)>& name);

/// A whole number as C writes it, suffixes left out: 0x1F, 0b101, 017, 1'000UL.
std::optional<long long> wholeNumber(std::string text);

}  // namespace bold::program
