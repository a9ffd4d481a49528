#include "core/sheet/place_shapes.h"

namespace bold::sheet {
namespace {

draw::Ink inkOf(places::Ink ink) {
  switch (ink) {
    case places::Ink::Tick:
    case places::Ink::Quiet:
      return draw::Ink::Soft;
    case places::Ink::Wanted:
      return draw::Ink::Accent;
    default:
      return draw::Ink::Text;
  }
}

struct Converter {
  draw::Shapes& out;

  static draw::Stroke stroke(places::Ink ink, bool heavy) {
    return {{inkOf(ink)}, heavy ? 2.5 : ink == places::Ink::Outline ? 1.5 : 1, draw::Dash::None};
  }
  void operator()(const places::Line& l) const { out.emplace_back(draw::Lines{{{{l.x1, l.y1}, {l.x2, l.y2}}}, stroke(l.ink, l.heavy)}); }
  void operator()(const places::Circle& c) const {
    const auto fill = c.filled ? std::optional(draw::Colour{inkOf(c.ink)}) : std::nullopt;
    out.emplace_back(draw::Ellipse{{c.x, c.y}, c.radius, c.radius, stroke(c.ink, c.heavy), fill});
  }
  void operator()(const places::Box& b) const { out.emplace_back(draw::Box{{b.x, b.y, b.width, b.height}, 0, stroke(b.ink, false), {}}); }
  void operator()(const places::Words& w) const {
    const double wide = draw::textWidth(w.text, w.size, w.strong, false);
    const double high = 1.2 * w.size;
    const double back = w.anchor == places::Anchor::Start ? 0 : w.anchor == places::Anchor::Middle ? wide / 2 : wide;
    draw::Words words{.where = {w.x - back, w.y - high / 2, wide, high}, .side = draw::Side::Middle, .text = w.text, .size = w.size};
    // Turned about its middle, which is above its anchor.
    if (w.upwards) words.where = {w.x - wide / 2, w.y - high / 2 - (wide / 2 - back), wide, high};
    words.upwards = w.upwards;
    words.bold = w.strong;
    words.colour.ink = inkOf(w.ink);
    if (w.strong) words.backed = draw::Colour{draw::Ink::Paper};
    out.emplace_back(std::move(words));
  }
};

}  // namespace

draw::Drawing placeShapes(const places::Drawing& d) {
  draw::Drawing out{d.width, d.height, {}};
  for (const auto& s : d.shapes) std::visit(Converter{out.shapes}, s);
  return out;
}

}  // namespace bold::sheet
