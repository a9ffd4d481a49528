#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/harness/marks.h"
#include "core/parts/library.h"

/// A second person says where each wire goes without having been shown it; what they say is held against the list.
namespace bold::wiring {

/// A wire of which one end is named.
struct Question {
  std::string wire;
  bool fromB = false;  ///< the end that is named is its second one
  int alike = 1;       ///< wires of that colour at the named end, which only their other ends tell apart
};

/// Every wire on the bench once, in an order that follows from the number alone; of both ends the one with fewer wires is named.
std::vector<Question> questions(const harness::Harness& harness, int shuffle);
/// The first one that the round has no answer to which still holds; nothing when it is done.
std::optional<Question> nextQuestion(const harness::Harness& harness, const parts::Library& library, const harness::Round& round);
/// Questions without such an answer.
int questionsLeft(const harness::Harness& harness, const parts::Library& library, const harness::Round& round);

/// What a reader says, understood in any numbering; "none", "nothing", "loose", "-" mean that there is no other end.
/// Errors: it is no terminal, or may be several. The sentence holds nothing but what was typed and what that may mean.
[[nodiscard]] Result<harness::Answer> answered(const harness::Harness& harness, const parts::Library& library, const Question& question,
                                               const std::string& said, const std::string& at);

/// Devices at which wires are to be counted, in document order: all that a wire could end on.
std::vector<std::string> countedDevices(const harness::Harness& harness, const parts::Library& library);

struct Disagreement {
  std::string wire;
  Address named, meant;         ///< the end that was told, and the other one by the list
  std::optional<Address> said;  ///< nothing: the reader found no other end
  std::string slip;             ///< how one is taken for the other: "one position off"; empty: nothing that is common
};
struct CountDifference {
  std::string device;
  int listed = 0, counted = 0;
};
struct RoundResult {
  int asked = 0, agreed = 0, left = 0;  ///< asked: answers that still hold
  std::vector<Disagreement> disagreements;
  std::vector<CountDifference> counts;
  int uncounted = 0;  ///< devices
  bool whole() const { return left == 0 && uncounted == 0; }
};
RoundResult result(const harness::Harness& harness, const parts::Library& library, const harness::Round& round);

/// Whether answers may be added: not to a round of which something in its file could not be read, and would be written over.
bool mayGoOn(const harness::Round& round);

/// Who read each wire as it is in the list, by wire: initials, or "somebody". Answers to what is not there any more do not count.
std::map<std::string, std::vector<std::string>> readRight(const harness::Harness& harness, const parts::Library& library);

/// "S1 IN1 – Uno D9: read as Uno D8, one position off"
std::string sentence(const harness::Harness& harness, const parts::Library& library, const Disagreement& disagreement);

/// The bench as the reader read it: to be judged like any other.
harness::Harness asRead(const harness::Harness& harness, const RoundResult& result);

}  // namespace bold::wiring
