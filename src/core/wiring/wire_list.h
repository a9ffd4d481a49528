#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/bench/solved_bench.h"
#include "core/harness/marks.h"
#include "core/parts/library.h"

/// Every connection with both its ends, what it is for, and how far it has been looked at: what somebody goes through with a probe in hand.
namespace bold::wiring {

enum class Carries { Supply, Ground, Motor, Signal };
std::string_view word(Carries carries);  ///< "supply", "ground", "motor", "signal"

struct ListedWire {
  std::string id;
  harness::ConnectionKind kind = harness::ConnectionKind::Wire;
  harness::State state = harness::State::OnBench;
  std::string colour;  ///< of a wire: its code, "RD"; else empty
  std::string gauge;   ///< "22"; empty: not given
  std::string size;    ///< "22 AWG, 0.3 m"; as far as it is given
  std::array<Address, 2> ends;
  std::array<std::string, 2> names;    ///< of the ends, as shownEnd says them
  std::array<std::string, 2> devices;  ///< that the ends are on, as they are shown
  Carries carries = Carries::Signal;
  std::vector<std::string> motors;  ///< device ids of those that it is for; several: shared
  bool fitted = false, tugged = false, seen = false, wrong = false;
  std::string otherwise;            ///< of a wrong one: what was found there, in words
  std::vector<std::string> readBy;  ///< who read it back as it is
  /// Made, pulled at, seen, and nothing else found: nothing is left to be done to it.
  bool complete() const { return fitted && tugged && seen && !wrong && state == harness::State::OnBench; }
  bool operator==(const ListedWire&) const = default;
};

/// In document order.
std::vector<ListedWire> wireList(const harness::Harness& harness, const parts::Library& library);

/// Marks as they are now, on a list of this bench whose connections are still the same.
void takeMarks(std::vector<ListedWire>& list, const harness::Harness& harness, const parts::Library& library);

/// How many are not complete.
int left(const std::vector<ListedWire>& list);
/// "fitted, tugged, read back by AB"; "wrong: uno D8"; "to make"; empty where nobody looked yet
std::string standing(const ListedWire& wire);

enum class By { Stage, Motor, Board };
struct WireGroup {
  std::string title;
  std::vector<int> wires;  ///< indices in the list, in its order
};
/// All wires of the list, each once, by the driver stage, the motor or the controller that they belong to; what belongs to none comes last.
std::vector<WireGroup> grouped(const std::vector<ListedWire>& list, const harness::Harness& harness, const parts::Library& library, By by);

/// Whether a wire is meant by words, all of which have to fit: "open" (not complete), "wrong", "unseen", "planned", "ground", "supply",
/// "signal", "motor" (its leads), "plug", a colour code, an id, or anything that stands in the names of its ends or of its motors
/// ("s1 in"). A motor's whole name or id, and "motor 2" for the second on the bench, mean all that is for that motor and nothing else;
/// further words may follow. Empty words mean every wire.
class WireFilter {
 public:
  WireFilter(std::string_view words, const harness::Harness& harness, const parts::Library& library);
  bool fits(const ListedWire& wire) const;

 private:
  std::vector<std::string> m_words;
  std::string m_motor;                                        ///< of which alone; empty: of any
  std::vector<std::pair<std::string, std::string>> m_motors;  // id, its name in lower case
};

/// What a meter shows at a connection, against the minus of its supply: "12 V"; "0 V to 5 V" where it depends on what is commanded. Empty
/// where that is not known.
/// @param end of a plug or a wire
std::string expectedVoltage(const bench::SolvedBench& solved, const Address& end);

/// The same for many ends, which takes their number times that of the commands: of a very large bench nothing is worked out.
class ExpectedVoltages {
 public:
  /// @param solved outlives it
  /// @param ends how many will be asked for
  ExpectedVoltages(const bench::SolvedBench& solved, std::size_t ends);
  bool tooMany() const { return m_tooMany; }  ///< all answers are empty
  std::string at(const Address& end) const;

  static constexpr std::size_t kMostReadings = 3'000'000;  ///< two seconds

 private:
  const bench::SolvedBench& m_solved;
  std::vector<const bench::OperatingPoint*> m_points;      // that a meter sees
  std::vector<std::vector<bench::TerminalIndex>> m_poles;  // by device: the negative poles that it may be held against
  bool m_tooMany = false;
};

}  // namespace bold::wiring
