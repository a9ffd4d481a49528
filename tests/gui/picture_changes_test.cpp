#include <QImage>
#include <QPainter>
#include <algorithm>
#include <catch2/catch.hpp>

#include "core/picture/changes.h"
#include "gui/picture/picture.h"
#include "gui/theme/palette.h"
#include "support/benches.h"
#include "support/generate.h"
#include "support/mutants.h"
#include "window.h"

using namespace bold;
using namespace bold::test;
using namespace bold::picture;

namespace {

struct Shown {
  Layout layout;
  std::vector<Badge> badges;
};

Shown shown(const harness::Harness& h) {
  Shown s;
  s.layout = layOut(h, library());
  s.badges = placeBadges(s.layout, analyseFast(h).findings);
  return s;
}

void paint(QImage& page, double zoom, const QRegion& region, const Shown& s) {
  QPainter p(&page);
  p.setClipRegion(region);
  p.fillRect(page.rect(), gui::palette().paper);
  p.scale(zoom, zoom);
  gui::paintPicture(p, s.layout, s.badges, {}, true, true, {}, {});
}

QImage whole(double zoom, const Shown& s) {
  QImage page(static_cast<int>(s.layout.width * zoom), static_cast<int>(s.layout.height * zoom), QImage::Format_RGB32);
  paint(page, zoom, page.rect(), s);
  return page;
}

// Smooth edges come out by a hair differently where the painter is clipped through them.
constexpr int kRounding = 4;

// The largest difference of any pixel's red, green or blue, 0 .. 255.
int mostOff(const QImage& a, const QImage& b) {
  REQUIRE(a.size() == b.size());
  int most = 0;
  for (int y = 0; y < a.height(); ++y)
    for (int x = 0; x < a.width(); ++x) {
      const auto p = a.pixel(x, y);
      const auto q = b.pixel(x, y);
      if (p != q) most = std::max({most, std::abs(qRed(p) - qRed(q)), std::abs(qGreen(p) - qGreen(q)), std::abs(qBlue(p) - qBlue(q))});
    }
  return most;
}

QRegion regionOf(const std::vector<Rect>& places, double zoom) {
  QRegion out;
  for (const auto& r : places) out += QRectF(r.x * zoom, r.y * zoom, r.w * zoom, r.h * zoom).toAlignedRect();
  return out;
}

}  // namespace

TEST_CASE("painting anew only what changed leaves the picture that painting all of it gives") {
  int partly = 0;
  for (const auto* name : {"bridge", "low-side", "tb6612"}) {
    const auto before = shown(good(name));
    for (const double zoom : {1.0, 0.9}) {
      const auto first = whole(zoom, before);
      everyMutant(name, good(name), [&](const Mutant& m) {
        const auto after = shown(m.bench);
        if (after.layout.width != before.layout.width || after.layout.height != before.layout.height) return;
        auto places = changes(before.layout, after.layout);
        const auto badges = changes(before.badges, after.badges);
        places.insert(places.end(), badges.begin(), badges.end());
        auto page = first;
        const auto region = regionOf(places, zoom);
        paint(page, zoom, region, after);
        INFO(m.name << " at " << zoom);
        const auto want = whole(zoom, after);
        CHECK(mostOff(page, want) <= kRounding);
        partly += !region.isEmpty() && !QRegion(page.rect()).subtracted(region).isEmpty();
      });
    }
  }
  CHECK(partly > 50);
}

TEST_CASE("nothing changes in a picture that is laid out again, and a wire changes only what is around it") {
  auto h = benchOf(6);
  const auto before = layOut(h, library());
  CHECK(changes(before, layOut(h, library())).empty());
  h.connections.pop_back();
  const auto places = changes(before, layOut(h, library()));
  REQUIRE_FALSE(places.empty());
  double area = 0;
  for (const auto& r : places) area += r.w * r.h;
  CHECK(area < 0.5 * before.width * before.height);
}

TEST_CASE("an edit that the picture does not show paints nothing of it anew") {
  Window w;
  w.open("demo/wave-tank.harness");
  struct Paints : QObject {
    QRegion region;
    bool eventFilter(QObject*, QEvent* e) override {
      if (e->type() == QEvent::Paint) region += static_cast<QPaintEvent*>(e)->region();
      return false;
    }
  } paints;
  w.picture().installEventFilter(&paints);
  w.session.document.apply({"another title", {harness::SetTitle{"Wave tank, bench 4"}}});
  w.settle();
  CHECK(paints.region.isEmpty());
  // A wire: some of it.
  const auto wire = w.session.document.harness().connections.back();
  w.session.document.apply({"without a wire", {harness::Drop<harness::Connection>{wire.id}}});
  w.settle();
  CHECK_FALSE(paints.region.isEmpty());
  CHECK_FALSE(w.picture().visibleRegion().subtracted(paints.region).isEmpty());
}
