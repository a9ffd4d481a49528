#include <QImage>
#include <catch2/catch.hpp>

#include "gui/charts/bridge_chart.h"
#include "gui/charts/coil_order_chart.h"
#include "gui/charts/level_ladder_chart.h"
#include "gui/panels/limit_bar.h"
#include "gui/theme/palette.h"

using namespace bold;

// What the figures paint, read from their pixels.
namespace {

QImage painted(QWidget& w, QSize size) {
  w.resize(size);
  w.setVisible(true);
  return w.grab().toImage().convertToFormat(QImage::Format_RGB32);
}

bool alike(QRgb a, const QColor& b) {
  return std::abs(qRed(a) - b.red()) + std::abs(qGreen(a) - b.green()) + std::abs(qBlue(a) - b.blue()) < 24;
}

int pixels(const QImage& image, const QColor& colour, QRect where = {}) {
  if (where.isNull()) where = image.rect();
  int n = 0;
  for (int y = where.top(); y <= where.bottom(); ++y)
    for (int x = where.left(); x <= where.right(); ++x) n += alike(image.pixel(x, y), colour);
  return n;
}

// Where a row of pixels has a colour for the last time.
int lastAt(const QImage& image, int y, const QColor& colour) {
  for (int x = image.width() - 1; x >= 0; --x)
    if (alike(image.pixel(x, y), colour)) return x;
  return -1;
}

checks::Bar bar(double value, double limit) {
  return {"stall current", Amps{value}, {}, Amps{limit}, "peak rating"};
}

charts::Leg leg(bool high, bool low, double amps) {
  charts::Leg l;
  l.output = "OUT";
  l.high = high;
  l.low = low;
  l.hasHigh = l.hasLow = true;
  l.current = Amps{amps};
  l.voltage = Volts{high ? 11.0 : 1.0};
  return l;
}

}  // namespace

TEST_CASE("a limit bar is as long as its value, and only what is past its limit has the colour of what follows") {
  const auto& c = gui::palette();
  constexpr int kWidth = 300;
  constexpr int kMiddle = 29;  // of the bar
  for (const auto& [value, limit] : {std::pair{4.0, 8.0}, {7.9, 8.0}, {12.0, 8.0}, {0.8, 8.0}}) {
    INFO(value << " of " << limit);
    const double used = value / limit;
    const double reach = std::max(1.12, used * 1.03);
    gui::LimitBar w(bar(value, limit), checks::Severity::Stop);
    const auto image = painted(w, {kWidth, 40});
    const auto at = [&](double share) { return 1 + (kWidth - 2) * share / reach; };
    CHECK(lastAt(image, kMiddle, c.handle) == Approx(at(std::min(used, 1.0))).margin(3.5));  // the tick lies over its end
    if (used > 1)
      CHECK(lastAt(image, kMiddle, c.stop) == Approx(at(used)).margin(2.5));
    else
      CHECK(pixels(image, c.stop) == 0);
    CHECK(lastAt(image, 38, c.ink) == Approx(at(1)).margin(1.5));  // below the bar only the tick
  }
  gui::LimitBar caution(bar(12, 8), checks::Severity::Caution);
  const auto image = painted(caution, {kWidth, 40});
  CHECK(pixels(image, c.caution) > 500);
  CHECK(pixels(image, c.stop) == 0);
  // To a least, what is missing is coloured.
  auto least = bar(4, 8);
  least.floor = true;
  gui::LimitBar missing(least, checks::Severity::Stop);
  const auto half = painted(missing, {kWidth, 40});
  CHECK(lastAt(half, kMiddle, c.stop) == Approx(1 + (kWidth - 2) / 1.12).margin(2.5));
}

TEST_CASE("half a bridge is drawn with its motor on the rail that it hangs on") {
  const auto& c = gui::palette();
  gui::BridgeChart w;
  charts::BridgeState state{"S1", "Pump", "runs forward", {leg(true, false, 0.5)}, Amps{0.5}, false, true};
  const QRect above(220, 38, 20, 60);
  const QRect below(220, 112, 20, 60);
  w.show(state);
  const auto toReturn = painted(w, {360, 210});
  CHECK(pixels(toReturn, c.accent, below) > 5);
  CHECK(pixels(toReturn, c.accent, above) == 0);
  state.legs = {leg(false, true, -0.5)};
  state.motorCurrent = Amps{-0.5};
  state.toReturn = false;
  w.show(state);
  const auto toSupply = painted(w, {360, 210});
  CHECK(pixels(toSupply, c.accent, below) == 0);
  CHECK(pixels(toSupply, c.accent, above) > 5);
}

TEST_CASE("the bridge figure closes the levers that are on, draws the current's way, and turns round with it") {
  const auto& c = gui::palette();
  gui::BridgeChart w;
  charts::BridgeState state{"S1", "Paddle", "runs forward", {leg(true, false, 0.5), leg(false, true, -0.5)}, Amps{0.5}, false};
  w.show(state);
  const auto forward = painted(w, {360, 210});
  const QRect upperLeft(69, 40, 22, 60);
  const QRect lowerLeft(69, 110, 22, 60);
  const QRect upperRight(270, 40, 22, 60);
  const QRect lowerRight(270, 110, 22, 60);
  CHECK(pixels(forward, c.accent, upperLeft) > 100);
  CHECK(pixels(forward, c.accent, lowerRight) > 100);
  CHECK(pixels(forward, c.accent, lowerLeft) == 0);
  CHECK(pixels(forward, c.accent, upperRight) == 0);
  CHECK(pixels(forward, c.stop) == 0);

  state.legs = {leg(false, true, -0.5), leg(true, false, 0.5)};
  state.motorCurrent = Amps{-0.5};
  w.show(state);
  const auto reverse = painted(w, {360, 210});
  CHECK(pixels(reverse, c.accent, lowerLeft) > 100);
  CHECK(pixels(reverse, c.accent, upperRight) > 100);
  CHECK(pixels(reverse, c.accent, upperLeft) == 0);
  // The heads of the arrows point the other way: the same pixels mirrored about the middle of each lead.
  const QRect lead(82, 96, 70, 18);
  CHECK(forward.copy(lead) != reverse.copy(lead));

  state.legs = {leg(false, false, 0), leg(false, false, 0)};
  state.motorCurrent = Amps{0};
  w.show(state);
  CHECK(pixels(painted(w, {360, 210}), c.accent) == 0);

  state.legs = {leg(true, true, 3), leg(false, true, 0)};
  state.shootThrough = true;
  w.show(state);
  const auto shoot = painted(w, {360, 210});
  int red = 0;
  for (int y = 40; y < 170; ++y) red += alike(shoot.pixel(79, y), c.stop);
  CHECK(red > 110);  // from pole to pole

  state.legs = {leg(true, false, 0.5), leg(false, false, 0)};
  state.legs[1].low = std::nullopt;
  state.shootThrough = false;
  w.show(state);
  CHECK(pixels(painted(w, {360, 210}), c.caution) > 5);  // nobody knows

  w.show(std::nullopt);
  CHECK_FALSE(w.isVisible());
}

TEST_CASE("the level ladder's pointers stand at their volts and say in colour and word what is not promised") {
  const auto& c = gui::palette();
  gui::LevelLadderChart w;
  charts::Rung rung;
  rung.from = "Controller D5";
  rung.to = "S1 IN1";
  rung.needsHigh = Volts{3.5};
  rung.needsLow = Volts{1.5};
  rung.high = Volts{4.8};
  rung.low = Volts{0.1};
  w.show({rung});
  const auto sound = painted(w, {360, 72});
  CHECK(pixels(sound, c.good) > 80);
  CHECK(pixels(sound, c.stop) == 0);
  const double top = 4.8 * 1.12;
  CHECK(lastAt(sound, 25, c.good) == Approx(10 + 340 * 4.8 / top).margin(6));

  rung.high = Volts{3.2};
  w.show({rung});
  const auto short_ = painted(w, {360, 72});
  CHECK(pixels(short_, c.stop) > 40);
  CHECK(lastAt(short_, 25, c.stop) == Approx(10 + 340 * 3.2 / (3.5 * 1.12)).margin(6));

  w.show({rung, rung, rung});
  CHECK(w.sizeHint().height() > 3 * 60);
  w.show({});
  CHECK_FALSE(w.isVisible());
}

TEST_CASE("the coil order marks every step that is wired otherwise") {
  const auto& c = gui::palette();
  gui::CoilOrderChart w;
  bench::CoilOrder order;
  order.coils = {"A", "B"};
  order.intended = {{1, 1}, {-1, 1}, {-1, -1}, {1, -1}};
  order.wired = order.intended;
  order.turns = true;
  w.show(order);
  CHECK(pixels(painted(w, {360, 190}), c.stop) == 0);
  order.wired[1] = {-1, 0};
  order.wired[2] = {0, -1};
  order.turns = false;
  w.show(order);
  const auto two = pixels(painted(w, {360, 190}), c.stop, QRect(0, 0, 360, 92));  // above the sentence
  CHECK(two > 100);
  order.wired = order.intended;
  order.wired[1] = {-1, 0};
  w.show(order);
  CHECK(pixels(painted(w, {360, 190}), c.stop, QRect(0, 0, 360, 92)) == Approx(two / 2).epsilon(0.1));
  CHECK(w.accessibleName() == "The field does not go round");
}
