#pragma once

#include "core/program/source_text.h"

namespace bold::program {

/// What a source calls a number: the constant that it is the value of, else the list or thing that it belongs to with the name of its part
/// ("pump.en"). Empty: nothing that tells.
/// @param part what the value is called where it is used: a field or parameter
std::string nameOfNumber(const SourceText& source, std::uint32_t at, const std::string& part);

/// "pin", "p", "i": names that say nothing of what a pin is for.
bool tellsNothing(const std::string& name);

}  // namespace bold::program
