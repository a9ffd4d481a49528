#include "core/parts/read_layout.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <optional>
#include <set>
#include <utility>

namespace bold::parts {
namespace {

constexpr std::array kEdges{std::pair{"left", Edge::Left}, std::pair{"right", Edge::Right}, std::pair{"top", Edge::Top},
                            std::pair{"bottom", Edge::Bottom}, std::pair{"inner", Edge::Inner}};
constexpr std::array kKinds{"socket", "notch", "tab", "flat", "dot", "band", "stripe", "shaft", "print"};
constexpr double kWidestGap = 100;  // pitches: a larger gap is a slip of the pen

std::optional<Edge> edgeOf(const std::string& word) {
  for (const auto& [name, edge] : kEdges)
    if (word == name) return edge;
  return std::nullopt;
}

// The terminals of a connector by position; empty where one has none.
std::vector<std::string> inOrder(const Part& p, const std::string& connector) {
  std::vector<const Terminal*> of;
  for (const auto& t : p.terminals)
    if (t.place.connector == connector) of.push_back(&t);
  // Holes of a breadboard stand in their file as they lie.
  const bool holes = std::ranges::all_of(of, [](const Terminal* t) { return t->place.contact == "hole"; });
  if (!holes && std::ranges::any_of(of, [](const Terminal* t) { return t->place.position <= 0; })) return {};
  std::ranges::stable_sort(of, {}, [](const Terminal* t) { return t->place.position; });
  std::vector<std::string> out;
  for (const auto* t : of) out.push_back(t->id);
  return out;
}

class LayoutReader {
 public:
  LayoutReader(ObjectReader& r, Part& p) : m_r(r), m_part(p) {}

  void read() {
    for (const auto& [name, edge] : kEdges) {
      double gap = 0;
      m_r.each(name,
               [&, key = std::string(name), at = edge](const Json& j, const std::string& pointer) { entry(j, key, at, pointer, gap); });
    }
    m_r.each("marks", [&](const Json& j, const std::string& at) { mark(j, at); });
    m_part.layout.hidden = m_r.texts("hidden");
    for (const auto& h : m_part.layout.hidden)
      if (std::ranges::none_of(m_part.terminals, [&](const Terminal& t) { return t.place.connector == h; }))
        m_r.report("hidden", fmt::format("names the connector \"{}\", which the part does not have", h));
    const auto numbers = m_r.text("numbers");
    if (numbers == "around")
      m_part.layout.numbers = Numbers::Around;
    else if (std::ranges::any_of(m_part.layout.rows, [](const LayoutRow& row) { return row.columns == 2 && row.edge != Edge::Bottom; }) ||
             numbers == "header")
      m_part.layout.numbers = Numbers::Header;
    if (!numbers.empty() && numbers != "around" && numbers != "header" && numbers != "row")
      m_r.report("numbers", "is not around, header or row");
    m_part.layout.source = m_r.text("source");
    m_part.layout.variant = m_r.text("variant");
    for (const auto& k : m_r.unknown()) m_r.report(k, "is not a field of a layout");
  }

 private:
  ObjectReader& m_r;
  Part& m_part;
  std::set<std::string> m_placed;

  // "digital 7-0", {"gap": 1}, {"row": "J8", "columns": 2}, {"row": "left row", "terminals": ["A", "K"]}
  void entry(const Json& j, const std::string& key, Edge edge, const std::string& pointer, double& gap) {
    LayoutRow row;
    row.edge = edge;
    if (j.is_string()) {
      row.name = j.get<std::string>();
    } else {
      ObjectReader e(j, m_r.file(), pointer, m_r.problems());
      if (e.has("gap") && !e.has("row")) {
        gap += std::clamp(e.number("gap"), 0.0, kWidestGap);
        return;
      }
      row.name = e.requiredText("row");
      row.terminals = e.texts("terminals");
      row.columns = e.number("columns", 1) == 2 ? 2 : 1;
      row.groups = static_cast<int>(std::clamp(e.number("groups"), 0.0, kWidestGap));
      row.start = std::clamp(e.number("start"), 0.0, kWidestGap);
      const auto from = e.text("from");
      row.fromTheEnd = from == "bottom" || from == "right";
      if (!from.empty() && !row.fromTheEnd) e.report("from", "is not bottom or right");
      for (const auto& k : e.unknown()) e.report(k, "is not a field of a row");
    }
    if (row.terminals.empty()) row.terminals = inOrder(m_part, row.name);
    if (row.terminals.empty())
      return m_r.report(key, fmt::format("has the row \"{}\", which is no connector of the part with its terminals counted", row.name));
    for (const auto& id : row.terminals) {
      if (!m_part.find(id)) return m_r.report(key, fmt::format("has \"{}\" in the row \"{}\", which the part does not have", id, row.name));
      if (!m_placed.insert(id).second) return m_r.report(key, fmt::format("has \"{}\" twice", id));
    }
    row.gap = std::exchange(gap, 0);
    m_part.layout.rows.push_back(std::move(row));
  }

  void mark(const Json& j, const std::string& at) {
    ObjectReader e(j, m_r.file(), at, m_r.problems());
    LayoutMark m;
    m.kind = e.requiredText("kind");
    m.name = e.text("name");
    const auto edge = edgeOf(e.text("edge", "top"));
    if (!edge) e.report("edge", "is not left, right, top, bottom or inner");
    m.edge = edge.value_or(Edge::Top);
    if (std::ranges::count(kKinds, m.kind) == 0)
      e.report("kind", "is not socket, notch, tab, flat, dot, band, stripe, shaft or print");
    else
      m_part.layout.marks.push_back(std::move(m));
    for (const auto& k : e.unknown()) e.report(k, "is not a field of a mark");
  }
};

}  // namespace

void readLayout(ObjectReader& part, Part& p) {
  const auto* layout = part.get("layout");
  if (!layout) return;
  if (!layout->is_object()) return part.report("layout", "is no object of edges and marks");
  ObjectReader r(*layout, part.file(), "/layout", part.problems());
  LayoutReader(r, p).read();
}

}  // namespace bold::parts
