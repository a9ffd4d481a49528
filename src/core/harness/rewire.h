#pragma once

#include <string>
#include <vector>

#include "core/harness/edit.h"
#include "core/parts/library.h"

/// Connections that stay, between other ends or in other colours.
namespace bold::harness {

/// One end of a connection goes to another terminal.
/// Errors: both ends would be one; they are joined already; a plug does not go there.
[[nodiscard]] Result<Edit> moveEnd(const Harness& harness, const parts::Library& library, const std::string& connection, bool second,
                                   const Address& to);

/// Two wires exchange an end: those on the device that both end on, else on devices of one kind, else the second ones.
/// Errors: they are not two wires, or share that very end.
[[nodiscard]] Result<Edit> swapEnds(const Harness& harness, const parts::Library& library, const std::string& one,
                                    const std::string& other);

/// Wires in their order get their ends on the device of `to` moved to these terminals; where they have none there, those on the device that
/// all of them share an end on, which may be another board. Errors: as many terminals as wires are needed; which wire has no such end; what
/// moveEnd says.
[[nodiscard]] Result<Edit> moveBundle(const Harness& harness, const parts::Library& library, const std::vector<std::string>& wires,
                                      const std::vector<Address>& to);

/// By use: black grounds, red supplies, motor leads as their leads are, signals of one device each another.
Edit colourByUse(const Harness& harness, const parts::Library& library, const std::vector<std::string>& wires);

}  // namespace bold::harness
