#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/parts/read_element.h"
#include "core/parts/roles.h"

namespace bold::checks::terminal_unknown {
namespace {

// Nothing of what its part says is about it.
bool nothingKnown(const bench::BenchDevice& device, const parts::Terminal& t) {
  if (t.input || t.limit || t.supply || t.pin || t.ground || t.output || t.phase || !t.bus.empty()) return false;
  return std::ranges::none_of(device.part->elements, [&](const parts::Element& e) {
    const auto nodes = parts::nodesOf(e);
    return std::ranges::any_of(nodes, [&](const parts::Node& n) { return n == t.id; });
  });
}

// A board that is plugged onto another leads what it has no use for through to it.
bool ledThrough(const SolvedBench& s, TerminalIndex t) {
  return std::ranges::any_of(s.bench.links, [&](const bench::Link& l) {
    return (l.a == t || l.b == t) && s.bench.connections[l.connection].kind == harness::ConnectionKind::Plug;
  });
}

}  // namespace

// A terminal of a board or a stage of which nothing is known, with something wired to it: what it may be brought to nobody can say.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& device = s.bench.devices[s.bench.deviceOf(t)];
    const auto& facts = s.bench.facts(t);
    const bool active = parts::isController(*device.part) || !device.part->channels.empty();
    if (!active || device.unknown || !s.bench.connected(t) || facts.id.starts_with("NC") || !nothingKnown(device, facts) ||
        ledThrough(s, t))
      continue;
    auto f = finding(Severity::NotJudged, fmt::format("Nothing is known of {}", s.bench.called(t)),
                     fmt::format("What {} may be brought to is not known: nothing is said about what is wired to it.", s.bench.called(t)),
                     {s.bench.address(t)});
    f.ways = {{fmt::format("Take the wire off {}, or put what its data sheet says of it into a part of your own.", s.bench.called(t))}};
    f.formula = "no figure of it";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"terminal-unknown", "voltage", "A terminal of which nothing is known", Harm::Damage, judge};
}

}  // namespace bold::checks::terminal_unknown
