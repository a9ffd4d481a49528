#include "core/harness/rewire.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <map>

#include "core/harness/end_facts.h"
#include "core/harness/join.h"
#include "core/harness/names.h"
#include "core/parts/roles.h"

namespace bold::harness {
namespace {

Edit putting(const Connection& c, std::string title) {
  return {std::move(title), {Put<Connection>{c, {}}}};
}

// A device that every one of them ends on; empty: none.
std::string sharedDevice(const std::vector<const Connection*>& wires, const std::string& but) {
  for (const auto* end : {&wires.front()->a, &wires.front()->b}) {
    if (end->device == but) continue;
    const bool all =
        std::ranges::all_of(wires, [&](const Connection* c) { return c->a.device == end->device || c->b.device == end->device; });
    if (all) return end->device;
  }
  return {};
}

bool ground(const Harness& h, const parts::Library& library, const Address& a) {
  const auto* t = factsOf(h, library, a);
  return (t && t->ground) || isPole(h, library, a, false);
}
bool supply(const Harness& h, const parts::Library& library, const Address& a) {
  const auto* t = factsOf(h, library, a);
  return (t && t->supply) || isPole(h, library, a, true);
}

}  // namespace

Result<Edit> moveEnd(const Harness& h, const parts::Library& library, const std::string& id, bool second, const Address& to) {
  const auto* c = h.connection(id);
  if (!c) return fail(fmt::format("There is no connection {}.", id));
  auto moved = *c;
  (second ? moved.b : moved.a) = to;
  if (moved == *c) return fail(fmt::format("{} is there already.", shownEnd(h, library, to)));
  // Whether such a connection can be is what join knows; of the bench without this one.
  auto without = h;
  std::erase_if(without.connections, [&](const Connection& x) { return x.id == id; });
  if (c->kind != ConnectionKind::Jumper) {
    const auto may = join(without, library, moved.a, moved.b);
    if (!may) return fail(may.error());
    const auto& made = may->changes.front().as<Put<Connection>>()->value;
    if (made.kind != c->kind) return fail(fmt::format("{} is no place for a {}.", shownEnd(h, library, to), word(c->kind)));
  }
  return putting(moved, fmt::format("Move {} to {}", shownEnds(h, library, *c), shownEnd(h, library, to)));
}

Result<Edit> swapEnds(const Harness& h, const parts::Library& library, const std::string& one, const std::string& other) {
  const auto *x = h.connection(one), *y = h.connection(other);
  if (!x || !y || x == y || x->kind != ConnectionKind::Wire || y->kind != ConnectionKind::Wire)
    return fail(std::string("Two wires have to be picked."));
  const auto partOf = [&](const Address& a) {
    const auto* d = h.device(a.device);
    return d ? d->part : std::string();
  };
  bool bx = true, by = true;
  const auto pick = [&](auto alike) {
    for (const bool i : {true, false})
      for (const bool k : {true, false})
        if (alike(i ? x->b : x->a, k ? y->b : y->a)) {
          bx = i;
          by = k;
          return true;
        }
    return false;
  };
  (void)(pick([](const Address& a, const Address& b) { return a.device == b.device && a != b; }) ||
         pick([&](const Address& a, const Address& b) { return partOf(a) == partOf(b) && a != b; }));
  auto p = *x, q = *y;
  std::swap(bx ? p.b : p.a, by ? q.b : q.a);
  if (p == *x) return fail(std::string("They share that end: nothing would change."));
  Edit out = putting(p, fmt::format("Exchange ends of {} and {}", shownEnds(h, library, *x), shownEnds(h, library, *y)));
  out.changes.emplace_back(Put<Connection>{q, {}});
  return out;
}

Result<Edit> moveBundle(const Harness& h, const parts::Library& library, const std::vector<std::string>& ids,
                        const std::vector<Address>& to) {
  std::vector<const Connection*> wires;
  for (const auto& id : ids)
    if (const auto* c = h.connection(id); c && c->kind == ConnectionKind::Wire) wires.push_back(c);
  if (wires.empty() || wires.size() != to.size())
    return fail(fmt::format("{} for {}: as many terminals as wires are needed.",
                            to.size() == 1 ? "1 terminal" : fmt::format("{} terminals", to.size()),
                            wires.size() == 1 ? "1 wire" : fmt::format("{} wires", wires.size())));
  const auto& board = to.front().device;
  const bool there = std::ranges::all_of(wires, [&](const Connection* c) { return c->a.device == board || c->b.device == board; });
  const auto from = there ? board : sharedDevice(wires, {});
  Edit out{fmt::format("Move {} wires to {}", wires.size(), shownEnd(h, library, to.front())), {}};
  for (std::size_t k = 0; k < wires.size(); ++k) {
    auto c = *wires[k];
    if (c.a.device != from && c.b.device != from)
      return fail(fmt::format("{} has no end that the others have too.", shownEnds(h, library, c)));
    (c.b.device == from ? c.b : c.a) = to[k];
    if (c.a == c.b) return fail(fmt::format("Both ends would be {}.", shownEnd(h, library, c.a)));
    out.changes.emplace_back(Put<Connection>{std::move(c), {}});
  }
  return out;
}

Edit colourByUse(const Harness& h, const parts::Library& library, const std::vector<std::string>& ids) {
  static constexpr std::array kRow{"YE", "GN", "BU", "VT", "GY", "WH", "PK", "OG", "TQ"};
  std::map<std::string, std::size_t> given;  // signals of each device so far
  Edit out{"Colour wires by what they are for", {}};
  for (const auto& c : h.connections) {
    if (c.kind != ConnectionKind::Wire || std::ranges::count(ids, c.id) == 0) continue;
    auto changed = c;
    const auto either = [&](auto test) { return test(h, library, c.a) || test(h, library, c.b); };
    const auto lead = [&](const Address& a) {
      const auto* d = h.device(a.device);
      const auto part = d ? library.find(d->part) : nullptr;
      const auto* t = factsOf(h, library, a);
      return part && parts::isMotor(*part) && t && !t->input ? t->colour : std::string();
    };
    if (either(ground))
      changed.colour = "BK";
    else if (either(supply))
      changed.colour = "RD";
    else if (const auto own = lead(c.a).empty() ? lead(c.b) : lead(c.a); !own.empty())
      changed.colour = own;
    else
      changed.colour = kRow[given[c.b.device]++ % kRow.size()];
    if (changed.colour != c.colour) out.changes.emplace_back(Put<Connection>{std::move(changed), {}});
  }
  return out;
}

}  // namespace bold::harness
