#pragma once

#include "core/bench/solved_bench.h"
#include "core/choose/pin_plan.h"
#include "core/harness/edit.h"

namespace bold::choose {

/// The signals that motors of a bench need, as it is planned: those that a wire brings from a pin, those that are stated, and open inputs
/// that a program has to drive; and lines of sensors whose other side is on a rail. What is on pins that no program drives by themselves
/// (of a register) is left out.
/// @param motor device, of a sensor too; empty: all
std::vector<PinDemand> pinDemands(const harness::Harness& harness, const parts::Library& library, const std::string& motor = {});

/// Of a bench that is made already: nothing planned is left in it.
std::vector<PinDemand> pinDemands(const bench::SolvedBench& planned, const std::string& motor = {});

/// Wires moved and added and pins stated, all planned, until a plan is there; no change where it is there already. An input that wants a
/// resistor before it gets its statement, and no wire.
harness::Edit pinEdit(const harness::Harness& harness, const parts::Library& library, const PinPlan& plan);

}  // namespace bold::choose
