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

/// The document: what is on the bench, what is planned, what each motor is meant to do. Plain values.
namespace bold::harness {

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
/// Null for what did not come from a file. Shared because it is immutable.
using Raw = std::shared_ptr<const Source>;

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
  std::string group;  ///< of a recipe; serves layout and lists only
  State state = State::OnBench;
  std::map<std::string, SettingValue> settings;
  std::map<std::string, std::string> overrides;  ///< figure -> "1.8 A"
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

/// One line of the program's view: this role is driven by that pin.
struct Signal {
  std::string role;  ///< in1, in2, speed, in, step, dir, enable, standby, pulse, ...
  Address pin;
  std::string numbering;  ///< the numbering system the program uses for it
  bool activeLow = false;
  std::optional<std::size_t> index;  ///< in the list it was read from
  bool operator==(const Signal&) const = default;
};

/// What a motor is meant to do.
struct Intent {
  std::string id;
  std::string motor;  ///< device id
  bool bothDirections = false;
  bool speedControl = false;
  bool hold = false;  ///< stepper: keeps its position under current
  std::optional<Hertz> pwm;
  std::optional<double> dutyCap;    ///< 0 .. 1
  bool ramp = false;                ///< starts and reverses gently, coasting between
  bool together = false;            ///< starts at the same moment as the others that say so
  std::optional<Hertz> rate;        ///< step pulses a second
  std::optional<int> stepsPerTurn;  ///< step pulses that the program takes for one turn of the motor
  std::optional<Seconds> pulse;     ///< length of a step pulse that the program makes
  std::string forwardLead;          ///< terminal id that is positive in forward
  std::string sequence;             ///< unipolar stepper: "wave" or "full"
  std::string stage, channel;       ///< empty: the channel its leads reach, if exactly one
  std::vector<Signal> signals;
  Raw raw;
  bool operator==(const Intent&) const = default;
};

/// A part as a document carries it, so that the file is whole on another machine.
struct PartCopy {
  std::string id;
  std::shared_ptr<const Json> json;
  Raw raw;
  bool operator==(const PartCopy&) const = default;
};

enum class Section { Devices, Connections, Intents, Parts };

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
  std::vector<Device> devices;
  std::vector<Connection> connections;
  std::vector<Intent> intents;
  std::vector<PartCopy> parts;  ///< as last saved
  std::vector<Unread> unread;   ///< each list in its order
  bool newerFormat = false;
  Raw raw;  ///< the whole file

  const Device* device(const std::string& id) const;
  const Connection* connection(const std::string& id) const;
  const Intent* intent(const std::string& id) const;
  const Intent* intentOf(const std::string& motor) const;

  /// Of everything, planned things included.
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

inline constexpr int kFormat = 1;

}  // namespace bold::harness
