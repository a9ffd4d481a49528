#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/checks/current/contact_ratings.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

Severity over(double amps, double rating) {
  return amps > 2 * rating ? Severity::Stop : Severity::Caution;
}

void say(Finding& f, double amps, Amps rating) {
  f.formula = fmt::format("{} > {}", show(Amps{amps}), show(rating));
  f.args = {{"current", Amps{amps}}, {"rating", rating}};
  f.bar = Bar{"contact current", Amps{amps}, {}, rating, "rating"};
}

// Connectors between wires, by the rating of their part: the contact that carries most.
void connectors(const SolvedBench& s, Findings& out) {
  std::map<int, Finding> worst;  // by device
  eachElement<parts::Contact>(s.bench, [&](int d, int e, const parts::Contact& c) {
    const auto rating = c.rating.typicalAs<Amps>();
    if (!c.connector || !rating) return;
    const auto most = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.element(d, e).value); });
    const auto known = worst.find(d);
    if (most.value <= rating->value || (known != worst.end() && known->second.args.at("current").value >= most.value)) return;
    auto f = finding(over(most.value, rating->value), fmt::format("{} carries {}", called(s.bench, d), show(Amps{most.value})),
                     fmt::format("With {} a contact of {} carries {}; such a connector carries {}.", during(*most.point),
                                 called(s.bench, d), show(Amps{most.value}), show(*rating)),
                     {idOf(s.bench, d)});
    say(f, most.value, *rating);
    f.sources = sourcesOf({&c.rating});
    worst.insert_or_assign(d, std::move(f));
  });
  for (auto& [d, f] : worst) out.push_back(std::move(f));
}

}  // namespace

// Every contact with its running current: breadboard holes, pins, sockets, screws, connectors.
Findings contactCurrent(const SolvedBench& s) {
  Findings out;
  connectors(s, out);
  std::set<TerminalIndex> told;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    if (link.a == link.b) continue;
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.link(static_cast<int>(l)).value); });
    for (const auto t : {link.a, link.b}) {
      const auto& contact = s.bench.facts(t).place.contact;
      const auto rating = contactRating(contact);
      if (!rating || worst.value <= rating->value || !told.insert(t).second) continue;
      auto f =
          finding(over(worst.value, rating->value), fmt::format("{} carries {}", s.bench.called(t), show(Amps{worst.value})),
                  fmt::format("With {} the {} {} carries {}; such a contact carries {}.", during(*worst.point),
                              contact == "hole" ? "breadboard hole" : contact, s.bench.called(t), show(Amps{worst.value}), show(*rating)),
                  {s.bench.address(t)});
      say(f, worst.value, *rating);
      f.sources = {"recalled, not re-read"};
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
