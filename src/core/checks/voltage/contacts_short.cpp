#include <fmt/core.h>

#include <algorithm>
#include <bit>

#include "core/base/groups.h"
#include "core/bench/peripheral_commands.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::contacts_short {
namespace {

constexpr std::size_t kMostContacts = 16;  // between the poles of supplies; more are not tried
constexpr std::size_t kMostAtOnce = 4;     // that are the other way at a time

using Joined = std::pair<int, int>;  // nets of the copper without any contact that is moved

// What is moved together, and the nets that it joins at rest and the other way.
struct Mover {
  int device;
  std::string title;
  bool relay;
  std::vector<Joined> rest, moved;
};

std::vector<Mover> moversOf(const SolvedBench& s, const bench::Nets& fixed) {
  std::vector<Mover> out;
  for (const auto& m : bench::movedContacts(s.bench, s.nets)) {
    Mover one{m.contacts.front().first, m.title, m.relay, {}, {}};
    bool slides = false;
    for (const auto& contact : m.contacts) {
      const int d = contact.first;
      const auto& body = s.bench.devices[d].part->elements[contact.second].body;
      const auto join = [&](const parts::Node& a, const parts::Node& b, bool atRest, bool otherWay) {
        const auto from = at(s.bench, d, a), to = at(s.bench, d, b);
        if (from < 0 || to < 0) return;
        if (atRest) one.rest.emplace_back(fixed.of(from), fixed.of(to));
        if (otherWay) one.moved.emplace_back(fixed.of(from), fixed.of(to));
      };
      if (const auto* c = std::get_if<parts::Contact>(&body)) {
        slides = slides || c->moved == parts::Moved::Slides;
        const bool closed = c->closedInUse();
        join(c->a, c->b, closed, !closed);
      } else {
        const auto& sw = std::get<parts::Switch>(body);
        join(sw.a, sw.b, bench::relayClosed(sw, false).value_or(false), bench::relayClosed(sw, true).value_or(false));
      }
    }
    if (!slides) out.push_back(std::move(one));
  }
  return out;
}

class Trying {
 public:
  explicit Trying(const SolvedBench& s) : m_s(s), m_fixed(s.bench, false), m_movers(moversOf(s, m_fixed)) { keepBetweenPoles(); }

  Findings all() {
    Findings out;
    if (m_movers.size() < 2) return out;
    if (m_movers.size() > kMostContacts) {
      out.push_back(tooMany());
      return out;
    }
    for (std::size_t size = 0; size <= std::min(kMostAtOnce, m_movers.size()); ++size) tryAll(size, out);
    return out;
  }

 private:
  const SolvedBench& m_s;
  const bench::Nets m_fixed;
  std::vector<Mover> m_movers;
  std::vector<unsigned> m_known;  // sets that short something: what holds one of them says nothing new

  // What is in no way from a plus to its minus cannot close one.
  void keepBetweenPoles() {
    Groups groups(static_cast<std::size_t>(m_fixed.count()));
    for (const auto& m : m_movers)
      for (const auto* joined : {&m.rest, &m.moved})
        for (const auto& [a, b] : *joined) groups.join(a, b);
    std::erase_if(m_movers, [&](const Mover& m) {
      const auto& any = m.moved.empty() ? m.rest : m.moved;
      return any.empty() || std::ranges::none_of(m_s.nets.sources(), [&](const bench::Nets::Pole& pole) {
               return groups.find(m_fixed.of(pole.positive)) == groups.find(any.front().first) &&
                      groups.find(m_fixed.of(pole.negative)) == groups.find(any.front().first);
             });
    });
  }

  const bench::Nets::Pole* shorted(unsigned set) const {
    Groups groups(static_cast<std::size_t>(m_fixed.count()));
    for (std::size_t k = 0; k < m_movers.size(); ++k)
      for (const auto& [a, b] : (set >> k & 1U) != 0 ? m_movers[k].moved : m_movers[k].rest) groups.join(a, b);
    for (const auto& pole : m_s.nets.sources())
      if (groups.find(m_fixed.of(pole.positive)) == groups.find(m_fixed.of(pole.negative))) return &pole;
    return nullptr;
  }

  void tryAll(std::size_t size, Findings& out) {
    for (unsigned set = 0; set < 1U << m_movers.size(); ++set) {
      if (static_cast<std::size_t>(std::popcount(set)) != size) continue;
      if (std::ranges::any_of(m_known, [&](unsigned k) { return (set & k) == k; })) continue;
      const auto* pole = shorted(set);
      if (!pole) continue;
      m_known.push_back(set);
      // One by itself is worked out, as is what shorts with nothing moved.
      if (size >= 2) out.push_back(together(set, *pole));
    }
  }

  Finding together(unsigned set, const bench::Nets::Pole& pole) const {
    std::string titles;
    std::vector<std::string> subjects{idOf(m_s.bench, pole.device)};
    bool byHand = true;
    for (std::size_t k = 0; k < m_movers.size(); ++k) {
      if ((set >> k & 1U) == 0) continue;
      titles += (titles.empty() ? "" : " and ") + m_movers[k].title;
      byHand = byHand && !m_movers[k].relay;
      if (const auto& id = idOf(m_s.bench, m_movers[k].device); std::ranges::count(subjects, id) == 0) subjects.push_back(id);
    }
    const auto& name = called(m_s.bench, pole.device);
    auto f = finding(byHand ? Severity::Stop : Severity::Caution, fmt::format("{} together short {}", titles, name),
                     fmt::format("With {} copper joins the plus and the minus of {}.{}", titles, name,
                                 byHand ? "" : " Nothing but the program keeps that from happening."),
                     std::move(subjects));
    f.ways = {{byHand ? "Wire them so that no position joins plus and minus: with contacts that change over."
                      : "Wire each lead to a contact that changes over, plus on the one side and minus on the other: then no program can "
                        "join them."}};
    f.formula = fmt::format("{} and {} are one net", m_s.bench.called(pole.positive), m_s.bench.called(pole.negative));
    return f;
  }

  Finding tooMany() const {
    auto f = finding(Severity::NotJudged, fmt::format("{} contacts lie between plus and minus", m_movers.size()),
                     fmt::format("{} switches, buttons and relays lie between the poles of a supply; what they close together is worked "
                                 "out for {} at most.",
                                 m_movers.size(), kMostContacts),
                     {idOf(m_s.bench, m_movers.front().device)});
    f.ways = {{"Divide the bench into benches with supplies of their own."}};
    f.formula = fmt::format("{} > {}", m_movers.size(), kMostContacts);
    return f;
  }
};

}  // namespace

// Contacts that only together join the poles of a supply. One by itself is worked out and judged as everything else.
Findings judge(const SolvedBench& s) {
  return Trying(s).all();
}

Check check() {
  return {"contacts-short", "voltage", "Contacts that together short a supply", Harm::Danger, judge};
}

}  // namespace bold::checks::contacts_short
