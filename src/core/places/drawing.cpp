#include "core/places/drawing.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace bold::places {

using parts::Edge;

namespace {

// In pitches.
constexpr double kLetters = 0.62;
constexpr double kLetterWidth = 0.6;  // of their height, of common type
constexpr double kNameOff = 0.75;     // from a terminal to its name
constexpr double kTick = 0.5, kLongTick = 0.95;
constexpr double kRing = 0.72;
constexpr double kDot = 0.36;
constexpr double kPaper = 0.6;  // paper around all
constexpr double kTerminal = 0.26;
constexpr int kCountedIn = 5;
constexpr int kFewestCounted = 6;  // in a row shorter than that nobody loses count
constexpr double kOutline = 0.55;  // the outline lies so far outside the terminals of an edge

struct Point {
  double x, y;
};

class Drawer {
 public:
  Drawer(const parts::Part& part, const Arrangement& a, const Wish& wish) : m_part(part), m_a(a), m_wish(wish) {}

  Drawing run() {
    outline();
    marks();
    for (const auto& s : m_a.spots) terminal(s);
    rowNames();
    fit();
    return std::move(m_out);
  }

 private:
  const parts::Part& m_part;
  const Arrangement& m_a;
  const Wish& m_wish;
  Drawing m_out;

  // As it lies: turned about the middle of its outline; still in pitches.
  Point at(double x, double y) const {
    x -= m_a.width / 2;
    y -= m_a.height / 2;
    if (m_wish.lie.fromBelow) x = -x;
    for (int q = 0; q < m_wish.lie.quarters % 4; ++q) {
      const double was = x;
      x = -y;
      y = was;
    }
    return {x, y};
  }
  Point towards(Edge e) const {
    switch (seen(e, m_wish.lie)) {
      case Edge::Left:
        return {-1, 0};
      case Edge::Right:
        return {1, 0};
      case Edge::Top:
        return {0, -1};
      default:
        return {0, 1};
    }
  }
  bool wanted(int terminal) const { return std::ranges::count(m_wish.wanted, terminal) > 0; }

  void line(Point a, Point b, Ink ink, bool heavy = false) { m_out.shapes.emplace_back(Line{a.x, a.y, b.x, b.y, ink, heavy}); }
  void words(Point p, std::string text, Anchor anchor, Ink ink, bool upwards = false, double size = kLetters, bool strong = false) {
    if (!text.empty()) m_out.shapes.emplace_back(Words{p.x, p.y, std::move(text), anchor, ink, upwards, size, strong});
  }

  void outline() {
    const std::array corners{at(-kOutline, -kOutline), at(m_a.width + kOutline, -kOutline), at(m_a.width + kOutline, m_a.height + kOutline),
                             at(-kOutline, m_a.height + kOutline)};
    for (std::size_t k = 0; k < corners.size(); ++k) line(corners[k], corners[(k + 1) % corners.size()], Ink::Outline);
  }

  // The middle of an edge, several shared out along it.
  Point onEdge(Edge e, double share) const {
    switch (e) {
      case Edge::Left:
        return at(-kOutline, m_a.height * share);
      case Edge::Right:
        return at(m_a.width + kOutline, m_a.height * share);
      case Edge::Top:
        return at(m_a.width * share, -kOutline);
      case Edge::Bottom:
        return at(m_a.width * share, m_a.height + kOutline);
      case Edge::Inner:
        break;
    }
    return at(m_a.width / 2, m_a.height / 2);
  }

  void marks() {
    for (std::size_t k = 0; k < m_part.layout.marks.size(); ++k) {
      const auto& m = m_part.layout.marks[k];
      int n = 0;
      int before = 0;
      for (std::size_t o = 0; o < m_part.layout.marks.size(); ++o)
        if (m_part.layout.marks[o].edge == m.edge) {
          ++n;
          before += o < k;
        }
      mark(m, onEdge(m.edge, (before + 1.0) / (n + 1)), towards(m.edge));
    }
  }

  void mark(const parts::LayoutMark& m, Point p, Point out) {
    const Point side{std::abs(out.y), std::abs(out.x)};
    if (m.kind == "socket") {
      const double wide = std::max(1.0, (static_cast<double>(m.name.size()) * kLetterWidth * kLetters + 0.4) / 2);
      const double deep = 1.1;
      const Point half{side.x * wide + std::abs(out.x) * deep / 2, side.y * wide + std::abs(out.y) * deep / 2};
      const Point mid{p.x + out.x * deep / 2, p.y + out.y * deep / 2};
      m_out.shapes.emplace_back(Box{mid.x - half.x, mid.y - half.y, 2 * half.x, 2 * half.y, Ink::Mark});
      words(mid, m.name, Anchor::Middle, Ink::Mark, std::abs(out.x) > 0.5);
    } else if (m.kind == "notch") {
      m_out.shapes.emplace_back(Circle{p.x, p.y, 0.45, Ink::Mark});
    } else if (m.kind == "dot") {
      const auto* first = m_a.spots.empty() ? nullptr : &m_a.spots.front();
      const auto q = first ? at(first->x + (first->x > m_a.width / 2 ? -0.9 : 0.9), first->y - 0.75) : p;
      m_out.shapes.emplace_back(Circle{q.x, q.y, 0.16, Ink::Mark, true});
    } else if (m.kind == "shaft") {
      m_out.shapes.emplace_back(Circle{p.x - out.x * 0.9, p.y - out.y * 0.9, 0.6, Ink::Mark});
    } else if (m.kind == "band" || m.kind == "stripe") {
      const Point q{p.x - out.x * 1.3, p.y - out.y * 1.3};
      line({q.x - side.x * 0.9, q.y - side.y * 0.9}, {q.x + side.x * 0.9, q.y + side.y * 0.9}, Ink::Mark, true);
      words({q.x - side.x * 0.0, q.y - side.y * 1.3 - side.x * 0.6}, m.kind, Anchor::Middle, Ink::Mark);
    } else {  // tab, flat side, print: a heavy edge with its name
      line({p.x - side.x * 1.5, p.y - side.y * 1.5}, {p.x + side.x * 1.5, p.y + side.y * 1.5}, Ink::Mark, true);
      const auto name = m.kind == "flat" ? std::string("flat side") : m.kind;
      const bool taken = std::ranges::any_of(m_part.layout.rows, [&](const parts::LayoutRow& r) { return r.edge == m.edge; });
      const double off = taken ? -2.0 : 0.6;
      words({p.x + out.x * off, p.y + out.y * off}, name, Anchor::Middle, Ink::Mark, std::abs(out.x) > 0.5);
    }
  }

  void contact(Point p, const std::string& kind, Ink ink) {
    auto& shapes = m_out.shapes;
    const double r = kTerminal;
    if (kind == "screw") {
      shapes.emplace_back(Circle{p.x, p.y, r * 1.25, ink});
      line({p.x - r, p.y + r * 0.75}, {p.x + r, p.y - r * 0.75}, ink);
    } else if (kind == "leg" || kind == "lead") {
      shapes.emplace_back(Circle{p.x, p.y, r * 0.8, ink, true});
    } else if (kind == "hole") {
      shapes.emplace_back(Circle{p.x, p.y, r * 0.6, ink});
    } else {
      shapes.emplace_back(Box{p.x - r, p.y - r, 2 * r, 2 * r, ink});
      if (kind == "pin") shapes.emplace_back(Circle{p.x, p.y, r * 0.4, ink, true});
    }
  }

  // Names stand outside; of a double row those of the inner column inside.
  bool namedOutside(const parts::LayoutRow& row, const Spot& s) const {
    if (row.columns == 1) return true;
    const bool lastIsOut = row.edge == Edge::Right || row.edge == Edge::Bottom;
    return (s.column == 1) == lastIsOut;
  }

  void terminal(const Spot& s) {
    const auto& row = m_part.layout.rows[s.row];
    const auto& t = m_part.terminals[s.terminal];
    const auto p = at(s.x, s.y);
    const bool mine = wanted(s.terminal);
    const bool back = !m_wish.wanted.empty() && !mine;
    contact(p, t.place.contact, mine ? Ink::Wanted : Ink::Terminal);
    m_out.targets.push_back({s.terminal, p.x, p.y});
    auto name = nameIn(m_part, t, m_wish.names);
    if (name.empty()) name = t.label;
    if (mine && m_wish.many) {
      m_out.shapes.emplace_back(Circle{p.x, p.y, kDot, Ink::Wanted, true});
    } else if (mine) {
      m_out.shapes.emplace_back(Circle{p.x, p.y, kRing, Ink::Wanted, false, true});
      leadIn(s, p);
    }
    const auto ink = mine ? Ink::Wanted : back ? Ink::Quiet : Ink::Name;
    if (row.edge == Edge::Inner) {
      if (crowded() && !mine) return;
      words({p.x, p.y - (mine ? 1.15 : kNameOff)}, std::move(name), Anchor::Middle, ink, false, kLetters, mine);
      return;
    }
    auto out = towards(row.edge);
    if (!namedOutside(row, s))
      out = {-out.x, -out.y};
    else if (row.columns == 1)
      tick(s, p, towards(row.edge));
    const double off = kNameOff + (mine && !m_wish.many ? kRing - kTerminal : 0);
    const bool upwards = std::abs(out.y) > 0.5;
    const Anchor anchor = upwards ? (out.y < 0 ? Anchor::Start : Anchor::End) : out.x < 0 ? Anchor::End : Anchor::Start;
    words({p.x + out.x * off, p.y + out.y * off}, std::move(name), anchor, ink, upwards, kLetters, mine);
  }

  // Several inner lines leave no room for names between them.
  bool crowded() const {
    return std::ranges::count_if(m_part.layout.rows, [](const parts::LayoutRow& r) { return r.edge == Edge::Inner; }) > 1;
  }

  // A line from the edge of the part to the ring: where the finger comes in.
  void leadIn(const Spot& s, Point p) {
    const auto& row = m_part.layout.rows[s.row];
    if (row.edge == Edge::Inner || row.columns == 2) return;
    const auto out = towards(row.edge);
    const double from = namedOutside(row, s) ? -kRing : kRing;
    line({p.x + out.x * from, p.y + out.y * from},
         {p.x + out.x * (from + (from < 0 ? -1.1 : 1.1)), p.y + out.y * (from + (from < 0 ? -1.1 : 1.1))}, Ink::Wanted, true);
  }

  // Inside the outline; every fifth longer, with its number from the end that is nearer.
  void tick(const Spot& s, Point p, Point out) {
    if (s.count < kFewestCounted) return;
    const int k = std::min(s.index + 1, s.count - s.index);
    const bool longer = k % kCountedIn == 0;
    const double from = kTerminal + 0.1;
    if (longer && !wanted(s.terminal)) {
      line({p.x - out.x * from, p.y - out.y * from}, {p.x - out.x * (from + kLongTick - kTick), p.y - out.y * (from + kLongTick - kTick)},
           Ink::Tick);
      words({p.x - out.x * (kLongTick + 0.15), p.y - out.y * (kLongTick + 0.15)}, std::to_string(k), Anchor::Middle, Ink::Tick, false,
            kLetters * 0.85);
    }
  }

  // Of inner lines: their names at the left, and every fifth column's number above the first.
  void rowNames() {
    if (!crowded()) return;
    bool first = true;
    for (std::size_t r = 0; r < m_part.layout.rows.size(); ++r) {
      const auto& row = m_part.layout.rows[r];
      if (row.edge != Edge::Inner) continue;
      const auto start = std::ranges::find_if(m_a.spots, [&](const Spot& s) { return s.row == static_cast<int>(r); });
      if (start == m_a.spots.end()) continue;
      auto name = row.name;
      if (name.starts_with("row ")) name.erase(0, 4);
      const auto p = at(start->x - kNameOff, start->y);
      words(p, name, m_wish.lie.quarters == 0 && !m_wish.lie.fromBelow ? Anchor::End : Anchor::Middle, Ink::Name);
      if (row.groups > 0 || !first) continue;
      first = false;
      for (const auto& s : m_a.spots)
        if (s.row == static_cast<int>(r) && (s.index + 1) % kCountedIn == 0)
          words(at(s.x, s.y - kNameOff), std::to_string(s.index + 1), Anchor::Middle, Ink::Tick, false, kLetters * 0.85);
    }
  }

  struct Extent {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    void take(double x, double y) {
      left = std::min(left, x), right = std::max(right, x);
      top = std::min(top, y), bottom = std::max(bottom, y);
    }
  };

  static void extend(Extent& e, const Words& w) {
    const double length = static_cast<double>(w.text.size()) * kLetterWidth * w.size;
    const double back = w.anchor == Anchor::Start ? 0 : w.anchor == Anchor::Middle ? length / 2 : length;
    if (w.upwards) {
      e.take(w.x - w.size / 2, w.y + back);
      e.take(w.x + w.size / 2, w.y + back - length);
    } else {
      e.take(w.x - back, w.y - w.size / 2);
      e.take(w.x - back + length, w.y + w.size / 2);
    }
  }

  // From pitches about the middle to points from the top left corner.
  void fit() {
    Extent e;
    for (const auto& shape : m_out.shapes)
      std::visit(
          [&](const auto& s) {
            using T = std::decay_t<decltype(s)>;
            if constexpr (std::is_same_v<T, Line>)
              e.take(s.x1, s.y1), e.take(s.x2, s.y2);
            else if constexpr (std::is_same_v<T, Circle>)
              e.take(s.x - s.radius, s.y - s.radius), e.take(s.x + s.radius, s.y + s.radius);
            else if constexpr (std::is_same_v<T, Box>)
              e.take(s.x, s.y), e.take(s.x + s.width, s.y + s.height);
            else
              extend(e, s);
          },
          shape);
    const double k = m_wish.pitch;
    const auto x = [&](double v) { return (v - e.left + kPaper) * k; };
    const auto y = [&](double v) { return (v - e.top + kPaper) * k; };
    for (auto& shape : m_out.shapes)
      std::visit(
          [&](auto& s) {
            using T = std::decay_t<decltype(s)>;
            if constexpr (std::is_same_v<T, Line>) {
              s.x1 = x(s.x1), s.x2 = x(s.x2), s.y1 = y(s.y1), s.y2 = y(s.y2);
            } else {
              s.x = x(s.x), s.y = y(s.y);
              if constexpr (std::is_same_v<T, Circle>) s.radius *= k;
              if constexpr (std::is_same_v<T, Box>) s.width *= k, s.height *= k;
              if constexpr (std::is_same_v<T, Words>) s.size *= k;
            }
          },
          shape);
    for (auto& t : m_out.targets) t.x = x(t.x), t.y = y(t.y);
    m_out.width = (e.right - e.left + 2 * kPaper) * k;
    m_out.height = (e.bottom - e.top + 2 * kPaper) * k;
  }
};

}  // namespace

Drawing drawingOf(const parts::Part& part, const Wish& wish) {
  const auto a = arrangementOf(part);
  return a ? Drawer(part, *a, wish).run() : Drawing{};
}

}  // namespace bold::places
