#include "core/picture/draw_loom.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/harness/colour_codes.h"

namespace bold::picture {
namespace {

using draw::Colour;
using draw::Dash;
using draw::Ink;
using draw::Segment;
using draw::Shapes;
using draw::Side;
using draw::Stroke;
using harness::ConnectionKind;
using harness::State;

constexpr double kMitre = 6;
constexpr double kBeyond = 14;  // that a motor's words may reach over its place, within the margin

Stroke stroke(Ink ink, double width, Dash dash = Dash::None) {
  return {{ink}, width, dash};
}
Stroke edge(bool selected, Ink ink, double strong, double width, State state = State::OnBench) {
  return stroke(selected ? Ink::Accent : ink, selected ? strong : width, state == State::OnBench ? Dash::None : Dash::Dashes);
}
Rect around(Point at, double r) {
  return {at.x - r, at.y - r, 2 * r, 2 * r};
}
double length(const Segment& s) {
  return std::hypot(s.to.x - s.from.x, s.to.y - s.from.y);
}

// Straight legs with mitred corners, as single lines.
std::vector<Segment> legs(const std::vector<Point>& points) {
  std::vector<Segment> out;
  if (points.size() < 2) return out;
  const auto toward = [](Point here, Point there) {
    const double n = std::hypot(there.x - here.x, there.y - here.y);
    const double cut = std::min(kMitre, n / 2);
    return n > 0 ? Point{here.x + (there.x - here.x) * (cut / n), here.y + (there.y - here.y) * (cut / n)} : here;
  };
  Point from = points.front();
  for (std::size_t i = 1; i + 1 < points.size(); ++i) {
    const auto in = toward(points[i], points[i - 1]);
    const auto out2 = toward(points[i], points[i + 1]);
    out.push_back({from, in});
    out.push_back({in, out2});
    from = out2;
  }
  out.push_back({from, points.back()});
  std::erase_if(out, [](const Segment& s) { return length(s) < 0.01; });
  return out;
}

// Where two legs meet at half a right angle their flat ends leave a wedge open: each reaches so much of its width further.
constexpr double kWedge = 0.21;

draw::Lines run(std::vector<Segment> lines, const Stroke& with) {
  for (std::size_t i = 0; i < lines.size(); ++i) {
    auto& l = lines[i];
    const double n = length(l);
    const double dx = (l.to.x - l.from.x) / n * kWedge * with.width;
    const double dy = (l.to.y - l.from.y) / n * kWedge * with.width;
    if (i > 0) l.from = {l.from.x - dx, l.from.y - dy};
    if (i + 1 < lines.size()) l.to = {l.to.x + dx, l.to.y + dy};
  }
  return {std::move(lines), with};
}

void line(Shapes& out, double x1, double y1, double x2, double y2, const Stroke& s) {
  out.emplace_back(draw::Lines{{{{x1, y1}, {x2, y2}}}, s});
}
void words(Shapes& out, Rect where, Side side, const std::string& text, double size, Ink ink, bool bold = false, bool cut = true) {
  draw::Words w{.where = where, .side = side, .text = text, .size = size};
  w.colour.ink = ink;
  w.bold = bold;
  w.cut = cut;
  out.emplace_back(std::move(w));
}

void mark(Shapes& out, const TerminalMark& m, bool selected) {
  const auto ring = edge(selected, Ink::Text, 2.4, 1.3);
  const auto at = m.at;
  const auto box = [&](double r, bool filled) {
    if (filled)
      out.emplace_back(draw::Box{around(at, r), 0, {}, Colour{Ink::Text}});
    else
      out.emplace_back(draw::Box{around(at, r), 0, ring, Colour{Ink::Panel}});
  };
  if (m.small) {
    const auto picked = selected ? std::optional(stroke(Ink::Accent, 2)) : std::nullopt;
    out.emplace_back(draw::Box{around(at, 2.2), 0, picked, Colour{Ink::Soft}});
  } else if (m.contact == "screw") {
    out.emplace_back(draw::Ellipse{at, 6.5, 6.5, ring, Colour{Ink::Panel}});
    line(out, at.x - 3.6, at.y + 3.6, at.x + 3.6, at.y - 3.6, ring);
  } else if (m.contact == "hole") {
    box(4.5, false);
    box(1.5, true);
  } else if (m.contact == "socket") {
    box(5, false);
    box(2.2, true);
  } else if (m.contact == "lead" || m.contact == "leg") {
    out.emplace_back(draw::Ellipse{at, 4, 4, ring, Colour{Ink::Text}});
  } else {
    box(5, false);
    out.emplace_back(draw::Ellipse{at, 2, 2, {}, Colour{Ink::Text}});
  }
}

// A tab with the connector's name: a target of its own.
void connector(Shapes& out, const ConnectorMark& m, bool selected) {
  out.emplace_back(draw::Box{m.rect, 3, edge(selected, Ink::Soft, 2.4, 1.1), Colour{Ink::Strip}});
  words(out, m.rect, Side::Middle, m.label, 12, Ink::Text, false, false);
}

void label(Shapes& out, const TerminalMark& m) {
  if (m.bare) return;
  constexpr double kWide = 130;
  draw::Words w{.where = {m.at.x + 12, m.at.y - 9, kWide, 18}, .side = Side::Left, .text = m.label + (m.pwm ? " ∿" : ""), .size = 13};
  w.mono = true;
  if (m.labelAbove) {
    w.where = {m.at.x - 15, m.at.y - 23, 30, 16};
    w.side = Side::Middle;
  } else if (m.outside) {
    w.where = {m.at.x + 10, m.at.y - 9, 60, 18};
  } else if (m.labelLeft) {
    w.where = {m.at.x - 12 - kWide, m.at.y - 9, kWide, 18};
    w.side = Side::Right;
  }
  out.emplace_back(std::move(w));
}

// Our own marks for loose parts: a body between two stubs, drawn level at `at`.
void symbol(Shapes& out, const std::string& what, Point at) {
  const auto pen = stroke(Ink::Soft, 1.5);
  const auto l = [&](double x1, double y1, double x2, double y2) { line(out, at.x + x1, at.y + y1, at.x + x2, at.y + y2, pen); };
  if (what == "resistor" || what == "fuse") {
    l(0, -14, 0, -8);
    l(0, 8, 0, 14);
    out.emplace_back(draw::Box{{at.x - 4, at.y - 8, 8, 16}, 0, pen, {}});
    if (what == "fuse") l(0, -8, 0, 8);
  } else if (what == "diode") {
    l(0, -14, 0, 14);
    out.emplace_back(draw::Polygon{{{at.x - 6, at.y - 5}, {at.x + 6, at.y - 5}, {at.x, at.y + 5}}, pen, Colour{Ink::Soft}});
    l(-6, 5, 6, 5);
  } else if (what == "capacitor") {
    l(0, -14, 0, -3);
    l(0, 3, 0, 14);
    l(-7, -3, 7, -3);
    l(-7, 3, 7, 3);
  } else if (what == "npn" || what == "nmos") {
    l(-16, 0, -6, 0);
    l(-6, -11, -6, 11);
    if (what == "nmos") {
      l(-2, -11, -2, -5);
      l(-2, -3, -2, 3);
      l(-2, 5, -2, 11);
      l(-2, -8, 12, -8);
      l(-2, 8, 12, 8);
    } else {
      l(-6, -4, 8, -12);
      l(-6, 4, 8, 12);
      l(8, 12, 2, 12);
      l(8, 12, 6, 6);
    }
  }
}

void motor(Shapes& out, const Box& b, bool selected) {
  const double r = 27;
  const Point centre{b.rect.x + 112, b.rect.y + 32};
  const auto pen = edge(selected, Ink::Text, 2.6, 1.6, b.state);
  if (b.symbol == "still") {  // nothing turns in it
    out.emplace_back(draw::Box{{centre.x - r, centre.y - r + 5, 2 * r, 2 * r - 10}, 5, pen, Colour{Ink::Panel}});
    out.emplace_back(draw::Box{{centre.x - 13, centre.y - 9, 26, 18}, 3, {}, Colour{Ink::Strip}});
  } else {
    out.emplace_back(draw::Ellipse{centre, r, r, pen, Colour{Ink::Panel}});
    out.emplace_back(draw::Ellipse{centre, 13, 13, {}, Colour{Ink::Strip}});
  }
  // Beside the leads where there are many, under them where there are few.
  std::size_t longest = 0;
  for (const auto& m : b.terminals) longest = std::max(longest, m.label.size());
  const double beside = b.rect.x + 24 + 8.0 * static_cast<double>(longest);
  const double x = b.terminals.size() > 3 ? beside : b.rect.x + 26;
  const double w = b.rect.right() + kBeyond - x;  // nothing stands to the right of motors
  words(out, {x, centre.y + r + 4, w, 18}, Side::Middle, b.title, 14, Ink::Text, true);
  words(out, {x, centre.y + r + 22, w, 17}, Side::Middle, b.subtitle, 13, Ink::Soft);
}

// The strip behind a header's pins.
void strips(Shapes& out, const Box& b) {
  std::size_t i = 0;
  while (i < b.terminals.size()) {
    const double x = b.terminals[i].at.x;
    double last = b.terminals[i].at.y;
    const double first = last;
    std::size_t k = i + 1;
    while (k < b.terminals.size() && b.terminals[k].at.x == x && b.terminals[k].at.y - last < 1.5 * 20) last = b.terminals[k++].at.y;
    out.emplace_back(draw::Box{{x - 8, first - 10, 16, last - first + 20}, 0, {}, Colour{Ink::Strip}});
    i = k;
  }
}

// Title and value on one line, the symbol beside the legs.
void loose(Shapes& out, const Box& b, double inner) {
  words(out, {b.rect.x + 8, b.rect.y + 2, 34, 16}, Side::Left, b.title, 13, Ink::Text, true);
  words(out, {b.rect.x + 8 + 28, b.rect.y + 2, inner - 28, 16}, Side::Right, b.subtitle, 12, Ink::Soft);
  double y = 0;
  for (const auto& m : b.terminals) y += m.at.y / static_cast<double>(b.terminals.size());
  const bool right = !b.terminals.empty() && b.terminals.front().labelLeft;
  symbol(out, b.symbol, {right ? b.rect.x + 14 : b.rect.right() - 14, y});
}

}  // namespace

Shapes boxShapes(const Box& b, bool selected) {
  Shapes out;
  if (b.kind == BoxKind::Motor) {
    motor(out, b, selected);
    return out;
  }
  out.emplace_back(draw::Box{b.rect, 7, edge(selected, Ink::Line, 2.4, 1.2, b.state), Colour{Ink::Panel}});
  const double inner = b.rect.w - 16;
  if (b.kind == BoxKind::Loose) {
    loose(out, b, inner);
  } else if (b.kind == BoxKind::Source) {
    words(out, {b.rect.x + 10, b.rect.y + 5, inner, 18}, Side::Left, b.title, 14, Ink::Text, true);
    words(out, {b.rect.x + 10, b.rect.y + 22, inner, 16}, Side::Left, b.subtitle, 12, Ink::Soft);
  } else {
    words(out, {b.rect.x + 8, b.rect.y + 5, inner, 18}, Side::Middle, b.title, 14, Ink::Text, true);
    words(out, {b.rect.x + 8, b.rect.y + 22, inner, 16}, Side::Middle, b.subtitle, 12, Ink::Soft);
    if (!b.symbol.empty()) symbol(out, b.symbol, {b.rect.x + b.rect.w / 2, b.rect.y + b.rect.h - 24});
  }
  for (const auto& cap : b.captions) words(out, {cap.at.x, cap.at.y - 12, 400, 15}, Side::Left, cap.text, 12, Ink::Soft, false, false);
  if (b.kind == BoxKind::Controller) strips(out, b);
  return out;
}

Shapes threadShapes(const Thread& t, bool selected, double strength) {
  Shapes out;
  const auto path = legs(t.path);
  const bool wire = t.kind == ConnectionKind::Wire;
  const auto own = [&](int which) { return Colour{Ink::Own, std::string(harness::shownColour(t.colour, which)), strength}; };
  const auto colour = wire ? own(0) : Colour{Ink::Soft, {}, strength};
  const double width = t.kind == ConnectionKind::Plug && t.whole ? 6 : t.kind == ConnectionKind::Jumper ? 5 : 3;
  const Colour casing{Ink::Casing, {}, strength};
  out.emplace_back(run(path, stroke(Ink::Paper, width + 6)));  // the gap where it crosses another
  if (selected) out.emplace_back(run(path, stroke(Ink::Accent, width + 6)));
  if (t.state == State::ToBeRemoved) {
    out.emplace_back(run(path, {casing, width + 1.6, Dash::Dots}));
    return out;
  }
  out.emplace_back(run(path, {casing, width + 1.8}));
  out.emplace_back(run(path, {colour, width}));
  if (wire && t.colour.size() >= 4) out.emplace_back(draw::Lines{path, {own(1), width, Dash::Stripes}});
  if (t.state == State::Planned) out.emplace_back(run(path, stroke(Ink::Paper, width - 0.8)));  // hollow
  return out;
}

Shapes progressShapes(const Thread& t) {
  Shapes out;
  const auto path = legs(t.path);
  if ((t.looked == 0 && !t.wrong) || path.empty()) return out;
  const auto longest = *std::ranges::max_element(path, {}, length);
  const Point at{(longest.from.x + longest.to.x) / 2, (longest.from.y + longest.to.y) / 2};
  constexpr double kCell = 6;
  const Rect whole{at.x - 1.5 * kCell - 2, at.y - 5, 3 * kCell + 4, 10};
  out.emplace_back(draw::Box{whole, 3, stroke(Ink::Text, 1.2), Colour{Ink::Panel}});
  if (t.wrong) {
    const auto pen = stroke(Ink::Text, 2);
    line(out, at.x - 4, at.y - 4, at.x + 4, at.y + 4, pen);
    line(out, at.x - 4, at.y + 4, at.x + 4, at.y - 4, pen);
    return out;
  }
  for (int k = 0; k < 3; ++k) {
    const Rect cell{at.x - 1.5 * kCell + kCell * k + 1, at.y - 2.5, kCell - 2, 5};
    out.emplace_back(draw::Box{cell, 0, k < t.looked ? std::nullopt : std::optional(stroke(Ink::Soft, 0.8)),
                               k < t.looked ? std::optional(Colour{Ink::Text}) : std::nullopt});
  }
  return out;
}

Shapes terminalShapes(const Box& b, const std::string& chosen) {
  Shapes out;
  for (const auto& m : b.connectors) connector(out, m, m.address.text() == chosen);
  for (const auto& m : b.terminals) {
    mark(out, m, m.address.text() == chosen);
    label(out, m);
  }
  return out;
}

Shapes barShapes(const Bar& b) {
  Shapes out;
  line(out, b.x1 - 2, b.y, b.x2 + 2, b.y, stroke(b.ground ? Ink::Ground : Ink::Supply, 5));
  return out;
}

Shapes barLabelShapes(const Bar& b) {
  draw::Words w{.where = b.ground ? Rect{b.x1 + 4, b.y + 4, 300, 15} : Rect{b.x2 + 10, b.y - 8, 300, 16}, .text = b.label, .size = 12};
  w.colour.ink = b.ground ? Ink::Soft : Ink::Supply;
  w.backed = Colour{Ink::Paper};
  return {std::move(w)};
}

Shapes badgeShapes(const Badge& b) {
  const double r = kBadge / 2;
  draw::Polygon shape{{}, stroke(Ink::Text, 1.6), Colour{Ink::Panel}};
  const auto corner = [&](double x, double y) { shape.points.push_back({b.at.x + x * r, b.at.y + y * r}); };
  const bool caution = b.severity == checks::Severity::Caution;
  if (b.severity == checks::Severity::Stop) {
    shape.fill = Colour{Ink::Text};
    for (int i = 0; i < 8; ++i) {
      const double a = (22.5 + 45 * i) * std::numbers::pi / 180;
      corner(std::cos(a), std::sin(a));
    }
  } else if (caution) {
    corner(0, -1.05);
    corner(1.15, 0.85);
    corner(-1.15, 0.85);
  } else {
    corner(0, -1);
    corner(1, 0);
    corner(0, 1);
    corner(-1, 0);
  }
  Shapes out{std::move(shape)};
  if (b.number > 0)
    words(out, {b.at.x - r, b.at.y - r + (caution ? 2.5 : 0), 2 * r, 2 * r}, Side::Middle, std::to_string(b.number), b.number > 9 ? 9 : 11,
          b.severity == checks::Severity::Stop ? Ink::Paper : Ink::Text, true, false);
  return out;
}

namespace {

// "w4 YE" on the first leg of a thread, seen from a mark; of several threads there the first, and that there are more.
Shapes wireNames(const Layout& layout) {
  std::map<Address, std::pair<const Thread*, int>> at;
  for (const auto& t : layout.threads)
    for (const auto* end : {&t.a, &t.b}) {
      auto& [first, count] = at[*end];
      if (++count == 1) first = &t;
    }
  Shapes out;
  for (const auto& [end, what] : at) {
    const auto& [t, count] = what;
    if (t->path.size() < 2 || t->kind != ConnectionKind::Wire) continue;
    const bool fromA = t->a == end;
    const auto& here = fromA ? t->path.front() : t->path.back();
    const auto& next = fromA ? t->path[1] : t->path[t->path.size() - 2];
    if (std::abs(next.y - here.y) > 0.01) continue;  // it leaves upwards or down: no room
    constexpr double kOff = 9, kWide = 70, kHigh = 12, kSize = 11;
    const bool right = next.x > here.x;
    draw::Words w{.where = {right ? here.x + kOff : here.x - kOff - kWide, here.y - kHigh / 2, kWide, kHigh},
                  .side = right ? Side::Left : Side::Right,
                  .text = t->connection + (t->colour.empty() ? "" : " " + t->colour) + (count > 1 ? " +" : ""),
                  .size = kSize};
    w.backed = Colour{Ink::Paper};
    out.emplace_back(std::move(w));
  }
  return out;
}

}  // namespace

draw::Drawing loomDrawing(const Layout& layout, const std::vector<Badge>& badges, bool named) {
  draw::Drawing out{layout.width, layout.height, {}};
  const auto add = [&](Shapes shapes) {
    out.shapes.insert(out.shapes.end(), std::make_move_iterator(shapes.begin()), std::make_move_iterator(shapes.end()));
  };
  for (const auto& b : layout.bars) add(barShapes(b));
  // Boxes first: a thread from the inner column of a header leaves between the pins of the outer one.
  for (const auto& b : layout.boxes) add(boxShapes(b, false));
  for (const auto& t : layout.threads) add(threadShapes(t, false, 1));
  for (const auto& t : layout.threads) add(progressShapes(t));
  if (named) add(wireNames(layout));
  for (const auto& b : layout.boxes) add(terminalShapes(b, {}));
  for (const auto& b : layout.bars) add(barLabelShapes(b));
  for (const auto& b : badges) add(badgeShapes(b));
  return out;
}

}  // namespace bold::picture
