#include "core/parts/truth_table.h"

#include <algorithm>
#include <set>

namespace bold::parts {
namespace {

constexpr std::size_t kMostInputs = 10;
constexpr double kSuppliesThere = 1000;  // V across whatever a condition asks for

bool isHigh(const Part& part, const Condition& c, const std::map<std::string, Level>& inputs) {
  Condition::World world;
  world.level = [&](const std::string& t) {
    const auto it = inputs.find(t);
    return it == inputs.end() ? Level::Undefined : it->second;
  };
  // Supplies are present; between signals (an isolated input left alone) there is nothing.
  world.volts = [&](const std::string& a, const std::string&) {
    const auto* t = part.find(a);
    return std::optional<double>(t && t->supply ? 1e3 : 0);
  };
  return c.evaluate(world) == Level::High;
}

// Transistor channels: the signals are named in the order of the outputs.
std::vector<std::string> lowSideInputs(const Channel& c) {
  if (c.out.size() == 1 && c.signals.contains("in")) return {c.signals.at("in")};
  std::vector<std::string> out;
  for (std::size_t i = 1; i <= c.out.size(); ++i) {
    const auto it = c.signals.find("in" + std::to_string(i));
    out.push_back(it == c.signals.end() ? std::string() : it->second);
  }
  return out;
}

// The switches and choppers that decide a channel's outputs.
std::vector<const Element*> deciding(const Part& part, const Channel& channel) {
  std::vector<const Element*> out;
  for (const auto& e : part.elements) {
    const auto* s = std::get_if<Switch>(&e.body);
    const bool here = s && std::ranges::count(channel.out, s->a) + std::ranges::count(channel.out, s->b) > 0;
    if (here || std::holds_alternative<Chopper>(e.body)) out.push_back(&e);
  }
  return out;
}

const Condition& conditionOf(const Element& e) {
  const auto* s = std::get_if<Switch>(&e.body);
  return s ? s->on : std::get<Chopper>(e.body).on;
}

// @param on those that are on
Drive driveOf(const std::string& out, const std::vector<const Element*>& on) {
  bool high = false;
  bool low = false;
  for (const auto* e : on) {
    if (const auto* s = std::get_if<Switch>(&e->body)) {
      high = high || s->b == out;
      low = low || s->a == out;
    } else {
      for (const auto& [a, b] : std::get<Chopper>(e->body).coils) {
        high = high || a == out;
        low = low || b == out;
      }
    }
  }
  return high && low ? Drive::Short : high ? Drive::High : low ? Drive::Low : Drive::Open;
}

}  // namespace

std::vector<TruthRow> truthTable(const Part& part, const Channel& channel) {
  std::set<std::string> inputs;
  const auto lowSide = lowSideInputs(channel);
  const auto elements = deciding(part, channel);
  if (channel.lowSide) {
    inputs.insert(lowSide.begin(), lowSide.end());
    inputs.erase("");
  } else {
    for (const auto* e : elements) inputs.insert(conditionOf(*e).inputs().begin(), conditionOf(*e).inputs().end());
  }
  const std::vector<std::string> names(inputs.begin(), inputs.end());
  std::vector<TruthRow> rows;
  if (names.size() > kMostInputs) return rows;
  for (std::size_t n = 0; n < (std::size_t{1} << names.size()); ++n) {
    TruthRow row;
    for (std::size_t k = 0; k < names.size(); ++k) row.inputs[names[k]] = ((n >> k) & 1U) != 0 ? Level::High : Level::Low;
    std::vector<const Element*> on;
    if (!channel.lowSide)
      std::ranges::copy_if(elements, std::back_inserter(on), [&](const Element* e) { return isHigh(part, conditionOf(*e), row.inputs); });
    for (std::size_t o = 0; o < channel.out.size(); ++o) {
      if (channel.lowSide)
        row.outputs.push_back(o < lowSide.size() && !lowSide[o].empty() && row.inputs[lowSide[o]] == Level::High ? Drive::Low
                                                                                                                 : Drive::Open);
      else
        row.outputs.push_back(driveOf(channel.out[o], on));
    }
    rows.push_back(std::move(row));
  }
  return rows;
}

bool decides(const std::vector<TruthRow>& rows, const std::string& input, std::size_t output) {
  std::map<std::map<std::string, Level>, Drive> seen;  // by the other inputs
  return std::ranges::any_of(rows, [&](const TruthRow& row) {
    auto others = row.inputs;
    others.erase(input);
    const auto [it, fresh] = seen.try_emplace(std::move(others), row.outputs[output]);
    return !fresh && it->second != row.outputs[output];
  });
}

BridgeAction bridgeAction(Drive first, Drive second) {
  if (first == Drive::Short || second == Drive::Short) return BridgeAction::Short;
  if (first == Drive::Open || second == Drive::Open) return BridgeAction::Coast;
  if (first == second) return BridgeAction::Brake;
  return first == Drive::High ? BridgeAction::Forward : BridgeAction::Reverse;
}

std::optional<Level> enablingLevel(const Part& part, const std::string& input) {
  for (const auto& e : part.elements) {
    const auto* pins = std::get_if<Pins>(&e.body);
    if (!pins || pins->on.empty()) continue;
    for (const auto level : {Level::High, Level::Low}) {
      const auto otherwise = pins->on.evaluate({[&](const Node& n) { return n == input ? !level : Level::Undefined; },
                                                [](const Node&, const Node&) -> std::optional<double> { return kSuppliesThere; }});
      if (otherwise == Level::Low) return level;
    }
  }
  return std::nullopt;
}

}  // namespace bold::parts
