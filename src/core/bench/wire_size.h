#pragma once

#include "core/bench/bench.h"

namespace bold::bench {

inline constexpr int kThinGauge = 28, kThickGauge = 22;  ///< AWG, where the document says nothing

/// Gauge and length of a wire, with what is taken where the document says nothing: 28 AWG 0.2 m at controllers and
/// logic, 22 AWG 0.3 m elsewhere.
struct WireSize {
  int awg;
  Metres length;
  bool gaugeGiven, lengthGiven;
};
WireSize sizeOf(const Bench& bench, const Link& link);

LinkResistance resistanceOf(const Bench& bench, const Link& link);

}  // namespace bold::bench
