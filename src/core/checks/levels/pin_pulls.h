#pragma once

#include <string>

#include "core/checks/program/on_bench.h"

/// The pulls that a program can switch on at a pin, and the one that it does.
namespace bold::checks {

/// "up", "down", "both" or "none", of the pin or of its group; empty: not known.
std::string pullsOf(const bench::Bench& bench, bench::TerminalIndex pin);
/// Whether `pulls`, as pullsOf says them, has this one.
bool canPull(const std::string& pulls, const std::string& which);

/// A setting of a device as it stands; empty: it has none, or nothing is said of it.
std::string settingAt(const bench::Bench& bench, int device, const char* id);

/// "up", "down" or "none": as the program of the pin has it, else as the setting "pull" of the device at its other end; empty: not known.
std::string pullSaid(const ProgramOnBench& program, bench::TerminalIndex pin, int device);

}  // namespace bold::checks
