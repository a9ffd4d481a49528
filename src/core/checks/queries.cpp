#include "core/checks/queries.h"

#include <fmt/core.h>

#include <algorithm>

namespace bold::checks {

Severity onceEmpty(const SolvedBench& s) {
  return std::ranges::any_of(s.nets.sources(), [&](const auto& pole) { return !sourceBody(s.bench, pole).limit.known(); })
             ? Severity::Note
             : Severity::Caution;
}

std::string show(AnyQuantity q) {
  return displayText(q);
}

std::string against(AnyQuantity value, std::string_view sign, AnyQuantity limit) {
  constexpr int kMostMore = 3;
  int more = 0;
  while (more < kMostMore && displayText(value, more) == displayText(limit, more)) ++more;
  return fmt::format("{} {} {}", displayText(value, more), sign, displayText(limit, more));
}

Finding finding(Severity severity, std::string headline, std::string text, std::vector<std::string> subjects) {
  Finding f;
  f.severity = severity;
  f.headline = std::move(headline);
  f.text = std::move(text);
  f.subjects = std::move(subjects);
  return f;
}

Finding finding(std::string headline, std::string text, std::vector<std::string> subjects) {
  return finding(Severity::Note, std::move(headline), std::move(text), std::move(subjects));
}

Field fieldOf(const SolvedBench& s, const Motor& motor, std::string name) {
  return {idOf(s.bench, motor.device), std::move(name)};
}

Field figureOf(const Bench& bench, int device, std::string_view figure) {
  const bool has = bench.devices[device].part->figure(std::string(figure));
  return {idOf(bench, device), has ? fmt::format("figure {}", figure) : std::string()};
}

Field settingOf(const Bench& bench, int device, std::string_view setting) {
  return {idOf(bench, device), fmt::format("setting {}", setting)};
}

std::vector<std::string> sourcesOf(std::initializer_list<const Figure*> figures) {
  std::vector<std::string> out;
  for (const auto* f : figures)
    if (!f->source.empty() && std::ranges::count(out, f->source) == 0) out.push_back(f->source);
  return out;
}

}  // namespace bold::checks
