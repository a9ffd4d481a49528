#pragma once

#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <variant>
#include <vector>

#include "core/base/address.h"
#include "core/base/json.h"
#include "core/base/quantity.h"
#include "core/harness/record.h"
#include "core/harness/source_read.h"
#include "core/places/lie.h"

/// The document: what is on the bench, what is planned, what each motor shall do, by which pins, and what the program does. Plain values.
namespace bold::harness {

inline constexpr std::size_t kLongestText = 1000;  ///< bytes of what people call a thing or say of it; longer is not used
inline constexpr std::size_t kLongestPath = 4096;  ///< bytes of a file's path, an id or anything else that something hangs on

/// Something in an entry that could not be used as it stands.
struct Doubt {
  std::vector<std::string> field;  ///< where in the entry: {"state"}, {"signals", "2", "active"}; empty: the entry as such
  bool repeated = false;           ///< the key stands there more than once
  Problem problem;
  bool operator==(const Doubt&) const = default;
};

/// An entry as it stood in its file, to the byte. What nobody changes is written back as it was; what could not be used stays.
struct Source {
  std::string text;
  std::size_t index = 0;  ///< in its list
  std::vector<Doubt> doubts;
};
/// Raw (record.h) is null for what did not come from a file. It is shared because it is immutable.

enum class State { OnBench, Planned, ToBeRemoved };

/// A setting as it stands and as it is planned to be.
struct SettingValue {
  std::string value;
  std::string planned;  ///< empty: no change planned
  bool operator==(const SettingValue&) const = default;
};

struct Device {
  std::string id;
  std::string part;
  std::string name;   ///< what people call it; the id when empty
  std::string group;  ///< what was put there together; serves layout and lists only
  State state = State::OnBench;
  std::map<std::string, SettingValue> settings;
  std::map<std::string, std::string> overrides;  ///< figure -> "1.8 A"
  places::Lie lie;                               ///< as it lies on the table
  bool orderSeen = false;                        ///< its usual order was compared with the print
  Raw raw;

  const std::string& called() const { return name.empty() ? id : name; }
  bool operator==(const Device&) const = default;
};

enum class ConnectionKind { Wire, Plug, Jumper };

struct Connection {
  std::string id;
  ConnectionKind kind = ConnectionKind::Wire;
  Address a, b;              ///< of a plug either two terminals or two connectors
  bool mirrored = false;     ///< a plug put in the other way round
  std::string colour;        ///< IEC 60757 with optional stripe: BK, RD, GNYE
  std::optional<int> gauge;  ///< AWG
  std::optional<Metres> length;
  State state = State::OnBench;
  Raw raw;
  bool operator==(const Connection&) const = default;
};

/// Who says something: somebody who typed it, or a line of the user's program.
struct Origin {
  std::string file;  ///< of the program, relative to the document; empty: typed
  int line = 0;      ///< from 1; 0: of the file as such
  bool typed() const { return file.empty(); }
  bool operator==(const Origin&) const = default;
};

/// Which level switches on. Unsaid it follows from the stage's own truth table.
enum class Active { Unsaid, High, Low };

/// What a motor or load is switched by. Unsaid it follows from the wires.
enum class Switched { Unsaid, ByProgram, ByHand, AlwaysOn };
/// "" is unsaid.
inline const std::vector<std::string> kSwitchedWords{"", "program", "hand", "always on"};

/// What a motor shall do. Of one motor there may be several, from different origins; each says what it says and no more.
struct Goal {
  std::string id;
  std::string motor;  ///< device id
  std::optional<bool> bothDirections, speedControl;
  std::optional<bool> hold;      ///< stepper: keeps its position under current
  std::optional<bool> together;  ///< starts at the same moment as the others that say so
  std::optional<Hertz> rate;     ///< step pulses a second that are wanted
  std::string forwardLead;       ///< terminal id that is positive in forward
  Switched switched = Switched::Unsaid;
  std::string stage, channel;  ///< empty: the channel its leads reach, if exactly one
  Origin source;
  Raw raw;
  bool operator==(const Goal&) const = default;
};

/// By what a program may count its pins: what is printed, the position on the header, the chip's own number, the number that its libraries
/// use.
inline const std::vector<std::string> kNumberings{"label", "position", "chip", "program"};

/// The word for what a source was counted by (PinUse::numbering), as an assignment has it.
inline std::string numberingOfPlan(const std::string& ofSource) {
  return ofSource == "printed" ? "label" : ofSource;
}

/// Which pin plays a role for a motor.
struct Assignment {
  std::string id;
  std::string motor;
  std::string role;  ///< in1, in2, speed, in, step, dir, enable, standby, pulse, ...
  Address pin;
  std::string numbering;  ///< by what the program counts it, of kNumberings; empty: unsaid
  Active active = Active::Unsaid;
  Origin source;
  Raw raw;
  bool operator==(const Assignment&) const = default;
};

/// What the program does with a motor.
struct ProgramFacts {
  std::string id;
  std::string motor;
  std::optional<Hertz> pwm;
  std::optional<double> dutyCap;    ///< 0 .. 1
  std::optional<bool> ramp;         ///< starts and reverses gently, coasting between
  std::optional<int> stepsPerTurn;  ///< step pulses that it takes for one turn of the motor
  std::optional<Seconds> pulse;     ///< length of a step pulse
  std::string sequence;             ///< unipolar stepper: "full", "half" or "wave"
  Origin source;
  Raw raw;
  bool operator==(const ProgramFacts&) const = default;
};

/// A part as a document carries it, so that the file is whole on another machine.
struct PartCopy {
  std::string id;
  std::shared_ptr<const Json> json;
  Raw raw;
  bool operator==(const PartCopy&) const = default;
};

enum class Section { Devices, Connections, Goals, Assignments, Program, Sources, Marks, Rounds, Parts };

/// An entry of which nothing could be used. It stays in the file where it stood.
struct Unread {
  Section section = Section::Devices;
  Raw raw;
  Problem why;
  bool operator==(const Unread&) const = default;
};

struct Harness {
  std::string title;
  std::optional<Celsius> ambient;
  std::string names;  ///< the numbering that pins are shown in: "position"; empty: as printed
  std::vector<Device> devices;
  std::vector<Connection> connections;
  std::vector<Goal> goals;
  std::vector<Assignment> assignments;
  std::vector<ProgramFacts> program;
  std::vector<SourceRead> sources;  ///< one for each controller whose program was read
  std::vector<Mark> marks;
  std::vector<Round> rounds;
  std::vector<PartCopy> parts;  ///< as last saved
  std::vector<Unread> unread;   ///< each list in its order
  bool newerFormat = false;
  Raw raw;  ///< the whole file

  // In harness.cpp, so that copying all of this is compiled once.
  Harness();
  Harness(const Harness&);
  Harness(Harness&&) noexcept;
  Harness& operator=(const Harness&);
  Harness& operator=(Harness&&) noexcept;
  ~Harness();

  const Device* device(const std::string& id) const;
  const Connection* connection(const std::string& id) const;

  /// Of everything but marks and rounds, whose ids are their own; planned things included, and wires that are gone and still marked:
  /// another one is not to be taken for them.
  std::set<std::string> ids() const;
  /// An id made of the stem and the first free number: "w12".
  std::string freeId(const std::string& stem) const;
  /// Things planned, to be removed, or settings planned to change.
  int openChanges() const;
  /// What was read counts by identity: the same text read twice makes two harnesses.
  bool operator==(const Harness&) const = default;
};

/// What is judged of a document, and nothing else: not its title, not the text it was read from, no copies of parts.
Harness judgedPart(const Harness& harness);

/// The bench without anything that is only planned.
Harness asItStands(const Harness& harness);

/// The bench as it will be once everything planned is done.
Harness asPlanned(const Harness& harness);

inline constexpr int kFormat = 2;

}  // namespace bold::harness
