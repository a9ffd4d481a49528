#pragma once

#include <string>
#include <vector>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::harness {

/// A connection as a row of a list, in the words of a person with a finger on the bench.
struct ConnectionRow {
  std::string id;
  ConnectionKind kind = ConnectionKind::Wire;
  std::string colour;    ///< of a wire: its code, "RD"; else empty
  std::string from, to;  ///< as shownEnd says them
  std::string gauge;     ///< "22"; empty: not given
  std::string size;      ///< "22 AWG, 0.3 m"; as far as it is given
  State state = State::OnBench;
  bool operator==(const ConnectionRow&) const = default;
};

/// All connections in document order.
std::vector<ConnectionRow> connectionTable(const Harness& harness, const parts::Library& library);

/// What is still to be done to a connection in this state: "made", "to make", "to take away".
std::string_view word(State state);

}  // namespace bold::harness
