#include "core/parts/each_figure.h"

#include <variant>

namespace bold::parts {
namespace {

/// Picks the figures out of whatever members it is given.
struct Figures {
  const std::function<void(Figure&)>& f;

  template <class... Members>
  void among(Members&... members) const {
    (one(members), ...);
  }

  // Every structure is taken apart whole, so that one with a member more no longer compiles: no figure can be forgotten.
  void operator()(LevelSet& s) const {
    auto& [lowShare, highShare, rail, low, high] = s;
    among(lowShare, highShare, rail, low, high);
  }
  void operator()(InputFacts& s) const {
    auto& [levels, ground, absolute] = s;
    among(levels, ground, absolute);
  }
  void operator()(LimitFacts& s) const {
    auto& [ground, absolute, of, above, below, low, high] = s;
    among(ground, absolute, of, above, below, low, high);
  }
  void operator()(SupplyFacts& s) const {
    auto& [purpose, back, recommended, absolute, bulk, ceramicOnly, afterLogic, feeds, feedsBy] = s;
    among(purpose, back, recommended, absolute, bulk, ceramicOnly, afterLogic, feeds, feedsBy);
  }
  void operator()(Terminal& s) const {
    auto& [id, label, aliases, formerly, place, side, colour, input, limit, supply, pin, ground, output, optional, bus, phase, openDrain,
           edges] = s;
    among(id, label, aliases, formerly, place, side, colour, pin, ground, output, optional, bus, phase, openDrain, edges);
    if (input) (*this)(*input);
    if (limit) (*this)(*limit);
    if (supply) (*this)(*supply);
  }
  void operator()(PeakRow& s) const {
    auto& [current, time, duty] = s;
    among(current, time, duty);
  }
  void operator()(Channel& s) const {
    auto& [id, out, signals, continuous, continuousSink, peak, peaks, trip, protection, returnTerminal, lowSide, pwmMost, parallel,
           clampsInside, clampsDoubtful] = s;
    among(id, out, signals, continuous, continuousSink, peak, trip, protection, returnTerminal, lowSide, pwmMost, parallel, clampsInside,
          clampsDoubtful);
    for (auto& row : peaks) (*this)(row);
  }
  void operator()(Package& s) const {
    auto& [id, thermal, thermalSink, hottest, settles] = s;
    among(id, thermal, thermalSink, hottest, settles);
  }

  void operator()(Joint& s) const {
    auto& [nodes] = s;
    among(nodes);
  }
  void operator()(Resistor& s) const {
    auto& [a, b, resistance, power, conductor, fuse, rating, volts, breaking, resettable, cutsOff, closed] = s;
    among(a, b, resistance, power, conductor, fuse, rating, volts, breaking, resettable, cutsOff, closed);
  }
  void operator()(Capacitor& s) const {
    auto& [a, b, capacitance, rated, polarised, ceramic, tantalum, esr] = s;
    among(a, b, capacitance, rated, polarised, ceramic, tantalum, esr);
  }
  void operator()(Diode& s) const {
    auto& [anode, cathode, drop, ratedCurrent, reverseVoltage, surge, recovery, schottky, zener, led, promised, most] = s;
    among(anode, cathode, drop, ratedCurrent, reverseVoltage, surge, recovery, schottky, zener, led, promised, most);
  }
  void operator()(Switch& s) const {
    auto& [a, b, on, oneWay, v0, resistance, v0Max, resistanceMax, contact, rating, volts] = s;
    among(a, b, on, oneWay, v0, resistance, v0Max, resistanceMax, contact, rating, volts);
  }
  void operator()(Phototransistor& s) const {
    auto& [collector, emitter, anode, cathode, ratio, vce, saturation] = s;
    among(collector, emitter, anode, cathode, ratio, vce, saturation);
  }
  void operator()(Bipolar& s) const {
    auto& [collector, base, emitter, pnp, darlington, vbe, vce, hfeMin, saturation, inputFor] = s;
    among(collector, base, emitter, pnp, darlington, vbe, vce, hfeMin, saturation, inputFor);
  }
  void operator()(Mosfet& s) const {
    auto& [drain, gate, source, pChannel, threshold, vds, vgs, rds] = s;
    among(drain, gate, source, pChannel, threshold, vds, vgs, rds);
  }
  void operator()(Winding& s) const {
    auto& [name, a, b, resistance, inductance, run, nominal, highest, phase, brushed, still, directional, bonded, thermal, hottest,
           settles] = s;
    among(name, a, b, resistance, inductance, run, nominal, highest, phase, brushed, still, directional, bonded, thermal, hottest, settles);
  }
  void operator()(Source& s) const {
    auto& [positive, negative, full, nominal, empty, resistance, continuous, limit, capacity, capacitance, sinks, cutsOff, lithium,
           alternating, lowLoad] = s;
    among(positive, negative, full, nominal, empty, resistance, continuous, limit, capacity, capacitance, sinks, cutsOff, lithium,
          alternating, lowLoad);
  }
  void operator()(Sink& s) const {
    auto& [positive, negative, current, start, voltage, resets] = s;
    among(positive, negative, current, start, voltage, resets);
  }
  void operator()(Regulator& s) const {
    auto& [in, out, ground, set, dropout, limit, backDiode, absolute, printed, switching, steps, efficiency, least, inputLimit, idle,
           charges] = s;
    among(in, out, ground, set, dropout, limit, backDiode, absolute, printed, switching, steps, efficiency, least, inputLimit, idle,
          charges);
  }
  void operator()(Pins& s) const {
    auto& [pins, rail, ground, resistance, shortCircuit, recommended, absolute, pull, total, groups, tolerant, tolerated, servoTimer, pulls,
           analog, interrupts, bus, behind, on] = s;
    among(pins, rail, ground, resistance, shortCircuit, recommended, absolute, pull, total, groups, tolerant, tolerated, servoTimer, pulls,
          analog, interrupts, bus, behind, on);
  }
  void operator()(Chopper& s) const {
    auto& [supply, ground, coils, on, rds, quiescent, senseResistor, reference, perVolt, holdShare, referenceIsRms, stepHigh, stepLow,
           setUp] = s;
    among(supply, ground, coils, on, rds, quiescent, senseResistor, reference, perVolt, holdShare, referenceIsRms, stepHigh, stepLow,
          setUp);
  }
  void operator()(Contact& s) const {
    auto& [a, b, closed, rating, volts, connector, resistance, moved] = s;
    among(a, b, closed, rating, volts, connector, resistance, moved);
  }

 private:
  void one(Figure& figure) const { f(figure); }
  void one(std::vector<std::pair<std::string, Figure>>& figures) const {
    for (auto& [key, figure] : figures) f(figure);
  }
  template <class Other>
  void one(Other&) const {}
};

}  // namespace

void eachFigure(Part& part, const std::function<void(Figure&)>& f) {
  const Figures figures{f};
  for (auto& terminal : part.terminals) figures(terminal);
  for (auto& [name, set] : part.levels) figures(set);
  for (auto& element : part.elements) std::visit(figures, element.body);
  for (auto& channel : part.channels) figures(channel);
  for (auto& package : part.packages) figures(package);
}

}  // namespace bold::parts
