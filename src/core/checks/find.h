#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/checks/finding.h"
#include "core/parts/library.h"

namespace bold::checks {

/// Something on a bench that a search found.
struct Found {
  enum class Kind { Device, Terminal, Wire, Finding } kind = Kind::Device;
  std::string subject;  ///< device id, terminal address, connection id, identity of a finding
  std::string text;     ///< as it is called
  std::string besides;  ///< part, what hangs there, check
  bool operator==(const Found&) const = default;
};

/// Devices, terminals, wires and findings in which every word stands, upper or lower case; those that begin with the text first. At most
/// `most`. Nothing for an empty text.
std::vector<Found> find(const harness::Harness& harness, const parts::Library& library, const Findings& findings, std::string_view text,
                        std::size_t most = 60);

}  // namespace bold::checks
