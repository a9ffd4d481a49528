#include "core/places/words.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <string_view>

#include "core/base/ordinal.h"
#include "core/places/numbering.h"

namespace bold::places {

using parts::Edge;

namespace {

std::string_view word(Edge e) {
  switch (e) {
    case Edge::Left:
      return "left";
    case Edge::Right:
      return "right";
    case Edge::Top:
      return "top";
    case Edge::Bottom:
      return "bottom";
    case Edge::Inner:
      break;
  }
  return "inner";
}

// A direction on the part, as it lies on the table.
std::pair<int, int> turned(int x, int y, Lie lie) {
  if (lie.fromBelow) x = -x;
  for (int q = 0; q < lie.quarters % 4; ++q) {
    const int was = x;
    x = -y;
    y = was;
  }
  return {x, y};
}

// "digital 7-0, right" and "left row" hold the side they are at; it is said anew as the part lies.
std::string ownName(std::string name) {
  for (const std::string_view side : {", left", ", right", ", end"})
    if (name.ends_with(side)) name.erase(name.size() - side.size());
  for (const std::string_view side : {"left row", "right row", "left", "right"})
    if (name == side) return {};
  for (const std::string_view side : {", left row", ", right row"})
    if (name.ends_with(side)) name.erase(name.size() - side.size());
  return name;
}

std::string counted(int index, int count, bool down, bool reversed, std::string_view noun) {
  if (count <= 1) return std::string(noun);
  const int k = reversed ? count - index : index + 1;
  const bool near = k <= (count + 1) / 2;
  const auto end = near ? (down ? "top" : "left") : (down ? "bottom" : "right");
  return fmt::format("{}{}{} from the {}", ordinal(near ? k : count - k + 1), noun.empty() ? "" : " ", noun, end);
}

struct Row {
  std::string head;
  std::string_view noun;
};

std::string inRow(const parts::Part& part, const parts::Terminal& t, const Spot& s, Lie lie) {
  const auto& row = part.layout.rows[s.row];
  const bool wasUpright = upright(row.edge);
  const auto [x, y] = wasUpright ? turned(0, 1, lie) : turned(1, 0, lie);
  const bool down = y != 0;
  const bool reversed = x + y < 0;
  if (t.place.contact == "hole") return fmt::format("{}, hole {}", row.name, s.index + 1);
  if (row.name == "end") return fmt::format("{} end", word(seen(row.edge, lie)));
  const bool noun = t.place.contact == "screw" || t.place.contact == "leg" || t.place.contact == "lead";
  const auto place = counted(s.index, s.count, down, reversed, noun ? std::string_view(t.place.contact) : std::string_view());
  auto head = ownName(row.name);
  if (part.layout.rows.size() == 1 && row.columns == 1 && noun) return place;
  const auto edge = seen(row.edge, lie);
  if (row.edge != Edge::Inner && row.columns == 1)
    head += head.empty() ? fmt::format("{} row", word(edge)) : fmt::format(", {}", word(edge));
  if (row.columns == 2) {
    // The second column lies to the right of the first, or below it.
    const auto [cx, cy] = wasUpright ? turned(1, 0, lie) : turned(0, 1, lie);
    const bool first = (s.column == 0) != (cx + cy < 0);
    head += (head.empty() ? "" : ", ") +
            std::string(cx != 0 ? (first ? "left column" : "right column") : (first ? "upper line" : "lower line"));
  }
  if (place.empty()) return head;
  return head.empty() ? place : head + ", " + place;
}

bool alikeElsewhere(const parts::Part& part, const parts::Terminal& t) {
  return std::ranges::count_if(part.terminals, [&](const parts::Terminal& o) {
           return o.label == t.label && o.place.contact == t.place.contact && o.place.connector == t.place.connector;
         }) > 1;
}

}  // namespace

std::string placeWords(const parts::Part& part, const parts::Terminal& t, Lie lie) {
  if (part.layoutKnown)
    if (const auto a = arrangementOf(part))
      if (const auto* s = a->at(part.indexOf(t.id))) return inRow(part, t, *s, lie);
  const bool counted = part.layout.empty() || outOfReach(part, t) || t.place.contact == "socket";
  if (part.layoutKnown && counted && t.place.position > 0 && !t.place.connector.empty())
    return t.place.connector + ", " + ordinal(t.place.position);
  return t.place.contact;
}

std::string fullPlace(const parts::Part& part, const parts::Terminal& t, Lie lie) {
  auto out = placeWords(part, t, lie);
  const bool found = part.layoutKnown && std::ranges::any_of(part.layout.rows, [&](const parts::LayoutRow& row) {
                       return std::ranges::count(row.terminals, t.id) > 0;
                     });
  if (const auto n = positionOf(part, t); n > 0 && found) out += fmt::format(", {} {}", t.place.contact == "leg" ? "pin" : "position", n);
  if (!found && out == t.place.contact) {
    if (!t.colour.empty()) out = fmt::format("{} of {}", out, t.colour);
    if (!t.place.connector.empty()) out = t.place.connector + ", " + out;
    out += ", printed " + (alikeElsewhere(part, t) ? t.id : t.label);
  } else if (t.place.contact == "screw") {
    out += ", printed " + t.label;
  }
  if (t.pin && !t.pin->chip.empty() && t.pin->chip != t.label) out += ", chip " + t.pin->chip;
  return out;
}

std::string holdWords(const parts::Part& part, Lie lie) {
  static constexpr std::array kTurned{"", "turned clockwise by a quarter", "turned upside down", "turned anticlockwise by a quarter"};
  auto out = part.hold;
  const auto add = [&](std::string_view words) { out += (out.empty() ? "" : "; ") + std::string(words); };
  if (lie.fromBelow) add("seen from the solder side");
  if (lie.quarters % 4 != 0) add(kTurned[static_cast<std::size_t>(lie.quarters % 4)]);
  return out;
}

}  // namespace bold::places
