#include "core/harness/overlaid.h"

#include <algorithm>

namespace bold::harness {
namespace {

bool sameEnds(const Connection& a, const Connection& b) {
  return a.kind == b.kind && a.colour == b.colour && ((a.a == b.a && a.b == b.b) || (a.a == b.b && a.b == b.a));
}

}  // namespace

Harness overlaid(const Harness& from, const Harness& to) {
  auto out = asItStands(to);
  out.marks.clear();
  for (auto& d : out.devices) {
    const auto* was = from.device(d.id);
    if (!was || was->part != d.part) d.state = State::Planned;
  }
  for (auto& c : out.connections)
    if (std::ranges::none_of(from.connections, [&](const Connection& was) { return sameEnds(was, c); })) c.state = State::Planned;
  for (const auto& d : from.devices)
    if (!out.device(d.id)) {
      out.devices.push_back(d);
      out.devices.back().state = State::ToBeRemoved;
    }
  for (const auto& c : from.connections) {
    if (std::ranges::any_of(to.connections, [&](const Connection& now) { return sameEnds(c, now); })) continue;
    out.connections.push_back(c);
    out.connections.back().id = out.freeId("gone");
    out.connections.back().state = State::ToBeRemoved;
  }
  return out;
}

}  // namespace bold::harness
