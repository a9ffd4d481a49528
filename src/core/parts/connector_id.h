#pragma once

#include <string>

namespace bold::parts {

/// A connector's name as an address can hold it: "digital 7-0, right" is "digital-7-0-right".
std::string connectorId(const std::string& connector);

}  // namespace bold::parts
