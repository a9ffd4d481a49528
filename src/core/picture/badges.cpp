#include "core/picture/badges.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace bold::picture {
namespace {

// Where a badge stands, and which way further ones go from there, so that no label is covered.
struct Spot {
  Point at;
  int way = -1;  ///< -1: to the left
};

// On the corner, clear of what is written below it.
Spot atCorner(const Box& b) {
  return {{b.rect.right() + 8, b.rect.y - 4}};
}

std::optional<Spot> placeOf(const Layout& layout, const std::string& subject) {
  if (const auto address = parseAddress(subject)) {
    const auto* t = layout.terminal(*address);
    const auto* b = layout.box(address->device);
    if (t && b) {
      // Outside the box, so that no label is covered.
      const bool right = t->at.x > b->rect.x + b->rect.w / 2;
      return Spot{{t->at.x + (right ? 16 : -16), t->at.y}, right ? 1 : -1};
    }
    if (const auto* c = layout.connector(*address)) return Spot{{c->rect.right() + 2, c->rect.y}};
    if (b) return atCorner(*b);
    return std::nullopt;
  }
  if (const auto* b = layout.box(subject)) return atCorner(*b);
  if (const auto* t = layout.thread(subject); t && t->path.size() > 1) {
    const auto& a = t->path[t->path.size() / 2 - 1];
    const auto& b = t->path[t->path.size() / 2];
    return Spot{{(a.x + b.x) / 2, (a.y + b.y) / 2}};
  }
  return std::nullopt;
}

}  // namespace

std::vector<Badge> placeBadges(const Layout& layout, const std::vector<checks::Finding>& findings) {
  std::vector<Badge> out;
  for (const auto& f : findings) {
    if (f.number == 0 || !f.explainedBy.empty()) continue;
    for (const auto& s : f.subjects) {
      const auto spot = placeOf(layout, s);
      if (!spot) continue;
      auto at = spot->at;
      const auto taken = [&] {
        return std::ranges::any_of(out,
                                   [&](const Badge& b) { return std::abs(b.at.x - at.x) < kBadge && std::abs(b.at.y - at.y) < kBadge; });
      };
      for (int i = 0; i < 40 && taken(); ++i) at.x += spot->way * (kBadge + 1);
      at.x = std::max(at.x, kBadge / 2 + 1);
      at.y = std::max(at.y, kBadge / 2 + 1);
      out.push_back({at, f.number, f.severity, f.identity()});
      break;
    }
  }
  return out;
}

}  // namespace bold::picture
