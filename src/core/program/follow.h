#pragma once

#include <functional>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/program/public_calls.h"
#include "core/program/value.h"

/// A program is followed, never run: constants, branches and loops as far as they can be known, within bounds.
namespace bold::program {

/// A pin as a program names it.
struct PinWord {
  std::string word;       ///< "9", "PB1", "A0"; empty: not known
  std::string numbering;  ///< "program", "chip", "position"; a word that is no number is looked up by name first
  std::string why;        ///< of one that is not known
  std::string name;       ///< what the source calls it: "PADDLE_EN"
  Place digits;           ///< where the number stands; file -1: it was worked out
  std::string role;       ///< in1, step, speed … where the call says so
  bool choice = false;    ///< one of several, nobody knows which
};

/// Something that a program does with pins.
struct Event {
  std::string does;                  ///< as in kDoings
  const PublicCall* call = nullptr;  ///< none: through a register
  std::string called;                ///< as the source calls it, for sentences
  std::vector<PinWord> pins;
  std::map<std::string, Value> facts;  ///< by role
  Place place;
  bool certain = true;   ///< not behind a condition that is not known
  bool reached = true;   ///< from where the program begins
  std::string within{};  ///< the function that it stands in, by its name
  int object = 0;        ///< of whose class this is a call; 0: none
  int count = 1;
};

/// In order: a pin gets a level, or time passes.
struct Moment {
  static constexpr int kBegun = -2;
  std::string pin;    ///< PinWord::word; empty: time passes
  double level = -1;  ///< 0, 1, a share between; -1: not known
  double seconds = 0;
  int event = -1;    ///< kBegun: nothing passes, and what the program does once to begin is done
  bool cut = false;  ///< what comes next does not follow what came before: branches that exclude each other
};

/// A call of something that nobody describes, and that may drive pins.
struct UnknownCall {
  std::string name;
  Place place;
  std::vector<PinWord> pins;  ///< those that it is handed, directly or in what it is handed; none: it may drive whatever it likes
};

struct Followed {
  std::vector<Event> events;
  std::vector<Moment> moments;
  std::vector<UnknownCall> unknown;
  std::vector<Unread> unread;
  std::map<std::string, Value> levels;                ///< of pins once it is over: by PinWord::word
  std::map<std::string, std::vector<PinWord>> names;  ///< that stand outside of functions: which pins each may mean
  std::map<std::string, Place> functions;             ///< by their names: where their statements stand
  Place counted{};                                    ///< where the program chooses how pins are counted; file -1: nowhere
  bool ends = false;                                  ///< it comes to an end, or is stopped by hand
  bool tooMuch = false;                               ///< not everything was followed
};

/// One source, or one that others include, with what it says.
struct Unit {
  int file = -1;
  bool python = false;
  Code code;
};

struct Sources {
  std::vector<SourceText> files;
  std::vector<Unit> units;        ///< in the order in which they are read
  std::set<std::string> headers;  ///< and modules that they take from elsewhere
  int intBits = 32;               ///< of int, as the controller's compiler has it
};

/// @param imports the unit that a module names, seen from a file; -1: none of the program's
/// @param cancelled asked at every step; where it says yes the rest is not followed
Followed follow(const Sources& sources, const PublicCalls& calls, const std::map<std::pair<int, std::string>, int>& imports,
                const std::function<bool()>& cancelled = {});

}  // namespace bold::program
