#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/bench/command.h"

namespace bold::bench {

/// What a motor does at an operating point.
enum class Doing { Nothing, Forward, Reverse, Brake, Coast, On, Off, Energised, Undecided };  // On, Off: of a load that turns nothing

/// "runs forward", "coasts", "is energised"…
std::string_view word(Doing doing);

/// Voltages and currents of the bench for one command at one supply state. Checks read nothing else, so how it is
/// solved can change without a check changing.
class OperatingPoint {
 public:
  virtual ~OperatingPoint() = default;

  virtual const Command& command() const = 0;
  virtual Corner corner() const = 0;

  /// Empty when solved; else why not. Nothing below may be used then.
  virtual const std::string& whyNot() const = 0;
  bool solved() const { return whyNot().empty(); }
  /// A stage draws its own supply below what it works at: it goes off and on. Solved as if it stayed on.
  virtual bool hunts() const = 0;
  /// Not solved because its logic does not come to rest: something switches itself off and on again.
  virtual bool restless() const = 0;

  /// Voltage of a against b; nothing when no current path joins them or either is not wired to anything.
  virtual std::optional<Volts> across(TerminalIndex a, TerminalIndex b) const = 0;
  /// Current through a connection's pole, from its a to its b.
  virtual Amps link(int link) const = 0;
  /// Main current of an element: winding a to b, source out of its positive pole, diode forward, transistor collector
  /// to emitter, switch a to b, pin group: see pin(). Zero for one that does not exist here.
  virtual Amps element(int device, int element) const = 0;
  /// Base current of a bipolar (positive into an NPN's base).
  virtual Amps base(int device, int element) const = 0;
  /// Current out of a controller pin (positive: sourcing).
  virtual Amps pin(TerminalIndex t) const = 0;
  /// Coil current of a chopper's coil.
  virtual Amps coil(int device, int element, int coil) const = 0;
  /// What an element turns into heat; a coil's or winding's part of it included.
  virtual Watts power(int device, int element) const = 0;
  /// What a stage's input reads; Undefined when it floats.
  virtual parts::Level level(TerminalIndex t) const = 0;
  /// Whether a switch or chopper of a stage is on; nothing when an input it needs is undefined.
  virtual std::optional<bool> on(int device, int element) const = 0;
  /// Driving-point resistance between two terminals; nothing when no path joins them.
  virtual std::optional<Ohms> resistance(TerminalIndex a, TerminalIndex b) const = 0;
  virtual Doing doing(int motor) const = 0;
  /// Signed share of a just-opened winding's current that found no path but an arc (0 .. 1).
  virtual double arcShare(int motor) const = 0;
};

/// Solves one command, which the point refers to from then on. `currents` gives the running current of each winding of the opened motor
/// (JustOpened).
/// @param start the point to begin from, or nullptr; only saves time
std::unique_ptr<OperatingPoint> solve(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors, const Command& command,
                                      Corner corner, const OperatingPoint* running, const OperatingPoint* start);

}  // namespace bold::bench
