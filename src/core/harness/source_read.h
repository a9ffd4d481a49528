#pragma once

#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/base/quantity.h"

/// What the sources of a program were found to say of pins. Read by core/program, kept in the document: a bench is whole without them.
namespace bold::harness {

struct Source;
using Raw = std::shared_ptr<const Source>;

/// A place in a source: what somebody has to look at, or to change.
struct Spot {
  std::string file;  ///< relative to the document, "/" between folders
  int line = 0;      ///< from 1; 0: of the file as such
  int column = 0;    ///< from 1, in characters
  int length = 0;    ///< characters on that line
  bool operator==(const Spot&) const = default;
};

/// How a source stands on the disk now. Nobody has looked yet: what was read of it is taken on nobody's word.
/// Elsewhere: it lies outside the bench's own folder, and nobody asked for it: it was not opened.
enum class Standing { Unlooked, AsRead, Changed, Missing, Elsewhere };

/// One source as it was when it was read.
struct SourceFile {
  std::string file;
  std::string digest;                      ///< of its bytes
  Standing standing = Standing::Unlooked;  ///< not kept in the document
  bool operator==(const SourceFile&) const = default;
};

/// Everything that a program does with one pin.
struct PinUse {
  std::string word;                                  ///< as the source names it: "9", "PB1", "A0"
  std::string numbering;                             ///< "program", "chip", "position", "printed": how that word was taken
  std::string name;                                  ///< what the source calls it: "PADDLE_EN"; empty: nothing
  std::string terminal;                              ///< of the controller; empty: it has no such pin
  std::vector<std::pair<std::string, Spot>> also{};  ///< other names for the same pin, and where those stand
  Spot number;                                       ///< where the number stands, the word to change; line 0: it is worked out
  std::vector<Spot> places;                          ///< where it is used, each doing's first
  std::set<std::string> does;                        ///< of kPinDoings
  std::optional<double> duty;                        ///< greatest share of the time, 0 .. 1, as far as it is known
  std::optional<double> written, scale;              ///< the greatest duty as it was written, and what counts as all of the time
  std::optional<Hertz> frequency;                    ///< of its PWM
  std::optional<Seconds> pulse;                      ///< shortest time that it is held high between two waits
  std::optional<Hertz> rate;                         ///< most pulses a second
  std::string first;                                 ///< once it has begun: "high", "low"; empty: not known
  std::string off;       ///< what functions that are called off or stop write: "high", "low"; empty: there is none, or both
  std::string last;      ///< once the program is over: "high", "low", "pwm", "unsure" or "released"; empty: it never ends
  bool sure = true;      ///< false: only where something is not known
  bool onBoard = false;  ///< a pin of the chip that leads to nothing outside, as to the board's own light
  // In source_read.cpp, so that copying all of this is compiled once.
  PinUse();
  PinUse(const PinUse&);
  PinUse(PinUse&&) noexcept;
  PinUse& operator=(const PinUse&);
  PinUse& operator=(PinUse&&) noexcept;
  ~PinUse();
  bool operator==(const PinUse&) const = default;
};
/// "analog", "bus", "high", "input", "interrupt", "low", "output", "pull-down", "pull-up", "pulse", "pwm", "read", "serial", "servo",
/// "soft" (its PWM is made by software), "tone", "write"
extern const std::set<std::string> kPinDoings;

/// Pins that belong to one thing of the program.
struct PinGroup {
  std::string kind;  ///< "coils", "step", "bridge", "servo", "channel" (that several pins share), "together" (pins that are on at once)
  std::string name;  ///< what the source calls it
  std::vector<std::string> roles;   ///< in1, in2 … step, dir, enable, speed
  std::vector<std::string> words;   ///< PinUse::word of each role
  std::vector<std::string> states;  ///< of coils: one digit a pin, in order
  std::optional<int> turn;          ///< steps that the program takes for one turn
  std::optional<Hertz> rate;        ///< most steps a second
  Spot place;
  bool operator==(const PinGroup&) const = default;
};

/// Something that could not be told, and where; what it may do to pins is open.
struct Untold {
  /// Pins that it may drive: every one, those that the source names nowhere, or those of a list.
  enum class Reach { Every, Unnamed, Listed };
  std::string what;
  Spot place;
  Reach reach = Reach::Every;
  std::vector<std::string> pins{};  ///< terminals of the controller, for Listed
  bool operator==(const Untold&) const = default;
};

struct SourceRead {
  std::string id;
  std::string controller;  ///< device that it runs on
  std::vector<SourceFile> files;
  std::vector<PinUse> pins;
  std::vector<PinGroup> groups;
  std::vector<Untold> untold;
  int told = 0, asked = 0;      ///< places that name a pin: how many could be told, of how many
  std::optional<Spot> console;  ///< where the serial console is opened
  std::optional<Spot> counted;  ///< where the program chooses how pins are counted
  Raw raw;
  // In source_read.cpp, so that copying all of this is compiled once.
  SourceRead();
  SourceRead(const SourceRead&);
  SourceRead(SourceRead&&) noexcept;
  SourceRead& operator=(const SourceRead&);
  SourceRead& operator=(SourceRead&&) noexcept;
  ~SourceRead();
  bool operator==(const SourceRead&) const = default;
};

}  // namespace bold::harness
