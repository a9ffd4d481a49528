#include "core/harness/exchange_part.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/harness/names.h"
#include "core/parts/connectors.h"
#include "core/parts/named_terminal.h"

namespace bold::harness {
namespace {

// What a terminal does on its part, in words that mean the same on any other: "A in1", "A out0", "motor supply", "ground".
std::string doing(const parts::Part& p, const parts::Terminal& t) {
  for (std::size_t c = 0; c < p.channels.size(); ++c) {
    const auto& channel = p.channels[c];
    for (const auto& [role, terminal] : channel.signals)
      if (terminal == t.id) return fmt::format("channel {} {}", c, role);
    for (std::size_t k = 0; k < channel.out.size(); ++k)
      if (channel.out[k] == t.id) return fmt::format("channel {} out {}", c, k);
  }
  if (t.ground) return "ground";
  if (t.supply) return fmt::format("{} supply", parts::wordFor(parts::kSupplyWords, t.supply->purpose));
  if (t.pin && !t.pin->code.empty()) return "pin " + t.pin->code;
  return {};
}

class Mapping {
 public:
  Mapping(const parts::Part& from, const parts::Part& to) : m_from(from), m_to(to) {}

  // Empty: it has no place there. Grounds are shared out among its grounds.
  std::string of(const std::string& terminal) {
    const auto* t = m_from.find(terminal);
    if (!t) return connector(terminal);
    if (m_to.find(terminal)) return terminal;
    if (auto named = parts::terminalNamed(m_to, t->label); !named.empty()) return named;
    for (const auto& alias : t->aliases)
      if (auto named = parts::terminalNamed(m_to, alias); !named.empty()) return named;
    const auto what = doing(m_from, *t);
    std::string first;
    for (const auto& other : m_to.terminals) {
      if (what.empty() || doing(m_to, other) != what) continue;
      if (first.empty()) first = other.id;
      if (what == "ground" && !m_grounds.insert(other.id).second) continue;
      return other.id;
    }
    return first;
  }

 private:
  const parts::Part &m_from, &m_to;
  std::set<std::string> m_grounds;

  std::string connector(const std::string& id) const {
    const auto named = parts::connectorsNamed(m_to, id);
    return named.empty() ? std::string() : named.front().id;
  }
};

// Every entry of a list that speaks of one motor, of another one.
template <class T>
void copy(const std::vector<T>& from, const std::string& motor, const std::string& now, Harness& grown, const char* stem, Edit& edit) {
  for (const auto& x : from) {
    if (x.motor != motor) continue;
    auto y = x;
    y.id = grown.freeId(stem);
    y.motor = now;
    y.raw = nullptr;
    if constexpr (std::is_same_v<T, Goal>) {
      y.stage.clear();
      y.channel.clear();
    }
    const Edit one{{}, {Put<T>{y, {}}}};
    apply(grown, one);
    edit.changes.push_back(one.changes.front());
  }
}

}  // namespace

Result<Exchange> exchangePart(const Harness& h, const parts::Library& library, const std::string& id, const std::string& partId) {
  const auto* d = h.device(id);
  if (!d) return fail(fmt::format("There is no \"{}\" on this bench.", id));
  const auto to = library.find(partId);
  if (!to) return fail(fmt::format("The part \"{}\" is not in the library.", partId));
  const auto from = library.find(d->part);
  Exchange out;
  out.edit.title = fmt::format("Exchange {} for {}", shownName(h, *d), to->name);
  auto changed = *d;
  changed.part = partId;
  std::erase_if(changed.settings, [&](const auto& s) {
    const auto it = std::ranges::find(to->settings, s.first, &parts::Setting::id);
    return it == to->settings.end() || (!it->values.empty() && std::ranges::count(it->values, s.second.value) == 0);
  });
  std::erase_if(changed.overrides, [&](const auto& o) { return std::ranges::count(to->figures, o.first, &parts::NamedFigure::id) == 0; });
  changed.orderSeen = false;
  out.edit.changes.emplace_back(Put<Device>{changed, {}});
  const parts::Part none;
  Mapping mapping(from ? *from : none, *to);
  for (const auto& c : h.connections) {
    if (c.a.device != id && c.b.device != id) continue;
    auto moved = c;
    bool lost = false;
    std::string renamed;
    for (auto* end : {&moved.a, &moved.b}) {
      if (end->device != id) continue;
      auto now = mapping.of(end->terminal);
      lost = lost || now.empty();
      if (!now.empty() && now != end->terminal) renamed += (renamed.empty() ? "" : ", ") + (to->find(now) ? to->find(now)->label : now);
      if (!now.empty()) end->terminal = std::move(now);
    }
    if (lost || moved.a == moved.b) {
      out.lost.push_back(shownEnds(h, library, c));
      out.edit.changes.emplace_back(Drop<Connection>{c.id});
      continue;
    }
    if (!renamed.empty()) out.moved.push_back(fmt::format("{}: now {}", shownEnds(h, library, c), renamed));
    if (moved != c) out.edit.changes.emplace_back(Put<Connection>{moved, {}});
  }
  // Its program names other pins from now on: it has to be read again.
  for (auto s : h.sources) {
    if (s.controller != id) continue;
    for (auto& f : s.files) {
      f.digest = "unread";  // which is that of no file
      f.standing = Standing::Changed;
    }
    out.edit.changes.emplace_back(Put<SourceRead>{std::move(s), {}});
  }
  // What is stated of its pins, leads and channels goes along; what has no place stays as it is stated, and is named when it is judged.
  for (auto a : h.assignments) {
    const auto now = a.pin.device == id ? mapping.of(a.pin.terminal) : std::string();
    if (now.empty() || now == a.pin.terminal) continue;
    a.pin.terminal = now;
    out.edit.changes.emplace_back(Put<Assignment>{std::move(a), {}});
  }
  for (auto g : h.goals) {
    const auto before = g;
    if (g.motor == id && !g.forwardLead.empty())
      if (const auto now = mapping.of(g.forwardLead); !now.empty()) g.forwardLead = now;
    if (g.stage == id && from) {
      const auto it = std::ranges::find(from->channels, g.channel, &parts::Channel::id);
      const auto at = static_cast<std::size_t>(it - from->channels.begin());
      if (at < to->channels.size()) g.channel = to->channels[at].id;
    }
    if (g != before) out.edit.changes.emplace_back(Put<Goal>{std::move(g), {}});
  }
  return out;
}

Result<Edit> duplicate(const Harness& h, const std::string& id) {
  const auto* d = h.device(id);
  if (!d) return fail(fmt::format("There is no \"{}\" on this bench.", id));
  auto grown = h;
  auto copyOf = *d;
  const auto digits = id.find_last_not_of("0123456789") + 1;
  copyOf.id = h.freeId(digits == 0 ? "m" : id.substr(0, digits));
  copyOf.raw = nullptr;
  copyOf.orderSeen = false;
  if (!d->name.empty()) {
    auto stem = d->name;
    const auto number = stem.find_last_not_of("0123456789");
    if (number != std::string::npos && number + 1 < stem.size() && stem[number] == ' ') stem.erase(number);
    for (int n = 2;; ++n) {
      copyOf.name = fmt::format("{} {}", stem, n);
      if (std::ranges::none_of(h.devices, [&](const Device& x) { return x.called() == copyOf.name; })) break;
    }
  }
  Edit edit{fmt::format("Add another {}", shownName(h, *d)), {Put<Device>{copyOf, {}}}};
  apply(grown, edit);
  copy(h.goals, id, copyOf.id, grown, "g", edit);
  copy(h.program, id, copyOf.id, grown, "p", edit);
  return edit;
}

}  // namespace bold::harness
