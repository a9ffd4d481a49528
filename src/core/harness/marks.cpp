#include "core/harness/marks.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>

#include "core/base/by_id.h"
#include "core/harness/edit_maker.h"
#include "core/harness/mark_done.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"

namespace bold::harness {
namespace {

// All that an end looks like. A connector is told by its name alone.
Json endSeen(const Harness& h, const parts::Library& library, const Address& end) {
  const auto* d = h.device(end.device);
  const auto part = d ? library.find(d->part) : nullptr;
  const auto* t = part ? part->find(end.terminal) : nullptr;
  Json out = Json::array({end.text(), d ? d->part : std::string()});
  if (t) out.insert(out.end(), {t->label, t->place.connector, t->place.position, t->place.contact});
  return out;
}

const Mark*& slot(Marks& marks, Marked what) {
  switch (what) {
    case Marked::Fitted:
      return marks.fitted;
    case Marked::Tugged:
      return marks.tugged;
    case Marked::Seen:
      return marks.seen;
    case Marked::Wrong:
      break;
  }
  return marks.wrong;
}

std::string freeMarkId(const Harness& h, int& from) {
  for (;; ++from)
    if (auto id = fmt::format("mark{}", from); !byId(h.marks, id)) {
      ++from;
      return id;
    }
}

// What was found elsewhere is not put right by a new colour in the list: it holds until somebody looks again, or the list says what was
// found.
bool holds(const Mark& m, const Connection& c, const std::string& digest) {
  if (m.what != Marked::Wrong || m.digest == digest) return m.digest == digest;
  if (!m.found) return true;
  const auto& [a, b] = *m.found;
  return !((c.a == a && c.b == b) || (c.a == b && c.b == a));
}

Marks collect(const std::vector<const Mark*>& marks, const Connection& c, const std::string& digest) {
  Marks out;
  for (const auto* m : marks)
    if (holds(*m, c, digest)) slot(out, m->what) = m;
  return out;
}

}  // namespace

std::string wireDigest(const Harness& h, const parts::Library& library, const Connection& c) {
  // From which end it was drawn is nothing that anybody sees.
  std::array ends{endSeen(h, library, c.a), endSeen(h, library, c.b)};
  if (ends[1][0] < ends[0][0]) std::swap(ends[0], ends[1]);
  return digest(Json::array({word(c.kind), c.colour, c.mirrored, ends[0], ends[1]}));
}

Marks marksOf(const Harness& h, const parts::Library& library, const Connection& c) {
  std::vector<const Mark*> own;
  for (const auto& m : h.marks)
    if (m.wire == c.id) own.push_back(&m);
  return own.empty() ? Marks{} : collect(own, c, wireDigest(h, library, c));
}

std::vector<Marks> allMarks(const Harness& h, const parts::Library& library) {
  std::map<std::string_view, std::vector<const Mark*>> byWire;
  for (const auto& m : h.marks) byWire[m.wire].push_back(&m);
  std::vector<Marks> out;
  for (const auto& c : h.connections) {
    const auto own = byWire.find(c.id);
    out.push_back(own == byWire.end() ? Marks{} : collect(own->second, c, wireDigest(h, library, c)));
  }
  return out;
}

Edit mark(const Harness& h, const parts::Library& library, const std::string& connection, Marked what, const Witness& witness,
          const Found& found) {
  const auto* c = h.connection(connection);
  Edit edit{c ? fmt::format("Mark {} as {}", shownEnds(h, library, *c), word(what)) : std::string(), {}};
  if (!c) return edit;
  if (what == Marked::Fitted && c->state != State::OnBench) edit.changes = markDone(h, connection).changes;
  if (what == Marked::Fitted && c->state == State::ToBeRemoved) return edit;
  const auto now = wireDigest(h, library, *c);
  Mark mark{{}, connection, what, now, witness.by, witness.at, found.ends, found.words, nullptr};
  for (const auto& m : h.marks) {
    if (m.wire != connection) continue;
    const bool overtaken = m.digest != now || (m.what == Marked::Wrong) != (what == Marked::Wrong);
    if (m.what == what && holds(m, *c, now) && m.found == mark.found && m.remark == mark.remark) {
      edit.changes.emplace_back(Drop<Mark>{m.id});
      edit.title = fmt::format("Take the mark \"{}\" off {}", word(what), shownEnds(h, library, *c));
      return edit;
    }
    if (m.what == what)
      mark.id = m.id;
    else if (overtaken)
      edit.changes.emplace_back(Drop<Mark>{m.id});
  }
  int from = 1;
  if (mark.id.empty()) mark.id = freeMarkId(h, from);
  edit.changes.emplace_back(Put<Mark>{std::move(mark), {}});
  return edit;
}

bool onlyMarks(const Edit& edit) {
  return std::ranges::all_of(
      edit.changes, [](const Change& c) { return c.as<Put<Mark>>() || c.as<Drop<Mark>>() || c.as<Put<Round>>() || c.as<Drop<Round>>(); });
}

Edit takeMarksOff(const Harness& h, const std::vector<std::string>& connections) {
  Edit edit{"Take marks off", {}};
  for (const auto& m : h.marks)
    if (std::ranges::count(connections, m.wire) > 0) edit.changes.emplace_back(Drop<Mark>{m.id});
  return edit;
}

Result<Found> parseFound(const Harness& h, const parts::Library& library, const Connection& c, const std::string& typed) {
  if (const auto both = parseTypedWire(h, library, typed)) return Found{{{both->a, both->b}}, {}};
  const auto end = parseTypedEnd(h, library, typed);
  if (!end) return Found{{}, typed};
  const bool first = end->device == c.a.device;
  const bool second = end->device == c.b.device;
  if (first == second)
    return fail(fmt::format("Which end goes to {}? Write both, such as {} {}.", shownEnd(h, library, *end), c.b.text(), end->text()));
  return Found{first ? std::array{*end, c.b} : std::array{c.a, *end}, {}};
}

Edit takeAsFound(const Harness& h, const parts::Library& library, const std::string& connection, const Witness& witness) {
  const auto* c = h.connection(connection);
  const auto* wrong = c ? marksOf(h, library, *c).wrong : nullptr;
  if (!wrong || !wrong->found) return {};
  auto moved = *c;
  moved.a = (*wrong->found)[0];
  moved.b = (*wrong->found)[1];
  auto edit = takeMarksOff(h, {connection});
  edit.title = fmt::format("Take {} as it was found", shownEnds(h, library, *c));
  edit.changes.emplace_back(Put<Connection>{moved, {}});
  Harness grown = h;
  apply(grown, edit);
  const auto seen = mark(grown, library, connection, Marked::Seen, witness);
  edit.changes.insert(edit.changes.end(), seen.changes.begin(), seen.changes.end());
  return edit;
}

Harness asFound(const Harness& h, const parts::Library& library) {
  Harness out = h;
  const auto marks = allMarks(h, library);
  for (std::size_t i = 0; i < marks.size(); ++i) {
    if (!marks[i].wrong || !marks[i].wrong->found) continue;
    out.connections[i].a = (*marks[i].wrong->found)[0];
    out.connections[i].b = (*marks[i].wrong->found)[1];
  }
  return out;
}

}  // namespace bold::harness
