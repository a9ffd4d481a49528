#pragma once

#include <algorithm>
#include <cmath>

#include "core/base/interpolate.h"
#include "core/solver/circuit.h"

/// Currents of bent branches by their voltages. Inner loop: doubles in SI. X is double, or a number that carries its
/// derivatives.
namespace bold::solver {

// A current bending over to +-limit: i / (1 + u^p)^(1/p) with u = |i| / limit. p sets how sharp the corner is: 2 for
// transistors, 6 for motors and pins (written out, since pow takes many times as long).
template <class X>
X bentSoftly(const X& i, const X& limit) {
  using std::sqrt;
  const X u = i / limit;
  return X(i / sqrt(X(u * u + 1.0)));
}
struct Sharp {
  double i, slope;
};
inline Sharp bentSharply(double v, double r, double limit) {
  const double u = v / (r * limit);
  const double u2 = u * u;
  const double base = 1 + u2 * u2 * u2;
  if (base == 1) return {v / r, 1 / r};  // far from its corner, as most are
  const double root = std::cbrt(std::sqrt(base));
  return {v / r / root, 1 / (r * root * base)};
}

// What arcs over at an opening contact, 1 ohm above kArcVolts either way.
inline double arcCurrent(double v) {
  return std::copysign(ramp(std::abs(v) - kArcVolts, kKneeWidth), v);
}

// Not below `least`; with the derivatives of whichever it is.
template <class X>
X notBelow(const X& x, double least) {
  return x < least ? X(least) : x;
}

/// What a saturated bipolar carries at `v` above its `drop`: its rows of IC and VCE(sat), read the other way round. Promised
/// is only that VCE is not more than the first row's below its current; a tenth less at a milliampere gives it a slope there.
/// Beyond the last row it goes on as steeply, or with the resistance of the only one.
template <class X>
X saturatedCurrent(const BranchValues& t, const X& v) {
  if (!t.rows) return X(v / t.ron);
  double i = 0;
  double at = 0;
  double ohms = 0;
  const auto reach = [&](double nextI, double nextV) {
    if (nextI <= i) return false;
    ohms = std::max((nextV - at) / (nextI - i), 1e-4);
    if (v <= at + ohms * (nextI - i)) return true;
    at += ohms * (nextI - i);
    i = nextI;
    return false;
  };
  const auto& [firstI, firstV] = t.rows->front();
  if (t.drop == 0 && firstI > kLeastCurrent && reach(kLeastCurrent, 0.9 * firstV)) return X((v - at) / ohms + i);
  for (const auto& [rowI, rowV] : *t.rows)
    if (reach(rowI, rowV - t.drop)) return X((v - at) / ohms + i);
  if (t.rows->size() < 2) ohms = std::max((firstV - t.drop) / std::max(firstI, kLeastCurrent), 1e-3);
  return X((v - at) / ohms + i);
}

// VBE from which the base takes current, at a collector current.
template <class X>
X baseVolts(const BranchValues& t, const X& ic) {
  if (ic >= t.full) return X(t.v0 + t.rise);
  return X(ic * (t.rise / t.full) + t.v0);
}

/// Into collector or drain, at voltages of its three ends.
/// @param current the collector current its figures are read at
template <class X>
X transistorCurrent(const BranchValues& t, const X& va, const X& vb, const X& vc, const X& current) {
  const X v = (va - vb) * t.sign;
  X control = (vc - vb) * t.sign;
  X bent;
  if (t.kind == BranchValues::Kind::Mosfet) {
    // The channel is symmetrical: carrying backwards, its drain is the source.
    control = control + ramp(X(-v), kKneeWidth);
    const X over = ramp(X(control - t.v0), kKneeWidth);
    const X most = notBelow(X(over * over * t.gain), 1e-12);
    const X ron = control >= t.rows->front().first ? interpolate(*t.rows, control) : X(1.0 / notBelow(X(over * (2 * t.gain)), 1e-9));
    bent = bentSoftly(X(v / ron), most);
  } else {
    const X ic = notBelow(current, kLeastCurrent);
    const X base = ramp(X(control - baseVolts(t, ic)), kKneeWidth) / t.r;
    const X gain = t.gains ? notBelow(interpolate(*t.gains, ic), 1) : X(t.gain);
    bent = bentSoftly(saturatedCurrent(t, ramp(X(v - t.drop), kKneeWidth)), notBelow(X(gain * base), 1e-12));
  }
  return X((bent + v * kGmin) * t.sign);
}

inline constexpr double kLeastHead = 0.5;  // V: a power balance is not carried on below it

/// What a chopper drives through a coil with `head` between supply and ground and `v` across the coil.
inline double coilCurrent(const BranchValues& c, double head, double v) {
  return std::clamp((head - v) / c.r, 0.0, c.limit);
}

// Below half a volt a chopper takes nothing for itself, from one and a half volts all of it.
inline double awake(double head) {
  return std::clamp(head - 0.5, 0.0, 1.0);
}

struct Drawn {
  double i, byHead, byCoil;  // A, S, S
};
/// What a chopper takes from its supply for one coil: what the coil and the switches turn into heat over the voltage, and
/// what it needs for itself.
inline Drawn chopperDraw(const BranchValues& c, double head, double v) {
  const double volts = std::max(head, 1.0);
  const double i = coilCurrent(c, head, v);
  const double slope = i > 0 && i < c.limit ? 1 / c.r : 0;  // of i by head, and by v the other way
  const double forward = std::max(v, 0.0);
  const double draw = i * (forward + i * c.r) / volts;
  const double byCurrent = (forward + 2 * i * c.r) / volts;
  return {draw + c.i * awake(head), byCurrent * slope - (head > 1 ? draw / volts : 0) + (head > 0.5 && head < 1.5 ? c.i : 0),
          -byCurrent * slope + (v > 0 ? i / volts : 0)};
}

struct ConverterCurrent {
  double i = 0, byIn = 0, byOut = 0;  // A, S by the voltages of input and output against its ground
};
/// What a converter would give if it had no limits.
inline ConverterCurrent converterWants(const BranchValues& c, double in, double out) {
  const double reach = c.gain * (in - c.drop) - kKneeWidth;  // V that its input allows; nothing without one
  const double lacks = c.v0 - ramp(reach, kKneeWidth);
  const double slope = rampSlope(lacks, kKneeWidth) * rampSlope(reach, kKneeWidth);
  return {(c.v0 - ramp(lacks, kKneeWidth) - out) / c.r, slope * c.gain / c.r, -1 / c.r};
}
/// The most that it gives: its own limit, or what the greatest current of its switch lets through by power balance.
inline ConverterCurrent converterMost(const BranchValues& c, double in, double out) {
  const double volts = std::max(out, kLeastHead);
  const double through = c.limit2 * c.efficiency * std::max(in, 0.0) / volts;
  if (c.limit2 <= 0 || through >= c.limit) return {c.limit, 0, 0};
  return {through, in > 0 ? c.limit2 * c.efficiency / volts : 0, out > kLeastHead ? -through / volts : 0};
}

inline constexpr double kAsleep = 0.1;  // V: with less at its input, a leak's worth, a converter is off

/// What it gives: what it wants to, between nothing and its most with rounded corners; less and less below the input that it works from.
inline ConverterCurrent converterCurrent(const BranchValues& c, double in, double out) {
  constexpr double kCorner = 1e-2;  // A: half a millivolt
  constexpr double kLoose = 1e-9;   // of what it wants beyond: Newton's method is left a slope
  const auto want = converterWants(c, in, out);
  const auto most = converterMost(c, in, out);
  const double some = ramp(want.i, kCorner);
  const double over = ramp(some - most.i, kCorner);
  const double overBy = rampSlope(some - most.i, kCorner);
  const double wantBy = rampSlope(want.i, kCorner) * (1 - overBy);
  const double width = c.ron - kAsleep;
  const double awake = std::clamp((in - kAsleep) / width, 0.0, 1.0);
  const double wakes = awake > 0 && awake < 1 ? (some - over) / width : 0;
  return {awake * (some - over) + kLoose * want.i, awake * (wantBy * want.byIn + overBy * most.byIn) + wakes + kLoose * want.byIn,
          awake * (wantBy * want.byOut + overBy * most.byOut) + kLoose * want.byOut};
}

struct PowerDrawn {
  double i, byIn, byOut, byCurrent;
};
/// What a converter takes at its input for the current that it gives.
inline PowerDrawn powerDraw(const BranchValues& c, double current, double in, double out) {
  if (current <= 0) return {0, 0, 0, 0};  // what leaks back into its output comes out nowhere
  const double head = std::max(in, kLeastHead);
  const double ratio = std::max(out, 0.0) / (c.efficiency * head);
  return {current * ratio, in > kLeastHead ? -current * ratio / head : 0, out > 0 ? current / (c.efficiency * head) : 0, ratio};
}

}  // namespace bold::solver
