#pragma once

#include <utility>
#include <vector>

namespace bold::solver {

/// What one piece of the circuit is like; current is counted from a to b.
struct BranchValues {
  using Rows = std::vector<std::pair<double, double>>;
  enum class Kind {
    Conductance,  ///< i = g v
    Knee,         ///< conducts above v0 with resistance r (diodes, bipolar switches), rounded over kKneeWidth
    Saturating,   ///< i = v / r, bending over to at most `limit` both ways (pins, running motors, boards)
    Current,      ///< i, but for what an arc takes back once it drives more than kArcVolts
    Source,       ///< delivers out of a: (v0 - v) / r held between -limit2 and limit
    Regulator,    ///< from a (in) to b (out) against c (ground): keeps b at min(v0, a - drop); sources only
    Bipolar,      ///< collector a, emitter b, base c: gain, v0 = VBE, r = base resistance, drop + ron or rows = saturation
    Mosfet,       ///< drain a, source b, gate c: threshold v0, gain k, ron rows
    Collector,    ///< a is no node but the current of the bipolar with collector b, base c, emitter d, A; not below kLeastCurrent
    Coil,         ///< of a chopper with supply c and ground d: delivers out of a what they drive through r, 0 .. limit
    Draw,         ///< from a chopper's supply a to its ground b: what the coil at c, d takes by power balance, and i
    Converter,    ///< a is no node but the current that a converter gives from its input c at its output b against its ground d:
                  ///< keeps b at min(v0, gain x (c - drop)) behind r; at most limit, and what limit2 A at its input make of it;
                  ///< works from ron volts at its input
    Lit,          ///< from a to b: gain times what the knee between c and d carries, with its v0 and r; nothing flows at c and d
    Given,        ///< the current that d stands for
    PowerDraw,    ///< from a converter's input a to its ground b: what the current d at its output c takes by power balance
  };
  Kind kind = Kind::Conductance;
  double g = 0, v0 = 0, r = 1, i = 0;
  double limit = 1e9, limit2 = 0;
  double gain = 0, ron = 1, drop = 0;
  double sign = 1;              ///< -1 for PNP and P-channel
  double rise = 0, full = 1;    ///< V that VBE gains until the collector carries so many A
  double efficiency = 1;        ///< of a converter: what comes out of what goes in
  const Rows* rows = nullptr;   ///< Mosfet: VGS, RDS(on); Bipolar: IC, VCE(sat), in place of ron. The part's own
  const Rows* gains = nullptr;  ///< Bipolar: IC, gain, in place of gain. The part's own
  bool operator==(const BranchValues&) const = default;
};

/// A piece of the circuit, and between which nodes it is.
struct Branch : BranchValues {
  int a = 0, b = 0, c = -1, d = -1;  ///< d of a Bipolar and its junction: the unknown that is its collector current
  bool operator==(const Branch&) const = default;
};

struct Circuit {
  int nodes = 0;
  std::vector<Branch> branches;
  bool operator==(const Circuit&) const = default;
};

inline constexpr double kKneeWidth = 0.02;     // V: rounds the corner of a knee so that Newton's method has a slope
inline constexpr double kArcVolts = 200.0;     // where the air gap of an opening contact gives way, in the model
inline constexpr double kGmin = 1e-10;         // S: an open semiconductor; lies across every junction
inline constexpr double kLeastCurrent = 1e-3;  // A: below it a transistor's figures no longer change

// max(x, 0) with its corner rounded over 2 w by a parabola: no tail that Newton's method would creep along.
template <class X>
X ramp(const X& x, double w) {
  if (x <= -w) return X(0);
  if (x >= w) return x;
  return (x + w) * (x + w) / (4 * w);
}
inline double rampSlope(double x, double w) {
  if (x <= -w) return 0;
  return x >= w ? 1 : (x + w) / (2 * w);
}

}  // namespace bold::solver
