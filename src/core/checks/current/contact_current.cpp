#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/checks/current/contact_ratings.h"
#include "core/checks/queries.h"

namespace bold::checks {
// Every contact with its running current: breadboard holes, pins, sockets, screws.
Findings contactCurrent(const SolvedBench& s) {
  Findings out;
  std::set<TerminalIndex> told;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    if (link.a == link.b) continue;
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.link(static_cast<int>(l)).value); });
    for (const auto t : {link.a, link.b}) {
      const auto& contact = s.bench.facts(t).place.contact;
      const auto rating = contactRating(contact);
      if (!rating || worst.value <= rating->value || !told.insert(t).second) continue;
      const bool stop = worst.value > 2 * rating->value;
      auto f =
          finding(stop ? Severity::Stop : Severity::Caution, fmt::format("{} carries {}", s.bench.called(t), show(Amps{worst.value})),
                  fmt::format("With {} the {} {} carries {}; such a contact carries {}.", during(*worst.point),
                              contact == "hole" ? "breadboard hole" : contact, s.bench.called(t), show(Amps{worst.value}), show(*rating)),
                  {s.bench.address(t)});
      f.formula = fmt::format("{} > {}", show(Amps{worst.value}), show(*rating));
      f.args = {{"current", Amps{worst.value}}, {"rating", *rating}};
      f.bar = Bar{"contact current", Amps{worst.value}, {}, *rating, "rating"};
      f.sources = {"recalled, not re-read"};
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
