#include <QPainter>
#include <algorithm>
#include <cmath>

#include "gui/picture/changes.h"
#include "gui/picture/picture.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

using harness::ConnectionKind;
using harness::State;
using picture::Box;
using picture::BoxKind;
using picture::Point;
using picture::TerminalMark;
using picture::Thread;

constexpr double kMitre = 6;
constexpr double kFaded = 0.22;
constexpr double kBeyond = 14;  // that a motor's words may reach over its place, within the margin

QPointF q(Point p) {
  return {p.x, p.y};
}

// Kept, because finding a font anew for every label takes longer than drawing it. Used by the window's thread only.
const QFont& font(int pixels, bool bold = false, bool mono = false) {
  static std::map<std::tuple<int, bool, bool>, QFont> known;
  const auto [it, fresh] = known.try_emplace({pixels, bold, mono});
  if (!fresh) return it->second;
  QFont f(mono ? "DejaVu Sans Mono" : "Inter");
  f.setStyleHint(mono ? QFont::Monospace : QFont::SansSerif);
  f.setPixelSize(pixels);
  f.setWeight(bold ? QFont::DemiBold : QFont::Normal);
  return it->second = f;
}

// Straight legs with mitred corners, as single lines: those are painted several times as fast as a path is stroked.
std::vector<QLineF> legs(const std::vector<Point>& points) {
  std::vector<QLineF> out;
  if (points.size() < 2) return out;
  QPointF from = q(points.front());
  for (std::size_t i = 1; i + 1 < points.size(); ++i) {
    const QPointF a = q(points[i - 1]);
    const QPointF b = q(points[i]);
    const QPointF c = q(points[i + 1]);
    const auto toward = [](QPointF here, QPointF there) {
      const QPointF d = there - here;
      const double n = std::hypot(d.x(), d.y());
      const double cut = std::min(kMitre, n / 2);
      return n > 0 ? here + d * (cut / n) : here;
    };
    out.emplace_back(from, toward(b, a));
    out.emplace_back(toward(b, a), toward(b, c));
    from = toward(b, c);
  }
  out.emplace_back(from, q(points.back()));
  std::erase_if(out, [](const QLineF& l) { return l.length() < 0.01; });
  return out;
}

// Where two legs meet at half a right angle their flat ends leave a wedge open: each reaches so much of its width further.
constexpr double kWedge = 0.21;

void stroke(QPainter& p, const std::vector<QLineF>& lines, const QColor& colour, double width, Qt::PenStyle style = Qt::SolidLine) {
  auto reaching = lines;
  for (std::size_t i = 0; i < reaching.size(); ++i) {
    auto& l = reaching[i];
    const QPointF along = (l.p2() - l.p1()) / l.length() * (kWedge * width);
    const bool first = i == 0;
    const bool last = i + 1 == reaching.size();
    l = QLineF(first ? l.p1() : l.p1() - along, last ? l.p2() : l.p2() + along);
  }
  p.setPen(QPen(colour, width, style, Qt::FlatCap));
  p.drawLines(reaching.data(), static_cast<int>(reaching.size()));
}

// @param strength 0 .. 1: how much of its colour is left. Mixed, not painted thinly: legs overlap where they meet.
void paintThread(QPainter& p, const Thread& t, bool selected, double strength) {
  const auto& c = palette();
  const auto path = legs(t.path);
  QColor stripe;
  const QColor colour = t.kind == ConnectionKind::Wire ? wireColour(QString::fromStdString(t.colour), &stripe) : c.inkSoft;
  const double width = t.kind == ConnectionKind::Plug && t.whole ? 6 : t.kind == ConnectionKind::Jumper ? 5 : 3;
  const auto shade = [&](const QColor& of) { return between(of, c.paper, strength); };
  stroke(p, path, c.paper, width + 6);  // the gap where it crosses another
  if (selected) stroke(p, path, c.accent, width + 6);
  if (t.state == State::ToBeRemoved) {
    stroke(p, path, shade(c.casing), width + 1.6, Qt::DotLine);
    return;
  }
  stroke(p, path, shade(c.casing), width + 1.8);
  stroke(p, path, shade(colour), width);
  if (stripe.isValid()) {
    QPen dash(shade(stripe), width, Qt::CustomDashLine, Qt::FlatCap);
    dash.setDashPattern({2, 3});
    p.setPen(dash);
    p.drawLines(path.data(), static_cast<int>(path.size()));
  }
  if (t.state == State::Planned) stroke(p, path, c.paper, width - 0.8);  // hollow
}

void paintMark(QPainter& p, const TerminalMark& m, bool selected) {
  const auto& c = palette();
  const QPointF at = q(m.at);
  p.setPen(QPen(selected ? c.accent : c.ink, selected ? 2.4 : 1.3));
  p.setBrush(c.panel);
  if (m.small) {
    p.setPen(selected ? QPen(c.accent, 2) : QPen(Qt::NoPen));
    p.setBrush(c.inkSoft);
    p.drawRect(QRectF(at.x() - 2.2, at.y() - 2.2, 4.4, 4.4));
    return;
  }
  if (m.contact == "screw") {
    p.drawEllipse(at, 6.5, 6.5);
    p.drawLine(at + QPointF(-3.6, 3.6), at + QPointF(3.6, -3.6));
  } else if (m.contact == "hole") {
    p.drawRect(QRectF(at.x() - 4.5, at.y() - 4.5, 9, 9));
    p.setBrush(c.ink);
    p.drawRect(QRectF(at.x() - 1.5, at.y() - 1.5, 3, 3));
  } else if (m.contact == "socket") {
    p.drawRect(QRectF(at.x() - 5, at.y() - 5, 10, 10));
    p.setPen(Qt::NoPen);
    p.setBrush(c.ink);
    p.drawRect(QRectF(at.x() - 2.2, at.y() - 2.2, 4.4, 4.4));
  } else if (m.contact == "lead" || m.contact == "leg") {
    p.setBrush(c.ink);
    p.drawEllipse(at, 4, 4);
  } else {
    p.drawRect(QRectF(at.x() - 5, at.y() - 5, 10, 10));
    p.setPen(Qt::NoPen);
    p.setBrush(c.ink);
    p.drawEllipse(at, 2, 2);
  }
}

// A tab with the connector's name: a target of its own.
void paintConnector(QPainter& p, const picture::ConnectorMark& m, bool selected) {
  const auto& c = palette();
  p.setPen(QPen(selected ? c.accent : c.inkSoft, selected ? 2.4 : 1.1));
  p.setBrush(c.strip);
  const QRectF r(m.rect.x, m.rect.y, m.rect.w, m.rect.h);
  p.drawRoundedRect(r, 3, 3);
  p.setPen(c.ink);
  p.setFont(font(12));
  p.drawText(r, Qt::AlignCenter, QString::fromStdString(m.label));
}

void paintLabel(QPainter& p, const TerminalMark& m) {
  if (m.bare) return;
  const auto& c = palette();
  p.setFont(font(13, false, true));
  p.setPen(c.ink);
  const auto text = QString::fromStdString(m.label) + (m.pwm ? QString::fromUtf8(" ∿") : QString());
  const double w = 130;
  if (m.labelAbove)
    p.drawText(QRectF(m.at.x - 15, m.at.y - 23, 30, 16), Qt::AlignCenter, text);
  else if (m.outside)
    p.drawText(QRectF(m.at.x + 10, m.at.y - 9, 60, 18), Qt::AlignVCenter | Qt::AlignLeft, text);
  else if (m.labelLeft)
    p.drawText(QRectF(m.at.x - 12 - w, m.at.y - 9, w, 18), Qt::AlignVCenter | Qt::AlignRight, text);
  else
    p.drawText(QRectF(m.at.x + 12, m.at.y - 9, w, 18), Qt::AlignVCenter | Qt::AlignLeft, text);
}

// Our own marks for loose parts: a body between two stubs, drawn level at `at`.
void paintSymbol(QPainter& p, const std::string& symbol, QPointF at) {
  const auto& c = palette();
  p.setPen(QPen(c.inkSoft, 1.5));
  p.setBrush(Qt::NoBrush);
  if (symbol == "resistor" || symbol == "fuse") {
    p.drawLine(at + QPointF(0, -14), at + QPointF(0, -8));
    p.drawLine(at + QPointF(0, 8), at + QPointF(0, 14));
    p.drawRect(QRectF(at.x() - 4, at.y() - 8, 8, 16));
    if (symbol == "fuse") p.drawLine(at + QPointF(0, -8), at + QPointF(0, 8));
  } else if (symbol == "diode") {
    p.drawLine(at + QPointF(0, -14), at + QPointF(0, 14));
    QPolygonF body;
    body << at + QPointF(-6, -5) << at + QPointF(6, -5) << at + QPointF(0, 5);
    p.setBrush(c.inkSoft);
    p.drawPolygon(body);
    p.drawLine(at + QPointF(-6, 5), at + QPointF(6, 5));
  } else if (symbol == "capacitor") {
    p.drawLine(at + QPointF(0, -14), at + QPointF(0, -3));
    p.drawLine(at + QPointF(0, 3), at + QPointF(0, 14));
    p.drawLine(at + QPointF(-7, -3), at + QPointF(7, -3));
    p.drawLine(at + QPointF(-7, 3), at + QPointF(7, 3));
  } else if (symbol == "npn" || symbol == "nmos") {
    const double x = at.x();
    const double y = at.y();
    p.drawLine(QPointF(x - 16, y), QPointF(x - 6, y));
    p.drawLine(QPointF(x - 6, y - 11), QPointF(x - 6, y + 11));
    if (symbol == "nmos") {
      p.drawLine(QPointF(x - 2, y - 11), QPointF(x - 2, y - 5));
      p.drawLine(QPointF(x - 2, y - 3), QPointF(x - 2, y + 3));
      p.drawLine(QPointF(x - 2, y + 5), QPointF(x - 2, y + 11));
      p.drawLine(QPointF(x - 2, y - 8), QPointF(x + 12, y - 8));
      p.drawLine(QPointF(x - 2, y + 8), QPointF(x + 12, y + 8));
    } else {
      p.drawLine(QPointF(x - 6, y - 4), QPointF(x + 8, y - 12));
      p.drawLine(QPointF(x - 6, y + 4), QPointF(x + 8, y + 12));
      p.drawLine(QPointF(x + 8, y + 12), QPointF(x + 2, y + 12));
      p.drawLine(QPointF(x + 8, y + 12), QPointF(x + 6, y + 6));
    }
  }
}

QString elided(const QFont& f, const std::string& text, double width) {
  return QFontMetricsF(f).elidedText(QString::fromStdString(text), Qt::ElideRight, width);
}

void paintMotor(QPainter& p, const Box& b, bool selected) {
  const auto& c = palette();
  const double r = 27;
  const QPointF centre(b.rect.x + 112, b.rect.y + 32);
  p.setBrush(c.panel);
  p.setPen(QPen(selected ? c.accent : c.ink, selected ? 2.6 : 1.6, b.state == State::OnBench ? Qt::SolidLine : Qt::DashLine));
  if (b.symbol == "still") {  // nothing turns in it
    p.drawRoundedRect(QRectF(centre.x() - r, centre.y() - r + 5, 2 * r, 2 * r - 10), 5, 5);
    p.setBrush(c.strip);
    p.setPen(Qt::NoPen);
    p.drawRoundedRect(QRectF(centre.x() - 13, centre.y() - 9, 26, 18), 3, 3);
  } else {
    p.drawEllipse(centre, r, r);
    p.setBrush(c.strip);
    p.setPen(Qt::NoPen);
    p.drawEllipse(centre, 13, 13);
  }
  p.setPen(c.ink);
  // Beside the leads where there are many, under them where there are few.
  std::size_t longest = 0;
  for (const auto& m : b.terminals) longest = std::max(longest, m.label.size());
  const double beside = b.rect.x + 24 + 8.0 * static_cast<double>(longest);
  const double x = b.terminals.size() > 3 ? beside : b.rect.x + 26;
  const double w = b.rect.right() + kBeyond - x;  // nothing stands to the right of motors
  p.setFont(font(14, true));
  p.drawText(QRectF(x, centre.y() + r + 4, w, 18), Qt::AlignCenter, elided(p.font(), b.title, w));
  p.setPen(c.inkSoft);
  p.setFont(font(13));
  p.drawText(QRectF(x, centre.y() + r + 22, w, 17), Qt::AlignCenter, elided(p.font(), b.subtitle, w));
}

void paintBox(QPainter& p, const Box& b, bool selected) {
  const auto& c = palette();
  if (b.kind == BoxKind::Motor) {
    paintMotor(p, b, selected);
    return;
  }
  const QRectF rect(b.rect.x, b.rect.y, b.rect.w, b.rect.h);
  p.setBrush(c.panel);
  p.setPen(QPen(selected ? c.accent : c.line, selected ? 2.4 : 1.2, b.state == State::OnBench ? Qt::SolidLine : Qt::DashLine));
  p.drawRoundedRect(rect, 7, 7);
  p.setPen(c.ink);
  const bool small = b.kind == BoxKind::Loose;
  p.setFont(font(small ? 13 : 14, true));
  const double inner = b.rect.w - 16;
  if (small) {
    // Title and value on one line, the symbol beside the legs.
    p.drawText(QRectF(b.rect.x + 8, b.rect.y + 2, inner, 16), Qt::AlignVCenter | Qt::AlignLeft, elided(p.font(), b.title, 34));
    p.setPen(c.inkSoft);
    p.setFont(font(12));
    p.drawText(QRectF(b.rect.x + 8, b.rect.y + 2, inner, 16), Qt::AlignVCenter | Qt::AlignRight, elided(p.font(), b.subtitle, inner - 28));
    double y = 0;
    for (const auto& m : b.terminals) y += m.at.y / static_cast<double>(b.terminals.size());
    const bool right = !b.terminals.empty() && b.terminals.front().labelLeft;
    paintSymbol(p, b.symbol, QPointF(right ? b.rect.x + 14 : b.rect.right() - 14, y));
  } else if (b.kind == BoxKind::Source) {
    p.drawText(QRectF(b.rect.x + 10, b.rect.y + 5, inner, 18), Qt::AlignVCenter | Qt::AlignLeft, elided(p.font(), b.title, inner));
    p.setPen(c.inkSoft);
    p.setFont(font(12));
    p.drawText(QRectF(b.rect.x + 10, b.rect.y + 22, inner, 16), Qt::AlignVCenter | Qt::AlignLeft, elided(p.font(), b.subtitle, inner));
  } else {
    p.drawText(QRectF(b.rect.x + 8, b.rect.y + 5, inner, 18), Qt::AlignCenter, elided(p.font(), b.title, inner));
    p.setPen(c.inkSoft);
    p.setFont(font(12));
    p.drawText(QRectF(b.rect.x + 8, b.rect.y + 22, inner, 16), Qt::AlignCenter, elided(p.font(), b.subtitle, inner));
    if (!b.symbol.empty()) paintSymbol(p, b.symbol, QPointF(b.rect.x + b.rect.w / 2, b.rect.y + b.rect.h - 24));
  }
  p.setPen(c.inkSoft);
  p.setFont(font(12));
  for (const auto& cap : b.captions) p.drawText(q(cap.at), QString::fromStdString(cap.text));
  // The strip behind a header's pins.
  if (b.kind == BoxKind::Controller && !b.terminals.empty()) {
    p.setPen(Qt::NoPen);
    p.setBrush(c.strip);
    std::size_t i = 0;
    while (i < b.terminals.size()) {
      const double x = b.terminals[i].at.x;
      double last = b.terminals[i].at.y;
      const double first = last;
      std::size_t k = i + 1;
      while (k < b.terminals.size() && b.terminals[k].at.x == x && b.terminals[k].at.y - last < 1.5 * 20) last = b.terminals[k++].at.y;
      p.drawRect(QRectF(x - 8, first - 10, 16, last - first + 20));
      i = k;
    }
  }
}

void paintBar(QPainter& p, const picture::Bar& b) {
  const auto& c = palette();
  p.setPen(QPen(b.ground ? c.ground : c.supply, 5, Qt::SolidLine, Qt::FlatCap));
  p.drawLine(QPointF(b.x1 - 2, b.y), QPointF(b.x2 + 2, b.y));
}

void paintBarLabel(QPainter& p, const picture::Bar& b) {
  const auto& c = palette();
  p.setFont(font(12));
  const auto label = QString::fromStdString(b.label);
  const double w = QFontMetricsF(p.font()).horizontalAdvance(label);
  const QRectF at = b.ground ? QRectF(b.x1 + 4, b.y + 4, w + 4, 15) : QRectF(b.x2 + 10, b.y - 8, w + 4, 16);
  p.fillRect(at, c.paper);
  p.setPen(b.ground ? c.inkSoft : c.supply);
  p.drawText(at, Qt::AlignLeft | Qt::AlignVCenter, label);
}

}  // namespace

void paintBadge(QPainter& p, QPointF at, int number, checks::Severity severity, bool picked) {
  const auto& c = palette();
  const double r = picture::kBadge / 2;
  QPolygonF shape;
  const bool stop = severity == checks::Severity::Stop;
  const bool caution = severity == checks::Severity::Caution;
  if (stop) {
    for (int i = 0; i < 8; ++i) {
      const double a = (22.5 + 45 * i) * M_PI / 180;
      shape << at + QPointF(std::cos(a), std::sin(a)) * r;
    }
  } else if (caution) {
    shape << at + QPointF(0, -r * 1.05) << at + QPointF(r * 1.15, r * 0.85) << at + QPointF(-r * 1.15, r * 0.85);
  } else {
    shape << at + QPointF(0, -r) << at + QPointF(r, 0) << at + QPointF(0, r) << at + QPointF(-r, 0);
  }
  p.setPen(QPen(picked ? c.ink : c.panel, picked ? 2.4 : 1.4));
  p.setBrush(stop ? c.stop : caution ? c.caution : c.note);
  p.drawPolygon(shape);
  p.setPen(stop ? c.stopInk : caution ? c.cautionInk : c.panel);
  QFont f("DejaVu Sans");
  f.setPixelSize(number > 9 ? 9 : 11);
  f.setBold(true);
  p.setFont(f);
  if (number > 0) p.drawText(QRectF(at.x() - r, at.y() - r + (caution ? 2.5 : 0), 2 * r, 2 * r), Qt::AlignCenter, QString::number(number));
}

void paintPicture(QPainter& p, const picture::Layout& layout, const std::vector<picture::Badge>& badges, const std::set<std::string>& lit,
                  bool dimming, const QString& selection, const QString& picked) {
  p.setRenderHint(QPainter::Antialiasing);
  const auto chosen = selection.toStdString();
  const auto shown = [&](const std::string& id) { return !dimming || lit.empty() || lit.contains(id); };
  const auto outlined = [&](const std::string& id) { return id == chosen || (!dimming && lit.contains(id)); };
  // What lies out of sight is left out: a picture of many motors is far larger than any window.
  const QRegion seen = p.hasClipping() ? p.clipRegion() : QRegion(-1'000'000, -1'000'000, 2'000'000, 2'000'000);
  const auto inSight = [&](const picture::Rect& r) { return seen.intersects(QRectF(r.x, r.y, r.w, r.h).toAlignedRect()); };
  for (const auto& b : layout.bars) paintBar(p, b);
  // Boxes first: a thread from the inner column of a header leaves between the pins of the outer one.
  for (const auto& b : layout.boxes) {
    if (!inSight(picture::covered(b))) continue;
    p.setOpacity(shown(b.device) ? 1 : 0.45);
    paintBox(p, b, b.device == chosen);
  }
  p.setOpacity(1);
  for (const bool front : {false, true})
    for (const auto& t : layout.threads) {
      if (shown(t.connection) != front || std::ranges::none_of(picture::covered(t), inSight)) continue;
      paintThread(p, t, outlined(t.connection), front ? 1 : kFaded);
    }
  for (const auto& b : layout.boxes) {
    if (!inSight(picture::covered(b))) continue;
    p.setOpacity(shown(b.device) ? 1 : 0.45);
    for (const auto& m : b.connectors) paintConnector(p, m, m.address.text() == chosen);
    for (const auto& m : b.terminals) {
      paintMark(p, m, m.address.text() == chosen);
      paintLabel(p, m);
    }
  }
  p.setOpacity(1);
  for (const auto& b : layout.bars) paintBarLabel(p, b);
  for (const auto& b : badges)
    if (inSight(picture::covered(b))) paintBadge(p, q(b.at), b.number, b.severity, QString::fromStdString(b.identity) == picked);
}

}  // namespace bold::gui
