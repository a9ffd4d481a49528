#pragma once

#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "core/base/figure.h"
#include "core/parts/condition.h"
#include "core/parts/node.h"

/// The primitive elements a part is made of. The solver knows these and no part family.
namespace bold::parts {

/// Joined by copper inside the part.
struct Joint {
  std::vector<Node> nodes;
};

struct Resistor {
  Node a, b;
  Figure resistance;        ///< ohm
  Figure power;             ///< W
  bool conductor = false;   ///< a fuse, shunt or switch contact: counts as copper where grounds are traced
  bool fuse = false;        ///< melts; the next three are its ratings
  Figure rating;            ///< A, of a fuse
  Figure volts;             ///< V DC, of a fuse
  Figure breaking;          ///< A it can interrupt
  bool resettable = false;  ///< a polymer fuse: holds `rating`, trips above, comes back by itself
  bool cutsOff = false;     ///< a cell's protection: opens before that is empty
  Condition closed;         ///< of a board's own selector between its supplies: conducts while this holds; empty: always
};

struct Capacitor {
  Node a, b;  ///< a is the marked + of a polarised one
  Figure capacitance, rated;
  bool polarised = false;
  bool ceramic = false;   ///< rings with its leads when a supply is plugged in live
  bool tantalum = false;  ///< wants half its rated voltage
  Figure esr;             ///< ohm, equivalent series resistance
};

/// Conducts from anode to cathode above `knee`, with `slope` ohms.
struct Diode {
  Node anode, cathode;
  Figure drop;            ///< V at `ratedCurrent`
  Figure ratedCurrent;    ///< A, average
  Figure reverseVoltage;  ///< V
  Figure surge;           ///< A, one half wave
  Figure recovery;        ///< s; unknown for Schottky diodes, which need none
  bool schottky = false;
  Figure zener;      ///< V at which it conducts backwards; unknown: it does not
  bool led = false;  ///< of an isolated input; the next two are its window
  Figure promised;   ///< A from which the input is promised to be on
  Figure most;       ///< A, absolute
};

/// A semiconductor switch of a stage, closed while `on` holds.
struct Switch {
  Node a, b;
  Condition on;
  bool oneWay = false;  ///< bipolar: current from a to b only, v0 + r x I
  Figure v0, resistance;
  Figure v0Max, resistanceMax;  ///< greatest, where another row promises it
  bool contact = false;         ///< of a relay: no semiconductor, carries either way; the next two are its DC ratings
  Figure rating;                ///< A
  Figure volts;                 ///< V that it can break
};

/// NPN / PNP, plain or Darlington.
struct Bipolar {
  Node collector, base, emitter;
  bool pnp = false;
  bool darlington = false;
  Figure vbe;                                         ///< V at working current
  Figure vce;                                         ///< V, absolute
  std::vector<std::pair<double, double>> hfeMin;      ///< IC in A, least gain
  std::vector<std::pair<double, double>> saturation;  ///< IC in A, greatest VCE(sat) in V
  std::vector<std::pair<double, double>> inputFor;    ///< IC in A, input volts needed (arrays); else empty
};

/// The output of an optocoupler: carries what the current through its light diode allows.
struct Phototransistor {
  Node collector, emitter;
  Node anode, cathode;  ///< of its light diode, which is an element of the same part
  Figure ratio;         ///< collector current over the diode's (CTR), a share; its least end where the weakest is asked for
  Figure vce;           ///< V, absolute
  Figure saturation;    ///< V, greatest VCE(sat) at a milliampere or two
};

struct Mosfet {
  Node drain, gate, source;
  bool pChannel = false;
  Figure threshold;                            ///< V, min and max
  Figure vds, vgs;                             ///< V, absolute
  std::vector<std::pair<double, double>> rds;  ///< VGS in V, greatest RDS(on) in ohm
};

/// A motor's winding, or another load with two leads. Brushed, still, or else a stepper's coil.
struct Winding {
  std::string name;  ///< coil name, "A"; empty for a brushed motor
  Node a, b;         ///< brushed: a is the lead that is positive in forward by the part's own convention
  Figure resistance, inductance;
  Figure run;      ///< A at rated load; unknown for coils
  Figure nominal;  ///< V (brushed, voltage-driven coils)
  Figure highest;  ///< V
  Figure phase;    ///< A a coil
  bool brushed = false;
  bool still = false;        ///< turns nothing: a relay's coil, a solenoid, a valve, a heater, a light
  bool directional = false;  ///< electronically commutated: must be fed the right way round and not chopped
  Node bonded;               ///< lead that the case is joined to; empty: none
  Figure thermal;            ///< K/W, winding to still air
  Figure hottest;            ///< degC of the winding
  Figure settles;            ///< s, mechanical time constant with its load, as measured
};

/// A of a stepper's coil: what it is rated for, else what its voltage drives through it; nothing while neither is known.
std::optional<double> ratedCurrent(const Winding& coil);

/// Battery, adapter, port.
struct Source {
  Node positive, negative;
  Figure full, nominal, empty;  ///< V, open circuit
  Figure resistance;            ///< ohm
  Figure continuous;            ///< A, a rating
  Figure limit;                 ///< A, where it goes into current limit; unknown for batteries
  Figure capacity;              ///< Ah
  Figure capacitance;           ///< F at its output; decides how far regeneration lifts it
  bool sinks = false;           ///< takes current back
  bool cutsOff = false;         ///< has its own protection against deep discharge
  bool lithium = false;
  bool alternating = false;
  Figure lowLoad;  ///< A below which it switches itself off after a while; unknown: it does not
};

/// What a board or servo draws by itself.
struct Sink {
  Node positive, negative;
  Figure current;  ///< A
  Figure start;    ///< A while starting to move (servo); unknown otherwise
  Figure voltage;  ///< V it needs, min .. max
  Figure resets;   ///< V below which its brown-out detector starts it anew; unknown: below what it needs
};

/// Which way a switching converter moves a voltage. One that steps up passes its input on, less a diode, where that is higher.
enum class Steps { Down, Up, Both };

/// Keeps its output at `set`: linear, or switching by power balance.
struct Regulator {
  Node in, out, ground;
  Figure set, dropout, limit;  ///< V (unknown of a trimmer that nobody measured), V, A
  bool backDiode = false;
  Figure absolute;         ///< V at its input
  Figure printed;          ///< V, the input range printed on the board
  bool switching = false;  ///< a converter: turns little into heat; the others are its own
  Steps steps = Steps::Down;
  Figure efficiency;     ///< share
  Figure least;          ///< V at its input from which it works
  Figure inputLimit;     ///< A through its switch; unknown: its output gives way first
  Figure idle;           ///< A that it takes for itself
  bool charges = false;  ///< a cell at its output: at its limit it does what it is for
};

/// The output stages of a controller's pins: what `program(pin)` says decides whether they pull up, down or float.
struct Pins {
  std::vector<Node> pins;
  Node rail, ground;
  Figure resistance;                                         ///< ohm, min .. max
  Figure shortCircuit;                                       ///< A
  Figure recommended, absolute;                              ///< A a pin
  Figure pull;                                               ///< ohm, of the boot pulls
  Figure total;                                              ///< A, absolute, of all pins together
  std::vector<std::pair<std::vector<Node>, double>> groups;  ///< pins that share a limit, A
  std::vector<Node> tolerant;                                ///< pins without a clamp to the rail, while that is powered
  Figure tolerated;                                          ///< V that those stand against ground
  std::string servoTimer;                                    ///< PWM unit that the usual servo library takes for itself
  std::string pulls;                            ///< which a program can switch on: "up", "down", "both", "none"; empty: not known
  std::optional<std::vector<Node>> analog;      ///< pins that read a voltage; nothing: not known
  std::optional<std::vector<Node>> interrupts;  ///< pins with an interrupt of their own; nothing: every one, as far as is known
  bool bus = false;                             ///< of a register or expander: a program drives them by its lines, not by themselves
  bool behind = false;                          ///< outputs of a register on the board: no wire reaches them, a program still does
  Condition on;                                 ///< the outputs drive while this holds, else they float; empty: always
};

/// A current-regulating stage for the coils of a bipolar stepper.
struct Chopper {
  Node supply, ground;
  std::vector<std::pair<Node, Node>> coils;
  Condition on;
  Figure rds;                   ///< ohm, both switches of a path
  Figure quiescent;             ///< A
  Figure senseResistor;         ///< ohm
  Figure reference;             ///< V, as trimmed; unknown when never measured
  double perVolt = 0;           ///< I_trip = reference / (perVolt x senseResistor)
  double holdShare = 0.7071;    ///< share of the trip in each coil while holding with both
  bool referenceIsRms = false;  ///< the reference sets the RMS current, not the trip
  Figure stepHigh, stepLow;     ///< s, least time of a step pulse
  Figure setUp;                 ///< s, direction before step
};

/// I_trip = V_ref / (perVolt x R_sense); nothing while either is unknown.
std::optional<Amps> tripCurrent(const Chopper& chopper);

/// Whether a contact is moved while the bench runs: by hand or by what it senses, all of a part at a time; or as the end of a slider's way.
/// One that is switched stays as it is put: however it is drawn it is judged closed, which is how the bench runs, and opened. One that is
/// thrown has two positions: both are judged, all its contacts together.
enum class Moved { No, Pressed, Senses, Slides, Switched, Thrown };

/// A contact worked by hand or by what it senses, or the mated pair of a connector.
struct Contact {
  Node a, b;
  bool closed = true;
  Figure rating;           ///< A DC
  Figure volts;            ///< V DC that it can break
  bool connector = false;  ///< not meant to be opened under current
  Figure resistance;       ///< ohm; unknown: of a good contact
  Moved moved = Moved::No;

  /// As it is taken in every command that does not move it: a switch is on, however it is drawn.
  bool closedInUse() const { return closed || moved == Moved::Switched; }
  /// Set by a hand and left as it is: nothing that a program reads.
  bool staysPut() const { return moved == Moved::Switched || moved == Moved::Thrown; }
};

using AnyBody = std::variant<Joint, Resistor, Capacitor, Diode, Switch, Bipolar, Phototransistor, Mosfet, Winding, Source, Sink, Regulator,
                             Pins, Chopper, Contact>;

/// One of them; copied, moved and destroyed in element.cpp, so that this is compiled once.
struct ElementBody : AnyBody {
  using AnyBody::AnyBody;
  ElementBody();
  ElementBody(const ElementBody&);
  ElementBody(ElementBody&&) noexcept;
  ElementBody& operator=(const ElementBody&);
  ElementBody& operator=(ElementBody&&) noexcept;
  ~ElementBody();
};

struct Element {
  std::string id;                                         ///< unique in its part
  std::vector<std::pair<std::string, std::string>> when;  ///< exists only with these settings
  std::string package;                                    ///< where its heat goes; empty: not stated
  ElementBody body;
};

}  // namespace bold::parts
