#include "core/wiring/wire_table.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "core/base/csv.h"
#include "core/base/lower.h"
#include "core/harness/colour_codes.h"
#include "core/harness/edit_maker.h"
#include "core/harness/end_place.h"
#include "core/harness/kinds.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"
#include "core/harness/wire_colour.h"
#include "core/parts/connectors.h"

namespace bold::wiring {
namespace {

using harness::Connection;
using harness::ConnectionKind;
using harness::Harness;
using harness::State;

enum class Column { Id, Kind, From, To, Colour, Gauge, Length, State, Mirrored };

constexpr std::array kHeads{std::pair{"id", Column::Id},
                            std::pair{"wire", Column::Id},
                            std::pair{"no", Column::Id},
                            std::pair{"kind", Column::Kind},
                            std::pair{"type", Column::Kind},
                            std::pair{"from", Column::From},
                            std::pair{"start", Column::From},
                            std::pair{"end 1", Column::From},
                            std::pair{"pin", Column::From},
                            std::pair{"to", Column::To},
                            std::pair{"end", Column::To},
                            std::pair{"end 2", Column::To},
                            std::pair{"colour", Column::Colour},
                            std::pair{"color", Column::Colour},
                            std::pair{"gauge", Column::Gauge},
                            std::pair{"awg", Column::Gauge},
                            std::pair{"length", Column::Length},
                            std::pair{"state", Column::State},
                            std::pair{"mirrored", Column::Mirrored}};

using Columns = std::map<Column, std::size_t>;

Columns columnsOf(const std::vector<std::string>& heads) {
  Columns out;
  for (std::size_t k = 0; k < heads.size(); ++k)
    for (const auto& [word, column] : kHeads)
      if (lower(heads[k]) == word) out.emplace(column, k);
  return out;
}

std::string stateText(State s) {
  return s == State::OnBench ? "on the bench" : s == State::Planned ? "planned" : "to be removed";
}

// A line on its way to a connection.
class Line {
 public:
  // `used`: connections that other lines are about.
  Line(const Harness& h, const parts::Library& library, const Columns& columns, const std::vector<std::string>& fields,
       const std::map<std::string, int>& used)
      : m_h(h), m_library(library), m_columns(columns), m_fields(fields), m_used(used) {}

  // Errors: which field cannot be used, and why.
  Result<Connection> read() {
    const auto id = field(Column::Id);
    const auto* known = m_h.connection(id);
    Connection c = known ? *known : Connection{};
    auto a = end(field(Column::From));
    if (!a) return fail(a.error());
    auto b = end(field(Column::To));
    if (!b) return fail(b.error());
    if (*a == *b) return fail(fmt::format("Both ends are {}.", shownEnd(m_h, m_library, *a)));
    if (id.empty())
      for (const auto& other : m_h.connections)
        if (((other.a == *a && other.b == *b) || (other.a == *b && other.b == *a)) && (c.id.empty() || m_used.contains(c.id))) c = other;
    const bool turned = c.a == *b && c.b == *a;
    if (!turned) {
      c.a = *a;
      c.b = *b;
    }
    if (c.id.empty()) {
      c.id = id;
      if (!told(Column::Colour)) c.colour = colourOf(m_h, m_library, c.a, c.b);
    }
    if (auto wrong = details(c)) return fail(std::move(*wrong));
    const int connectors = connector(c.a) + connector(c.b);
    if (connectors == 2 && !has(Column::Kind)) c.kind = ConnectionKind::Plug;
    if (connectors == 1 || (connectors == 2 && c.kind != ConnectionKind::Plug))
      return fail(
          fmt::format("{} is a connector: a {} ends on terminals.", shownEnd(m_h, m_library, connector(c.a) ? c.a : c.b), word(c.kind)));
    if (c.kind != ConnectionKind::Wire) c.colour.clear();
    return c;
  }

 private:
  const Harness& m_h;
  const parts::Library& m_library;
  const Columns& m_columns;
  const std::vector<std::string>& m_fields;
  const std::map<std::string, int>& m_used;

  bool has(Column c) const {
    const auto it = m_columns.find(c);
    return it != m_columns.end() && it->second < m_fields.size() && !m_fields[it->second].empty();
  }
  std::string field(Column c) const { return has(c) ? m_fields[m_columns.at(c)] : std::string(); }
  bool told(Column c) const { return m_columns.contains(c) && m_columns.at(c) < m_fields.size(); }

  // It names no terminal of its part, but several at once.
  bool connector(const Address& end) const {
    const auto* d = m_h.device(end.device);
    const auto part = d ? m_library.find(d->part) : nullptr;
    return part && !part->find(end.terminal) && !parts::connectorsNamed(*part, end.terminal).empty();
  }

  // An address of what is there; else as it would be typed.
  Result<Address> end(const std::string& text) const {
    if (text.empty()) return fail(std::string("One of its ends is missing."));
    if (const auto a = parseAddress(text))
      if (const auto* d = m_h.device(a->device)) {
        const auto part = m_library.find(d->part);
        if (!part || part->find(a->terminal) || !parts::connectorsNamed(*part, a->terminal).empty()) return *a;
      }
    return parseTypedEnd(m_h, m_library, text);
  }

  std::optional<Problem> details(Connection& c) const {
    if (const auto kind = lower(field(Column::Kind)); !kind.empty()) {
      if (kind != "wire" && kind != "plug" && kind != "jumper")
        return Problem{fmt::format("\"{}\" is no wire, plug or jumper.", kind), {}, {}};
      c.kind = kind == "wire" ? ConnectionKind::Wire : kind == "plug" ? ConnectionKind::Plug : ConnectionKind::Jumper;
    }
    if (const auto text = field(Column::Colour); !text.empty()) {
      const auto code = harness::colourTyped(text);
      if (!code) return Problem{fmt::format("\"{}\" is no colour: RD, GNYE, red or green-yellow are.", text), {}, {}};
      c.colour = *code;
    } else if (told(Column::Colour)) {
      c.colour.clear();
    }
    if (const auto text = field(Column::Gauge); !text.empty()) {
      const auto awg = parseQuantity(text.find_first_of("AaWwGg") == std::string::npos ? text + " AWG" : text, Unit::Awg);
      if (!awg || awg->value < 8 || awg->value > 40 || awg->value != std::floor(awg->value))
        return Problem{fmt::format("\"{}\" is no gauge from 8 AWG to 40 AWG.", text), {}, {}};
      c.gauge = static_cast<int>(awg->value);
    } else if (told(Column::Gauge)) {
      c.gauge.reset();
    }
    if (const auto text = field(Column::Length); !text.empty()) {
      const auto length = harness::parseKind(text, harness::kWireLength);
      if (!length) return Problem{fmt::format("\"{}\" is no length such as 0.3 m.", text), {}, {}};
      c.length = Metres{length->value};
    } else if (told(Column::Length)) {
      c.length.reset();
    }
    if (const auto text = lower(field(Column::State)); !text.empty()) {
      if (text != "on the bench" && text != "planned" && text != "to be removed")
        return Problem{fmt::format("\"{}\" is no state: on the bench, planned or to be removed are.", text), {}, {}};
      c.state = text == "planned" ? State::Planned : text == "on the bench" ? State::OnBench : State::ToBeRemoved;
    }
    if (has(Column::Mirrored)) c.mirrored = lower(field(Column::Mirrored)) == "yes";
    return std::nullopt;
  }
};

}  // namespace

std::string writeWireTable(const Harness& h, const parts::Library& library) {
  auto out = csvLine({"id", "kind", "from", "to", "colour", "gauge", "length", "state", "mirrored", "from, in words", "to, in words",
                      "from, where", "to, where", "marks"});
  const auto list = wireList(h, library);
  for (std::size_t i = 0; i < list.size(); ++i) {
    const auto& c = h.connections[i];
    out += csvLine({c.id, std::string(word(c.kind)), c.a.text(), c.b.text(), c.colour, c.gauge ? std::to_string(*c.gauge) : "",
                    c.length ? fileText(*c.length) : "", stateText(c.state), c.mirrored ? "yes" : "", list[i].names[0], list[i].names[1],
                    endPlace(h, library, c.a), endPlace(h, library, c.b), standing(list[i])});
  }
  return out;
}

ReadTable readWireTable(const Harness& h, const parts::Library& library, std::string_view csv) {
  ReadTable out;
  out.edit.title = "Take a wire list";
  auto lines = readCsv(csv);
  Columns columns{{Column::From, 0}, {Column::To, 1}, {Column::Colour, 2}, {Column::Gauge, 3}, {Column::Length, 4}};
  if (!lines.empty())
    if (auto heads = columnsOf(lines.front().fields); heads.contains(Column::From) && heads.contains(Column::To)) {
      columns = std::move(heads);
      lines.erase(lines.begin());
    }
  Harness grown = h;
  harness::EditMaker maker(h);  // knows which ids are free
  Harness unmarked = h;
  unmarked.marks.clear();
  const auto taken = unmarked.ids();
  std::map<std::string, int> used;  // by which line
  for (const auto& line : lines) {
    TableLine told{line.number, line.text, {}, {}};
    auto c = Line(grown, library, columns, line.fields, used).read();
    if (c && !c->id.empty() && used.contains(c->id)) c = fail(fmt::format("Line {} is about the same connection.", used.at(c->id)));
    if (c && c->id.empty()) c->id = maker.freeId("w");
    if (c && !isId(c->id)) c = fail(fmt::format("\"{}\" is no id: letters, digits, - and _ are.", c->id));
    if (c && !grown.connection(c->id) && taken.contains(c->id)) c = fail(fmt::format("Something else is called {} already.", c->id));
    if (!c) {
      told.why = c.error().what;
      ++out.unusable;
      out.lines.push_back(std::move(told));
      continue;
    }
    used.emplace(c->id, line.number);
    const auto* before = grown.connection(c->id);
    const auto ends = shownEnds(grown, library, *c);
    if (before && *before == *c) {
      told.does = "as it is: " + ends;
    } else {
      const bool moved = before && (before->a != c->a || before->b != c->b);
      told.does = !before ? "new: " + ends : moved ? fmt::format("moves {} to {}", c->id, ends) : "changes " + ends;
      ++out.changes;
      const harness::Edit one{{}, {harness::Put<Connection>{*c, {}}}};
      apply(grown, one);
      out.edit.changes.push_back(one.changes.front());
    }
    out.lines.push_back(std::move(told));
  }
  return out;
}

}  // namespace bold::wiring
