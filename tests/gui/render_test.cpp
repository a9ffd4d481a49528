#include <QFontMetricsF>
#include <catch2/catch.hpp>

#include "core/draw/shapes.h"
#include "render/paint_shapes.h"

using namespace bold;

TEST_CASE("words are as wide as the core takes them to be, where nothing asks a font") {
  for (const std::string text :
       {"S1 IN1 – Controller D9", "supply, bottom, 1st screw from the left, printed +12V", "WWW iii 000", "Motor 12 V 0.5 A", "w4 YE"})
    for (const bool bold : {false, true})
      for (const int size : {9, 13, 40}) {
        const double real = QFontMetricsF(render::font(size, bold, false)).horizontalAdvance(QString::fromStdString(text));
        INFO(text << " " << size << (bold ? " bold" : ""));
        CHECK(std::abs(draw::textWidth(text, size, bold, false) - real) < 0.06 * real + 1);
      }
  const double mono = QFontMetricsF(render::font(20, false, true)).horizontalAdvance("IN1 GND");
  CHECK(std::abs(draw::textWidth("IN1 GND", 20, false, true) - mono) < 2);
}
