#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/harness/edit.h"
#include "core/parts/library.h"

/// Marks on connections, and what they are bound to.
namespace bold::harness {

/// Changes with all that somebody saw who looked at the connection: what kind it is, its colour, how it is plugged, and of both ends the
/// device, its part, the terminal with its print and place. Names that people gave, gauge and length do not count.
std::string wireDigest(const Harness& harness, const parts::Library& library, const Connection& connection);

/// The marks of one connection that hold as it is now, each kind at most once; nullptr: none of that kind. A mark holds while the
/// connection looks as it did; one that says wrong until somebody marks it otherwise or it goes where it was found, whatever else is
/// changed of it.
struct Marks {
  const Mark *fitted = nullptr, *tugged = nullptr, *seen = nullptr, *wrong = nullptr;
  /// Fitted, tugged at and seen, and nothing else found.
  bool complete() const { return fitted && tugged && seen && !wrong; }
};
/// Valid while the document stands.
Marks marksOf(const Harness& harness, const parts::Library& library, const Connection& connection);
/// The same of all connections, in their order.
std::vector<Marks> allMarks(const Harness& harness, const parts::Library& library);

/// Who looks, and when ("2026-11-30T10:12").
struct Witness {
  std::string by, at;
};
/// What somebody found in the place of a connection.
struct Found {
  std::optional<std::array<Address, 2>> ends;
  std::string words;
};

/// Marks a connection, in the place of an older mark of that kind; one that is marked so already loses the mark. Fitted makes a planned
/// connection one of the bench, and takes away one that was to be removed. A connection that is fitted, tugged at or seen is not wrong any
/// more. No change: there is no such connection.
Edit mark(const Harness& harness, const parts::Library& library, const std::string& connection, Marked what, const Witness& witness,
          const Found& found = {});
/// Whether an edit changes nothing but what people saw: nothing of it is drawn, wired or judged otherwise, but that a wire was found
/// elsewhere.
bool onlyMarks(const Edit& edit);
/// Takes all marks off these connections.
Edit takeMarksOff(const Harness& harness, const std::vector<std::string>& connections);

/// What was found in the place of a wire, as it was typed: where one end is instead, on the same device ("d8"), or both ends
/// ("s1.in1 uno.d8"). What is no terminal is kept as words.
/// Errors: of one end alone nobody can tell which it is.
[[nodiscard]] Result<Found> parseFound(const Harness& harness, const parts::Library& library, const Connection& connection,
                                       const std::string& typed);

/// The list is wrong and the bench is right: the wire as it was found, seen so.
Edit takeAsFound(const Harness& harness, const parts::Library& library, const std::string& connection, const Witness& witness);

/// The document with every wire where it was found: what stands on the bench, as far as anybody told.
Harness asFound(const Harness& harness, const parts::Library& library);

}  // namespace bold::harness
