#include "core/circuit/block_solver.h"

#include <Eigen/Core>
// Needs the core before it.
#include <algorithm>
#include <cmath>
#include <map>
#include <unsupported/Eigen/AutoDiff>

#include "core/circuit/branch_curves.h"
#include "core/circuit/nets.h"
#include "core/circuit/sparse_system.h"

namespace bold::circuit {
namespace {

using Kind = Branch::Kind;

constexpr double kVoltTolerance = 1e-6;
constexpr double kRoughly = 1e-3;  // of the voltages on the way
constexpr double kAmpTolerance = 1e-9;
constexpr double kModeMargin = 1e-9;  // A
constexpr double kIdle = 1e-7;        // S: what is left of a supply that gives nothing, or all it can
constexpr int kMostFlips = 40;
constexpr int kTogether = 4;  // rounds

// Where a supply or regulator stands: giving what its resistance lets through, nothing, or its limit. Kept outside
// Newton's method, which finds no slope on the two flat stretches.
enum class Mode { Giving, Idle, Limit };

class System {
 public:
  /// @param s whose circuit it is, and whose pattern and factors it takes where they fit
  explicit System(BlockSolution& s) : m_c(s.circuit), m_n(s.circuit.nodes), m_residual(s.circuit.nodes), m_factors(std::move(s.factors)) {
    m_pattern = s.pattern;
    m_slots = s.slots;
    if (!m_pattern || !m_slots || !fits(*m_slots)) {
      std::vector<SparsePattern::Ends> ends;
      ends.reserve(m_c.branches.size());
      for (const auto& b : m_c.branches) ends.push_back({b.a, b.b, b.c, b.d});
      auto found = m_pattern ? m_pattern->slots(m_n, ends) : std::nullopt;
      if (!found) {
        m_pattern = std::make_shared<const SparsePattern>(m_n, ends);
        found = m_pattern->slots(m_n, ends);
      }
      m_slots = std::make_shared<const BranchSlots>(BranchSlots{std::move(ends), std::move(*found)});
    }
    m_jacobian.resize(m_pattern->entries());
    reset();
  }

  // Supplies begin by giving. A regulator begins idle: giving without anything that feeds it, it would have no solution.
  void reset() {
    m_modes.clear();
    for (const auto& b : m_c.branches) m_modes.push_back(b.kind == Kind::Regulator ? Mode::Idle : Mode::Giving);
  }

  void begin(const std::vector<char>& modes) {
    if (modes.size() != m_modes.size()) return;
    for (std::size_t k = 0; k < modes.size(); ++k) m_modes[k] = static_cast<Mode>(modes[k]);
  }
  std::vector<char> modes() const {
    std::vector<char> out;
    for (const auto m : m_modes) out.push_back(static_cast<char>(m));
    return out;
  }

  // Puts supplies into the right mode: all at once, or only the one that is furthest from it; false when all stand right.
  bool flip(const Eigen::VectorXd& x, bool all) {
    bool any = false;
    std::size_t worst = m_modes.size();
    double most = 0;
    Mode next = Mode::Giving;
    for (std::size_t k = 0; k < m_c.branches.size(); ++k) {
      const auto& b = m_c.branches[k];
      if (b.kind != Kind::Source && b.kind != Kind::Regulator && b.kind != Kind::Coil) continue;
      const double want = wanted(b, x);
      const double least = -b.limit2;
      const Mode right = want < least - kModeMargin ? Mode::Idle : want > b.limit + kModeMargin ? Mode::Limit : Mode::Giving;
      const bool stays = (m_modes[k] == Mode::Idle && want <= least) || (m_modes[k] == Mode::Limit && want >= b.limit);
      if (right == m_modes[k] || stays) continue;
      any = true;
      const Mode better = m_modes[k] == Mode::Giving ? right : Mode::Giving;
      const double off = std::abs(want - std::clamp(want, least, b.limit)) + kModeMargin;
      if (all) {
        m_modes[k] = better;
      } else if (off > most) {
        most = off;
        worst = k;
        next = better;
      }
    }
    if (worst < m_modes.size()) m_modes[worst] = next;
    return any;
  }

  // Stamps every branch at x; fills the currents. `soft` adds a share of its linear part to every element that can go
  // flat (a supply in its limit, a running motor), so that Newton's method always sees a slope; it ends at zero.
  void stamp(const Eigen::VectorXd& x, double soft, std::vector<double>& amps) {
    std::ranges::fill(m_jacobian, 0.0);
    m_residual.setZero();
    for (std::size_t k = 0; k < m_c.branches.size(); ++k) amps[k] = stampOne(m_c.branches[k], x, soft);
    at(m_pattern->diagonal(0)) += 1;  // its first node is what voltages are counted from
    m_residual(0) += x(0);
    for (int i = 0; i < m_n; ++i) {
      at(m_pattern->diagonal(i)) += 1e-13;  // a node that nothing holds at all
      m_residual(i) += 1e-13 * x(i);
    }
  }
  /// Of the Jacobian as last stamped; nullptr when it is singular.
  const SparseFactors* factor() {
    m_factors = SparseFactors::of(m_pattern, m_jacobian, std::move(m_factors));
    return m_factors.get();
  }
  /// Pivots anew where the order of the last factors loses digits with the present values. False when it did.
  bool sound() {
    if (m_factors->sound()) return true;
    m_factors = nullptr;
    return false;
  }
  std::shared_ptr<SparseFactors> takeFactors() { return std::move(m_factors); }
  const std::shared_ptr<const SparsePattern>& pattern() const { return m_pattern; }
  const std::shared_ptr<const BranchSlots>& slots() const { return m_slots; }
  const Eigen::VectorXd& residual() const { return m_residual; }

 private:
  const Circuit& m_c;
  int m_n;
  std::vector<Mode> m_modes;  // per branch; meaningless for others than supplies and regulators
  std::shared_ptr<const SparsePattern> m_pattern;
  std::shared_ptr<const BranchSlots> m_slots;
  std::vector<double> m_jacobian;  // entries in the order of the pattern
  Eigen::VectorXd m_residual;
  std::shared_ptr<SparseFactors> m_factors;  // the last ones, to be used again

  // What a supply or regulator would give if it had no limits.
  static double wanted(const Branch& b, const Eigen::VectorXd& x) {
    if (b.kind == Kind::Source) return (b.v0 - (x(b.a) - x(b.b))) / b.r;
    if (b.kind == Kind::Coil) return (x(b.c) - x(b.d) - (x(b.a) - x(b.b))) / b.r;
    const double head = x(b.a) - x(b.c) - b.drop;
    return (b.v0 - ramp(b.v0 - head, kKneeWidth) - (x(b.b) - x(b.c))) / b.r;
  }

  bool fits(const BranchSlots& known) const {
    return m_pattern->nodes() == m_n && std::ranges::equal(known.ends, m_c.branches, [](const auto& ends, const Branch& b) {
             return ends[0] == b.a && ends[1] == b.b && ends[2] == b.c && ends[3] == b.d;
           });
  }

  double& at(int slot) { return m_jacobian[static_cast<std::size_t>(slot)]; }

  void add(const Branch& branch, double i, double gaa) {
    m_residual(branch.a) += i;
    m_residual(branch.b) -= i;
    const auto& slot = slotsOf(branch);
    at(slot[0]) += gaa;
    at(slot[1]) -= gaa;
    at(slot[4]) -= gaa;
    at(slot[5]) += gaa;
  }
  // A current i from a to b with its derivatives by the voltages of its ends.
  using Slope = std::array<double, 4>;
  void addCurved(const Branch& branch, double i, const Slope& by) {
    m_residual(branch.a) += i;
    m_residual(branch.b) -= i;
    const auto& slot = slotsOf(branch);
    for (std::size_t k = 0; k < by.size(); ++k) {
      if (slot[k] < 0) continue;
      at(slot[k]) += by[k];
      at(slot[4 + k]) -= by[k];
    }
  }
  std::size_t indexOf(const Branch& b) const { return static_cast<std::size_t>(&b - m_c.branches.data()); }
  const SparsePattern::Slots& slotsOf(const Branch& b) const { return m_slots->slots[indexOf(b)]; }

  double stampOne(const Branch& b, const Eigen::VectorXd& x, double soft) {
    const double v = x(b.a) - x(b.b);
    double i = 0;
    double g = 0;
    switch (b.kind) {
      case Kind::Conductance:
        i = b.g * v;
        g = b.g;
        break;
      case Kind::Knee:
        if (b.d >= 0) return junction(b, x, soft);
        i = ramp(v - b.v0, kKneeWidth) / b.r + (kOff + soft / b.r) * v;
        g = rampSlope(v - b.v0, kKneeWidth) / b.r + kOff + soft / b.r;
        break;
      case Kind::Saturating: {
        const auto bent = bentSharply(v, b.r, b.limit);
        i = bent.i + (1e-7 + soft / b.r) * v;
        g = bent.slope + 1e-7 + soft / b.r;
        break;
      }
      case Kind::Current:
        i = b.i;
        break;
      case Kind::Source: {
        const Mode mode = m_modes[indexOf(b)];
        if (mode == Mode::Giving) {
          i = -wanted(b, x);
          g = 1 / b.r;
        } else {
          i = (mode == Mode::Idle ? b.limit2 : -b.limit) + kIdle * v;
          g = kIdle;
        }
        break;
      }
      case Kind::Regulator:
        return regulator(b, x);
      case Kind::Bipolar:
      case Kind::Mosfet:
        return transistor(b, x);
      case Kind::Collector:
        return collector(b, x);
      case Kind::Coil:
        return coil(b, x);
      case Kind::Draw: {
        const auto drawn = chopperDraw(b, v, x(b.c) - x(b.d));
        addCurved(b, drawn.i, {drawn.byHead, -drawn.byHead, drawn.byCoil, -drawn.byCoil});
        return drawn.i;
      }
    }
    add(b, i, g);
    return i;
  }

  // A base-emitter junction whose knee moves with the collector current.
  double junction(const Branch& b, const Eigen::VectorXd& x, double soft) {
    const double v = x(b.a) - x(b.b);
    const double over = v - baseVolts(b, x(b.d));
    const double i = ramp(over, kKneeWidth) / b.r + (kOff + soft / b.r) * v;
    const double slope = rampSlope(over, kKneeWidth) / b.r;
    const double g = slope + kOff + soft / b.r;
    addCurved(b, i, {g, -g, 0, x(b.d) < b.full ? -slope * b.rise / b.full : 0});
    return i;
  }

  double regulator(const Branch& b, const Eigen::VectorXd& x) {
    const double in = x(b.a) - x(b.c);
    const double out = x(b.b) - x(b.c);
    const double head = in - b.drop;
    const double target = b.v0 - ramp(b.v0 - head, kKneeWidth);
    const double dTarget = rampSlope(b.v0 - head, kKneeWidth);
    const double want = (target - out) / b.r;
    const Mode mode = m_modes[indexOf(b)];
    if (mode != Mode::Giving) {
      const double flat = (mode == Mode::Limit ? b.limit : 0) + kIdle * (x(b.a) - x(b.b));
      add(b, flat, kIdle);
      return flat;
    }
    const double i = want;
    const double di = 1 / b.r;
    const double byIn = di * dTarget;
    const double byOut = -di;
    addCurved(b, i, {byIn, byOut, -byIn - byOut, 0});
    return i;
  }

  using Dual = Eigen::AutoDiffScalar<Eigen::Vector4d>;

  static Dual curve(const Branch& b, double va, double vb, double vc, double current) {
    return transistorCurrent(b, Dual(va, 4, 0), Dual(vb, 4, 1), Dual(vc, 4, 2), Dual(current, 4, 3));
  }

  double transistor(const Branch& b, const Eigen::VectorXd& x) {
    const auto i = curve(b, x(b.a), x(b.b), x(b.c), b.d < 0 ? 0 : x(b.d));
    const auto& by = i.derivatives();
    addCurved(b, i.value(), {by(0), by(1), by(2), by(3)});
    return i.value();
  }

  // The unknown at a less the collector current, on row a alone; no current flows there.
  double collector(const Branch& b, const Eigen::VectorXd& x) {
    const auto i = curve(b, x(b.b), x(b.d), x(b.c), x(b.a));
    const auto size = i < 0.0 ? Dual(-i) : i;
    const bool counts = size > kLeastCurrent;
    const auto& by = size.derivatives();
    const auto& slot = slotsOf(b);
    m_residual(b.a) += x(b.a) - (counts ? size.value() : kLeastCurrent);
    at(slot[0]) += counts ? 1 - by(3) : 1;
    if (!counts) return 0;
    at(slot[1]) -= by(0);
    at(slot[2]) -= by(2);
    at(slot[3]) -= by(1);
    return 0;
  }

  double coil(const Branch& b, const Eigen::VectorXd& x) {
    const Mode mode = m_modes[indexOf(b)];
    if (mode == Mode::Giving) {
      const double g = 1 / b.r;
      const double i = -wanted(b, x);
      addCurved(b, i, {g, -g, -g, g});
      return i;
    }
    const double i = (mode == Mode::Idle ? 0 : -b.limit) + kIdle * (x(b.a) - x(b.b));
    add(b, i, kIdle);
    return i;
  }
};

// Settled: no node wants to move, or what would move it is less current than anybody could measure. The second half is
// for nodes that only open semiconductors hold: rounding alone moves those by millivolts.
bool settledAt(const Eigen::VectorXd& step, const Eigen::VectorXd& residual, const Eigen::VectorXd& x, double tolerance) {
  for (Eigen::Index i = 0; i < step.size(); ++i)
    if (!(std::abs(step(i)) <= tolerance * (1 + std::min(std::abs(x(i)), 100.0))) && !(std::abs(residual(i)) <= kAmpTolerance))
      return false;
  return true;
}

constexpr int kPolishing = 3;
constexpr double kPolishStep = 1e-5;  // V
constexpr double kExact = 1e-12;      // A
constexpr double kLongest = 50;       // V a step
constexpr int kQuick = 16;            // passes that a start close to the solution needs at most
constexpr int kHurried = 1;           // a stage on the way there need not come to rest
constexpr int kThorough = 80;
constexpr double kFirstCurrent = 0.1;  // A: where the search for a collector current begins

// Last small steps, exact to rounding: results must not depend on where the search began. Nodes that hardly anything
// holds may want to move far; they are held back so that they cannot spoil the others, and a step that makes things
// worse (at the corner of a knee the slope tells nothing) is taken back.
void polish(System& system, Eigen::VectorXd& x, std::vector<double>& amps) {
  system.stamp(x, 0, amps);
  for (int k = 0; k < kPolishing; ++k) {
    const double before = system.residual().cwiseAbs().maxCoeff();
    if (before < kExact) return;
    const auto* factors = system.factor();
    if (!factors) return;
    const Eigen::VectorXd step = factors->solve(system.residual()).cwiseMax(-kPolishStep).cwiseMin(kPolishStep);
    if (!step.allFinite()) return;
    x -= step;
    system.stamp(x, 0, amps);
    if (system.residual().cwiseAbs().maxCoeff() <= before) continue;
    x += step;
    system.stamp(x, 0, amps);
    return;
  }
}

enum class Rest { None, Rough, Full };

// Newton's method from x, until it is as settled as wanted (or more).
Rest iterate(System& system, Eigen::VectorXd& x, double soft, int most, Rest wanted, std::vector<double>& amps, int& passes) {
  double trust = kLongest;
  Eigen::VectorXd last;
  for (int pass = 0; pass < most; ++pass) {
    ++passes;
    system.stamp(x, soft, amps);
    const auto* factors = system.factor();
    if (!factors) return Rest::None;
    Eigen::VectorXd step = -factors->solve(system.residual());
    if (!step.allFinite()) return Rest::None;
    const double largest = step.cwiseAbs().maxCoeff();
    const bool full = settledAt(step, system.residual(), x, kVoltTolerance);
    const bool settled = full || (wanted == Rest::Rough && settledAt(step, system.residual(), x, kRoughly));
    if (full && !system.sound()) continue;  // with fresh pivots from here
    // Two flat stretches with a narrow slope between them (a supply between idle and its limit) make the steps swing
    // from one to the other: whenever the direction turns, the next step is held shorter.
    trust = last.size() > 0 && step.dot(last) < 0 ? 0.4 * last.cwiseAbs().maxCoeff() : std::min(kLongest, 1.5 * trust);
    if (largest > trust) step *= trust / largest;
    last = step;
    x += step;
    if (settled) return full ? Rest::Full : Rest::Rough;
  }
  return Rest::None;
}

// Newton's method for one set of modes after the other, until every supply stands right. Where one stands shows long before
// the last microvolt.
// @param together for so many rounds all go at once where they want to; then one at a time, so that two cannot chase each other
bool settle(System& system, Eigen::VectorXd& x, int most, int together, BlockSolution& s) {
  Rest wanted = Rest::Rough;
  for (int flips = 0; flips < kMostFlips;) {
    const auto rest = iterate(system, x, 0, most, wanted, s.amps, s.passes);
    if (rest == Rest::None) return false;
    if (system.flip(x, flips < together)) {
      ++flips;
      wanted = Rest::Rough;
    } else if (rest == Rest::Full) {
      return true;
    } else {
      wanted = Rest::Full;
    }
  }
  return false;
}

}  // namespace

std::optional<double> BlockSolution::resistance(int a, int b) const {
  if (!factors) return std::nullopt;
  Eigen::VectorXd push = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(volts.size()));
  push(a) += 1;
  push(b) -= 1;
  const Eigen::VectorXd v = factors->solve(push);
  return v(a) - v(b);
}

void solveBlock(BlockSolution& s, Accuracy accuracy) {
  s.passes = 0;
  s.amps.resize(s.circuit.branches.size());
  System system(s);
  Eigen::VectorXd x = Eigen::VectorXd::Zero(s.circuit.nodes);
  const bool warm = static_cast<int>(s.volts.size()) == s.circuit.nodes;
  if (warm) {
    x = Eigen::Map<const Eigen::VectorXd>(s.volts.data(), s.circuit.nodes);
    system.begin(s.modes);
  }
  s.converged = warm && settle(system, x, kQuick, kTogether, s);
  // From a bench of plain resistances to the real one, little by little: first in a hurry, then with patience.
  for (const int stage : {kHurried, kThorough}) {
    if (s.converged) break;
    x.setZero();
    for (const auto& b : s.circuit.branches)
      if (b.kind == Kind::Collector) x(b.a) = kFirstCurrent;
    system.reset();
    for (const double soft : {1.0, 0.1, 0.01, 1e-3, 1e-4}) iterate(system, x, soft, stage, Rest::Rough, s.amps, s.passes);
    s.converged = settle(system, x, kThorough, stage == kHurried ? kTogether : 0, s);
  }
  s.accuracy = accuracy;
  if (s.converged && accuracy == Accuracy::Exact) {
    polish(system, x, s.amps);
    if (!system.factor() || (!system.sound() && !system.factor())) s.converged = false;
  }
  s.modes = system.modes();
  s.volts.assign(x.data(), x.data() + x.size());
  s.pattern = system.pattern();
  s.slots = system.slots();
  if (s.converged) s.factors = system.takeFactors();
}

}  // namespace bold::circuit
