#include "core/checks/margin_words.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/parts/roles.h"

namespace bold::checks {
namespace {

MarginOf kindOf(const parts::Part& part) {
  if (parts::isController(part)) return MarginOf::Board;
  if (parts::isSource(part)) return MarginOf::Supply;
  if (parts::isMotor(part)) return MarginOf::Motor;
  return part.channels.empty() ? MarginOf::Loose : MarginOf::Stage;
}

// The device a subject lies on; -1 for wires.
int deviceOf(const bench::Bench& bench, const std::string& subject) {
  if (const int d = bench.deviceIndex(subject); d >= 0) return d;
  const auto address = parseAddress(subject);
  return address ? bench.deviceIndex(address->device) : -1;
}

}  // namespace

std::string calledSubject(const bench::Bench& bench, const std::string& subject) {
  if (const int d = bench.deviceIndex(subject); d >= 0) return bench.devices[d].called();
  if (const auto address = parseAddress(subject))
    if (const auto t = bench.terminal(*address); t >= 0) return bench.called(t);
  return "wire " + subject;
}

std::string placeOf(const bench::Bench& bench, const Margin& m) {
  std::string where;
  for (const auto& s : m.subjects) where += (where.empty() ? "" : ", ") + calledSubject(bench, s);
  return where;
}

std::string shown(double value, Unit unit) {
  return unit == Unit::One ? fmt::format("{:.3g}", value) : displayText(AnyQuantity{value, unit});
}

std::string bounds(const Limit& l, Unit unit) {
  if (l.least && l.most) return shown(*l.least, unit) + " to " + shown(*l.most, unit);
  if (l.most) return "at most " + shown(*l.most, unit);
  return l.least ? "at least " + shown(*l.least, unit) : "not known";
}

std::string percentUsed(const Margin& m) {
  const auto used = m.used();
  if (!used) return "?";
  return *used > 9.99 ? "> 999 %" : fmt::format("{:.0f} %", 100 * *used);
}

std::string_view word(MarginOf kind) {
  switch (kind) {
    case MarginOf::Motor:
      return "motor";
    case MarginOf::Stage:
      return "stage";
    case MarginOf::Board:
      return "board";
    case MarginOf::Supply:
      return "supply";
    case MarginOf::Loose:
      return "loose part";
    case MarginOf::Wires:
      return "wires and contacts";
  }
  return {};
}

std::vector<MarginGroup> grouped(const bench::Bench& bench, const Margins& margins) {
  std::vector<MarginGroup> out;
  for (const auto& m : margins) {
    const int d = m.subjects.empty() || m.check == "contact-current" ? -1 : deviceOf(bench, m.subjects.front());
    const auto id = d < 0 ? std::string() : bench.devices[d].doc.id;
    auto it = std::ranges::find(out, id, &MarginGroup::device);
    if (it == out.end()) {
      const auto kind = d < 0 ? MarginOf::Wires : kindOf(*bench.devices[d].part);
      out.push_back({kind, id, d < 0 ? std::string() : bench.devices[d].called(), {}});
      it = out.end() - 1;
    }
    it->margins.push_back(&m);
  }
  return out;
}

const Margin* tightest(const Margins& margins) {
  const Margin* best = nullptr;
  for (const auto& m : margins)
    if (m.used() && !m.onlyNotes() && !m.passed() && (!best || *m.used() > *best->used())) best = &m;
  return best;
}

std::string tightestWords(const Analysis& a) {
  const auto all = a.margins();
  const auto* m = tightest(all);
  if (!m || m->subjects.empty() || !a.solved) return {};
  return fmt::format("tightest: {} of {}, {} of {}", m->quantity, calledSubject(a.solved->bench, m->subjects.front()), percentUsed(*m),
                     m->judged()->name);
}

}  // namespace bold::checks
