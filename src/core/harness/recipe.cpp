#include "core/harness/recipe.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <map>
#include <set>

#include "core/harness/names.h"

namespace bold::harness {
namespace {

// One edit in the making: ids are handed out against a growing copy, so that they never clash.
class Draft {
 public:
  explicit Draft(const Harness& h) : m_scratch(h) {}

  void device(Device d) { put(std::move(d)); }
  void wire(const Address& a, const Address& b, const std::string& colour) {
    Connection c;
    c.id = m_scratch.freeId("w");
    c.a = a;
    c.b = b;
    c.colour = colour;
    put(std::move(c));
  }
  void jumper(const Address& a, const Address& b) {
    Connection c;
    c.id = m_scratch.freeId("j");
    c.kind = ConnectionKind::Jumper;
    c.a = a;
    c.b = b;
    put(std::move(c));
  }
  std::string freeId(const std::string& stem) const { return m_scratch.freeId(stem); }
  Edit take(std::string title) {
    m_edit.title = std::move(title);
    return std::move(m_edit);
  }

 private:
  Harness m_scratch;
  Edit m_edit;

  template <class T>
  void put(T value) {
    Edit one{{}, {Put<T>{value, {}}}};
    apply(m_scratch, one);
    m_edit.changes.push_back(one.changes.front());
  }
};

std::string stemOf(const parts::Part& p) {
  static const std::map<std::string, std::string> kStems{{"controller", "u"}, {"transistor", "q"}, {"diode", "d"},       {"resistor", "r"},
                                                         {"capacitor", "c"},  {"fuse", "f"},       {"battery", "v"},     {"adapter", "v"},
                                                         {"port", "v"},       {"block", "x"},      {"breadboard", "bb"}, {"bridge", "s"},
                                                         {"step/dir", "s"},   {"array", "s"}};
  const auto it = kStems.find(p.kind);
  return it == kStems.end() ? "m" : it->second;
}

const parts::Terminal* factsOf(const Harness& h, const parts::Library& library, const Address& a) {
  const auto* d = h.device(a.device);
  const auto part = d ? library.find(d->part) : nullptr;
  return part ? part->find(a.terminal) : nullptr;
}

bool isPole(const Harness& h, const parts::Library& library, const Address& a, bool positive) {
  const auto* d = h.device(a.device);
  const auto part = d ? library.find(d->part) : nullptr;
  if (!part) return false;
  return std::ranges::any_of(part->elements, [&](const auto& e) {
    const auto* s = std::get_if<parts::Source>(&e.body);
    return s && (positive ? s->positive : s->negative) == a.terminal;
  });
}

}  // namespace

Result<Edit> addPart(const Harness& h, const parts::Library& library, const std::string& partId, std::string id, const std::string& name) {
  const auto part = library.find(partId);
  if (!part) return fail(fmt::format("The part \"{}\" is not in the library.", partId));
  Draft draft(h);
  Device d;
  d.id = id.empty() ? draft.freeId(stemOf(*part)) : std::move(id);
  if (h.device(d.id)) return fail(fmt::format("\"{}\" is on the bench already.", d.id));
  d.part = partId;
  d.name = name;
  const auto device = d.id;
  draft.device(std::move(d));
  for (const auto& [a, b] : part->fitted) draft.jumper({device, a}, {device, b});
  return draft.take(fmt::format("Add {}", part->name));
}

Result<Edit> lowSideSwitch(const Harness& h, const parts::Library& library, const LowSideSwitch& what) {
  const auto transistor = library.find(what.transistor);
  if (!transistor || transistor->channels.size() != 1 || !transistor->channels.front().lowSide ||
      !transistor->channels.front().signals.contains("in"))
    return fail(fmt::format("\"{}\" is no transistor that can switch a motor to ground.", what.transistor));
  const auto* motor = h.device(what.motor);
  const auto* supply = h.device(what.supply);
  if (!motor || !factsOf(h, library, {what.motor, "P"}) || !factsOf(h, library, {what.motor, "N"}))
    return fail(fmt::format("\"{}\" is no motor with two leads on this bench.", what.motor));
  if (!supply || !isPole(h, library, {what.supply, "P"}, true)) return fail(fmt::format("\"{}\" is no supply on this bench.", what.supply));
  if (!factsOf(h, library, what.pin) || !factsOf(h, library, what.pin)->pin)
    return fail(fmt::format("\"{}\" is no pin of a controller.", what.pin.text()));
  if (!factsOf(h, library, what.ground) || !factsOf(h, library, what.ground)->ground)
    return fail(fmt::format("\"{}\" is no ground.", what.ground.text()));
  const auto& channel = transistor->channels.front();
  const auto out = channel.out.front();
  const auto in = channel.signals.at("in");
  const auto back = channel.returnTerminal;
  const bool mosfet =
      std::ranges::any_of(transistor->elements, [](const auto& e) { return std::holds_alternative<parts::Mosfet>(e.body); });
  Draft draft(h);
  const auto group = draft.freeId("switch");
  const auto place = [&](const std::string& part, const std::string& stem) {
    Device d;
    d.id = draft.freeId(stem);
    d.part = part;
    d.group = group;
    draft.device(d);
    return d.id;
  };
  const auto q = place(what.transistor, "q");
  const auto r = place(mosfet ? "resistor-220r" : "resistor-1k", "r");
  const auto d = place("diode-1n5822", "d");
  draft.wire(what.pin, {r, "A"}, "YE");
  draft.wire({r, "B"}, {q, in}, "YE");
  if (mosfet) {
    const auto pull = place("resistor-10k", "r");
    draft.wire({pull, "A"}, {q, in}, "YE");
    draft.wire({pull, "B"}, {q, back}, "BK");
  }
  draft.wire({what.supply, "P"}, {what.motor, "P"}, "RD");
  draft.wire({what.motor, "N"}, {q, out}, "BU");
  draft.wire({q, back}, {what.supply, "N"}, "BK");
  draft.wire({q, back}, what.ground, "BK");
  draft.wire({d, "K"}, {what.motor, "P"}, "RD");
  draft.wire({d, "A"}, {what.motor, "N"}, "BU");
  return draft.take(fmt::format("Add a low-side switch for {}", motor->called()));
}

Edit removeDevice(const Harness& h, const std::string& id) {
  const auto* device = h.device(id);
  Edit e{fmt::format("Take {} off the bench", device ? shownName(h, *device) : id), {}};
  for (const auto& c : h.connections)
    if (c.a.device == id || c.b.device == id) e.changes.emplace_back(Drop<Connection>{c.id});
  const auto drop = [&]<class T>(const std::vector<T>& statements) {
    for (const auto& s : statements)
      if (s.motor == id) e.changes.emplace_back(Drop<T>{s.id});
  };
  drop(h.goals);
  drop(h.assignments);
  drop(h.program);
  e.changes.emplace_back(Drop<Device>{id});
  return e;
}

Edit addWire(const Harness& h, const parts::Library& library, const Address& a, const Address& b) {
  Connection c;
  c.id = h.freeId("w");
  c.a = a;
  c.b = b;
  static constexpr std::array kRow{"YE", "GN", "BU", "OG", "VT", "GY", "WH", "PK", "BN"};
  const auto has = [&](auto test) { return test(a) || test(b); };
  const auto* fa = factsOf(h, library, a);
  const auto* fb = factsOf(h, library, b);
  if ((fa && fa->ground) || (fb && fb->ground) || has([&](const Address& x) { return isPole(h, library, x, false); }))
    c.colour = "BK";
  else if ((fa && fa->supply) || (fb && fb->supply) || has([&](const Address& x) { return isPole(h, library, x, true); }))
    c.colour = "RD";
  else
    c.colour = kRow[h.connections.size() % kRow.size()];
  return {fmt::format("Add a wire from {} to {}", a.text(), b.text()), {Put<Connection>{c, {}}}};
}

namespace {
void done(const Harness& h, const std::string& id, Edit& e) {
  if (const auto* d = h.device(id)) {
    if (d->state == State::ToBeRemoved) {
      e.changes.emplace_back(Drop<Device>{id});
      return;
    }
    auto changed = *d;
    changed.state = State::OnBench;
    for (auto& [name, s] : changed.settings)
      if (!s.planned.empty()) s = {s.planned, {}};
    e.changes.emplace_back(Put<Device>{changed, {}});
  } else if (const auto* c = h.connection(id)) {
    if (c->state == State::ToBeRemoved) {
      e.changes.emplace_back(Drop<Connection>{id});
      return;
    }
    auto changed = *c;
    changed.state = State::OnBench;
    e.changes.emplace_back(Put<Connection>{changed, {}});
  }
}
}  // namespace

Edit markDone(const Harness& h, const std::string& id) {
  Edit e{fmt::format("Mark {} as done", id), {}};
  done(h, id, e);
  return e;
}

Edit markAllDone(const Harness& h) {
  Edit e{"Mark all planned changes as done", {}};
  for (const auto& d : h.devices) {
    const bool open = d.state != State::OnBench || std::ranges::any_of(d.settings, [](const auto& s) { return !s.second.planned.empty(); });
    if (open) done(h, d.id, e);
  }
  for (const auto& c : h.connections)
    if (c.state != State::OnBench) done(h, c.id, e);
  return e;
}

}  // namespace bold::harness
