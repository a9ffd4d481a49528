#pragma once

#include <functional>

#include "core/harness/source_read.h"
#include "core/program/follow.h"

/// Where pins stand: once a program has begun, where it means off, once it is over, and which are on together.
namespace bold::program {

/// Which entry of SourceRead::pins a word is.
using UseOf = std::function<std::size_t(const PinWord&)>;

/// PinUse::first: by what the program did to begin, or low where time passes before an output is written.
void firstLevels(const Followed& followed, harness::SourceRead& out);
/// PinUse::off: the one level that functions write whose name means off.
void offLevels(const Followed& followed, const UseOf& useOf, harness::SourceRead& out);
/// PinUse::last, of a program that ends or is stopped by hand.
void lastLevels(const Followed& followed, harness::SourceRead& out);

/// Pins that are high, or get PWM, at the same time, and what made the last of them so.
struct Together {
  std::vector<std::string> pins;  ///< PinWord::word
  int event = -1;
};
/// Each set of them once, where time passes or a branch ends; none that a function sets whose name means off, brake or hold.
std::vector<Together> highTogether(const Followed& followed);

}  // namespace bold::program
