#include "core/bench/stand_ins.h"

#include <algorithm>
#include <map>

#include "core/bench/netlist.h"
#include "core/bench/solved_bench.h"

namespace bold::bench {
namespace {

constexpr const StandIn* kAll[] = {&kContactResistance, &kElectrolyticEsr, &kCeramicEsr,
                                   &kDiodeDrop,         &kDiodeCurrent,    &kSwitchDrop,
                                   &kSwitchResistance,  &kBaseEmitter,     &kGain,
                                   &kDarlingtonGain,    &kGateThreshold,   &kChannelResistance,
                                   &kSupplyResistance,  &kServoVoltage,    &kRegulatorOutput,
                                   &kRegulatorDropout,  &kRegulatorLimit,  &kPinResistance,
                                   &kPinShortCircuit,   &kBootPull,        &kChopperResistance,
                                   &kChopperQuiescent,  &kRunningCurrent,  &kLogicLow,
                                   &kLogicHigh,         &kEfficiency,      &kConverterDropout,
                                   &kConverterLeast,    &kConverterLimit,  &kTransferRatio,
                                   &kOptoSaturation};

using Taken = std::set<std::pair<const StandIn*, int>>;

// As the circuit is made: everything switched on, once with pins that drive and once while they boot.
void ofCircuit(const SolvedBench& s, Taken& taken) {
  const CarriedOn nothing;
  const SwitchState on(s.bench.elementCount(), 1);
  for (const auto action : {Action::AllRunning, Action::Boot}) {
    Command command;
    command.action = action;
    command.turning.assign(s.motors.size(), true);
    makeNetlist({s.bench, s.nets, s.motors, command, Corner::Nominal, nothing, &taken}, on);
  }
}

// As what came out is read.
void ofReadings(const Bench& bench, Taken& taken) {
  for (int d = 0; d < static_cast<int>(bench.devices.size()); ++d) {
    const auto& part = *bench.devices[d].part;
    for (const auto& t : part.terminals) {
      const auto set = t.input ? part.levels.find(t.input->levels) : part.levels.end();
      if (set == part.levels.end() || !set->second.rail.empty()) continue;
      if (!set->second.low.typical()) taken.emplace(&kLogicLow, d);
      if (!set->second.high.typical()) taken.emplace(&kLogicHigh, d);
    }
    for (const auto& e : part.elements)
      if (const auto* w = std::get_if<parts::Winding>(&e.body); w && w->brushed && !w->run.typical()) taken.emplace(&kRunningCurrent, d);
  }
}

}  // namespace

std::span<const StandIn* const> standIns() {
  return kAll;
}

std::vector<StoodIn> standInsOf(const SolvedBench& solved) {
  Taken taken;
  ofCircuit(solved, taken);
  ofReadings(solved.bench, taken);
  std::vector<StoodIn> out;
  for (const auto* standIn : kAll) {
    StoodIn one{standIn, {}};
    for (const auto& [what, device] : taken)
      if (what == standIn) one.devices.push_back(device);
    if (!one.devices.empty()) out.push_back(std::move(one));
  }
  return out;
}

}  // namespace bold::bench
