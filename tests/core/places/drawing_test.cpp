#include "core/places/drawing.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/places/svg.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::places;
using bold::test::library;

namespace {

int wordsSaying(const Drawing& d, const std::string& text) {
  int n = 0;
  for (const auto& s : d.shapes)
    if (const auto* w = std::get_if<Words>(&s)) n += w->text == text;
  return n;
}

const Target* targetOf(const Drawing& d, int terminal) {
  const auto it = std::ranges::find(d.targets, terminal, &Target::terminal);
  return it == d.targets.end() ? nullptr : &*it;
}

}  // namespace

TEST_CASE("nothing is drawn of a part whose order nobody knows") {
  CHECK(drawingOf(*library().find("relay-module-5v-1"), {}).shapes.empty());
}

TEST_CASE("all of a drawing lies on its paper, of every part, however it lies") {
  for (const auto& part : library().search("")) {
    if (part->layout.empty()) continue;
    INFO(part->id);
    for (const Lie lie : {Lie{}, Lie{1, false}, Lie{3, true}}) {
      const auto d = drawingOf(*part, {.lie = lie});
      const auto inside = [&](double x, double y) { return x >= 0 && y >= 0 && x <= d.width && y <= d.height; };
      for (const auto& t : d.targets) CHECK(inside(t.x, t.y));
      for (const auto& s : d.shapes) {
        if (const auto* w = std::get_if<Words>(&s)) CHECK(inside(w->x, w->y));
        if (const auto* l = std::get_if<Line>(&s)) CHECK((inside(l->x1, l->y1) && inside(l->x2, l->y2)));
      }
    }
  }
}

TEST_CASE("a quarter turn takes a drawing round, the solder side mirrors it") {
  const auto uno = library().find("board-uno-atmega328p");
  const int a0 = uno->indexOf("A0");
  const int d0 = uno->indexOf("D0");
  const auto plain = drawingOf(*uno, {});
  CHECK(targetOf(plain, a0)->x < targetOf(plain, d0)->x);  // analogue at the left
  const auto quarter = drawingOf(*uno, {.lie = {1, false}});
  CHECK(targetOf(quarter, a0)->y < targetOf(quarter, d0)->y);  // its left is up now
  const auto below = drawingOf(*uno, {.lie = {0, true}});
  CHECK(targetOf(below, a0)->x > targetOf(below, d0)->x);
  CHECK(targetOf(below, a0)->y == Approx(targetOf(plain, a0)->y));
}

TEST_CASE("the wanted terminal is ringed and named in the numbering that is asked for, the others stand back") {
  const auto sbc = library().find("sbc-header-40");
  const int wanted = sbc->indexOf("J8-11");
  const auto d = drawingOf(*sbc, {.names = Numbering::Position, .wanted = {wanted}});
  CHECK(wordsSaying(d, "11") == 1);
  CHECK(wordsSaying(d, "GPIO17") == 0);
  const auto* at = targetOf(d, wanted);
  int rings = 0;
  for (const auto& s : d.shapes)
    if (const auto* c = std::get_if<Circle>(&s); c && c->heavy) {
      ++rings;
      CHECK(std::hypot(c->x - at->x, c->y - at->y) < 0.01);
    }
  CHECK(rings == 1);
  for (const auto& s : d.shapes)
    if (const auto* w = std::get_if<Words>(&s)) CHECK((w->text == "11") == (w->ink == Ink::Wanted || w->strong));
}

TEST_CASE("every fifth terminal of a long row is counted from the end that is nearer") {
  const auto d = drawingOf(*library().find("board-esp32-38"), {});
  CHECK(wordsSaying(d, "5") == 4);   // both ends of both rows
  CHECK(wordsSaying(d, "10") == 2);  // the middle of 19
}

TEST_CASE("an SVG says what it draws, and a name cannot break it") {
  const auto part = library().find("board-uno-atmega328p");
  const auto svg = svgOf(drawingOf(*part, {.wanted = {part->indexOf("D9")}}), "A < B & \"C\"");
  CHECK(svg.find("<title>A &lt; B &amp; &quot;C&quot;</title>") != std::string::npos);
  CHECK(svg.find("font-weight=\"bold\"") != std::string::npos);
  CHECK(svg.find(">D9</text>") != std::string::npos);
  CHECK(svg.ends_with("</svg>\n"));
}
