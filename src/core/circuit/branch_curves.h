#pragma once

#include <algorithm>
#include <cmath>

#include "core/base/interpolate.h"
#include "core/circuit/circuit.h"

/// Currents of bent branches by their voltages. Inner loop: doubles in SI.
namespace bold::circuit {

// i = v / r bending over to +-limit: v / r / (1 + u^p)^(1/p) with u = |v| / (r limit). p sets how sharp the corner is: 2
// for transistors, 6 for motors (written out, since pow takes many times as long).
inline double bentSoftly(double v, double r, double limit) {
  const double u = v / (r * limit);
  return v / r / std::sqrt(1 + u * u);
}
struct Sharp {
  double i, slope;
};
inline Sharp bentSharply(double v, double r, double limit) {
  const double u = v / (r * limit);
  const double u2 = u * u;
  const double base = 1 + u2 * u2 * u2;
  const double root = std::cbrt(std::sqrt(base));
  return {v / r / root, 1 / (r * root * base)};
}

inline double transistorCurrent(const Branch& t, double va, double vb, double vc) {
  const double s = t.sign;
  const double v = s * (va - vb);
  const double control = s * (vc - vb);
  if (t.kind == Branch::Kind::Bipolar) {
    const double base = ramp(control - t.v0, kKneeWidth) / t.r;
    const double most = std::max(t.gain * base, 1e-12);
    return s * bentSoftly(ramp(v - t.drop, kKneeWidth), t.ron, most) + s * kOff * v;
  }
  const double over = ramp(control - t.v0, kKneeWidth);
  const double most = std::max(t.gain * over * over, 1e-12);
  const double lowest = t.rows.front().first;
  const double ron = control >= lowest ? interpolate(t.rows, control) : 1 / std::max(2 * t.gain * over, 1e-9);
  return s * bentSoftly(v, ron, most) + s * kOff * v;
}

}  // namespace bold::circuit
