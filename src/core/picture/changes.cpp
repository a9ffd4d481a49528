#include "core/picture/changes.h"

#include <algorithm>

namespace bold::picture {
namespace {

constexpr double kLabels = 150;  // that terminal labels may reach beyond their box, sideways
constexpr double kMarks = 30;    // that marks and words may reach above and below
constexpr double kBreadth = 10;  // of a thread with the gap it leaves in others
constexpr double kBarLabel = 260;

Rect around(Rect r, double dx, double dy) {
  return {r.x - dx, r.y - dy, r.w + 2 * dx, r.h + 2 * dy};
}

void put(std::vector<Rect>& out, const Rect& r) {
  out.push_back(r);
}
void put(std::vector<Rect>& out, const std::vector<Rect>& r) {
  out.insert(out.end(), r.begin(), r.end());
}

// What stands in one list and not in the other. Things mostly keep their place in the list, so that is looked at first.
template <class Thing>
void compare(std::vector<Rect>& out, const std::vector<Thing>& before, const std::vector<Thing>& after) {
  const auto missing = [&](const std::vector<Thing>& from, const std::vector<Thing>& in) {
    for (std::size_t k = 0; k < from.size(); ++k) {
      const bool there = (k < in.size() && in[k] == from[k]) || std::ranges::find(in, from[k]) != in.end();
      if (!there) put(out, covered(from[k]));
    }
  };
  missing(before, after);
  missing(after, before);
}

}  // namespace

Rect covered(const Box& box) {
  return around(box.rect, kLabels, kMarks);
}

std::vector<Rect> covered(const Thread& thread) {
  std::vector<Rect> out;
  for (std::size_t i = 1; i < thread.path.size(); ++i) {
    const auto& a = thread.path[i - 1];
    const auto& b = thread.path[i];
    out.push_back(around({std::min(a.x, b.x), std::min(a.y, b.y), std::abs(a.x - b.x), std::abs(a.y - b.y)}, kBreadth, kBreadth));
  }
  return out;
}

Rect covered(const Bar& bar) {
  return {bar.x1 - kBreadth, bar.y - 2 * kBreadth, bar.x2 - bar.x1 + kBarLabel, 4 * kBreadth};
}

Rect covered(const Badge& badge) {
  return {badge.at.x - kBadge, badge.at.y - kBadge, 2 * kBadge, 2 * kBadge};
}

std::vector<Rect> changes(const Layout& before, const Layout& after) {
  std::vector<Rect> out;
  compare(out, before.boxes, after.boxes);
  compare(out, before.threads, after.threads);
  compare(out, before.bars, after.bars);
  return out;
}

std::vector<Rect> changes(const std::vector<Badge>& before, const std::vector<Badge>& after) {
  std::vector<Rect> out;
  compare(out, before, after);
  return out;
}

}  // namespace bold::picture
