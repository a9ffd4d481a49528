#include <algorithm>

#include "core/bench/carried_on.h"
#include "core/bench/input_levels.h"
#include "core/bench/motor_doing.h"
#include "core/bench/netlist.h"
#include "core/bench/operating_point.h"
#include "core/bench/readings.h"
#include "core/bench/switching.h"

namespace bold::bench {
namespace {

using parts::Level;

constexpr int kMostPasses = 30;

class SolvedPoint : public OperatingPoint {
 public:
  SolvedPoint(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors, const Command& command, Corner corner)
      : m_bench(bench), m_motors(motors), m_command(command), m_corner(corner), m_readings{bench, nets} {}

  /// The circuit is made for the switches as they stand and solved; that gives the inputs their levels and the switches their
  /// conditions. Again, until nothing switches any more.
  void run(const OperatingPoint* running, const OperatingPoint* start) {
    const auto carried = carriedOn(m_bench, m_motors, m_command, running);
    const NetlistInput input{m_bench, m_readings.nets, m_motors, m_command, m_corner, carried};
    SwitchState on(m_bench.elementCount());
    beginWith(start, on);
    Switching switching(m_command);
    for (int pass = 0; pass < kMostPasses; ++pass) {
      m_readings.netlist = makeNetlist(input, on);
      m_readings.solution = solver::solve(m_readings.netlist.circuit, std::move(m_readings.solution));
      if (!m_readings.solution.converged) {
        m_whyNot = "its currents and voltages could not be found";
        return;
      }
      m_on = on;
      m_levels = inputLevels(m_readings, m_command);
      const bool settled = switching.settle(m_readings, m_levels, on);
      m_hunts = switching.hunts();
      if (settled) return;
    }
    m_whyNot = "its logic does not come to rest";
    m_restless = true;
  }

  const Command& command() const override { return m_command; }
  Corner corner() const override { return m_corner; }
  const std::string& whyNot() const override { return m_whyNot; }
  bool hunts() const override { return m_hunts; }
  bool restless() const override { return m_restless; }

  std::optional<Volts> across(TerminalIndex a, TerminalIndex b) const override { return m_readings.across(a, b); }
  std::optional<Ohms> resistance(TerminalIndex a, TerminalIndex b) const override { return m_readings.resistance(a, b); }
  Amps link(int l) const override { return m_readings.link(l); }
  Amps element(int device, int e) const override { return m_readings.element(device, e); }
  Amps base(int device, int e) const override { return m_readings.base(device, e); }
  Amps pin(TerminalIndex t) const override { return m_readings.pin(t); }
  Amps coil(int device, int e, int c) const override { return m_readings.coil(device, e, c); }
  Watts power(int device, int e) const override { return m_readings.power(device, e); }

  Level level(TerminalIndex t) const override { return m_levels.empty() ? Level::Undefined : m_levels[t]; }
  std::optional<bool> on(int device, int e) const override {
    const auto l = conditionOf(m_readings, m_levels, device, e);
    if (l == Level::Undefined) return std::nullopt;
    return l == Level::High;
  }

  double arcShare(int motor) const override {
    const auto& m = m_motors[motor];
    double most = 0;
    for (const int w : m.windings) most = std::max(most, m_readings.arcShare(m.device, w));
    return most;
  }
  Doing doing(int motor) const override {
    return touchesUndecided(m_motors[motor]) ? Doing::Undecided : doingOf(m_readings, m_motors, m_command, motor);
  }

  Behind behind() const { return {m_readings.netlist.circuit, m_readings.solution}; }

 private:
  const Bench& m_bench;
  const std::vector<Motor>& m_motors;
  const Command& m_command;
  Corner m_corner;
  std::string m_whyNot;
  bool m_hunts = false;
  bool m_restless = false;
  Readings m_readings;
  SwitchState m_on;
  std::vector<Level> m_levels;  // per terminal; meant for inputs. Asked many times by the conditions, worked out once a pass

  void beginWith(const OperatingPoint* start, SwitchState& on) {
    const auto* s = dynamic_cast<const SolvedPoint*>(start);
    if (!s) return;
    on = s->m_on;
    m_readings.solution = s->m_readings.solution;
  }

  // A motor is undecided when a switch at one of the channels it is wired to does not know whether it is on.
  bool touchesUndecided(const Motor& m) const {
    for (const auto& ref : m.reached) {
      const auto& elements = m_bench.devices[ref.device].part->elements;
      const auto& outs = channelOf(m_bench, ref).out;
      for (std::size_t e = 0; e < elements.size(); ++e) {
        const auto* s = std::get_if<parts::Switch>(&elements[e].body);
        const bool here = (s && std::ranges::count(outs, s->a) + std::ranges::count(outs, s->b) > 0) ||
                          std::holds_alternative<parts::Chopper>(elements[e].body);
        if (here && !on(ref.device, static_cast<int>(e))) return true;
      }
    }
    return false;
  }
};

}  // namespace

Behind behind(const OperatingPoint& point) {
  return dynamic_cast<const SolvedPoint&>(point).behind();
}

std::unique_ptr<OperatingPoint> solve(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors, const Command& command,
                                      Corner corner, const OperatingPoint* running, const OperatingPoint* start) {
  auto point = std::make_unique<SolvedPoint>(bench, nets, motors, command, corner);
  point->run(running, start);
  return point;
}

}  // namespace bold::bench
