#pragma once

#include <array>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/address.h"

/// What people saw on the bench with their own eyes: nothing of it is judged, and all of it is bound to what was there when they looked.
namespace bold::harness {

struct Source;
using Raw = std::shared_ptr<const Source>;

enum class Marked { Fitted, Tugged, Seen, Wrong };
/// "fitted", "tugged", "seen", "wrong"
std::string_view word(Marked what);

/// Somebody's word on one connection: made, held when it was pulled at, seen at both its ends, or found otherwise.
struct Mark {
  std::string id;
  std::string wire;  ///< connection id
  Marked what = Marked::Fitted;
  std::string digest;                           ///< of the connection as it was then (wireDigest)
  std::string by;                               ///< initials
  std::string at;                               ///< local time, "2026-11-30T10:12"
  std::optional<std::array<Address, 2>> found;  ///< of a wrong one: where its ends are, as far as that was told by terminals
  std::string remark;                           ///< of a wrong one: what was found, in words
  Raw raw;
  bool operator==(const Mark&) const = default;
};

/// What a reader said of one connection of which one end had been named.
struct Answer {
  std::string wire;
  bool fromB = false;            ///< the end that was named was its second one
  std::string digest;            ///< of the connection when it was asked
  std::string said;              ///< as it was typed
  std::optional<Address> means;  ///< the terminal it was understood as; none: the reader found none
  std::string at;
  bool operator==(const Answer&) const = default;
};

/// One person reading the wiring back.
struct Round {
  std::string id;
  std::string reader;  ///< initials
  std::string at;      ///< when it began
  int shuffle = 0;     ///< what the order follows from
  std::vector<Answer> answers;
  std::map<std::string, int> counts;  ///< device id -> wires that the reader counted there
  Raw raw;
  bool operator==(const Round&) const = default;
};

}  // namespace bold::harness
