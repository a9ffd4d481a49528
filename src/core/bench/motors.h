#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/bench/bench.h"
#include "core/bench/nets.h"

namespace bold::bench {

/// TwoLead: a brushed motor, or a load that turns nothing.
enum class MotorKind { TwoLead, BipolarStepper, UnipolarStepper, Servo };

/// A stage channel on the bench.
struct ChannelRef {
  int device = -1;
  int channel = -1;
  bool operator==(const ChannelRef&) const = default;
};

/// One output of a bridge used as a switch: its motor hangs between it and a rail.
struct HalfBridge {
  std::size_t output;  ///< of the channel
  bool high;           ///< pulls its motor up: the other lead is on ground
};

/// A relay's contact that brings a lead of a motor to a pole.
struct PoleContact {
  int lead;             ///< 0: the winding's first, 1: its second
  bool plus;            ///< the pole
  TerminalIndex far;    ///< its end there
  TerminalIndex input;  ///< of the relay; of a bare one, of the stage that switches its coil
  parts::Level closes;  ///< of that input, that closes it
  bool atRest;          ///< it is closed while the relay has no supply
  int coil = -1;        ///< the motor that is the coil of a bare relay; -1: a module's
};

/// Within this much wire at a stage's supply and ground a capacitor takes up what is switched there.
inline constexpr Metres kNear{0.1};

/// A motor with what it is meant to do and what it is wired to.
struct Motor {
  int device = -1;
  MotorKind kind = MotorKind::TwoLead;
  bool still = false;                        ///< turns nothing, is only on or off: no stall, no voltage of its own, no way round
  std::vector<int> windings;                 ///< element indices
  const harness::Intent* intent = nullptr;   ///< into Bench::intents; none: nothing was said about it
  std::vector<ChannelRef> reached;           ///< channels that any of its leads is wired to
  ChannelRef meant;                          ///< the channel the intent names, else the one reached; device -1: none
  std::vector<ChannelRef> further;           ///< of a stepper on several channels: its second bridge, the switches of its other coils
  std::optional<HalfBridge> half;            ///< of the meant channel
  std::vector<PoleContact> poles;            ///< contacts of relays that turn it round; then no one channel is meant
  int coil = -1;                             ///< the motor that is the coil of the relay whose contact is meant; -1: none
  bool atRest = false;                       ///< that contact is closed while its coil carries nothing
  std::vector<std::pair<int, int>> buffers;  ///< capacitors on its stages or within kNear of them: device, element
  std::vector<TerminalIndex> tiedLow;        ///< inputs of those channels' parts that copper joins to ground
};

/// Every motor on the bench, told by its elements (windings, moving sinks), never by a name.
std::vector<Motor> motorsOf(const Bench& bench, const Nets& nets);

/// A channel that a motor is meant for, and which of its inputs each role of the intent names. A stepper on two bridges has
/// two: the second bridge's in1 and in2 are the intent's in3 and in4, its speed is speed2, its dir dir2. A unipolar one on single switches
/// has one a coil: in1, in2 and so on, in the order of the sequence.
struct MeantChannel {
  ChannelRef ref;
  std::map<std::string, std::string> inputs{};  ///< role -> input terminal
  int firstCoil = 0;                            ///< that its first output is meant for
};
std::vector<MeantChannel> meantChannels(const Bench& bench, const Motor& motor);
/// The roles that an intent has signals for, as the motor is wired: of its channels' inputs, else of its loose transistors.
std::vector<std::string> rolesOf(const Bench& bench, const Motor& motor);
/// The input that a role of the intent is meant for; -1 when the intent names no stage with such a role.
TerminalIndex inputOf(const Bench& bench, const Motor& motor, const std::string& role);

/// Motors that the intent moves by the very same signals on the same channels, itself included: what one does all do.
std::vector<int> together(const std::vector<Motor>& motors, int motor);

/// Coils of the bare relays that turn this motor round, each once.
std::vector<int> reversingCoils(const Motor& motor);
/// Whether anybody stated a pin for this motor: for itself, for its relays' coils or, of a coil, for a motor on its contacts.
bool stated(const std::vector<Motor>& motors, int motor);

const parts::Channel& channelOf(const Bench& bench, ChannelRef ref);
const parts::Winding& windingOf(const Bench& bench, const Motor& motor, std::size_t i);
/// "S1 channel A"; "Q1" for a part that has only one.
std::string called(const Bench& bench, ChannelRef ref);
/// The chopper of the channel's part; nullptr where it regulates no current.
const parts::Chopper* chopperOf(const Bench& bench, ChannelRef ref);

}  // namespace bold::bench
