#pragma once

#include <string>
#include <vector>

#include "core/harness/edit.h"
#include "core/parts/library.h"

namespace bold::harness {

struct Exchange {
  Edit edit;
  std::vector<std::string> moved;  ///< a line for each connection that ends on a terminal of another name: "S1 IN1 – Uno D9: now AIN1"
  std::vector<std::string> lost;   ///< connections that have no place on the new part, and are taken away
};

/// Another part under the same id and name, with its wires: each goes to the terminal of the same id, else of the same print or other name,
/// else to the one that does the same (the input of that role on that channel, the output in that order, the one supply of that purpose, a
/// free ground). Settings and replaced figures that the new part has too are kept. Errors: there is no such device or part.
[[nodiscard]] Result<Exchange> exchangePart(const Harness& harness, const parts::Library& library, const std::string& device,
                                            const std::string& part);

/// A second one of a device, with settings, figures and what it is meant to do; without wires, and so without pins. Its id is the next free
/// one of its kind ("m3" beside "m2"), its name counts on ("Pump 2"). Errors: there is no such device.
[[nodiscard]] Result<Edit> duplicate(const Harness& harness, const std::string& device);

}  // namespace bold::harness
