#include "core/report/comparison.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/margin_words.h"
#include "core/harness/differences.h"
#include "core/harness/harness.h"

namespace bold::report {
namespace {

constexpr double kShift = 0.05;  // of the way to a limit: less is no difference to anybody

std::map<std::string, checks::Severity> graveness(const Analysis& a) {
  std::map<std::string, checks::Severity> out;
  for (const auto& f : a.findings)
    if (f.severity != checks::Severity::Note) out.emplace(f.identity(), f.severity);
  return out;
}

// Those that the other bench has not, or has milder.
checks::Findings onlyIn(const Analysis& a, const Analysis& other) {
  const auto there = graveness(other);
  checks::Findings out;
  for (const auto& f : a.findings) {
    if (f.severity == checks::Severity::Note) continue;
    const auto it = there.find(f.identity());
    if (it == there.end() || it->second > f.severity) out.push_back(f);
  }
  return out;
}

// Which id a connection has is nothing that anybody sees: one between the same ends goes by the id that the other bench has for it.
harness::Harness byTheIdsOf(const harness::Harness& from, harness::Harness to) {
  const auto same = [](const harness::Connection& a, const harness::Connection& b) {
    return a.kind == b.kind && ((a.a == b.a && a.b == b.b) || (a.a == b.b && a.b == b.a));
  };
  for (auto& c : to.connections) {
    const auto* own = from.connection(c.id);
    if (!own || !same(*own, c))
      for (const auto& other : from.connections) {
        const auto there = std::ranges::find(to.connections, other.id, &harness::Connection::id);
        if (!same(other, c) || (there != to.connections.end() && same(other, *there))) continue;
        if (there != to.connections.end()) there->id = c.id;
        c.id = other.id;
        break;
      }
  }
  for (auto& c : to.connections)
    if (const auto* own = from.connection(c.id); own && same(*own, c) && own->a != c.a) std::swap(c.a, c.b);
  return to;
}

}  // namespace

Comparison compare(const harness::Harness& from, const Analysis& before, const harness::Harness& to, const Analysis& after) {
  Comparison out;
  auto was = from;
  auto is = byTheIdsOf(from, to);
  for (auto* h : {&was, &is})
    for (auto& c : h->connections) c.raw = nullptr;  // what it says, not how it stands in its file
  out.changes = harness::differences(was, is);
  out.before = headline(before.verdict);
  out.after = headline(after.verdict);
  out.fresh = onlyIn(after, before);
  out.gone = onlyIn(before, after);
  std::map<std::string, double> used;
  for (const auto& m : before.margins())
    if (const auto share = m.used()) used.emplace(m.identity(), *share);
  const auto margins = after.margins();
  for (const auto& m : margins) {
    const auto it = used.find(m.identity());
    const auto now = m.used();
    if (it == used.end() || !now || std::abs(*now - it->second) < kShift) continue;
    MarginShift shift{m.quantity, it->second, *now};
    if (after.solved) shift.name = fmt::format("{} of {}", m.quantity, checks::placeOf(after.solved->bench, m));
    (*now > it->second ? out.worse : out.better).push_back(std::move(shift));
  }
  const auto much = [](const MarginShift& s) { return -std::abs(s.after - s.before); };
  std::ranges::stable_sort(out.worse, {}, much);
  std::ranges::stable_sort(out.better, {}, much);
  return out;
}

}  // namespace bold::report
