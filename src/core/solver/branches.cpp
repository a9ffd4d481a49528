#include "core/solver/branches.h"

#include <algorithm>

namespace bold::solver {
namespace {

constexpr double kLeastOhms = 1e-4;
constexpr double kLeastLimit = 1e-12;  // A

Branch between(int a, int b, Branch::Kind kind) {
  Branch x;
  x.kind = kind;
  x.a = a;
  x.b = b;
  return x;
}

}  // namespace

Branch conductance(int a, int b, double siemens) {
  auto x = between(a, b, Branch::Kind::Conductance);
  x.g = siemens;
  return x;
}

Branch knee(int a, int b, double v0, double ohms) {
  auto x = between(a, b, Branch::Kind::Knee);
  x.v0 = v0;
  x.r = std::max(ohms, kLeastOhms);
  return x;
}

Branch saturating(int a, int b, double ohms, double limit) {
  auto x = between(a, b, Branch::Kind::Saturating);
  x.r = std::max(ohms, kLeastOhms);
  x.limit = std::max(limit, kLeastLimit);
  return x;
}

Branch source(int a, int b, double volts, double ohms, double limit, double taken) {
  auto x = between(a, b, Branch::Kind::Source);
  x.v0 = volts;
  x.r = std::max(ohms, kLeastOhms);
  x.limit = limit;
  x.limit2 = taken;
  return x;
}

Branch current(int a, int b, double amps) {
  auto x = between(a, b, Branch::Kind::Current);
  x.i = amps;
  return x;
}

}  // namespace bold::solver
