#include "core/wiring/read_back.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <map>
#include <random>

#include "core/base/lower.h"
#include "core/bench/nets.h"
#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/harness/typed_end.h"
#include "core/places/arrangement.h"
#include "core/places/neighbours.h"

namespace bold::wiring {
namespace {

using harness::Answer;
using harness::Connection;
using harness::Harness;

bool isWire(const Connection& c) {
  return c.kind == harness::ConnectionKind::Wire && c.state != harness::State::Planned;
}

const Address& named(const Connection& c, bool fromB) {
  return fromB ? c.b : c.a;
}
const Address& other(const Connection& c, bool fromB) {
  return fromB ? c.a : c.b;
}

// Answers that hold, by wire: of several the last.
std::map<std::string, const Answer*> holding(const Harness& h, const parts::Library& library, const harness::Round& round) {
  std::map<std::string, const Answer*> out;
  for (const auto& a : round.answers) {
    const auto* c = h.connection(a.wire);
    if (c && isWire(*c) && wireDigest(h, library, *c) == a.digest) out[a.wire] = &a;
  }
  return out;
}

// Three pins that all say GND are one to a reader, where the board joins them.
bool sameToReader(const Harness& h, const parts::Library& library, const Address& a, const Address& b) {
  if (a == b) return true;
  const auto* d = a.device == b.device ? h.device(a.device) : nullptr;
  const auto part = d ? library.find(d->part) : nullptr;
  const auto* ta = part ? part->find(a.terminal) : nullptr;
  const auto* tb = part ? part->find(b.terminal) : nullptr;
  if (!ta || !tb || ta->label != tb->label) return false;
  Harness alone;
  alone.devices.push_back(*d);
  const auto bench = bench::makeBench(alone, library);
  return bench::Nets(bench).same(bench.terminal(a), bench.terminal(b));
}

std::string slipOf(const Harness& h, const parts::Library& library, const Address& meant, const Address& said) {
  if (meant.device != said.device) {
    const auto *dm = h.device(meant.device), *ds = h.device(said.device);
    return dm && ds && dm->part == ds->part && meant.terminal == said.terminal ? "the other of two equal parts" : "";
  }
  const auto* d = h.device(meant.device);
  const auto part = d ? harness::seenPart(library.find(d->part), *d, h) : nullptr;
  if (!part || !part->find(meant.terminal) || !part->find(said.terminal)) return {};
  return places::slip(*part, part->indexOf(meant.terminal), part->indexOf(said.terminal)).value_or("");
}

}  // namespace

std::vector<Question> questions(const Harness& h, int shuffle) {
  std::map<Address, int> at;
  std::map<std::pair<Address, std::string>, int> alike;
  for (const auto& c : h.connections)
    if (isWire(c))
      for (const auto* end : {&c.a, &c.b}) {
        ++at[*end];
        ++alike[{*end, c.colour}];
      }
  std::mt19937 dice(static_cast<std::uint32_t>(shuffle));
  std::vector<Question> out;
  for (const auto& c : h.connections) {
    if (!isWire(c)) continue;
    const bool coin = dice() % 2 == 1;
    const bool fromB = at[c.a] == at[c.b] ? coin : at[c.b] < at[c.a];
    out.push_back({c.id, fromB, alike[{named(c, fromB), c.colour}]});
  }
  for (std::size_t k = out.size(); k > 1; --k) std::swap(out[k - 1], out[dice() % k]);  // std::shuffle is not the same everywhere
  return out;
}

std::optional<Question> nextQuestion(const Harness& h, const parts::Library& library, const harness::Round& round) {
  const auto known = holding(h, library, round);
  for (const auto& q : questions(h, round.shuffle))
    if (!known.contains(q.wire)) return q;
  return std::nullopt;
}

int questionsLeft(const Harness& h, const parts::Library& library, const harness::Round& round) {
  const auto wires = std::ranges::count_if(h.connections, isWire);
  return static_cast<int>(wires - std::ssize(holding(h, library, round)));
}

Result<Answer> answered(const Harness& h, const parts::Library& library, const Question& q, const std::string& said,
                        const std::string& at) {
  const auto* c = h.connection(q.wire);
  Answer out{q.wire, q.fromB, c ? wireDigest(h, library, *c) : std::string(), said, {}, at};
  const auto word = lower(said);
  if (std::ranges::count(std::array{"none", "nothing", "loose", "nowhere", "-"}, word) > 0) return out;
  // Of equal labels the typed end is the first that nothing hangs on: which one it is, is nothing that a label tells.
  const auto end = parseTypedEnd(h, library, said);
  if (!end) return fail(end.error());
  out.means = *end;
  return out;
}

std::vector<std::string> countedDevices(const Harness& h, const parts::Library& library) {
  std::vector<std::string> out;
  for (const auto& d : h.devices) {
    const auto part = library.find(d.part);
    const bool reached =
        std::ranges::any_of(h.connections, [&](const Connection& c) { return isWire(c) && (c.a.device == d.id || c.b.device == d.id); });
    const bool reachable = part && std::ranges::any_of(part->terminals, [&](const auto& t) { return !places::outOfReach(*part, t); });
    if (d.state != harness::State::Planned && (reached || reachable)) out.push_back(d.id);
  }
  return out;
}

RoundResult result(const Harness& h, const parts::Library& library, const harness::Round& round) {
  RoundResult out;
  const auto known = holding(h, library, round);
  out.left = questionsLeft(h, library, round);
  // Wires that look alike at the named end may be read in any order: each answer takes one of their other ends.
  std::map<std::pair<Address, std::string>, std::vector<std::pair<const Connection*, const Answer*>>> alike;
  for (const auto& c : h.connections)
    if (const auto it = known.find(c.id); it != known.end()) alike[{named(c, it->second->fromB), c.colour}].emplace_back(&c, it->second);
  std::map<std::string, Disagreement> wrong;
  for (auto& [where, group] : alike) {
    auto answers = group;
    std::vector<const Connection*> unread;
    for (const auto& [c, own] : group) {
      const auto& meant = other(*c, own->fromB);
      const auto taken = std::ranges::find_if(
          answers, [&](const auto& x) { return x.second->means && sameToReader(h, library, *x.second->means, meant); });
      ++out.asked;
      if (taken == answers.end()) {
        unread.push_back(c);
        continue;
      }
      ++out.agreed;
      answers.erase(taken);
    }
    for (std::size_t k = 0; k < unread.size(); ++k) {
      const auto& own = *known.at(unread[k]->id);
      Disagreement d{unread[k]->id, named(*unread[k], own.fromB), other(*unread[k], own.fromB), answers[k].second->means, {}};
      if (d.said) d.slip = slipOf(h, library, d.meant, *d.said);
      wrong.emplace(d.wire, std::move(d));
    }
  }
  for (auto& [id, d] : wrong)
    for (const auto& [otherId, o] : wrong)
      if (id != otherId && d.said && o.said && sameToReader(h, library, *d.said, o.meant) && sameToReader(h, library, *o.said, d.meant))
        d.slip = "exchanged with " + otherId;
  for (const auto& c : h.connections)
    if (const auto it = wrong.find(c.id); it != wrong.end()) out.disagreements.push_back(it->second);
  for (const auto& id : countedDevices(h, library)) {
    const auto counted = round.counts.find(id);
    if (counted == round.counts.end()) {
      ++out.uncounted;
      continue;
    }
    const auto listed = static_cast<int>(
        std::ranges::count_if(h.connections, [&](const Connection& c) { return isWire(c) && (c.a.device == id || c.b.device == id); }));
    if (listed != counted->second) out.counts.push_back({id, listed, counted->second});
  }
  return out;
}

bool mayGoOn(const harness::Round& round) {
  return !round.raw || round.raw->doubts.empty();
}

std::map<std::string, std::vector<std::string>> readRight(const Harness& h, const parts::Library& library) {
  std::map<std::string, std::vector<std::string>> out;
  for (const auto& round : h.rounds) {
    const auto r = result(h, library, round);
    const auto who = round.reader.empty() ? std::string("somebody") : round.reader;
    for (const auto& [wire, answer] : holding(h, library, round)) {
      auto& readers = out[wire];
      if (std::ranges::count(r.disagreements, wire, &Disagreement::wire) == 0 && std::ranges::count(readers, who) == 0)
        readers.push_back(who);
    }
  }
  std::erase_if(out, [](const auto& x) { return x.second.empty(); });
  return out;
}

std::string sentence(const Harness& h, const parts::Library& library, const Disagreement& d) {
  const auto ends = fmt::format("{} – {}", shownEnd(h, library, d.named), shownEnd(h, library, d.meant));
  if (!d.said) return ends + ": read as not joined to anything";
  return fmt::format("{}: read as {}{}", ends, shownEnd(h, library, *d.said), d.slip.empty() ? "" : ", " + d.slip);
}

Harness asRead(const Harness& h, const RoundResult& r) {
  Harness out = h;
  for (const auto& d : r.disagreements) {
    const auto it = std::ranges::find(out.connections, d.wire, &Connection::id);
    if (it == out.connections.end()) continue;
    if (!d.said) {
      out.connections.erase(it);
      continue;
    }
    (it->a == d.named ? it->b : it->a) = *d.said;
  }
  return out;
}

}  // namespace bold::wiring
