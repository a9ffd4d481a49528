#include "core/draw/shapes.h"

#include <array>
#include <cmath>

namespace bold::draw {
namespace {

// How far letters advance, in thousandths of their size, from the space to the tilde; measured from the font Inter.
constexpr int kFirst = 32;
constexpr int kCount = 95;
constexpr std::array<short, kCount> kRegular{281, 278, 403, 631, 638, 813, 639, 222, 362, 362, 500, 659, 280, 460, 276, 357, 625, 464, 605,
                                             636, 642, 608, 624, 571, 616, 624, 276, 280, 659, 659, 659, 507, 936, 676, 651, 727, 719, 598,
                                             587, 743, 740, 264, 543, 652, 563, 889, 753, 761, 635, 761, 639, 638, 642, 741, 676, 949, 642,
                                             665, 625, 362, 357, 362, 469, 452, 497, 564, 621, 558, 621, 582, 361, 609, 591, 237, 237, 544,
                                             237, 869, 585, 597, 609, 609, 372, 523, 364, 581, 557, 813, 540, 557, 541, 362, 327, 362, 659};
constexpr std::array<short, kCount> kStrong{248, 309, 396, 643, 649, 844, 663, 213, 393, 393, 543, 673, 295, 466, 290, 379, 667, 481,  621,
                                            652, 666, 632, 648, 587, 646, 648, 290, 295, 673, 673, 673, 544, 999, 724, 657, 744, 724,  608,
                                            586, 755, 744, 275, 561, 677, 566, 906, 741, 775, 643, 776, 651, 649, 660, 734, 724, 1007, 690,
                                            705, 653, 393, 379, 393, 481, 468, 497, 575, 630, 577, 630, 593, 377, 625, 613, 261, 261,  569,
                                            261, 898, 610, 608, 625, 625, 397, 549, 380, 608, 576, 837, 563, 576, 562, 393, 358, 393,  673};
constexpr double kOther = 0.64;  // of what is no ASCII: µ, Ω, …
constexpr double kMono = 0.602;  // of DejaVu Sans Mono

// Bytes of a letter in UTF-8 that are not its first.
bool continues(char c) {
  return (static_cast<unsigned char>(c) & 0xC0U) == 0x80U;
}

double advance(char c, bool bold) {
  const int k = static_cast<unsigned char>(c) - kFirst;
  if (k < 0 || k >= kCount) return kOther;
  return (bold ? kStrong[k] : kRegular[k]) / 1000.0;
}

// Bytes of as many letters from the beginning as are no wider than that: a text may be very long.
std::size_t fitting(std::string_view text, double size, bool bold, bool mono, double width) {
  double used = 0;
  std::size_t at = 0;
  while (at < text.size()) {
    used += (mono ? kMono : advance(text[at], bold)) * size;
    if (used > width) return at;
    for (++at; at < text.size() && continues(text[at]);) ++at;
  }
  return at;
}

}  // namespace

double textWidth(const std::string& text, double size, bool bold, bool mono) {
  double out = 0;
  for (const char c : text)
    if (!continues(c)) out += mono ? kMono : advance(c, bold);
  return out * size;
}

std::string shortened(const std::string& text, double size, bool bold, bool mono, double width) {
  if (fitting(text, size, bold, mono, width) == text.size()) return text;
  return text.substr(0, fitting(text, size, bold, mono, width - textWidth("…", size, bold, mono))) + "…";
}

std::vector<std::string> wrapped(const std::string& text, double size, bool bold, bool mono, double width) {
  const auto fits = [&](std::string_view line) { return fitting(line, size, bold, mono, width) == line.size(); };
  std::vector<std::string> out{""};
  std::size_t at = 0;
  while (at < text.size()) {
    const auto gap = text.find_first_of(" \n", at);
    auto word = text.substr(at, gap == std::string::npos ? gap : gap - at);
    at = gap == std::string::npos ? text.size() : gap + 1;
    const auto joined = out.back().empty() ? word : out.back() + " " + word;
    if (fits(joined)) {
      out.back() = joined;
    } else {
      if (!out.back().empty()) out.emplace_back();
      std::string_view rest = word;
      while (!fits(rest)) {  // longer than a line: cut where the line ends, a letter at least
        auto head = std::max<std::size_t>(1, fitting(rest, size, bold, mono, width));
        while (head < rest.size() && continues(rest[head])) ++head;
        out.back() = rest.substr(0, head);
        out.emplace_back();
        rest.remove_prefix(head);
      }
      out.back() = rest;
    }
    if (gap != std::string::npos && text[gap] == '\n') out.emplace_back();
  }
  return out;
}

namespace {

struct Mover {
  double by, dx, dy;
  Point operator()(Point p) const { return {p.x * by + dx, p.y * by + dy}; }
  Rect operator()(const Rect& r) const { return {r.x * by + dx, r.y * by + dy, r.w * by, r.h * by}; }
  std::optional<Stroke> operator()(std::optional<Stroke> s) const {
    if (s) s->width *= by;
    return s;
  }
  Shape operator()(Lines l) const {
    for (auto& s : l.segments) s = {(*this)(s.from), (*this)(s.to)};
    l.stroke.width *= by;
    return l;
  }
  Shape operator()(const Ellipse& e) const { return Ellipse{(*this)(e.centre), e.rx * by, e.ry * by, (*this)(e.stroke), e.fill}; }
  Shape operator()(const Box& b) const { return Box{(*this)(b.rect), b.radius * by, (*this)(b.stroke), b.fill}; }
  Shape operator()(Polygon p) const {
    for (auto& x : p.points) x = (*this)(x);
    p.stroke = (*this)(p.stroke);
    return p;
  }
  Shape operator()(Words w) const {
    w.where = (*this)(w.where);
    w.size *= by;
    return w;
  }
};

}  // namespace

Shapes moved(const Shapes& shapes, double by, double dx, double dy) {
  Shapes out;
  out.reserve(shapes.size());
  for (const auto& s : shapes) out.push_back(std::visit(Mover{by, dx, dy}, s));
  return out;
}

}  // namespace bold::draw
