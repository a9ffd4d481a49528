#include "core/parts/truth_table.h"

#include <algorithm>
#include <set>

namespace bold::parts {
namespace {

constexpr std::size_t kMostInputs = 10;

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

Drive driveOf(const Part& part, const std::string& out, const std::map<std::string, Level>& inputs) {
  bool high = false;
  bool low = false;
  for (const auto& e : part.elements) {
    if (const auto* s = std::get_if<Switch>(&e.body)) {
      if (s->b == out && isHigh(part, s->on, inputs)) high = true;
      if (s->a == out && isHigh(part, s->on, inputs)) low = true;
    } else if (const auto* c = std::get_if<Chopper>(&e.body)) {
      for (const auto& [a, b] : c->coils) {
        if (a == out && isHigh(part, c->on, inputs)) high = true;
        if (b == out && isHigh(part, c->on, inputs)) low = true;
      }
    }
  }
  return high && low ? Drive::Short : high ? Drive::High : low ? Drive::Low : Drive::Open;
}

}  // namespace

std::vector<TruthRow> truthTable(const Part& part, const Channel& channel) {
  std::set<std::string> inputs;
  const auto lowSide = lowSideInputs(channel);
  if (channel.lowSide) {
    inputs.insert(lowSide.begin(), lowSide.end());
    inputs.erase("");
  } else {
    for (const auto& e : part.elements) {
      const Condition* on = nullptr;
      if (const auto* s = std::get_if<Switch>(&e.body);
          s && (std::ranges::count(channel.out, s->a) + std::ranges::count(channel.out, s->b) > 0))
        on = &s->on;
      if (const auto* c = std::get_if<Chopper>(&e.body)) on = &c->on;
      if (on) inputs.insert(on->inputs().begin(), on->inputs().end());
    }
  }
  const std::vector<std::string> names(inputs.begin(), inputs.end());
  std::vector<TruthRow> rows;
  if (names.size() > kMostInputs) return rows;
  for (std::size_t n = 0; n < (std::size_t{1} << names.size()); ++n) {
    TruthRow row;
    for (std::size_t k = 0; k < names.size(); ++k) row.inputs[names[k]] = ((n >> k) & 1U) != 0 ? Level::High : Level::Low;
    for (std::size_t o = 0; o < channel.out.size(); ++o) {
      if (channel.lowSide)
        row.outputs.push_back(o < lowSide.size() && !lowSide[o].empty() && row.inputs[lowSide[o]] == Level::High ? Drive::Low
                                                                                                                 : Drive::Open);
      else
        row.outputs.push_back(driveOf(part, channel.out[o], row.inputs));
    }
    rows.push_back(std::move(row));
  }
  return rows;
}

BridgeAction bridgeAction(Drive first, Drive second) {
  if (first == Drive::Short || second == Drive::Short) return BridgeAction::Short;
  if (first == Drive::Open || second == Drive::Open) return BridgeAction::Coast;
  if (first == second) return BridgeAction::Brake;
  return first == Drive::High ? BridgeAction::Forward : BridgeAction::Reverse;
}

}  // namespace bold::parts
