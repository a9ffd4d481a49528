#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/quantity.h"
#include "core/harness/edit.h"

namespace bold::checks {

/// Declared in order of gravity.
enum class Severity {
  Stop,      ///< at the expected corner an absolute rating is passed or the function is impossible
  Caution,   ///< only the pessimistic corner fails, or a recommended limit is passed
  Note,      ///< worth knowing
  NotJudged  ///< nothing can be said until this is cleared up
};

/// What a stop would do, in order of gravity; each check declares its own.
enum class Harm { Danger, Damage, WillNotWork };

/// A number against its limit, for the bar that is drawn of it.
struct Bar {
  std::string label;                 ///< "stall current"
  AnyQuantity value;                 ///< the number that matters
  std::optional<AnyQuantity> inner;  ///< a smaller companion: running beside stall
  AnyQuantity limit;
  std::string limitName;  ///< "peak rating"
  bool floor = false;     ///< the limit is a least, not a most
};

/// A repair: what to do in words, and the edits that put it on the plan.
struct Repair {
  std::string text;  ///< "Add a black wire from S1 GND (screw) to Controller GND."
  harness::Edit edit;
};

/// Where something is stated: a device or connection, and what of it ("duty", "signal in1", "figure winding", "setting heatSink",
/// "gauge"). Nothing: no one place.
struct Field {
  std::string subject;
  std::string name;
  bool operator==(const Field&) const = default;
};

/// A way to mend that is a choice or work of a person, or a figure that is missing: one line with this bench's names and numbers, and the
/// field that it ends in. One that names a figure or places is tried before it is shown.
struct Way {
  std::string text;
  Field field{};
  std::string to{};                     ///< what that field is to hold ("2.2 kΩ"), where the way names it; empty: a person decides
  std::optional<harness::Edit> edit{};  ///< what it does to the bench, where it names both places or a part's figures
  bool unhides = false;                 ///< a limit that is raised hides what comes up then: that is said with it
  bool operator==(const Way& o) const { return text == o.text && field == o.field && to == o.to; }
};

struct Finding {
  std::string check;
  Severity severity = Severity::Note;
  Harm harm = Harm::WillNotWork;
  std::string headline;               ///< under 60 characters where names allow
  std::string text;                   ///< one or two sentences
  std::string formula;                ///< with this bench's numbers
  std::vector<std::string> subjects;  ///< device ids, terminal addresses, connection ids; the first is where the badge goes
  std::vector<std::string> sources;
  std::map<std::string, AnyQuantity> args;  ///< the numbers in the sentence, by name
  std::vector<harness::Spot> spots;         ///< of the program's source; the first is what to look at or change
  std::optional<Bar> bar;
  std::optional<Repair> repair;
  std::vector<Way> ways;  ///< the nearest first; where there is a repair, what may be done instead
  /// Where there is no one repair: an edit under which the fault would be gone, to find out what follows from it. Never offered.
  std::optional<harness::Edit> supposing;

  // Filled in by the engine.
  int number = 0;           ///< causes count from 1, what follows from one has its number; 0 for notes
  std::string explainedBy;  ///< identity of its cause; empty when it is a cause itself
  int mendedAfter = 0;      ///< this many planned changes mend it; 0: no

  // In finding.cpp, so that copying all of this is compiled once.
  Finding();
  Finding(const Finding&);
  Finding(Finding&&) noexcept;
  Finding& operator=(const Finding&);
  Finding& operator=(Finding&&) noexcept;
  ~Finding();
  /// Check id and sorted subjects: the same finding on the same bench.
  std::string identity() const;
};

using Findings = std::vector<Finding>;

std::string_view word(Severity severity);  ///< "stop", "caution", "note", "not judged"
std::string_view word(Harm harm);          ///< "danger", "damage", "will not work"

}  // namespace bold::checks
