#include "core/draw/svg.h"

#include <fmt/core.h>

#include <cmath>

#include "core/base/markup.h"
#include "core/base/number.h"

namespace bold::draw {
namespace {

std::string_view inkOnPaper(Ink ink) {
  switch (ink) {
    case Ink::Paper:
    case Ink::Panel:
      return "#ffffff";
    case Ink::Strip:
      return "#e6e6e6";
    case Ink::Soft:
      return "#4d4d4d";
    case Ink::Line:
      return "#9a9a9a";
    case Ink::Casing:
      return "#3c3c3c";
    case Ink::Supply:
      return "#8a1c1c";
    case Ink::Ground:
      return "#1a1a1a";
    case Ink::Text:
    case Ink::Accent:
    case Ink::Own:
      break;
  }
  return "#000000";
}

std::string number(double v) {
  auto out = fmt::format("{:.2f}", v);
  while (out.back() == '0') out.pop_back();
  if (out.back() == '.') out.pop_back();
  return out == "-0" ? "0" : out;
}

std::string strokeText(const std::optional<Stroke>& s) {
  if (!s) return {};
  auto out = fmt::format(" stroke=\"{}\" stroke-width=\"{}\"", paperColour(s->colour), number(s->width));
  const auto dashes = [&](double on, double off) {
    out += fmt::format(" stroke-dasharray=\"{} {}\"", number(on * s->width), number(off * s->width));
  };
  if (s->dash == Dash::Dots) dashes(1, 2);
  if (s->dash == Dash::Dashes) dashes(4, 2);
  if (s->dash == Dash::Stripes) dashes(2, 3);
  return out;
}
std::string fillText(const std::optional<Colour>& c) {
  return fmt::format(" fill=\"{}\"", c ? paperColour(*c) : "none");
}

struct Writer {
  std::string& out;
  void operator()(const Lines& l) const {
    if (l.segments.empty()) return;
    out += "<path d=\"";
    for (const auto& s : l.segments) out += fmt::format("M{} {}L{} {}", number(s.from.x), number(s.from.y), number(s.to.x), number(s.to.y));
    out += fmt::format("\" fill=\"none\"{}/>\n", strokeText(l.stroke));
  }
  void operator()(const Ellipse& e) const {
    out += fmt::format("<ellipse cx=\"{}\" cy=\"{}\" rx=\"{}\" ry=\"{}\"{}{}/>\n", number(e.centre.x), number(e.centre.y), number(e.rx),
                       number(e.ry), fillText(e.fill), strokeText(e.stroke));
  }
  void operator()(const Box& b) const {
    const auto round = b.radius > 0 ? fmt::format(" rx=\"{}\"", number(b.radius)) : std::string();
    out += fmt::format("<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\"{}{}{}/>\n", number(b.rect.x), number(b.rect.y), number(b.rect.w),
                       number(b.rect.h), round, fillText(b.fill), strokeText(b.stroke));
  }
  void operator()(const Polygon& p) const {
    out += "<polygon points=\"";
    for (std::size_t k = 0; k < p.points.size(); ++k)
      out += fmt::format("{}{},{}", k == 0 ? "" : " ", number(p.points[k].x), number(p.points[k].y));
    out += fmt::format("\"{}{}/>\n", fillText(p.fill), strokeText(p.stroke));
  }
  void operator()(const Words& w) const {
    const auto text = w.cut ? shortened(w.text, w.size, w.bold, w.mono, w.where.w) : w.text;
    const double middle = w.where.y + w.where.h / 2;
    if (w.backed) {
      const double wide = textWidth(text, w.size, w.bold, w.mono) + 4;
      const double left = w.side == Side::Left    ? w.where.x
                          : w.side == Side::Right ? w.where.right() - wide
                                                  : w.where.x + (w.where.w - wide) / 2;
      (*this)(Box{{left, w.where.y, wide, w.where.h}, 0, {}, w.backed});
    }
    const auto anchor = w.side == Side::Left ? "start" : w.side == Side::Middle ? "middle" : "end";
    const double x = w.side == Side::Left ? w.where.x : w.side == Side::Middle ? w.where.x + w.where.w / 2 : w.where.right();
    const auto turn =
        w.upwards ? fmt::format(" transform=\"rotate(-90 {} {})\"", number(w.where.x + w.where.w / 2), number(middle)) : std::string();
    out += fmt::format("<text x=\"{}\" y=\"{}\" font-size=\"{}\" text-anchor=\"{}\" dy=\"0.35em\" fill=\"{}\"{}{}{}>{}</text>\n", number(x),
                       number(middle), number(w.size), anchor, paperColour(w.colour), w.bold ? " font-weight=\"600\"" : "",
                       w.mono ? " font-family=\"DejaVu Sans Mono, monospace\"" : "", turn, markupText(text));
  }
};

}  // namespace

std::string paperColour(const Colour& c) {
  const auto full = c.ink == Ink::Own && c.own.size() == 7 ? c.own : std::string(inkOnPaper(c.ink));
  if (c.strength >= 1) return full;
  std::string out = "#";
  for (int k = 0; k < 3; ++k) {
    const auto part = wholeOf(full.substr(1 + 2 * k, 2), 16).value_or(0);
    out += fmt::format("{:02x}", std::lround(255 + (static_cast<double>(part) - 255) * c.strength));
  }
  return out;
}

std::string svgOf(const Drawing& d, const std::string& title) {
  auto out = fmt::format(
      "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}\" height=\"{1}\" viewBox=\"0 0 {0} {1}\" font-family=\"Inter, DejaVu Sans, "
      "sans-serif\" role=\"img\">\n<title>{2}</title>\n<rect width=\"100%\" height=\"100%\" fill=\"#ffffff\"/>\n",
      number(std::ceil(d.width)), number(std::ceil(d.height)), markupText(title));
  for (const auto& s : d.shapes) std::visit(Writer{out}, s);
  return out + "</svg>\n";
}

}  // namespace bold::draw
