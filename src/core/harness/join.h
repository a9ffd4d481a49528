#pragma once

#include <string_view>

#include "core/harness/edit.h"
#include "core/parts/library.h"

/// Joining by hand: a wire between two terminals, a plug between two connectors.
namespace bold::harness {

/// Errors: the ends are one, or joined already (by which); a connector and a terminal; connectors of which neither goes into the other.
[[nodiscard]] Result<Edit> join(const Harness& harness, const parts::Library& library, const Address& a, const Address& b);

/// What is typed: "d9 s1.in1" makes a wire, "usb uno" and "usb.usb uno.usb" a plug, "s1 uno" every plug of a board that sits on another.
/// Errors: what was not understood, or what it could mean.
[[nodiscard]] Result<Edit> typedJoin(const Harness& harness, const parts::Library& library, std::string_view text);

}  // namespace bold::harness
