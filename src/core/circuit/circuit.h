#pragma once

#include <utility>
#include <vector>

namespace bold::circuit {

/// What one piece of the circuit is like; current is counted from a to b.
struct BranchValues {
  enum class Kind {
    Conductance,  ///< i = g v
    Knee,         ///< conducts above v0 with resistance r (diodes, bipolar switches), rounded over kKneeWidth
    Saturating,   ///< i = v / r, bending over to at most `limit` both ways (pins, running motors, boards)
    Current,      ///< i
    Source,       ///< delivers out of a: (v0 - v) / r held between -limit2 and limit
    Regulator,    ///< from a (in) to b (out) against c (ground): keeps b at min(v0, a - drop); sources only
    Bipolar,      ///< collector a, emitter b, base c: gain, v0 = VBE, r = base resistance, ron / drop = saturation
    Mosfet,       ///< drain a, source b, gate c: threshold v0, gain k, ron rows
  };
  Kind kind = Kind::Conductance;
  double g = 0, v0 = 0, r = 1, i = 0;
  double limit = 1e9, limit2 = 0;
  double gain = 0, ron = 1, drop = 0;
  double sign = 1;                              ///< -1 for PNP and P-channel
  std::vector<std::pair<double, double>> rows;  ///< Mosfet: VGS, RDS(on)
  bool operator==(const BranchValues&) const = default;
};

/// A two-ended piece of the circuit between its nodes.
struct Branch : BranchValues {
  int a = 0, b = 0, c = -1;
  bool operator==(const Branch&) const = default;
};

struct Circuit {
  int nodes = 0;
  std::vector<Branch> branches;
  bool operator==(const Circuit&) const = default;
};

inline constexpr double kKneeWidth = 0.02;  // V: rounds the corner of a knee so that Newton's method has a slope
inline constexpr double kOff = 1e-10;       // S: an open semiconductor

// max(x, 0) with its corner rounded over 2 w by a parabola: no tail that Newton's method would creep along.
inline double ramp(double x, double w) {
  if (x <= -w) return 0;
  return x >= w ? x : (x + w) * (x + w) / (4 * w);
}
inline double rampSlope(double x, double w) {
  if (x <= -w) return 0;
  return x >= w ? 1 : (x + w) / (2 * w);
}

}  // namespace bold::circuit
