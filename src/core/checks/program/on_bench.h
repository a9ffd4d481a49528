#pragma once

#include <memory>

#include "core/checks/queries.h"

/// A program held against the wires: what each pin is for by the copper, and what the program does with it.
namespace bold::checks {

/// A role of a motor, and the pin of a controller that the wires bring to it.
struct WiredRole {
  int motor;
  std::string role;
  TerminalIndex input, pin;
};

/// A pin that a program has something to do with.
struct UsedPin {
  const harness::SourceRead* source;
  const harness::PinUse* use;
  TerminalIndex pin;  ///< -1: the controller has no such pin
};

/// Whether a program writes a pin, or lets something else do so.
bool writes(const harness::PinUse& use);
/// Whether it gives the pin a level: an output that nobody writes stands low.
bool drives(const harness::PinUse& use);
/// Whether it looks at it.
bool reads(const harness::PinUse& use);

struct Mismatch;        // mismatch.h
struct OtherNumbering;  // likewise

/// All of one bench, worked out once for every check of the program. Values refer to the solved bench, and to each other.
class ProgramOnBench {
 public:
  explicit ProgramOnBench(const SolvedBench& s);
  ProgramOnBench(const ProgramOnBench&) = delete;
  ProgramOnBench& operator=(const ProgramOnBench&) = delete;

  const std::vector<WiredRole>& roles() const { return m_roles; }  ///< on controllers whose program was read, in bench order
  const std::vector<UsedPin>& used() const { return m_used; }      ///< in the order of the programs
  const UsedPin* at(TerminalIndex pin) const;                      ///< nullptr: no program has to do with it
  std::vector<const WiredRole*> rolesAt(TerminalIndex pin) const;
  std::vector<const WiredRole*> rolesOf(int motor) const;
  /// Whether the wires lead from a pin to anything at all.
  bool wired(TerminalIndex pin) const;
  /// A pin of a stage that has a level of its own while nobody drives it, and that is the one it needs.
  bool standsRight(const WiredRole& role) const;
  bool hasProgram(int device) const;
  /// What the program does there that could not be told, and that may drive a pin; nullptr: nothing, so that what was not found is not
  /// there.
  const harness::Untold* openAt(TerminalIndex pin) const;

  /// Programs whose numbers fit the wires once they are counted otherwise.
  const std::vector<OtherNumbering>& numberings() const { return *m_numberings; }
  /// Which pins of the programs and the wires have no partner.
  const Mismatch& mismatch() const { return *m_mismatch; }

  const SolvedBench& solved() const { return m_solved; }

 private:
  const SolvedBench& m_solved;
  std::vector<WiredRole> m_roles;
  std::vector<UsedPin> m_used;
  std::shared_ptr<const std::vector<OtherNumbering>> m_numberings;
  std::shared_ptr<const Mismatch> m_mismatch;
};

/// "lift.ino, line 3"
std::string where(const harness::Spot& spot);
/// What to look at of a use: where its number stands, then where it is used.
std::vector<harness::Spot> spotsOf(const harness::PinUse& use);
/// "9 (PADDLE_EN)", "A0"
std::string said(const harness::PinUse& use);
/// "Change 6 to 9 in lift.ino, line 3": the same use for another terminal, in the words of the source.
std::string changeTo(const SolvedBench& s, const UsedPin& used, TerminalIndex other);
/// The name of a terminal as this program would say it.
std::string inWordsOf(const SolvedBench& s, const harness::PinUse& use, TerminalIndex pin);
/// How well a name in a source fits a role: words of the motor's name count twice, those of the role and its input once.
int fits(const SolvedBench& s, const std::string& name, const WiredRole& role);
int fitsMotor(const SolvedBench& s, const std::string& name, int motor);
int fitsRole(const SolvedBench& s, const std::string& name, const WiredRole& role);

/// Whether somebody states that a role is at the pin where it is wired: then it is the source that is off, and no wire.
bool stated(const SolvedBench& s, const WiredRole& role);

/// A finding about a program. Of a use that is not certain it is a caution at most, and says so.
Finding programFinding(Severity severity, std::string headline, std::string text, std::vector<std::string> subjects,
                       const harness::PinUse& use);

}  // namespace bold::checks
