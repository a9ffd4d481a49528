#include "core/draw/shapes.h"

#include <catch2/catch.hpp>

#include "core/draw/svg.h"
#include "core/harness/marks.h"
#include "core/picture/draw_loom.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::draw;
using namespace bold::test;

TEST_CASE("words are shortened to what fits, letters whole, and wrapped without losing any") {
  CHECK(shortened("short", 12, false, false, 200) == "short");
  const auto cut = shortened("a rather long sentence", 12, false, false, 60);
  CHECK(cut.ends_with("…"));
  CHECK(textWidth(cut, 12, false, false) <= 60);
  CHECK(shortened("µµµµµµµµ", 12, false, false, 30).find("\xC2…") == std::string::npos);  // no half letter
  for (const std::string text : {"one two three four five six", "", "oneveryverylongwordthatfitsnowhere", "two\nlines", "a  b"}) {
    std::string letters, back;
    for (const char c : text)
      if (c != ' ' && c != '\n') letters += c;
    for (const auto& line : wrapped(text, 10, false, false, 50)) {
      CHECK(textWidth(line, 10, false, false) <= 50);
      for (const char c : line)
        if (c != ' ') back += c;
    }
    CHECK(back == letters);
  }
  CHECK(wrapped("two\nlines", 10, false, false, 500) == std::vector<std::string>{"two", "lines"});
  CHECK(textWidth("WW", 10, false, false) > textWidth("ii", 10, false, false));
  CHECK(textWidth("WW", 10, false, true) == textWidth("ii", 10, false, true));
}

TEST_CASE("a drawing is made smaller as a whole") {
  const Shapes shapes{Lines{{{{0, 0}, {10, 20}}}, {{Ink::Text}, 2}}, Words{.where = {1, 2, 3, 4}, .text = "x", .size = 10}};
  const auto half = moved(shapes, 0.5, 100, 200);
  const auto& line = std::get<Lines>(half[0]);
  CHECK(line.segments[0].to == Point{105, 210});
  CHECK(line.stroke.width == 1);
  CHECK(std::get<Words>(half[1]).where == Rect{100.5, 201, 1.5, 2});
  CHECK(std::get<Words>(half[1]).size == 5);
}

TEST_CASE("an SVG holds text as text, and colours of paper") {
  Drawing d{50, 20, {Words{.where = {0, 0, 50, 20}, .text = "<b> & \"x\""}}};
  const auto svg = svgOf(d, "a <title>");
  CHECK(svg.find("<b>") == std::string::npos);
  CHECK(svg.find("&lt;b&gt; &amp;") != std::string::npos);
  CHECK(svg.find("<title>a &lt;title&gt;</title>") != std::string::npos);
  CHECK(paperColour({Ink::Own, "#c62828"}) == "#c62828");
  CHECK(paperColour({Ink::Own, "#000000", 0.5}) == "#808080");
  CHECK(paperColour({Ink::Own, "nonsense"}) == "#000000");
}

TEST_CASE("every good bench is drawn: its parts by name, its wires in their colours, what was looked at marked") {
  for (const auto& name : goodNames()) {
    auto h = good(name);
    const auto plain = picture::loomDrawing(picture::layOut(h, library()), {}, false);
    CHECK(plain.width > 0);
    for (const auto& d : h.devices) {
      INFO(name << " " << d.called());
      CHECK(std::ranges::any_of(plain.shapes, [&](const Shape& x) {
        const auto* w = std::get_if<Words>(&x);
        return w && w->text == d.called();
      }));
    }
  }
  auto h = good("bridge");
  const auto* wire = &*std::ranges::find(h.connections, harness::ConnectionKind::Wire, &harness::Connection::kind);
  const auto shapes = [&] { return picture::loomDrawing(picture::layOut(h, library()), {}, false).shapes.size(); };
  const auto before = shapes();
  h.marks.push_back({"mark1", wire->id, harness::Marked::Seen, wireDigest(h, library(), *wire), {}, {}, {}, {}, nullptr});
  CHECK(shapes() == before + 4);  // a frame and three cells
  h.marks[0].what = harness::Marked::Wrong;
  CHECK(shapes() == before + 3);  // a frame, crossed out
  h.marks[0].what = harness::Marked::Seen;
  h.marks[0].digest = "of another wire";
  CHECK(shapes() == before);
}
