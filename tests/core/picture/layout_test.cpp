#include "core/picture/layout.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <cmath>

#include "core/harness/edit_maker.h"
#include "core/picture/badges.h"
#include "support/benches.h"
#include "support/generate.h"

using namespace bold;
using namespace bold::picture;
using namespace bold::test;

namespace {

// Label boxes as the painter draws them: 13 px DejaVu Sans Mono is 7.83 px a character.
Rect labelOf(const TerminalMark& m) {
  const double w = 7.83 * static_cast<double>(m.label.size() + (m.pwm ? 2 : 0));
  if (m.labelAbove) return {m.at.x - w / 2, m.at.y - 21, w, 13};
  if (m.outside) return {m.at.x + 10, m.at.y - 7, w, 14};
  return {m.labelLeft ? m.at.x - 12 - w : m.at.x + 12, m.at.y - 7, w, 14};
}
bool overlap(const Rect& a, const Rect& b) {
  return a.x < b.right() && b.x < a.right() && a.y < b.bottom() && b.y < a.bottom();
}

}  // namespace

TEST_CASE("no label overlaps another on benches of one to six motors") {
  for (int n = 1; n <= 6; ++n) {
    const auto l = layOut(benchOf(n), library());
    std::vector<std::pair<std::string, Rect>> labels;
    for (const auto& b : l.boxes)
      for (const auto& t : b.terminals)
        if (!t.bare) labels.emplace_back(t.address.text(), labelOf(t));
    CHECK(labels.size() > 40);
    for (std::size_t i = 0; i < labels.size(); ++i)
      for (std::size_t k = i + 1; k < labels.size(); ++k) {
        INFO(n << " motors: " << labels[i].first << " and " << labels[k].first);
        CHECK_FALSE(overlap(labels[i].second, labels[k].second));
      }
  }
}

TEST_CASE("no two boxes overlap and all lie inside the picture") {
  for (const auto& name : goodNames()) {
    const auto l = layOut(good(name), library());
    for (std::size_t i = 0; i < l.boxes.size(); ++i) {
      INFO(name << ": " << l.boxes[i].device);
      CHECK(l.boxes[i].rect.x >= 0);
      CHECK(l.boxes[i].rect.right() <= l.width);
      CHECK(l.boxes[i].rect.bottom() <= l.height);
      for (std::size_t k = i + 1; k < l.boxes.size(); ++k) CHECK_FALSE(overlap(l.boxes[i].rect, l.boxes[k].rect));
    }
  }
}

TEST_CASE("adding a wire moves no part") {
  rc::prop("boxes and terminals stay", [] {
    auto h = benchOf(*rc::gen::inRange(1, 7));
    const auto before = layOut(h, library());
    const auto& c = h.connections[*rc::gen::inRange<std::size_t>(0, h.connections.size())];
    const auto& d = h.connections[*rc::gen::inRange<std::size_t>(0, h.connections.size())];
    harness::apply(h, harness::EditMaker(h).wire(c.a, d.b, "YE").take("wire"));
    const auto after = layOut(h, library());
    RC_ASSERT(before.boxes.size() == after.boxes.size());
    for (std::size_t i = 0; i < before.boxes.size(); ++i) {
      RC_ASSERT(before.boxes[i].rect == after.boxes[i].rect);
      for (std::size_t t = 0; t < before.boxes[i].terminals.size(); ++t)
        RC_ASSERT(before.boxes[i].terminals[t].at == after.boxes[i].terminals[t].at);
    }
    RC_ASSERT(before.width == after.width && before.height == after.height);
  });
}

TEST_CASE("every thread begins and ends at its terminals and runs in straight legs") {
  for (const auto& name : goodNames()) {
    const auto h = good(name);
    const auto l = layOut(h, library());
    CHECK(l.threads.size() == h.connections.size());
    for (const auto& t : l.threads) {
      INFO(name << ": " << t.connection);
      REQUIRE(t.path.size() >= 2);
      if (t.kind != harness::ConnectionKind::Plug) {
        CHECK(t.path.front() == l.terminal(t.a)->at);
        CHECK(t.path.back() == l.terminal(t.b)->at);
      }
      for (std::size_t i = 1; i < t.path.size(); ++i) CHECK((t.path[i].x == t.path[i - 1].x || t.path[i].y == t.path[i - 1].y));
    }
  }
}

TEST_CASE("each island of ground has a bar of its own") {
  auto h = good("bridge");
  const auto count = [](const Layout& l) { return std::ranges::count_if(l.bars, [](const Bar& b) { return b.ground; }); };
  CHECK(count(layOut(h, library())) == 1);
  h = wiredBench(
      "from bridge\nunwire uno.GND s1.GND\nwire uno.GND-2 bat.P\nremove bat\npart bat battery-9v-block\nwire bat.P s1.12V\nwire bat.N "
      "s1.GND");
  CHECK(count(layOut(h, library())) >= 1);
}

TEST_CASE("badges of several findings at one place stand side by side") {
  const auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  const auto a = analyseFast(h);
  const auto badges = placeBadges(layOut(h, library()), a.findings);
  CHECK(badges.size() == static_cast<std::size_t>(std::ranges::count_if(a.findings, [](const auto& f) { return f.number > 0; })));
  for (std::size_t i = 0; i < badges.size(); ++i)
    for (std::size_t k = i + 1; k < badges.size(); ++k)
      CHECK((std::abs(badges[i].at.x - badges[k].at.x) >= kBadge || std::abs(badges[i].at.y - badges[k].at.y) >= kBadge));
}

TEST_CASE("unknown parts and wires to nowhere do not spoil the picture") {
  auto h = good("low-side");
  h.devices.push_back({.id = "x", .part = "nobody-knows"});
  h.connections.push_back({.id = "wx", .a = {"x", "A"}, .b = {"uno", "D99"}});
  const auto l = layOut(h, library());
  REQUIRE(l.box("x"));
  CHECK(l.box("x")->subtitle == "unknown part: nobody-knows");
  CHECK(l.thread("wx") == nullptr);
  CHECK(layOut({}, library()).boxes.empty());
}

TEST_CASE("no thread runs through a box that it does not end at") {
  std::map<std::string, harness::Harness> benches;
  for (const auto& name : goodNames()) benches.emplace(name, good(name));
  benches.emplace("two controllers", benchOf(12));
  benches.emplace("three controllers", benchOf(18));
  for (const auto& [name, h] : benches) {
    const auto l = layOut(h, library());
    for (const auto& t : l.threads)
      for (const auto& b : l.boxes) {
        if (b.device == t.a.device || b.device == t.b.device) continue;
        const Rect inside{b.rect.x + 2, b.rect.y + 2, b.rect.w - 4, b.rect.h - 4};
        for (std::size_t k = 1; k < t.path.size(); ++k) {
          const auto& p = t.path[k - 1];
          const auto& q = t.path[k];
          const Rect leg{std::min(p.x, q.x), std::min(p.y, q.y), std::max(std::abs(p.x - q.x), 0.1), std::max(std::abs(p.y - q.y), 0.1)};
          INFO(name << ": " << t.connection << " through " << b.device);
          CHECK_FALSE(overlap(leg, inside));
        }
      }
  }
}

TEST_CASE("the picture changes as little as an edit asks") {
  int others = 0;
  int moved = 0;
  for (const auto& name : goodNames()) {
    const auto h = good(name);
    const auto before = layOut(h, library());
    CHECK(layOut(h, library()).threads == before.threads);  // same file, same picture
    for (std::size_t k = 0; k < h.connections.size(); ++k) {
      auto without = h;
      without.connections.erase(without.connections.begin() + static_cast<std::ptrdiff_t>(k));
      INFO(name << " without " << h.connections[k].id);
      const auto after = layOut(without, library());
      // No part moves for a wire, and a wire that is put back at the end takes the place it had, as far as nothing else took it.
      CHECK(after.boxes == before.boxes);
      CHECK(after.width == before.width);
      CHECK(after.height == before.height);
      for (const auto& t : after.threads) {
        const auto* was = before.thread(t.connection);
        REQUIRE(was);
        ++others;
        moved += !(was->path == t.path);
      }
    }
    // Adding moves nothing at all.
    auto grown = h;
    grown.connections.push_back({.id = "fresh", .a = {h.devices.front().id, "nowhere"}, .b = h.connections.front().a});
    for (const auto& t : layOut(grown, library()).threads)
      if (t.connection != "fresh") CHECK(before.thread(t.connection)->path == t.path);
  }
  WARN(moved << " of " << others << " other threads take another track when a wire is taken away");
  CHECK(moved * 8 < others);
}

TEST_CASE("a part that is added last moves none that is there") {
  int moved = 0;
  int looked = 0;
  for (const auto& name : goodNames())
    for (const auto* part : {"resistor-1k", "brushed-130-6v", "l298n-module", "adapter-12v-2a"}) {
      auto h = good(name);
      const auto before = layOut(h, library());
      h.devices.push_back({.id = "fresh", .part = part});
      const auto after = layOut(h, library());
      for (const auto& b : before.boxes) {
        ++looked;
        moved += !(after.box(b.device)->rect == b.rect);
      }
    }
  WARN(moved << " of " << looked << " boxes move when a part is added");
  CHECK(moved * 7 < looked);
}
