#include "support/reference_solver.h"

#include <algorithm>
#include <cmath>

#include "core/base/interpolate.h"

namespace bold::test {
namespace {

using solver::Branch;
using solver::Circuit;
using Kind = Branch::Kind;

double rounded(double x) {
  const double w = solver::kKneeWidth;
  return x <= -w ? 0 : x >= w ? x : (x + w) * (x + w) / (4 * w);
}

double bend(double v, double r, double limit, double p) {
  return v / r / std::pow(1 + std::pow(std::abs(v) / (r * limit), p), 1 / p);
}

// Into a bipolar's collector while its gain, saturation and VBE are those at the current `ic`.
double bipolar(const Branch& b, double collector, double emitter, double base, double ic) {
  ic = std::max(ic, 1e-3);
  const double v = b.sign * (collector - emitter);
  const double vbe = b.v0 + b.rise * std::min(1.0, ic / b.full);
  const double gain = b.gains ? std::max(interpolate(*b.gains, ic), 1.0) : b.gain;
  // The saturation rows read the other way round: from V to A.
  const double head = rounded(v - b.drop);
  double saturated = head / b.ron;
  if (b.rows) {
    std::vector<std::pair<double, double>> line{{0, 0}};
    const auto& [firstI, firstV] = b.rows->front();
    if (b.drop == 0 && firstI > 1e-3) line.emplace_back(0.9 * firstV, 1e-3);
    for (const auto& [rowI, rowV] : *b.rows)
      if (rowI > 0) line.emplace_back(std::max(rowV - b.drop, line.back().first + 1e-4 * (rowI - line.back().second)), rowI);
    const auto& [v0, i0] = line.size() > 1 ? line[line.size() - 2] : line.front();
    const auto& [v1, i1] = line.back();
    const double ohms = b.rows->size() < 2 ? std::max((firstV - b.drop) / std::max(firstI, 1e-3), 1e-3) : (v1 - v0) / (i1 - i0);
    saturated = head > v1 ? i1 + (head - v1) / ohms : interpolate(line, head);
  }
  const double most = gain * rounded(b.sign * (base - emitter) - vbe) / b.r;
  return b.sign * bend(saturated, 1, std::max(most, 1e-12), 2) + solver::kGmin * (collector - emitter);
}

// What a chopper drives through its coil.
double driven(const Branch& b, double head, double coil) {
  return std::clamp((head - coil) / b.r, 0.0, b.limit);
}

// The law of a branch, written down again: current from a to b; of a Collector or Converter what its equation is off by.
double law(const Branch& b, double va, double vb, double vc, double vd) {
  const double v = va - vb;
  switch (b.kind) {
    case Kind::Conductance:
      return b.g * v;
    case Kind::Knee:
      return rounded(v - b.v0 - (b.d < 0 ? 0 : b.rise * std::min(1.0, vd / b.full))) / b.r + solver::kGmin * v;
    case Kind::Saturating:
      return bend(v, b.r, b.limit, 6) + 1e-7 * v;
    case Kind::Current:
      return b.i + std::copysign(rounded(std::abs(v) - 200), v) + solver::kGmin * v;
    case Kind::Source:
      return -std::clamp((b.v0 - v) / b.r, -b.limit2, b.limit);
    case Kind::Regulator: {
      const double target = b.v0 - rounded(b.v0 - (va - vc - b.drop));
      return std::clamp((target - (vb - vc)) / b.r, 0.0, b.limit);
    }
    case Kind::Bipolar:
      return bipolar(b, va, vb, vc, b.d < 0 ? 0 : vd);
    case Kind::Collector:
      return va - std::max(std::abs(bipolar(b, vb, vd, vc, va)), 1e-3);
    case Kind::Coil:
      return -driven(b, vc - vd, v);
    case Kind::Draw: {
      const double i = driven(b, v, vc - vd);
      return i * (std::max(vc - vd, 0.0) + i * b.r) / std::max(v, 1.0) + b.i * std::clamp(v - 0.5, 0.0, 1.0);
    }
    case Kind::Lit:
      return b.gain * rounded(vc - vd - b.v0) / b.r;
    case Kind::Given:
      return vd;
    case Kind::PowerDraw:
      return std::max(vd, 0.0) * std::max(vc - vb, 0.0) / (b.efficiency * std::max(v, 0.5));
    case Kind::Converter: {
      const double out = vb - vd;
      const double target = b.v0 - rounded(b.v0 - rounded(b.gain * (vc - vd - b.drop) - solver::kKneeWidth));
      const double most = b.limit2 > 0 ? std::min(b.limit, b.limit2 * b.efficiency * std::max(vc - vd, 0.0) / std::max(out, 0.5)) : b.limit;
      return va - std::clamp((vc - vd - 0.1) / (b.ron - 0.1), 0.0, 1.0) * std::clamp((target - out) / b.r, 0.0, most);
    }
    case Kind::Mosfet: {
      const double control = b.sign * (vc - vb) + rounded(-b.sign * v);  // its channel is symmetrical: the lower end is the source
      const double over = rounded(control - b.v0);
      const double ron = control >= b.rows->front().first ? interpolate(*b.rows, control) : 1 / std::max(2 * b.gain * over, 1e-9);
      return b.sign * bend(b.sign * v, ron, std::max(b.gain * over * over, 1e-12), 2) + solver::kGmin * v;
    }
  }
  return 0;
}

using Matrix = std::vector<std::vector<double>>;

// Gauss with pivoting, in place; the right-hand side becomes the solution.
bool eliminate(Matrix& m, std::vector<double>& right) {
  const std::size_t n = right.size();
  for (std::size_t c = 0; c < n; ++c) {
    std::size_t pivot = c;
    for (std::size_t r = c + 1; r < n; ++r)
      if (std::abs(m[r][c]) > std::abs(m[pivot][c])) pivot = r;
    if (std::abs(m[pivot][c]) < 1e-300) return false;
    std::swap(m[c], m[pivot]);
    std::swap(right[c], right[pivot]);
    for (std::size_t r = c + 1; r < n; ++r) {
      const double f = m[r][c] / m[c][c];
      if (f == 0) continue;
      for (std::size_t k = c; k < n; ++k) m[r][k] -= f * m[c][k];
      right[r] -= f * right[c];
    }
  }
  for (std::size_t c = n; c-- > 0;) {
    for (std::size_t k = c + 1; k < n; ++k) right[c] -= m[c][k] * right[k];
    right[c] /= m[c][c];
  }
  return true;
}

// The first node of everything that hangs together is held at zero, as in the solver.
std::vector<bool> held(const Circuit& c) {
  std::vector<int> group(static_cast<std::size_t>(c.nodes));
  for (int i = 0; i < c.nodes; ++i) group[i] = i;
  for (bool more = true; more;) {
    more = false;
    for (const auto& b : c.branches) {
      auto join = [&](int x, int y) {
        auto& p = group[x];
        auto& q = group[y];
        if (p != q) {
          p = q = std::min(p, q);
          more = true;
        }
      };
      join(b.a, b.b);
      if (b.kind == Kind::Regulator) join(b.a, b.c);
    }
  }
  std::vector<bool> out(group.size());
  for (int i = 0; i < c.nodes; ++i) out[i] = group[i] == i;
  for (const auto& b : c.branches)
    if (b.kind == Kind::Collector || b.kind == Kind::Converter) out[b.a] = false;  // no node
  return out;
}

}  // namespace

ReferenceSolution solveByCharging(const Circuit& c) {
  ReferenceSolution s;
  const auto n = static_cast<std::size_t>(c.nodes);
  s.volts.assign(n, 0);
  const auto fixed = held(c);
  const auto at = [&](int node) { return node < 0 ? 0.0 : s.volts[node]; };
  double step = 1e-4;  // s/F: how far the capacitors are charged at a time
  for (int round = 0; round < 4000; ++round) {
    Matrix m(n, std::vector<double>(n, 0));
    std::vector<double> out(n, 0);
    for (const auto& b : c.branches) {
      const double va = at(b.a);
      const double vb = at(b.b);
      const double vc = at(b.c);
      const double vd = at(b.d);
      const double i = law(b, va, vb, vc, vd);
      const bool flows = b.kind != Kind::Collector && b.kind != Kind::Converter;
      out[b.a] += i;
      if (flows) out[b.b] -= i;
      const double h = 1e-7;
      const double by[4] = {(law(b, va + h, vb, vc, vd) - law(b, va - h, vb, vc, vd)) / (2 * h),
                            (law(b, va, vb + h, vc, vd) - law(b, va, vb - h, vc, vd)) / (2 * h),
                            (law(b, va, vb, vc + h, vd) - law(b, va, vb, vc - h, vd)) / (2 * h),
                            (law(b, va, vb, vc, vd + h) - law(b, va, vb, vc, vd - h)) / (2 * h)};
      const int nodes[4] = {b.a, b.b, b.c, b.d};
      for (int k = 0; k < 4; ++k) {
        if (nodes[k] < 0) continue;
        m[b.a][nodes[k]] += by[k];
        if (flows) m[b.b][nodes[k]] -= by[k];
      }
    }
    double worst = 0;
    for (std::size_t i = 0; i < n; ++i) {
      if (fixed[i]) {
        std::fill(m[i].begin(), m[i].end(), 0.0);
        m[i][i] = 1;
        out[i] = s.volts[i];
      }
      out[i] += 1e-13 * s.volts[i];
      worst = std::max(worst, std::abs(out[i]));
      m[i][i] += 1e-13 + 1 / step;
    }
    if (worst < 1e-10) {
      s.settled = true;
      return s;
    }
    auto move = out;
    if (!eliminate(m, move)) return s;
    double largest = 0;
    for (std::size_t i = 0; i < n; ++i) largest = std::max(largest, std::abs(move[i]));
    // Never far at a time: a supply's limits are corners that a long step jumps over and back.
    for (std::size_t i = 0; i < n; ++i) s.volts[i] -= std::clamp(move[i], -0.25, 0.25);
    // Small moves: longer steps; large ones: the capacitors charge more carefully.
    step = largest < 0.05 ? std::min(step * 2, 1e9) : largest > 0.5 ? std::max(step / 4, 1e-7) : step;
  }
  return s;
}

}  // namespace bold::test
