#include "core/checks/margin.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

namespace bold::checks {
namespace {

constexpr double kMostUsed = 1000;  // beyond any need to know by how much

// Of one limit; nothing when it is unknown.
std::optional<double> usedOf(const Limit& limit, double value, std::optional<double> from) {
  if (limit.least && limit.most) {
    const double middle = (*limit.least + *limit.most) / 2;
    const double half = (*limit.most - *limit.least) / 2;
    return half > 0 ? std::abs(value - middle) / half : value == middle ? 1 : kMostUsed;
  }
  if (limit.most) {
    const double way = *limit.most - from.value_or(0);
    if (way > 0) return (value - from.value_or(0)) / way;
    return value > *limit.most ? kMostUsed : 1;  // nothing is left to be used
  }
  if (!limit.least) return std::nullopt;
  if (from && *from > *limit.least) return (*from - value) / (*from - *limit.least);
  if (*limit.least <= 0) return value < *limit.least ? kMostUsed : 0;
  return value > 0 ? *limit.least / value : kMostUsed;
}

Limit limitOf(LimitKind kind, Severity consequence, std::optional<double> least, std::optional<double> most, std::string_view name,
              std::string source) {
  return {kind, consequence, least, most, name, std::move(source)};
}

}  // namespace

Limit atMost(LimitKind kind, Severity consequence, std::optional<double> most, std::string_view name, std::string source) {
  return limitOf(kind, consequence, std::nullopt, most, name, std::move(source));
}
Limit atLeast(LimitKind kind, Severity consequence, std::optional<double> least, std::string_view name, std::string source) {
  return limitOf(kind, consequence, least, std::nullopt, name, std::move(source));
}
Limit within(LimitKind kind, Severity consequence, std::optional<double> least, std::optional<double> most, std::string_view name,
             std::string source) {
  return limitOf(kind, consequence, least, most, name, std::move(source));
}

const Limit* Margin::passed() const {
  const Limit* gravest = nullptr;
  if (value)
    for (const auto& l : limits)
      if (l.passedBy(*value) && (!gravest || detail::rank(l.consequence) <= detail::rank(gravest->consequence))) gravest = &l;
  return gravest;
}

bool Margin::stops() const {
  const auto* limit = passed();
  return limit && limit->consequence == Severity::Stop;
}

bool Margin::onlyNotes() const {
  return std::ranges::all_of(limits, [](const Limit& l) { return l.consequence == Severity::Note; });
}

const Limit* Margin::judged() const {
  const bool notesToo = onlyNotes();
  const Limit* nearest = nullptr;
  double most = -1e300;
  for (const auto& l : limits) {
    if (!notesToo && l.consequence == Severity::Note) continue;
    const auto used = value ? usedOf(l, *value, from) : std::nullopt;
    if (used && *used > most) {
      most = *used;
      nearest = &l;
    }
  }
  if (nearest) return nearest;
  for (const auto& l : limits)
    if (l.known() && (notesToo || l.consequence != Severity::Note)) return &l;
  return nullptr;
}

std::optional<double> Margin::used() const {
  const auto* limit = judged();
  if (!value || !limit) return std::nullopt;
  const auto used = usedOf(*limit, *value, from);
  return used ? std::optional(std::clamp(*used, 0.0, kMostUsed)) : std::nullopt;
}

std::string Margin::identity() const {
  auto sorted = subjects;
  std::ranges::sort(sorted);
  std::string id = check + " " + quantity;
  for (const auto& s : sorted) id += " " + s;
  return id;
}

std::string_view word(LimitKind kind) {
  switch (kind) {
    case LimitKind::Promised:
      return "promised";
    case LimitKind::Recommended:
      return "recommended";
    case LimitKind::Absolute:
      return "absolute";
  }
  return {};
}

Bar barOf(const Margin& margin, double limit, std::string limitName, std::optional<AnyQuantity> inner, bool floor) {
  return {margin.quantity, {margin.value.value_or(0), margin.unit}, inner, {limit, margin.unit}, std::move(limitName), floor};
}

Findings asOne(Findings findings) {
  Findings out;
  std::vector<int> more;
  for (auto& f : findings) {
    const auto it = std::ranges::find_if(out, [&](const Finding& o) { return o.severity == f.severity && o.formula == f.formula; });
    if (it == out.end()) {
      out.push_back(std::move(f));
      more.push_back(0);
      continue;
    }
    ++more[it - out.begin()];
    for (auto& subject : f.subjects)
      if (std::ranges::count(it->subjects, subject) == 0) it->subjects.push_back(std::move(subject));
  }
  for (std::size_t k = 0; k < out.size(); ++k)
    if (more[k] > 0) out[k].text += fmt::format(" The same goes for {} more.", more[k]);
  return out;
}

Said asOne(Said said) {
  said.findings = asOne(std::move(said.findings));
  return said;
}

Said operator+(Said a, Said b) {
  for (auto& f : b.findings) a.findings.push_back(std::move(f));
  for (auto& m : b.margins) a.margins.push_back(std::move(m));
  return a;
}

int detail::rank(Severity severity) {
  switch (severity) {
    case Severity::Stop:
      return 0;
    case Severity::NotJudged:
      return 1;
    case Severity::Caution:
      return 2;
    case Severity::Note:
      return 3;
  }
  return 4;
}

}  // namespace bold::checks
