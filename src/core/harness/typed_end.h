#pragma once

#include <string_view>
#include <vector>

#include "core/harness/harness.h"
#include "core/parts/library.h"

/// Ends of wires in the words people use: ids, names, prints and aliases, upper or lower case.
namespace bold::harness {

/// One end: "s1.in1", "S1 IN1", "wave paddle p"; a bare word is looked for on the controllers. A terminal that something hangs on
/// already is found too; of equal labels (three grounds) it is the first that nothing hangs on, else the first.
/// Errors: what was not understood, or what it could mean.
[[nodiscard]] Result<Address> parseTypedEnd(const Harness& harness, const parts::Library& library, std::string_view text);

/// "d9 s1.in1", "Uno D9 Wave paddle P": two terminals.
struct TypedWire {
  Address a, b;
};
/// Errors: which end was not understood, or what it could mean; both ends the same.
[[nodiscard]] Result<TypedWire> parseTypedWire(const Harness& harness, const parts::Library& library, std::string_view text);

/// Devices that a word means: by id or name, else by what their part is called in words ("usb").
std::vector<const Device*> devicesTyped(const Harness& harness, const parts::Library& library, std::string_view text);

/// Words of a line, in lower case.
std::vector<std::string> typedWords(std::string_view text);

}  // namespace bold::harness
