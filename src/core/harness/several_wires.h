#pragma once

#include <string_view>
#include <vector>

#include "core/harness/edit.h"
#include "core/parts/library.h"

/// Many wires in one line.
namespace bold::harness {

/// "s1.in1-in4": the terminals from one to another of a device, in the order of their numbers where both have the same letters before them,
/// else in the order in which they lie; backwards where the second comes first ("d7-d4"). A single terminal is a run of one. Errors: which
/// end was not understood; there is no way from one to the other.
[[nodiscard]] Result<std::vector<Address>> parseTypedRun(const Harness& harness, const parts::Library& library, std::string_view text);

/// "d4-d7 s1.in1-in4", "d7-d4 s1.in1-in4": as many wires as there are terminals on either side; or what join.h makes of one line.
/// Errors: what was not understood; unequal numbers; one of them that cannot be made, and why. Then none is made.
[[nodiscard]] Result<Edit> typedWires(const Harness& harness, const parts::Library& library, std::string_view text);

}  // namespace bold::harness
