#include "core/places/svg.h"

#include <fmt/core.h>

#include "core/base/markup.h"

namespace bold::places {
namespace {

// Black and white, so that paper shows it: what stands back is grey.
std::string_view paint(Ink ink) {
  return ink == Ink::Quiet || ink == Ink::Tick ? "#767676" : ink == Ink::Outline ? "#404040" : "#000000";
}

double width(Ink ink, bool heavy) {
  return heavy ? 2.5 : ink == Ink::Outline ? 1.5 : 1;
}

struct Writer {
  std::string& out;
  void operator()(const Line& l) const {
    out += fmt::format("<line x1=\"{:.2f}\" y1=\"{:.2f}\" x2=\"{:.2f}\" y2=\"{:.2f}\" stroke=\"{}\" stroke-width=\"{}\"/>\n", l.x1, l.y1,
                       l.x2, l.y2, paint(l.ink), width(l.ink, l.heavy));
  }
  void operator()(const Circle& c) const {
    out += fmt::format("<circle cx=\"{:.2f}\" cy=\"{:.2f}\" r=\"{:.2f}\" fill=\"{}\" stroke=\"{}\" stroke-width=\"{}\"/>\n", c.x, c.y,
                       c.radius, c.filled ? paint(c.ink) : "none", paint(c.ink), width(c.ink, c.heavy));
  }
  void operator()(const Box& b) const {
    out += fmt::format("<rect x=\"{:.2f}\" y=\"{:.2f}\" width=\"{:.2f}\" height=\"{:.2f}\" fill=\"none\" stroke=\"{}\"/>\n", b.x, b.y,
                       b.width, b.height, paint(b.ink));
  }
  void operator()(const Words& w) const {
    const auto anchor = w.anchor == Anchor::Start ? "start" : w.anchor == Anchor::Middle ? "middle" : "end";
    const auto turn = w.upwards ? fmt::format(" transform=\"rotate(-90 {:.2f} {:.2f})\"", w.x, w.y) : std::string();
    out += fmt::format("<text x=\"{:.2f}\" y=\"{:.2f}\" font-size=\"{:.2f}\" text-anchor=\"{}\" dy=\"0.35em\" fill=\"{}\"{}{}>{}</text>\n",
                       w.x, w.y, w.size, anchor, paint(w.ink),
                       w.strong ? " font-weight=\"bold\" paint-order=\"stroke\" stroke=\"#ffffff\" stroke-width=\"3\"" : "", turn,
                       markupText(w.text));
  }
};

}  // namespace

std::string svgOf(const Drawing& d, const std::string& title) {
  auto out = fmt::format(
      "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0:.0f}\" height=\"{1:.0f}\" viewBox=\"0 0 {0:.2f} {1:.2f}\" "
      "font-family=\"sans-serif\" "
      "role=\"img\">\n<title>{2}</title>\n<rect width=\"100%\" height=\"100%\" fill=\"#ffffff\"/>\n",
      d.width, d.height, markupText(title));
  for (const auto& s : d.shapes) std::visit(Writer{out}, s);
  return out + "</svg>\n";
}

}  // namespace bold::places
