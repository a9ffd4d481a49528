#include "core/places/neighbours.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/places/arrangement.h"

namespace bold::places {
namespace {

constexpr double kSamePlace = 0.25;  // pitches

int spotAt(const Arrangement& a, double x, double y, int but) {
  const auto it = std::ranges::find_if(
      a.spots, [&](const Spot& s) { return s.terminal != but && std::abs(s.x - x) < kSamePlace && std::abs(s.y - y) < kSamePlace; });
  return it == a.spots.end() ? -1 : it->terminal;
}

// In the other column of its row, else in the row of the opposite edge.
int acrossFrom(const parts::Part& part, const Arrangement& a, const Spot& s) {
  const auto& row = part.layout.rows[s.row];
  for (const auto& o : a.spots) {
    const auto& other = part.layout.rows[o.row];
    const bool level = upright(row.edge) ? std::abs(o.y - s.y) < kSamePlace : std::abs(o.x - s.x) < kSamePlace;
    if (row.columns == 2 && o.row == s.row && o.column != s.column && o.index == s.index) return o.terminal;
    if (row.columns == 1 && o.row != s.row && level && other.columns == 1 && upright(other.edge) == upright(row.edge) &&
        other.edge != row.edge && row.edge != parts::Edge::Inner && other.edge != parts::Edge::Inner)
      return o.terminal;
  }
  return -1;
}

std::vector<Meaning> sameNumbers(const parts::Part& part, int terminal) {
  std::vector<Meaning> out;
  const auto& t = part.terminals[terminal];
  for (const auto n : {Numbering::Printed, Numbering::Position, Numbering::Chip, Numbering::Program}) {
    auto name = nameIn(part, t, n);
    if (n == Numbering::Chip && name.starts_with("GPIO")) name.erase(0, 4);
    for (const auto& m : numbersMeant(part, name)) {
      const bool bare = !name.empty() && std::ranges::all_of(name, [](char c) { return c >= '0' && c <= '9'; });
      if (bare && m.terminal != terminal && std::ranges::count(out, m) == 0) out.push_back(m);
    }
  }
  return out;
}

}  // namespace

Neighbours neighboursOf(const parts::Part& part, int terminal) {
  Neighbours out;
  out.sameNumber = sameNumbers(part, terminal);
  const auto a = part.layoutKnown ? arrangementOf(part) : std::nullopt;
  const auto* s = a ? a->at(terminal) : nullptr;
  if (!s) return out;
  for (const auto& o : a->spots) {
    if (o.row != s->row || o.column != s->column || o.terminal == terminal) continue;
    if (o.index == s->index - 1) out.before = o.terminal;
    if (o.index == s->index + 1) out.after = o.terminal;
    if (o.index == s->count - 1 - s->index) out.fromTheOtherEnd = o.terminal;
  }
  out.across = acrossFrom(part, *a, *s);
  out.upsideDown = spotAt(*a, a->width - s->x, a->height - s->y, terminal);
  return out;
}

std::optional<std::string> slip(const parts::Part& part, int meant, int taken) {
  if (meant < 0 || taken < 0 || meant == taken) return std::nullopt;
  const auto n = neighboursOf(part, meant);
  if (taken == n.before || taken == n.after) return "one position off";
  for (const auto& m : n.sameNumber)
    if (m.terminal == taken) {
      const auto& facts = part.terminals[taken];
      auto name = nameIn(part, facts, m.in);
      return m.in == Numbering::Position ? fmt::format("position {} taken for a name", name) : fmt::format("{} taken for a position", name);
    }
  if (taken == n.across) return "straight across";
  const bool legs = part.layout.rows.size() == 1 && part.terminals[meant].place.contact == "leg";
  if (taken == n.fromTheOtherEnd) return legs ? "legs read from the back" : "counted from the wrong end";
  if (taken == n.upsideDown) return "the part upside down";
  return std::nullopt;
}

std::string besideIt(const parts::Part& part, int terminal) {
  const auto n = neighboursOf(part, terminal);
  const auto a = arrangementOf(part);
  const auto* s = a ? a->at(terminal) : nullptr;
  if (!s) return {};
  const bool down = upright(part.layout.rows[s->row].edge);
  std::string out;
  const auto add = [&](const char* where, int t) {
    if (t >= 0) out += fmt::format("{}{} {}", out.empty() ? "" : ", ", where, part.terminals[t].label);
  };
  add(down ? "above it" : "left of it", n.before);
  add(down ? "below it" : "right of it", n.after);
  return out;
}

}  // namespace bold::places
