#include "core/checks/program/mismatch.h"

#include <algorithm>
#include <cstdlib>

#include "core/base/lower.h"
#include "core/base/number.h"
#include "core/places/neighbours.h"

namespace bold::checks {
namespace {

const std::string kOtherNumbering = "by another numbering";

// A light of the board's own, or one that nobody drew.
bool light(const harness::PinUse& u) {
  return lower(u.word + " " + u.name).find("led") != std::string::npos;
}

// How the word for one pin may come to stand where the other was meant.
std::string howTaken(const SolvedBench& s, const UsedPin& used, TerminalIndex meant) {
  const int d = s.bench.deviceOf(meant);
  const auto& part = *s.bench.devices[d].part;
  const int first = s.bench.devices[d].first;
  for (const auto& m : places::neighboursOf(part, meant - first).sameNumber)
    if (first + m.terminal == used.pin) return kOtherNumbering;
  for (const auto n : {places::Numbering::Position, places::Numbering::Program, places::Numbering::Chip})
    if (places::nameIn(part, s.bench.facts(meant), n) == used.use->word) return kOtherNumbering;
  const auto right = inWordsOf(s, *used.use, meant);
  const auto is = wholeOf(right);
  const auto was = wholeOf(used.use->word);
  if (is && was && std::abs(*is - *was) == 1) return "one off";
  if (used.pin < 0) return {};
  return places::slip(part, meant - first, used.pin - first).value_or(std::string());
}

bool wantsPwm(const std::string& role) {
  return role.starts_with("speed");
}

int score(const SolvedBench& s, const WiredRole& role, const UsedPin& used, const std::string& how) {
  int out = 2 * fits(s, used.use->name, role) + (how.empty() ? 0 : how == kOtherNumbering ? 7 : 3);
  if (used.use->does.contains("pwm")) out += wantsPwm(role.role) ? 1 : role.role == "in" || role.role.starts_with("in") ? 0 : -2;
  if (used.use->does.contains("servo")) out += role.role == "pulse" ? 3 : -3;
  if (role.role == "pulse" && !used.use->does.contains("servo")) out -= 2;
  return out;
}

}  // namespace

std::vector<OtherNumbering> otherNumberings(const ProgramOnBench& p) {
  const auto& s = p.solved();
  std::vector<OtherNumbering> out;
  for (const auto& source : s.bench.sources) {
    const int d = s.bench.deviceIndex(source.controller);
    if (d < 0) continue;
    const auto& part = *s.bench.devices[d].part;
    OtherNumbering best{&source, {}, {}};
    for (const auto n : {places::Numbering::Position, places::Numbering::Chip, places::Numbering::Program}) {
      OtherNumbering one{&source, n, {}};
      std::size_t fitting = 0;  // as they are taken now
      for (const auto& u : p.used()) {
        if (u.source != &source || !writes(*u.use) || !wholeOf(u.use->word)) continue;
        if (u.pin >= 0 && !p.rolesAt(u.pin).empty()) ++fitting;
        for (const auto& t : part.terminals) {
          const auto at = s.bench.terminal(d, t.id);
          if (at != u.pin && t.pin && places::nameIn(part, t, n) == u.use->word && !p.rolesAt(at).empty()) {
            one.pins.emplace_back(&u, at);
            break;
          }
        }
      }
      // Two that fit by chance are none: more of them than fit as they are, and each meant for another pin.
      if (one.pins.size() >= 2 && one.pins.size() > fitting && one.pins.size() > best.pins.size()) best = std::move(one);
    }
    if (!best.pins.empty()) out.push_back(std::move(best));
  }
  return out;
}

Mismatch mismatchOf(const ProgramOnBench& p) {
  const auto& s = p.solved();
  Mismatch out;
  std::vector<TerminalIndex> seen;  // a pin for several roles is one
  for (const auto& r : p.roles()) {
    const auto* used = p.at(r.pin);
    if ((used && writes(*used->use) && used->use->sure) || p.standsRight(r) || std::ranges::count(seen, r.pin) > 0) continue;
    seen.push_back(r.pin);
    out.undriven.push_back(&r);
  }
  for (const auto& u : p.used())
    if (writes(*u.use) && !u.use->onBoard && (u.pin < 0 || !p.wired(u.pin)) && !light(*u.use)) out.unwired.push_back(&u);
  for (const auto& o : p.numberings())
    for (const auto& meant : o.pins) {
      std::erase(out.unwired, meant.first);
      std::erase_if(out.undriven, [&](const WiredRole* r) { return r->pin == meant.second; });
    }
  // A pin that is wired, for a motor other than the one that the source names it for, may have been meant for that one.
  struct Misnamed {
    const UsedPin* used;
    std::string name;
    harness::Spot spot;
  };
  std::vector<Misnamed> misnamed;
  for (const auto& u : p.used()) {
    const auto own = p.rolesAt(u.pin);
    if (!drives(*u.use) || own.empty()) continue;
    auto names = u.use->also;
    names.insert(names.begin(), {u.use->name, u.use->number});
    for (const auto& one : names) {
      const bool fitsOwn = std::ranges::any_of(own, [&](const WiredRole* r) { return fitsMotor(s, one.first, r->motor) > 0; });
      if (!one.first.empty() && !fitsOwn) misnamed.push_back({&u, one.first, one.second});
    }
  }
  // The best pairs first; a pair needs a reason, or to be the only ones left.
  for (;;) {
    std::optional<Slip> best;
    int most = 2;
    for (const auto* r : out.undriven)
      for (const auto& m : misnamed) {
        if (idOf(s.bench, s.bench.deviceOf(r->pin)) != m.used->source->controller) continue;
        // A motor of one pin needs no word for it.
        if (fitsMotor(s, m.name, r->motor) == 0 || (fitsRole(s, m.name, *r) == 0 && p.rolesOf(r->motor).size() > 1)) continue;
        const int n = 2 * fits(s, m.name, *r);
        if (n > most) {
          most = n;
          best = Slip{r, m.used, m.name, m.spot, {}};
        }
      }
    for (const auto* r : out.undriven)
      for (const auto* u : out.unwired) {
        if (idOf(s.bench, s.bench.deviceOf(r->pin)) != u->source->controller) continue;
        auto how = howTaken(s, *u, r->pin);
        const bool alone = out.undriven.size() == 1 && out.unwired.size() == 1;
        const int n = score(s, *r, *u, how) + (alone ? 3 : 0);
        if (n > most) {
          most = n;
          best = Slip{r, u, u->use->name, u->use->number, std::move(how)};
        }
      }
    if (!best) return out;
    std::erase(out.undriven, best->role);
    std::erase(out.unwired, best->used);
    std::erase_if(misnamed, [&](const Misnamed& m) { return m.used == best->used && m.name == best->name; });
    out.slips.push_back(std::move(*best));
  }
}

}  // namespace bold::checks
