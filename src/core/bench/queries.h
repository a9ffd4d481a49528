#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/bench/solved_bench.h"

/// Questions that are asked of a solved bench by whoever judges it, draws it or tells of it. What to look for, never what to say.
namespace bold::bench {

/// Calls f(device, element index, body) for every element of type T that exists with the present settings.
template <class T, class F>
void eachElement(const Bench& bench, F f) {
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    const auto& elements = bench.devices[d].part->elements;
    for (std::size_t e = 0; e < elements.size(); ++e)
      if (const auto* body = std::get_if<T>(&elements[e].body); body && bench.devices[d].has(elements[e]))
        f(static_cast<int>(d), static_cast<int>(e), *body);
  }
}

const std::string& idOf(const Bench& bench, int device);
const std::string& called(const Bench& bench, int device);
std::string called(const SolvedBench& s, const Motor& motor);

/// A controller pin: the group it belongs to, and the device; nothing for other terminals.
struct PinGroup {
  int device;
  const parts::Pins* pins;
  TerminalIndex rail, ground;
};
std::optional<PinGroup> pinGroup(const Bench& bench, TerminalIndex t);

/// Current that leaves a device through a terminal by its connections.
Amps leaving(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t);

/// Terminals a signal at `from` gets to: by copper, and on through series resistors, not past a supply.
std::vector<TerminalIndex> signalReach(const SolvedBench& s, TerminalIndex from);

/// The terminal that a channel's input is measured against: ground of an input, return of a transistor.
TerminalIndex referenceOf(const Bench& bench, TerminalIndex input);

/// The source whose positive / negative pole shares copper with t; nullptr when none.
const Nets::Pole* sourceAt(const SolvedBench& s, TerminalIndex t, bool positive);

/// The rating that holds for the heat sink really fitted.
const Figure& continuousOf(const Bench& bench, ChannelRef channel);

/// Motors that any output of the channel is wired to.
std::vector<const Motor*> loadsOf(const SolvedBench& s, ChannelRef channel);
/// Every channel with at least one motor.
std::vector<ChannelRef> loadedChannels(const SolvedBench& s);

/// Connectors in the leads of a motor: a fault there may lie at their far side. Device ids.
std::vector<std::string> connectorsOf(const SolvedBench& s, const Motor& motor);

int indexOf(const SolvedBench& s, const Motor& motor);
/// Whether a terminal shares copper with one of the motor's leads.
bool onLead(const SolvedBench& s, const Motor& motor, TerminalIndex t);
bool isServo(const SolvedBench& s, int device);

/// Solved at the expected corner with every supply on and typical windings: what a bench does every day.
bool partlyFed(const OperatingPoint& p);
bool everyday(const OperatingPoint& p);
/// Nothing held, just opened or turned round at the moment.
bool steady(const OperatingPoint& p);
/// Over before anything gets hot: a brake or a coasting motor dies within a moment, a combination of pins is no state to stay in.
bool brief(Action action);

/// Where something is largest over the points that a filter lets through; point is nullptr when nothing was above zero.
struct Extreme {
  double value = 0;
  const OperatingPoint* point = nullptr;
  bool asked = false;  ///< there was such a point at all

  std::optional<double> known() const { return asked ? std::optional(value) : std::nullopt; }
};
template <class Filter, class Value>
Extreme largest(const SolvedBench& s, Filter filter, Value value) {
  Extreme best;
  for (const auto& p : s.points)
    if (filter(*p)) {
      best.asked = true;
      if (const double v = value(*p); v > best.value) best = {v, p.get(), true};
    }
  return best;
}

/// Whether anybody stated a pin for this motor.
bool hasSignals(const Motor& motor);
/// Index of a terminal that may be an inner node of a part: -1 for those.
TerminalIndex at(const Bench& bench, int device, const parts::Node& node);
/// Greatest duty of the intent; 1 without one.
double dutyOf(const Motor& motor);
/// A wired source's open voltage at full charge; nothing when unknown.
std::optional<Volts> fullVoltage(const Bench& bench, const Nets::Pole& pole);
const parts::Source& sourceBody(const Bench& bench, const Nets::Pole& pole);
/// Terminals that a supply fact makes motor supplies, with the device's motors as loads: (terminal, return).
struct SupplyInput {
  TerminalIndex positive, negative;
  const parts::SupplyFacts* facts;
};
std::vector<SupplyInput> supplyInputs(const Bench& bench, parts::SupplyFor purpose);
/// A part whose motor supply comes from one source and does not go back to it: first things first.
bool returnAstray(const SolvedBench& s, int device);
/// Name of the motor a command is about, else its title.
std::string during(const OperatingPoint& p);
/// A controller pin reaches this terminal by copper and series resistors; -1: none does.
TerminalIndex drivenBy(const SolvedBench& s, TerminalIndex t);
/// The same, or one that gets there through transistors, which may turn its level over.
TerminalIndex steeredBy(const SolvedBench& s, TerminalIndex t);
/// How many connections end on a terminal.
int connectionsAt(const Bench& bench, TerminalIndex t);
/// The connection that ends on a terminal, into the bench's; -1: none, or several.
int onlyConnectionAt(const Bench& bench, TerminalIndex t);

/// Whether a channel is the contact of a relay.
bool isContact(const Bench& bench, ChannelRef channel);
/// Nothing lies on the net of this ground but what belongs on one: no pin, supply, plus, output or base. A ground wire
/// added where something else is misplaced would make two faults of one.
bool plainGround(const SolvedBench& s, TerminalIndex t);

}  // namespace bold::bench
