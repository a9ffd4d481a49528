#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/checks/margin_words.h"
#include "core/report/report.h"
#include "core/report/wrap.h"

namespace bold::report {
namespace {

using checks::Limit;
using checks::Margin;

constexpr int kIndent = 9;

std::string textOf(const bench::Bench& bench, const Margin& m, int width) {
  auto out = wrap(fmt::format("{:>7}  ", checks::percentUsed(m)),
                  fmt::format("{}: {} {} [{}]", checks::placeOf(bench, m), m.quantity,
                              m.value ? checks::shown(*m.value, m.unit) : "not known", m.check),
                  width);
  std::string limits;
  for (const auto& l : m.limits)
    limits +=
        fmt::format("{}{} ({}: {}, {})", limits.empty() ? "" : "; ", checks::bounds(l, m.unit), l.name, word(l.kind), word(l.consequence));
  const std::string indent(kIndent, ' ');
  if (!limits.empty()) out += wrap(indent, limits, width);
  std::string when;
  if (!m.command.empty()) when = "with " + m.command;
  if (m.corner) when += fmt::format("{}supply {}", when.empty() ? "" : ", ", word(*m.corner));
  if (!when.empty()) out += wrap(indent, when, width);
  for (const auto& a : m.assumed) out += wrap(indent + "taken: ", a, width);
  return out;
}

Json quantityOrNull(std::optional<double> value, Unit unit) {
  return value ? Json{{"value", *value}, {"unit", unitSign(unit)}} : Json(nullptr);
}

Json jsonOf(const Margin& m) {
  Json j;
  j["check"] = m.check;
  j["quantity"] = m.quantity;
  j["subjects"] = m.subjects;
  j["value"] = quantityOrNull(m.value, m.unit);
  j["used"] = m.used() ? Json(*m.used()) : Json(nullptr);
  j["from"] = quantityOrNull(m.from, m.unit);
  j["limits"] = Json::array();
  for (const auto& l : m.limits)
    j["limits"].push_back({{"name", l.name},
                           {"kind", word(l.kind)},
                           {"consequence", word(l.consequence)},
                           {"least", quantityOrNull(l.least, m.unit)},
                           {"most", quantityOrNull(l.most, m.unit)},
                           {"judged", &l == m.judged()},
                           {"passed", m.value && l.passedBy(*m.value)},
                           {"source", l.source}});
  j["supply"] = m.corner ? Json(word(*m.corner)) : Json(nullptr);
  j["command"] = m.command.empty() ? Json(nullptr) : Json(m.command);
  j["assumed"] = m.assumed;
  return j;
}

}  // namespace

std::string margins(const Analysis& a, int width) {
  std::string out = wrap("", "Margins, the tightest first: how much of the way to the limit it is held to is used.", width);
  const auto all = a.margins();
  if (all.empty()) out += wrap("", "Nothing was measured.", width);
  for (const auto& m : all) out += textOf(a.solved->bench, m, width);
  std::string without;
  for (const auto& c : checks::registry())
    if (!c.measures()) without += (without.empty() ? "" : ", ") + std::string(c.id);
  return out + "\n" + wrap("", "Decided by the wires, without a number: " + without + ".", width);
}

Json marginsJson(const Analysis& a) {
  Json j;
  j["margins"] = Json::array();
  for (const auto& m : a.margins()) j["margins"].push_back(jsonOf(m));
  j["withoutNumber"] = Json::array();
  for (const auto& c : checks::registry())
    if (!c.measures()) j["withoutNumber"].push_back(c.id);
  return j;
}

}  // namespace bold::report
