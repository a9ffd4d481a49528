#include "core/solver/block_system.h"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <unsupported/Eigen/AutoDiff>

#include "core/solver/branch_curves.h"

namespace bold::solver {
namespace {

using Kind = Branch::Kind;

constexpr double kModeMargin = 1e-9;  // A
constexpr double kIdle = 1e-7;        // S: what is left of a supply that gives nothing, or all it can
constexpr double kFlat = 1e-7;        // S: what is left of a motor or pin in its limit
constexpr double kNodeGmin = 1e-13;   // S: holds a node that nothing else does

bool isSupply(Kind kind) {
  return kind == Kind::Source || kind == Kind::Regulator || kind == Kind::Coil;
}

using Dual = Eigen::AutoDiffScalar<Eigen::Vector4d>;

Dual curve(const Branch& b, double va, double vb, double vc, double current) {
  return transistorCurrent(b, Dual(va, 4, 0), Dual(vb, 4, 1), Dual(vc, 4, 2), Dual(current, 4, 3));
}

}  // namespace

BlockSystem::BlockSystem(BlockSolution& s)
    : m_c(s.circuit),
      m_pattern(s.pattern),
      m_slots(s.slots),
      m_residual(static_cast<std::size_t>(s.circuit.nodes)),
      m_amps(s.circuit.branches.size()),
      m_factors(std::move(s.factors)) {
  if (!m_pattern || !m_slots || !fits(*m_slots)) {
    std::vector<SparsePattern::Ends> ends;
    ends.reserve(m_c.branches.size());
    for (const auto& b : m_c.branches) ends.push_back({b.a, b.b, b.c, b.d});
    auto found = m_pattern ? m_pattern->slots(m_c.nodes, ends) : std::nullopt;
    if (!found) {
      m_pattern = std::make_shared<const SparsePattern>(m_c.nodes, ends);
      found = m_pattern->slots(m_c.nodes, ends);
    }
    m_slots = std::make_shared<const BranchSlots>(BranchSlots{std::move(ends), std::move(*found)});
  }
  for (auto* list : {&m_straight, &m_knees, &m_saturating}) list->reserve(m_c.branches.size());
  for (std::size_t k = 0; k < m_c.branches.size(); ++k) {
    const auto& b = m_c.branches[k];
    if (isSupply(b.kind)) m_supplies.push_back(k);
    if (b.kind == Kind::Conductance && b.g == 0)
      continue;  // a pin's other transistor
    else if (b.kind == Kind::Conductance)
      m_straight.push_back(twoEnded(k));
    else if (b.kind == Kind::Knee && b.d < 0)
      m_knees.push_back(twoEnded(k));
    else if (b.kind == Kind::Saturating)
      m_saturating.push_back(twoEnded(k));
    else
      m_others.push_back(k);
  }
  m_jacobian.assign(m_pattern->entries(), 0);
  for (const auto& t : m_straight) add(t, 0, branchOf(t).g);
  for (const auto& t : m_knees) add(t, 0, kGmin);
  m_fixed = m_jacobian;
  for (int i = 0; i < m_c.nodes; ++i) m_fixed[m_pattern->diagonal(i)] += kNodeGmin;
  m_fixed[m_pattern->diagonal(0)] += 1;  // its first node is what voltages are counted from
  resetModes();
  if (s.modes.size() == m_modes.size())
    for (std::size_t k = 0; k < s.modes.size(); ++k) m_modes[k] = static_cast<Mode>(s.modes[k]);
}

bool BlockSystem::fits(const BranchSlots& known) const {
  return m_pattern->nodes() == m_c.nodes && std::ranges::equal(known.ends, m_c.branches, [](const auto& ends, const Branch& b) {
           return ends[0] == b.a && ends[1] == b.b && ends[2] == b.c && ends[3] == b.d;
         });
}

void BlockSystem::resetModes() {
  m_modes.assign(m_c.branches.size(), Mode::Giving);
  for (const auto k : m_supplies) {
    if (m_c.branches[k].kind == Kind::Regulator) m_modes[k] = Mode::Idle;
    if (m_c.branches[k].kind == Kind::Coil) m_modes[k] = Mode::Limit;
  }
}

// What a supply or regulator would give if it had no limits.
double BlockSystem::wanted(const Branch& b, const double* x) const {
  if (b.kind == Kind::Source) return (m_sourceShare * b.v0 - (x[b.a] - x[b.b])) / b.r;
  if (b.kind == Kind::Coil) return (x[b.c] - x[b.d] - (x[b.a] - x[b.b])) / b.r;
  const double head = x[b.a] - x[b.c] - b.drop;
  return (b.v0 - ramp(b.v0 - head, kKneeWidth) - (x[b.b] - x[b.c])) / b.r;
}

bool BlockSystem::flipModes(const Vector& x, bool all) {
  bool any = false;
  std::size_t worst = 0;
  double most = 0;
  Mode next = Mode::Giving;
  for (const auto k : m_supplies) {
    const auto& b = m_c.branches[k];
    const double want = wanted(b, x.data());
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
  if (any && !all) m_modes[worst] = next;
  return any;
}

void BlockSystem::stamp(const Vector& x, double homotopy) {
  m_jacobian = m_fixed;
  for (std::size_t i = 0; i < m_residual.size(); ++i) m_residual[i] = kNodeGmin * x[i];
  m_residual[0] += x[0];
  const double* const volts = x.data();
  double* const out = m_residual.data();
  for (const auto& t : m_straight) {
    const double i = branchOf(t).g * (volts[t.a] - volts[t.b]);
    out[t.a] += i;
    out[t.b] -= i;
    m_amps[t.branch] = i;
  }
  for (const auto& t : m_knees) knee(t, volts, homotopy);
  for (const auto& t : m_saturating) saturating(t, volts, homotopy);
  for (const auto k : m_others) m_amps[k] = other(k, volts, homotopy);
}

void BlockSystem::hold(const std::vector<char>& nodes) {
  for (std::size_t at = 0; at < m_jacobian.size(); ++at)
    if (nodes[m_pattern->row(at)] != 0) m_jacobian[at] = 0;
  for (int i = 0; i < m_c.nodes; ++i) {
    if (nodes[i] == 0) continue;
    m_jacobian[m_pattern->diagonal(i)] = 1;
    m_residual[i] = 0;
  }
}

bool BlockSystem::sound() {
  if (m_factors.sound()) return true;
  m_factors.forgetOrder();
  return false;
}

void BlockSystem::leave(BlockSolution& s) {
  s.modes.resize(m_modes.size());
  for (std::size_t k = 0; k < m_modes.size(); ++k) s.modes[k] = static_cast<char>(m_modes[k]);
  s.amps = std::move(m_amps);
  s.pattern = m_pattern;
  s.slots = m_slots;
  s.factors = std::move(m_factors);
}

BlockSystem::TwoEnded BlockSystem::twoEnded(std::size_t k) const {
  const auto& b = m_c.branches[k];
  const auto& slot = m_slots->slots[k];
  return {b.a, b.b, slot[0], slot[1], slot[4], slot[5], static_cast<int>(k)};
}

void BlockSystem::add(const TwoEnded& t, double i, double g) {
  double* const out = m_residual.data();
  double* const jacobian = m_jacobian.data();
  out[t.a] += i;
  out[t.b] -= i;
  jacobian[t.aa] += g;
  jacobian[t.ab] -= g;
  jacobian[t.ba] -= g;
  jacobian[t.bb] += g;
  m_amps[t.branch] = i;
}

// What it carries while it is off is among the straight ones.
void BlockSystem::knee(const TwoEnded& t, const double* x, double homotopy) {
  const auto& b = branchOf(t);
  const double v = x[t.a] - x[t.b];
  const double off = kGmin * v;
  if (homotopy == 0 && v - b.v0 <= -kKneeWidth) {
    m_residual[t.a] += off;
    m_residual[t.b] -= off;
    m_amps[t.branch] = off;
    return;
  }
  const double added = homotopy / b.r;
  add(t, ramp(v - b.v0, kKneeWidth) / b.r + added * v + off, rampSlope(v - b.v0, kKneeWidth) / b.r + added);
}

void BlockSystem::saturating(const TwoEnded& t, const double* x, double homotopy) {
  const auto& b = branchOf(t);
  const double v = x[t.a] - x[t.b];
  const auto bent = bentSharply(v, b.r, b.limit);
  const double loose = kFlat + homotopy / b.r;
  add(t, bent.i + loose * v, bent.slope + loose);
}

// A current i from a to b with its derivatives by the voltages of its ends.
void BlockSystem::addCurved(std::size_t k, double i, const Slope& by) {
  const auto& b = m_c.branches[k];
  m_residual[b.a] += i;
  m_residual[b.b] -= i;
  const auto& slot = m_slots->slots[k];
  for (std::size_t e = 0; e < by.size(); ++e) {
    if (slot[e] < 0) continue;
    m_jacobian[slot[e]] += by[e];
    m_jacobian[slot[4 + e]] -= by[e];
  }
}

double BlockSystem::other(std::size_t k, const double* x, double homotopy) {
  const auto& b = m_c.branches[k];
  switch (b.kind) {
    case Kind::Conductance:
    case Kind::Saturating:
      break;
    case Kind::Knee:
      return junction(k, x, homotopy);
    case Kind::Current:
      return current(k, x, homotopy);
    case Kind::Source:
      return source(k, x);
    case Kind::Regulator:
      return regulator(k, x);
    case Kind::Bipolar:
    case Kind::Mosfet:
      return transistor(k, x);
    case Kind::Collector:
      return collector(k, x);
    case Kind::Coil:
      return coil(k, x);
    case Kind::Converter:
      return converter(k, x);
    case Kind::Lit: {
      const double over = x[b.c] - x[b.d] - b.v0;
      const double slope = b.gain * rampSlope(over, kKneeWidth) / b.r;
      addCurved(k, b.gain * ramp(over, kKneeWidth) / b.r, {0, 0, slope, -slope});
      return b.gain * ramp(over, kKneeWidth) / b.r;
    }
    case Kind::Given:
      addCurved(k, x[b.d], {0, 0, 0, 1});
      return x[b.d];
    case Kind::PowerDraw: {
      const auto drawn = powerDraw(b, x[b.d], x[b.a] - x[b.b], x[b.c] - x[b.b]);
      addCurved(k, drawn.i, {drawn.byIn, -drawn.byIn - drawn.byOut, drawn.byOut, drawn.byCurrent});
      return drawn.i;
    }
    case Kind::Draw: {
      const auto drawn = chopperDraw(b, x[b.a] - x[b.b], x[b.c] - x[b.d]);
      addCurved(k, drawn.i, {drawn.byHead, -drawn.byHead, drawn.byCoil, -drawn.byCoil});
      return drawn.i;
    }
  }
  return 0;
}

// What the coil keeps flowing, less what arcs over once there is voltage enough.
double BlockSystem::current(std::size_t k, const double* x, double homotopy) {
  const auto& b = m_c.branches[k];
  const double v = x[b.a] - x[b.b];
  const double loose = kGmin + homotopy;
  const double i = b.i + arcCurrent(v) + loose * v;
  add(twoEnded(k), i, rampSlope(std::abs(v) - kArcVolts, kKneeWidth) + loose);
  return i;
}

// Idle or in its limit it lets a little through still, beginning with nothing where it turns from giving: a supply that a
// diode's leak alone draws on would otherwise be right in neither mode.
double BlockSystem::source(std::size_t k, const double* x) {
  const auto& b = m_c.branches[k];
  const double want = wanted(b, x);
  double i = -want;
  if (m_modes[k] != Mode::Giving) {
    const double edge = m_modes[k] == Mode::Idle ? -b.limit2 : b.limit;
    i = -edge - kIdle * b.r * (want - edge);
  }
  add(twoEnded(k), i, m_modes[k] == Mode::Giving ? 1 / b.r : kIdle);
  return i;
}

// A base-emitter junction whose knee moves with the collector current.
double BlockSystem::junction(std::size_t k, const double* x, double homotopy) {
  const auto& b = m_c.branches[k];
  const double v = x[b.a] - x[b.b];
  const double over = v - baseVolts(b, x[b.d]);
  const double i = ramp(over, kKneeWidth) / b.r + (kGmin + homotopy / b.r) * v;
  const double slope = rampSlope(over, kKneeWidth) / b.r;
  const double g = slope + kGmin + homotopy / b.r;
  addCurved(k, i, {g, -g, 0, x[b.d] < b.full ? -slope * b.rise / b.full : 0});
  return i;
}

double BlockSystem::regulator(std::size_t k, const double* x) {
  const auto& b = m_c.branches[k];
  const Mode mode = m_modes[k];
  if (mode != Mode::Giving) {
    const double flat = (mode == Mode::Limit ? b.limit : 0) + kIdle * (x[b.a] - x[b.b]);
    add(twoEnded(k), flat, kIdle);
    return flat;
  }
  const double i = wanted(b, x);
  const double byIn = rampSlope(b.v0 - (x[b.a] - x[b.c] - b.drop), kKneeWidth) / b.r;
  const double byOut = -1 / b.r;
  addCurved(k, i, {byIn, byOut, -byIn - byOut, 0});
  return i;
}

double BlockSystem::transistor(std::size_t k, const double* x) {
  const auto& b = m_c.branches[k];
  const auto i = curve(b, x[b.a], x[b.b], x[b.c], b.d < 0 ? 0 : x[b.d]);
  const auto& by = i.derivatives();
  addCurved(k, i.value(), {by(0), by(1), by(2), by(3)});
  return i.value();
}

// The unknown at a less the collector current, on row a alone; no current flows there.
double BlockSystem::collector(std::size_t k, const double* x) {
  const auto& b = m_c.branches[k];
  const auto i = curve(b, x[b.b], x[b.d], x[b.c], x[b.a]);
  const auto size = i < 0.0 ? Dual(-i) : i;
  const bool counts = size > kLeastCurrent;
  const auto& by = size.derivatives();
  const auto& slot = m_slots->slots[k];
  const auto at = [&](std::size_t e) -> double& { return m_jacobian[slot[e]]; };
  m_residual[b.a] += x[b.a] - (counts ? size.value() : kLeastCurrent);
  at(0) += counts ? 1 - by(3) : 1;
  if (!counts) return 0;
  at(1) -= by(0);
  at(2) -= by(2);
  at(3) -= by(1);
  return 0;
}

// The unknown at a less what the converter gives, on row a alone.
double BlockSystem::converter(std::size_t k, const double* x) {
  const auto& b = m_c.branches[k];
  const double in = x[b.c] - x[b.d];
  const double out = x[b.b] - x[b.d];
  const auto given = converterCurrent(b, in, out);
  const auto& slot = m_slots->slots[k];
  const auto at = [&](std::size_t e) -> double& { return m_jacobian[slot[e]]; };
  m_residual[b.a] += x[b.a] - given.i;
  at(0) += 1;
  at(1) -= given.byOut;
  at(2) -= given.byIn;
  at(3) += given.byIn + given.byOut;
  return 0;
}

double BlockSystem::coil(std::size_t k, const double* x) {
  const auto& b = m_c.branches[k];
  const Mode mode = m_modes[k];
  if (mode == Mode::Giving) {
    const double g = 1 / b.r;
    const double i = -wanted(b, x);
    addCurved(k, i, {g, -g, -g, g});
    return i;
  }
  const double loose = b.limit > 0 ? kIdle : kGmin;  // switched off: open
  const double i = (mode == Mode::Idle ? 0 : -b.limit) + loose * (x[b.a] - x[b.b]);
  add(twoEnded(k), i, loose);
  return i;
}

}  // namespace bold::solver
