#pragma once

#include <map>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/program/code.h"

/// The public programming interfaces that a program may call, as data (data/program, docs/program-calls.md): what a call takes, what it
/// does.
namespace bold::program {

/// One value that a call takes.
struct Taken {
  std::string keyword;  ///< its name where it may be given by name; else empty
  std::string role;     ///< "pin", "pin.in1", "level", "duty", "-" for what does not matter
  bool optional = false;
};

struct PublicCall {
  std::string name;  ///< "digitalWrite", "Servo.attach", "machine.Pin.value="
  std::vector<Taken> takes;
  std::string does;                                 ///< see kDoings; empty: nothing that matters
  std::string makes;                                ///< class of what it returns
  std::string unit;                                 ///< where the facts of the role "unit" are kept; empty: with the object
  std::string shares;                               ///< the same for the role "shares"
  std::map<std::string, std::string> fields;        ///< of the role "struct": field -> role
  std::map<std::string, std::string> modes, pulls;  ///< what a value of the role "mode" or "pull" means
  std::map<std::string, Code> facts;                ///< role -> formula over the other roles
  std::map<std::string, Code> defaults;             ///< the same where nobody says it
  std::map<std::string, std::string> said;          ///< role -> word
  std::optional<Code> returns;
  const struct Interface* of = nullptr;
};

/// A register, or one field of it, whose bits are pins.
struct Register {
  std::string pattern;  ///< "PORT{P}", "GPIO{P}->ODR": {P} stands for a letter
  std::string is;       ///< level, direction, input, set, clear, toggle, clear-set (upper half clears, lower sets)
  std::string pin;      ///< "P{P}{n}"
  int output = 1;       ///< of a direction: the bit that makes an output
  int bits = 8;
  bool reads = false;  ///< reading it reads the pin
};

/// A compare register whose value is a duty.
struct CompareRegister {
  std::string name;
  std::map<std::string, std::string> pins;  ///< controller part -> pin by its chip
  double scale = 0;                         ///< 0: not known
  std::string control;                      ///< register whose bits let it have its pin; empty: it always has
  std::uint64_t bits = 0;                   ///< of `control`: none of them set, and the pin is not its own
};

struct Interface {
  std::string id, title;
  std::vector<std::string> languages;  ///< "c", "c++", "python"
  std::string numbering;               ///< how a bare number names a pin: program, chip, position
  bool releases = false;               ///< gives all pins free when the program ends
  bool stays = false;                  ///< of microcontrollers: a loop without end is left only by switching off
  std::map<std::string, double> constants;
  std::map<std::string, std::string> named;  ///< name -> what is passed on instead of a number: "board", "bcm"
  std::map<std::string, std::string> macros;
  std::vector<std::string> headers;    ///< files and modules that it comes in
  std::vector<std::string> only;       ///< its calls count before those of others, where one of these is included, and else not at all
  std::vector<std::string> harmless;   ///< calls that touch no pin and call nothing; "*" at the end for all that begin so
  std::vector<std::string> callsBack;  ///< calls that touch no pin and may call the functions that they are handed
  std::map<std::string, std::string> numbers;  ///< pin number of its own -> by the chip
  std::vector<PublicCall> calls;
  std::vector<Register> registers;
  std::vector<CompareRegister> compares;
};

/// Which compilers define which macros, by controller part; and pins that a board gives a name in programs.
struct BoardWords {
  std::vector<std::string> defines;
  std::map<std::string, std::string> pins;  ///< "LED_BUILTIN" -> terminal
  std::vector<std::string> languages;       ///< what it is usually programmed in
  std::vector<std::string> inside;          ///< words for pins of its chip that lead to nothing outside: a light of the board's own
  int intBits = 32;                         ///< of int, as its compiler has it
};

/// Macros that only compilers for some chips define: on other boards they are not there.
struct ChipWords {
  std::string names;                ///< a name; one that ends with "*": all that begin so
  std::vector<std::string> unless;  ///< boards that define one of these may have it
};

class PublicCalls {
 public:
  PublicCalls() = default;
  PublicCalls(PublicCalls&&) = default;  // not copied: it points into itself
  PublicCalls& operator=(PublicCalls&&) = default;

  std::vector<Interface> interfaces;
  std::map<std::string, BoardWords> boards;
  std::vector<ChipWords> chips;

  /// By name, how many values stand in order, and which are named; nullptr: nobody describes it.
  /// @param headers what the program includes and imports: some interfaces count only there
  const PublicCall* find(const std::string& name, std::size_t given, const std::vector<std::string>& keywords,
                         const std::set<std::string>& headers = {}) const;
  bool isClass(const std::string& name) const;  ///< something is said of what it does
  bool knows(const std::string& name) const;
  const double* constant(const std::string& name) const;
  const std::string* named(const std::string& name) const;
  bool knowsHeader(const std::string& name) const;
  /// What a call that is not described may do: nothing to pins, nothing but call what it is handed, or anything.
  enum class Effect { None, CallsBack, Open };
  Effect effectOf(std::string_view name) const;
  /// Whether the compiler for a board defines a macro; nothing where that is not known.
  std::optional<bool> defines(const BoardWords* board, std::string_view name) const;
  /// Whether a program has to say which numbering it uses before it names a pin.
  static bool choosesNumbering(const Interface& interface);

 private:
  friend Result<PublicCalls> readPublicCalls(std::span<const std::pair<std::string, std::string>>);
  std::map<std::string, std::vector<const PublicCall*>, std::less<>> m_byName;
  std::map<std::string, int, std::less<>> m_classes;
  std::map<std::string, double, std::less<>> m_constants;  // of all interfaces; the first that names one counts
  std::map<std::string, std::string, std::less<>> m_named;
};

/// What a call may do with what it takes. Each is followed in follow_call.cpp.
extern const std::vector<std::string> kDoings;

/// Files and their texts. Errors: the first thing that cannot be used, with file and place.
Result<PublicCalls> readPublicCalls(std::span<const std::pair<std::string, std::string>> files);
/// Those that come with the program; never fails (a test holds that).
const PublicCalls& shippedCalls();

}  // namespace bold::program
