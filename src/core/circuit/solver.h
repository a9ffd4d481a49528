#pragma once

#include <memory>
#include <optional>
#include <vector>

/// Nodal analysis (Newton) over branches. Inner loop: doubles in SI.
namespace bold::circuit {

class SparseFactors;
class SparsePattern;
struct BranchSlots;

/// One two-ended piece of the circuit; current is counted from a to b.
struct Branch {
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
  int a = 0, b = 0, c = -1;
  double g = 0, v0 = 0, r = 1, i = 0;
  double limit = 1e9, limit2 = 0;
  double gain = 0, ron = 1, drop = 0;
  double sign = 1;                              ///< -1 for PNP and P-channel
  std::vector<std::pair<double, double>> rows;  ///< Mosfet: VGS, RDS(on)
};

struct Circuit {
  int nodes = 0;
  std::vector<Branch> branches;
};

struct Solution {
  bool converged = false;
  int passes = 0;
  std::vector<double> volts;  ///< per node, against its island's reference
  std::vector<double> amps;   ///< per branch, a to b
  std::vector<char> modes;    ///< per branch: where supplies stand; only a good start for the next solve
  std::vector<int> island;    ///< per node: nodes that share no conducting branch have no voltage between them

  /// Whether a supply gives what its resistance lets through: neither idle nor in its limit.
  bool giving(std::size_t branch) const { return modes[branch] == 0; }

  /// Driving-point resistance between two nodes at the solved point; nothing when they share no island.
  std::optional<double> resistance(int a, int b) const;

  /// The factors of the last Jacobian, kept for `resistance`. Shared: solutions are copied into results.
  std::shared_ptr<SparseFactors> factors;
  std::shared_ptr<const SparsePattern> pattern;  ///< of the circuit: one of the same shape begins with it
  std::shared_ptr<const BranchSlots> slots;      ///< where its branches are in the pattern
};

/// Settled: every voltage to a microvolt, and `resistance` to match. Exact: to rounding, so that the result does not depend
/// on where the search began.
enum class Accuracy { Settled, Exact };

/// @param start a solution to begin from, of this circuit or one like it; may be nullptr
/// @param spare factors that are used again if nobody else holds them
/// Not converged is a result, never a guess: voltages are then those of the last pass and must not be used.
Solution solve(const Circuit& circuit, const Solution* start = nullptr, std::shared_ptr<SparseFactors> spare = nullptr,
               Accuracy accuracy = Accuracy::Exact);

inline constexpr double kKneeWidth = 0.02;  // V: rounds the corner of a knee so that Newton's method has a slope
inline constexpr double kOff = 1e-10;       // S: an open semiconductor

}  // namespace bold::circuit
