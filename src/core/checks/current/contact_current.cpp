#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/checks/check.h"
#include "core/checks/current/contact_ratings.h"
#include "core/checks/queries.h"

namespace bold::checks::contact_current {
namespace {

constexpr double kStopShare = 2;   // times the rating
constexpr double kWhileHeld = 4;   // times the rating: it welds or comes loose within seconds
constexpr double kNothing = 1e-9;  // A: a contact that carries nothing at all has no margin

struct Carried {
  Margin margin;
  Extreme most;
  Amps rating;
  const Figure* source;  // of a connector; nullptr: of a contact by its class
  TerminalIndex contact;
  int connector;
  std::size_t place = 0;  // among all ends of connections, where it was measured
};

enum class While { Running, Held };

Margin marginOf(std::string subject, const Extreme& most, Amps rating, const std::string& source, While when) {
  Margin m{.quantity = when == While::Running ? "contact current" : "contact current while a motor is held",
           .subjects = {std::move(subject)},
           .unit = Unit::Amp,
           .value = most.known(),
           .at = most.point};
  if (when == While::Running)
    m.limits = rising(atMost(LimitKind::Recommended, Severity::Caution, rating.value, "rating", source),
                      atMost(LimitKind::Recommended, Severity::Stop, kStopShare * rating.value, "2 x rating", source));
  else
    m.limits = rising(atMost(LimitKind::Recommended, Severity::Caution, kWhileHeld * rating.value, "4 x rating", source));
  return m;
}

bool counts(const OperatingPoint& p, While when) {
  return when == While::Running ? steady(p) : everyday(p) && p.command().moment == Moment::Stalled;
}

// Connectors between wires, by the rating of their part: the contact that carries most.
std::vector<Carried> connectors(const SolvedBench& s, While when) {
  std::map<int, Carried> worst;  // by device
  eachElement<parts::Contact>(s.bench, [&](int d, int e, const parts::Contact& c) {
    const auto rating = c.rating.typicalAs<Amps>();
    if (!c.connector || !rating) return;
    const auto most = largest(
        s, [&](const OperatingPoint& p) { return counts(p, when); },
        [&](const OperatingPoint& p) { return std::abs(p.element(d, e).value); });
    if (when == While::Held && !most.point) return;
    const auto known = worst.find(d);
    if (known != worst.end() && known->second.most.value >= most.value) return;
    worst.insert_or_assign(d, Carried{marginOf(idOf(s.bench, d), most, *rating, c.rating.source, when), most, *rating, &c.rating, -1, d});
  });
  std::vector<Carried> out;
  for (auto& [d, c] : worst) out.push_back(std::move(c));
  return out;
}

// Breadboard holes, pins, sockets and screws, by their class: the connection that carries most.
std::vector<Carried> contacts(const SolvedBench& s, While when) {
  std::vector<Carried> out;
  std::map<TerminalIndex, std::size_t> known;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    if (link.a == link.b) continue;
    const auto worst = largest(
        s, [&](const OperatingPoint& p) { return counts(p, when); },
        [&](const OperatingPoint& p) { return std::abs(p.link(static_cast<int>(l)).value); });
    if ((worst.asked || when == While::Held) && worst.value < kNothing) continue;
    for (const auto t : {link.a, link.b}) {
      const auto rating = contactRating(s.bench.facts(t).place.contact);
      if (!rating) continue;
      const auto place = 2 * l + (t == link.a ? 0 : 1);
      const auto [it, fresh] = known.emplace(t, out.size());
      // The first connection that is too much speaks for its contact; until then the one that carries most.
      if (fresh)
        out.push_back({marginOf(s.bench.address(t), worst, *rating, "recalled, not re-read", when), worst, *rating, nullptr, t, -1, place});
      else if (auto& c = out[it->second]; c.most.value <= rating->value && worst.value > c.most.value) {
        c.most = worst;
        c.place = place;
        c.margin = marginOf(s.bench.address(t), worst, *rating, "recalled, not re-read", when);
      }
    }
  }
  std::ranges::stable_sort(out, {}, &Carried::place);
  return out;
}

// What is too much for long is said once, not for the start as well.
std::vector<Carried> both(std::vector<Carried> running, std::vector<Carried> held) {
  for (auto& h : held) {
    const auto same = std::ranges::find_if(running, [&](const Carried& r) { return r.margin.subjects == h.margin.subjects; });
    if (same == running.end() || !same->margin.passed()) running.push_back(std::move(h));
  }
  return running;
}

}  // namespace

// Every contact with its running current, and with what it carries while a motor is held: breadboard holes, pins, sockets, screws,
// connectors.
Said judge(const SolvedBench& s) {
  const auto withNumbers = [&](Finding f, const Carried& c) {
    f.formula = against(Amps{c.most.value}, ">", c.rating);
    f.args = {{"current", Amps{c.most.value}}, {"rating", c.rating}};
    f.bar = barOf(c.margin, c.rating.value, "rating");
    f.ways = {c.connector >= 0
                  ? Way{fmt::format("Take a connector for {} or more, or join the wires without one.", show(Amps{c.most.value}))}
                  : Way{fmt::format("Lead this current by a wire that is screwed or soldered on, past {}.", s.bench.called(c.contact))}};
    f.sources = c.source ? sourcesOf({c.source}) : std::vector<std::string>{"recalled, not re-read"};
    return f;
  };
  return say(both(connectors(s, While::Running), connectors(s, While::Held)),
             [&](const Carried& c) {
               const Amps amps{c.most.value};
               return withNumbers(finding(fmt::format("{} carries {}", called(s.bench, c.connector), show(amps)),
                                          fmt::format("With {} a contact of {} carries {}; such a connector carries {}.",
                                                      during(*c.most.point), called(s.bench, c.connector), show(amps), show(c.rating)),
                                          c.margin.subjects),
                                  c);
             }) +
         asOne(say(both(contacts(s, While::Running), contacts(s, While::Held)), [&](const Carried& c) {
           const Amps amps{c.most.value};
           const auto& contact = s.bench.facts(c.contact).place.contact;
           const auto name = s.bench.called(c.contact);
           return withNumbers(finding(fmt::format("{} carries {}", name, show(amps)),
                                      fmt::format("With {} the {} {} carries {}; such a contact carries {}.", during(*c.most.point),
                                                  contact == "hole" ? "breadboard hole" : contact, name, show(amps), show(c.rating)),
                                      c.margin.subjects),
                              c);
         }));
}

Check check() {
  return {"contact-current", "current", "More than a contact carries", Harm::Damage, judge};
}

}  // namespace bold::checks::contact_current
