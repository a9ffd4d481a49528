#include "render/paint_shapes.h"

#include <QFont>
#include <QFontMetricsF>
#include <QPaintEngine>
#include <QPainter>
#include <QStringList>
#include <QVarLengthArray>
#include <cmath>
#include <map>
#include <tuple>

#include "core/draw/svg.h"

namespace bold::render {
namespace {

QPointF q(draw::Point p) {
  return {p.x, p.y};
}
QRectF q(const draw::Rect& r) {
  return {r.x, r.y, r.w, r.h};
}

constexpr double kWhole = 0.01;  // pixels
constexpr double kFine = 10;
constexpr double kUsual = 12;  // pixels, of letters with 4 pixels of paper around them

class Painting {
 public:
  Painting(QPainter& painter, const Theme& inks) : p(painter), theme(inks) {}

  QColor colour(const draw::Colour& c) const {
    const auto full = c.ink == draw::Ink::Own ? QColor(QString::fromStdString(c.own)) : theme(c.ink);
    if (c.strength >= 1) return full;
    const auto back = theme(draw::Ink::Paper);
    const auto mix = [&](int a, int b) { return static_cast<int>(std::lround(c.strength * a + (1 - c.strength) * b)); };
    return {mix(full.red(), back.red()), mix(full.green(), back.green()), mix(full.blue(), back.blue())};
  }
  QPen pen(const draw::Stroke& s, Qt::PenCapStyle cap) const {
    QPen out(colour(s.colour), s.width, Qt::SolidLine, cap);
    if (s.dash == draw::Dash::Dots) out.setStyle(Qt::DotLine);
    if (s.dash == draw::Dash::Dashes) out.setStyle(Qt::DashLine);
    if (s.dash == draw::Dash::Stripes) out.setDashPattern({2, 3});
    return out;
  }
  void use(const std::optional<draw::Stroke>& s, const std::optional<draw::Colour>& fill) const {
    p.setPen(s ? pen(*s, Qt::SquareCap) : QPen(Qt::NoPen));
    p.setBrush(fill ? QBrush(colour(*fill)) : QBrush(Qt::NoBrush));
  }

  void operator()(const draw::Lines& l) const {
    QVarLengthArray<QLineF, 16> lines;
    for (const auto& s : l.segments) lines.append({q(s.from), q(s.to)});
    p.setPen(pen(l.stroke, Qt::FlatCap));
    p.drawLines(lines.constData(), static_cast<int>(lines.size()));
  }
  void operator()(const draw::Ellipse& e) const {
    use(e.stroke, e.fill);
    p.drawEllipse(q(e.centre), e.rx, e.ry);
  }
  void operator()(const draw::Box& b) const {
    use(b.stroke, b.fill);
    if (b.radius > 0)
      p.drawRoundedRect(q(b.rect), b.radius, b.radius);
    else
      p.drawRect(q(b.rect));
  }
  void operator()(const draw::Polygon& shape) const {
    QPolygonF points;
    for (const auto& x : shape.points) points << q(x);
    use(shape.stroke, shape.fill);
    p.drawPolygon(points);
  }
  void operator()(const draw::Words& w) const {
    // A font has whole pixels; what was made smaller has not: that is set ten times as large, and drawn as much smaller.
    const bool whole = std::abs(w.size - std::round(w.size)) < kWhole;
    if (whole && !w.upwards) return words(w);
    const auto middle = q(w.where).center();
    p.save();
    p.translate(middle);
    if (w.upwards) p.rotate(-90);
    p.scale(1 / kFine, 1 / kFine);
    auto fine = w;
    fine.size *= kFine;
    fine.where = {-w.where.w * kFine / 2, -w.where.h * kFine / 2, w.where.w * kFine, w.where.h * kFine};
    words(fine);
    p.restore();
  }

 private:
  QPainter& p;
  const Theme& theme;

  void words(const draw::Words& w) const {
    const auto& f = font(static_cast<int>(std::lround(w.size)), w.bold, w.mono);
    p.setFont(f);
    auto text = QString::fromStdString(w.text);
    if (w.cut) text = QFontMetricsF(f).elidedText(text, Qt::ElideRight, w.where.w);
    const auto side = w.side == draw::Side::Left ? Qt::AlignLeft : w.side == draw::Side::Right ? Qt::AlignRight : Qt::AlignHCenter;
    if (w.backed) {
      auto behind = q(w.where);
      const double wide = QFontMetricsF(f).horizontalAdvance(text) + 4 * w.size / kUsual;
      if (w.side == draw::Side::Right) behind.setLeft(behind.right() - wide);
      if (w.side == draw::Side::Middle) behind.moveLeft(behind.center().x() - wide / 2);
      behind.setWidth(wide);
      p.fillRect(behind, colour(*w.backed));
    }
    p.setPen(colour(w.colour));
    if (p.paintEngine()->type() == QPaintEngine::Pdf)
      inPieces(text, QFontMetricsF(f), q(w.where), side);
    else
      p.drawText(q(w.where), static_cast<int>(side | Qt::AlignVCenter) | Qt::TextDontClip, text);
  }

  // The font has other signs for "-", ":" and "x" between digits, which no reader of a PDF finds or copies as what they are: signs by
  // themselves are not changed.
  void inPieces(const QString& text, const QFontMetricsF& metrics, const QRectF& where, Qt::AlignmentFlag side) const {
    QStringList pieces(QString{});
    for (const QChar c : text) {
      const bool sign = !c.isLetterOrNumber() && !c.isSpace();
      if (sign || c == 'x') {
        pieces << QString(c) << QString();
      } else {
        pieces.back() += c;
      }
    }
    double wide = 0;
    for (const auto& piece : pieces) wide += metrics.horizontalAdvance(piece);
    double x = side == Qt::AlignLeft ? where.left() : side == Qt::AlignRight ? where.right() - wide : where.center().x() - wide / 2;
    const double y = where.center().y() + (metrics.ascent() - metrics.descent()) / 2;
    for (const auto& piece : pieces) {
      p.drawText(QPointF(x, y), piece);
      x += metrics.horizontalAdvance(piece);
    }
  }
};

}  // namespace

const QFont& font(int pixels, bool bold, bool mono) {
  static std::map<std::tuple<int, bool, bool>, QFont> known;
  const auto [it, fresh] = known.try_emplace({pixels, bold, mono});
  if (!fresh) return it->second;
  QFont f(mono ? "DejaVu Sans Mono" : "Inter");
  f.setStyleHint(mono ? QFont::Monospace : QFont::SansSerif);
  f.setPixelSize(pixels);
  f.setWeight(bold ? QFont::DemiBold : QFont::Normal);
  return it->second = f;
}

const Theme& paper() {
  static const Theme kPaper = [](draw::Ink ink) { return QColor(QString::fromStdString(draw::paperColour({ink}))); };
  return kPaper;
}

void paint(QPainter& painter, const draw::Shapes& shapes, const Theme& theme) {
  for (const auto& s : shapes) std::visit(Painting{painter, theme}, s);
}

}  // namespace bold::render
