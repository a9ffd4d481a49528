#pragma once

#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/figure.h"
#include "core/parts/element.h"
#include "core/parts/layout.h"
#include "core/parts/requirement.h"

namespace bold::parts {

/// The word for a value of one of the enums below, of its list of words.
template <std::size_t N, class Enum>
constexpr std::string_view wordFor(const std::array<std::string_view, N>& words, Enum value) {
  return words[static_cast<std::size_t>(value)];
}

/// What a stage's input takes for high and low, against its own ground.
struct LevelSet {
  double lowShare = 0, highShare = 0;  ///< shares of `rail`; 0 when absolute volts are given
  Node rail;                           ///< terminal the shares are of
  Figure low, high;                    ///< V: VIL(max), VIH(min)
};

enum class Side { Left, Right, Top, Bottom };

struct Place {
  std::string connector;  ///< "digital, right"; one strip in the picture; plugs join whole connectors
  int position = 0;       ///< counted from 1 within the connector; 0: order not known
  std::string contact;    ///< screw, pin, hole, pad, lead, socket
};

struct InputFacts {
  std::string levels;  ///< a level set of the part
  Node ground;         ///< terminal it is measured against
  Figure absolute;     ///< V
};

/// What a terminal may be brought to that no stage reads: a reference, a reset, an enable, a supply for a clock; and an input that is
/// limited by its part's own supply.
struct LimitFacts {
  Node ground;       ///< terminal it is measured against
  Figure absolute;   ///< V
  Node of;           ///< supply that it is limited by as well; empty: none
  Figure above;      ///< V that it may stand above that supply
  Figure below;      ///< V that it may stand below its ground; unknown: half a volt, its protection diode
  std::string low;   ///< what the board does while it is held low: "is held in reset"; empty: nothing of note
  std::string high;  ///< the same of high
};

/// What a supply terminal is for. Board: a raw input behind a regulator.
enum class SupplyFor { Motor, Logic, Board };
inline constexpr std::array<std::string_view, 3> kSupplyWords{"motor", "logic", "board"};  ///< in part files, by value

struct SupplyFacts {
  SupplyFor purpose = SupplyFor::Motor;
  Node back;                                            ///< the terminal of its return
  Figure recommended;                                   ///< V, min .. max
  Figure absolute;                                      ///< V
  Figure bulk;                                          ///< F that the stage asks for close to it; unknown: it asks for none
  bool ceramicOnly = false;                             ///< only ceramic capacitors on the board: rings when plugged in live
  bool afterLogic = false;                              ///< must not come before the logic supply
  Figure feeds;                                         ///< A that may be drawn out of it where it is an output
  std::vector<std::pair<std::string, Figure>> feedsBy;  ///< the same by the element of the part that feeds it at the time
};

/// What a pin does from the reset until a program asks for something: Toggles chatters, Low is driven so.
enum class Boot { Float, WeakUp, WeakDown, Toggles, Low };
inline constexpr std::array<std::string_view, 5> kBootWords{"float", "weak-up", "weak-down", "toggles",
                                                            "low"};  ///< in part files, by value

/// What a controller pin can do.
struct PinFacts {
  std::string code;  ///< the number or name a program uses
  std::string chip;  ///< the chip's own name
  bool output = true;
  bool digital = true;   ///< reads high and low; false: only a voltage
  std::string pwm;       ///< PWM unit; empty: none in hardware
  std::string channel;   ///< of that unit, where several pins share one; empty: its own
  bool softPwm = false;  ///< usual libraries make PWM in software
  std::string reserved;  ///< why it must be left alone; empty: free
  Boot boot = Boot::Float;
  std::string strap;   ///< what a load on it does to the start: "high: no start"; empty: nothing
  std::string bus;     ///< "sda" or "scl" where its I2C stands; a board that says it of no pin has it at any
  std::string pulls;   ///< which a program can switch on, where it differs from its group's
  std::string serial;  ///< console or programming line it is part of; empty: none
};

struct Terminal {
  std::string id;
  std::string label;
  std::vector<std::string> aliases, formerly;
  Place place;
  Side side = Side::Left;
  std::string colour;  ///< of a lead, IEC 60757
  std::optional<InputFacts> input;
  std::optional<LimitFacts> limit;
  std::optional<SupplyFacts> supply;
  std::optional<PinFacts> pin;
  bool ground = false;
  bool output = false;    ///< of a stage
  bool optional = false;  ///< may stay open without a word
  std::string bus;        ///< what a controller has to drive here: "sda" and "scl" of an I2C bus, "data", "clock" and "latch" of a register
  bool phase = false;     ///< one of the three leads of a brushless motor or its controller
  bool openDrain = false;  ///< an output that only pulls low
  bool edges = false;      ///< a program must not miss a change of it: its pin should have an interrupt
};

struct Setting {
  std::string id, label;
  std::vector<std::string> values;  ///< empty: a quantity of `unit`
  Unit unit = Unit::One;
  std::string standard;  ///< what it is when the document says nothing; empty: unknown
  bool byHand = false;   ///< a link, jumper or step switch: how it stands is asked where another position destroys something
};

enum class Protection { None, Thermal, OverCurrent, CurrentLimit };
inline constexpr std::array<std::string_view, 4> kProtectionWords{"none", "thermal", "over-current",
                                                                  "current-limit"};  ///< in part files, by value

/// A current that a channel stands for a while. Without a duty it is a single event: it may cool down before the next.
struct PeakRow {
  Figure current;  ///< A
  Figure time;     ///< s; unknown: not stated
  Figure duty;     ///< share of the time, of one that is repeated; unknown: a single event
};

/// What drives one motor: outputs that belong together, the inputs that steer them, and their ratings.
struct Channel {
  std::string id;
  std::vector<std::string> out;
  std::map<std::string, std::string> signals;  ///< role -> input terminal
  Figure continuous;                           ///< A, as the part stands (no heat sink added)
  Figure continuousSink;                       ///< A, with the setting heatSink = fitted
  Figure peak;                                 ///< A, repeated
  std::vector<PeakRow> peaks;                  ///< further rows, where they are known
  Figure trip;                                 ///< A at which over-current protection lets go
  Protection protection = Protection::None;
  std::string returnTerminal;         ///< where its current goes back
  bool lowSide = false;               ///< switches its load to the return only
  Figure pwmMost;                     ///< Hz
  std::vector<std::string> parallel;  ///< channels that may be joined with it, inputs with inputs
  bool clampsInside = true;           ///< bridges: whether clamp diodes are in the part
  std::string clampsDoubtful;         ///< what makers say differently about them; empty: nothing
};

/// Where the heat of some elements goes.
struct Package {
  std::string id;
  Figure thermal;      ///< K/W junction to still air, as the part stands
  Figure thermalSink;  ///< K/W with the setting heatSink = fitted
  Figure hottest;      ///< degC of the junction
  Figure settles;      ///< s, thermal time constant as the part stands
};

/// How the inputs of a step/dir stage choose the microsteps: input levels in the order of `inputs`, steps a full step.
struct MicrostepTable {
  std::vector<std::string> inputs;
  std::vector<std::pair<std::string, int>> rows;  ///< "010" -> 4
};

/// A figure of the part by name, so that a bench can replace it.
struct NamedFigure {
  std::string id, label;
  Figure figure;                         ///< what counts
  Figure stated;                         ///< what the part file says, before anything follows or is replaced
  std::string derivedFrom, derivedOver;  ///< id = derivedFrom / derivedOver
};

struct Part {
  std::string id, name, kind, summary;
  std::string source;
  std::vector<std::string> words;
  std::vector<Terminal> terminals;
  std::map<std::string, LevelSet> levels;
  int innerNodes = 0;  ///< how many distinct inner nodes its elements have
  std::vector<Setting> settings;
  std::vector<Element> elements;
  std::vector<Channel> channels;
  std::vector<Package> packages;
  MicrostepTable microsteps;
  std::vector<NamedFigure> figures;
  std::vector<std::pair<std::string, std::string>> fitted;  ///< jumpers that come with it
  std::vector<std::string> pitfalls;
  std::vector<Requirement> requirements;  ///< what has to be fitted besides
  std::string hold;                       ///< how to hold it: "USB up, component side"
  bool layoutKnown = false;               ///< its order is certain; false: `layout`, if any, is only the usual one
  Layout layout;
  bool own = false;           ///< from the user's folder or the document, not shipped
  bool fromDocument = false;  ///< known from the document alone, or as it has it

  // In part.cpp, so that copying all of this is compiled once.
  Part();
  Part(const Part&);
  Part(Part&&) noexcept;
  Part& operator=(const Part&);
  Part& operator=(Part&&) noexcept;
  ~Part();

  int indexOf(const std::string& terminal) const;  ///< -1 when there is none; knows former ids
  const Terminal* find(const std::string& terminal) const;
  const NamedFigure* figure(const std::string& which) const;
  const Channel* channel(const std::string& which) const;
  const Setting* setting(const std::string& which) const;
  const Package* package(const std::string& which) const;
};

}  // namespace bold::parts
