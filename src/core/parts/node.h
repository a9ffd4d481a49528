#pragma once

#include <string>
#include <utility>

namespace bold::parts {

/// The name of a terminal of the same part, or of an inner node (begins with "~", no wire can reach it), and where it is:
/// names are looked up once, when the part is read, because the solver asks thousands of times.
struct Node : std::string {
  Node() = default;
  Node(const char* name) : std::string(name) {}             // NOLINT(google-explicit-constructor)
  Node(std::string name) : std::string(std::move(name)) {}  // NOLINT(google-explicit-constructor)

  static constexpr int kNowhere = -1;
  int at = kNowhere;  ///< a terminal's index in its part; inner nodes are counted down from -2; else kNowhere

  bool inner() const { return starts_with('~'); }
};

}  // namespace bold::parts
