#pragma once

#include <optional>
#include <string>

#include "support/benches.h"

namespace bold::test {

/// The findings of one check on a bench in short notation, for tests that say how grave and with what numbers.
struct Judged {
  std::vector<checks::Finding> findings;

  Judged(std::string_view check, std::string_view notation) : findings(findingsOf(analyseFast(wiredBench(notation)), check)) {}

  bool quiet() const { return findings.empty(); }
  /// Severity of the only finding; nothing when there is none or several.
  std::optional<checks::Severity> only() const { return findings.size() == 1 ? std::optional(findings.front().severity) : std::nullopt; }
  double arg(const std::string& name) const { return findings.at(0).args.at(name).value; }
  const std::string& text() const { return findings.at(0).text; }
};

inline constexpr auto kStop = checks::Severity::Stop;
inline constexpr auto kCaution = checks::Severity::Caution;
inline constexpr auto kNote = checks::Severity::Note;

}  // namespace bold::test
