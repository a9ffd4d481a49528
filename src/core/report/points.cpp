#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/json.h"
#include "core/bench/doing_words.h"
#include "core/bench/queries.h"
#include "core/bench/shown_voltage.h"
#include "core/report/json_quantity.h"
#include "core/report/report.h"

namespace bold::report {
namespace {

using bench::Corner;
using bench::OperatingPoint;
using bench::SolvedBench;
using bench::TerminalIndex;

constexpr Amps kWorthALine{1e-3};  // in text; JSON holds everything

std::optional<Volts> motorVolts(const SolvedBench& s, const OperatingPoint& p, const bench::Motor& m, std::size_t winding) {
  const auto& w = bench::windingOf(s.bench, m, winding);
  return p.across(s.bench.terminal(m.device, w.a), s.bench.terminal(m.device, w.b));
}

template <class Q>
Json maybe(const std::optional<Q>& q) {
  return q ? quantity(*q) : Json(nullptr);
}

Json asJson(const SolvedBench& s, const OperatingPoint& p) {
  Json j;
  j["command"] = p.command().id;
  j["supply"] = word(p.corner());
  j["solved"] = p.solved();
  if (!p.solved()) {
    j["whyNot"] = p.whyNot();
    return j;
  }
  j["hunts"] = p.hunts();
  j["motors"] = Json::array();
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    Json one{{"motor", bench::idOf(s.bench, m.device)}, {"does", bench::word(p.doing(static_cast<int>(k)))}};
    one["windings"] = Json::array();
    for (std::size_t i = 0; i < m.windings.size(); ++i)
      one["windings"].push_back({{"voltage", maybe(motorVolts(s, p, m, i))}, {"current", quantity(p.element(m.device, m.windings[i]))}});
    j["motors"].push_back(one);
  }
  j["sources"] = Json::array();
  for (const auto& pole : s.nets.sources())
    j["sources"].push_back({{"source", bench::idOf(s.bench, pole.device)},
                            {"voltage", maybe(p.across(pole.positive, pole.negative))},
                            {"current", quantity(p.element(pole.device, pole.element))}});
  j["wires"] = Json::array();
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    j["wires"].push_back({{"connection", s.bench.connections[link.connection].id},
                          {"from", s.bench.address(link.a)},
                          {"to", s.bench.address(link.b)},
                          {"current", quantity(p.link(static_cast<int>(l)))}});
  }
  j["terminals"] = Json::array();
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t)
    if (s.bench.connected(t))
      j["terminals"].push_back({{"terminal", s.bench.address(t)}, {"voltage", maybe(bench::shownVoltage(s, p, t))}});
  return j;
}

std::string amps(Amps i) {
  return displayText(Amps{std::abs(i.value)});
}

std::string asText(const SolvedBench& s, const OperatingPoint& p) {
  std::string out = fmt::format("{}, supplies {}\n", p.command().title, word(p.corner()));
  if (!p.solved()) return out + fmt::format("  not solved: {}\n", p.whyNot());
  if (p.hunts()) out += "  a stage goes off and on, for want of supply: shown while it is on\n";
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    out += fmt::format("  {:<22} {}", bench::called(s, m), bench::doingWords(p, static_cast<int>(k)));
    for (std::size_t i = 0; i < m.windings.size(); ++i) {
      const auto v = motorVolts(s, p, m, i);
      out += fmt::format("{}{} {}", i == 0 ? "  " : ", ", v ? displayText(*v) : "no path", amps(p.element(m.device, m.windings[i])));
    }
    out += "\n";
  }
  out += "  sources\n";
  for (const auto& pole : s.nets.sources()) {
    const auto v = p.across(pole.positive, pole.negative);
    out += fmt::format("    {:<30} {:>9}  {:>9}\n", bench::called(s.bench, pole.device), v ? displayText(*v) : "?",
                       displayText(p.element(pole.device, pole.element)));
  }
  out += "  wires\n";
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    const auto i = p.link(static_cast<int>(l));
    if (std::abs(i.value) < kWorthALine.value) continue;
    // Written the way the current flows.
    const auto from = i.value > 0 ? link.a : link.b;
    const auto to = i.value > 0 ? link.b : link.a;
    const auto v = bench::shownVoltage(s, p, from);
    out += fmt::format("    {:<20} to {:<20} {:>9}  at {:>9}\n", s.bench.address(from), s.bench.address(to), amps(i),
                       v ? displayText(*v) : "?");
  }
  return out;
}

bool wanted(const OperatingPoint& p, const PointsOptions& options) {
  return (options.command.empty() || p.command().id == options.command) && (!options.corner || p.corner() == *options.corner);
}

}  // namespace

std::string_view word(Corner corner) {
  switch (corner) {
    case Corner::Full:
      return "full";
    case Corner::Nominal:
      return "nominal";
    case Corner::Empty:
      return "empty";
    case Corner::Strong:
      return "strong";
  }
  return {};
}

std::string points(const std::string& file, const harness::Harness& harness, const Analysis& a, const PointsOptions& options) {
  const auto& s = *a.solved;
  if (options.json) {
    Json j;
    j["file"] = file;
    j["title"] = harness.title;
    j["points"] = Json::array();
    for (const auto& p : s.points)
      if (wanted(*p, options)) j["points"].push_back(asJson(s, *p));
    return jsonText(j);
  }
  std::string out;
  for (const auto& p : s.points) {
    if (!wanted(*p, options)) continue;
    if (!out.empty()) out += '\n';
    out += asText(s, *p);
  }
  return out;
}

}  // namespace bold::report
