#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/harness/edit.h"
#include "core/parts/library.h"
#include "core/wiring/wire_list.h"

/// The wire list as CSV, for spreadsheets and back.
namespace bold::wiring {

/// With a heading, a line for each connection in document order: id, kind, from, to (addresses), colour, gauge, length, state, mirrored,
/// then for people what both ends are called, where they are, and what was marked.
std::string writeWireTable(const harness::Harness& harness, const parts::Library& library);

struct TableLine {
  int number = 0;    ///< in the text, from 1
  std::string text;  ///< as it stands
  std::string does;  ///< "new: Uno D9 – S1 IN1", "moves w3 …", "as it is"; empty: nothing of it can be used
  std::string why;   ///< why not
};
struct ReadTable {
  harness::Edit edit;            ///< all lines that can be used, at once; empty: nothing is changed
  std::vector<TableLine> lines;  ///< without the heading
  int changes = 0;               ///< lines that make, move or alter a connection
  int unusable = 0;
};

/// A wire list that somebody wrote. A first line without two terminals in it is a heading, whose words say what stands where ("from", "to",
/// "colour", "gauge", "length", "id", "kind", "state", "mirrored", also as people write them: "pin", "AWG"); without one the first two
/// columns are the ends, then colour, gauge, length. Ends are addresses, or what people type. A line with the id of a connection changes
/// that one; one with ends that are joined already, the connection between them. Wires that the table does not have stay.
ReadTable readWireTable(const harness::Harness& harness, const parts::Library& library, std::string_view csv);

}  // namespace bold::wiring
