#include "core/choose/channel_use.h"

#include <algorithm>

namespace bold::choose {
namespace {

using parts::Channel;

constexpr std::size_t kCoils = 4;  // of a unipolar stepper

ChannelUse one(const Channel& c) {
  return {{&c}, c.signals, c.out, {}, {}};
}

// The second bridge's signals have names of their own.
ChannelUse bothBridges(const Channel& a, const Channel& b) {
  static const std::map<std::string, std::string> kSecond{{"in1", "in3"}, {"in2", "in4"}, {"speed", "speed2"}, {"dir", "dir2"}};
  ChannelUse out{{&a, &b}, a.signals, a.out, {}, {}};
  for (const auto& [role, input] : b.signals) out.signals[kSecond.contains(role) ? kSecond.at(role) : role] = input;
  out.out.insert(out.out.end(), b.out.begin(), b.out.end());
  return out;
}

// Crossed, as makers advise: the two halves of a chip share the current more evenly.
ChannelUse joinedAs(const Channel& a, const Channel& b) {
  ChannelUse out{{&a, &b}, a.signals, a.out, {}, {}};
  const bool bridge = a.out.size() == 2;
  for (std::size_t k = 0; k < a.out.size() && k < b.out.size(); ++k) out.joined.emplace_back(b.out[bridge ? 1 - k : k], a.out[k]);
  for (const auto& [role, input] : a.signals) {
    const auto other = bridge && role == "in1" ? "in2" : bridge && role == "in2" ? "in1" : role;
    if (const auto it = b.signals.find(other); it != b.signals.end() && it->second != input) out.joined.emplace_back(it->second, input);
  }
  return out;
}

// The other end of a contact between two terminals of a relay; empty: this is none of its ends.
std::string otherEnd(const parts::Part& stage, const std::string& end) {
  for (const auto& e : stage.elements) {
    const auto* sw = std::get_if<parts::Switch>(&e.body);
    if (sw && sw->contact && sw->a == end) return sw->b;
    if (sw && sw->contact && sw->b == end) return sw->a;
  }
  return {};
}

// Closed while nothing is supplied.
bool closedAtRest(const parts::Part& stage, const std::string& end) {
  return std::ranges::any_of(stage.elements, [&](const parts::Element& e) {
    const auto* sw = std::get_if<parts::Switch>(&e.body);
    return sw && sw->contact && (sw->a == end || sw->b == end) &&
           sw->on.evaluate({[](const parts::Node&) { return parts::Level::Undefined; },
                            [](const parts::Node&, const parts::Node&) -> std::optional<double> { return 0.0; }}) == parts::Level::High;
  });
}

std::optional<ChannelUse> relaysFor(const parts::Part& stage, const std::vector<const Channel*>& free, bool bothWays) {
  ChannelUse out;
  for (const auto* on : free) {
    const auto in = on->signals.find("in");
    if (in == on->signals.end() || on->out.size() != 1 || closedAtRest(stage, on->out[0])) continue;
    RelayContact c{otherEnd(stage, on->out[0]), on->out[0], {}};
    if (c.common.empty()) continue;
    for (const auto* rest : free)
      if (rest->out.size() == 1 && rest->signals == on->signals && closedAtRest(stage, rest->out[0]) &&
          otherEnd(stage, rest->out[0]) == c.common)
        c.rest = rest->out[0];
    if (bothWays && c.rest.empty()) continue;
    out.signals[!bothWays ? "in" : out.contacts.empty() ? "forward" : "reverse"] = in->second;
    out.channels.push_back(on);
    out.contacts.push_back(std::move(c));
    if (out.contacts.size() == (bothWays ? 2u : 1u)) return out;
  }
  return std::nullopt;
}

}  // namespace

std::vector<const parts::Winding*> windingsOf(const parts::Part& motor) {
  std::vector<const parts::Winding*> out;
  for (const auto& e : motor.elements)
    if (const auto* w = std::get_if<parts::Winding>(&e.body)) out.push_back(w);
  return out;
}

bool sharesTap(const std::vector<const parts::Winding*>& w) {
  for (std::size_t i = 0; i < w.size(); ++i)
    for (std::size_t k = i + 1; k < w.size(); ++k)
      if (w[i]->a == w[k]->a || w[i]->b == w[k]->b || w[i]->a == w[k]->b) return true;
  return false;
}

const Channel& ChannelUse::of(const std::string& input) const {
  for (const auto* c : channels)
    if (std::ranges::any_of(c->signals, [&](const auto& s) { return s.second == input; })) return *c;
  return *channels.front();
}

std::optional<ChannelUse> channelsFor(const parts::Part& stage, const parts::Part& motor, const std::set<std::string>& taken,
                                      bool inParallel, bool bothWays) {
  const auto w = windingsOf(motor);
  if (w.empty()) return std::nullopt;
  const bool tap = sharesTap(w);
  std::vector<const Channel*> free;
  for (const auto& c : stage.channels)
    if (std::ranges::none_of(c.out, [&](const auto& o) { return taken.contains(o); })) free.push_back(&c);
  const auto suits = [&](const Channel& c) {
    return tap             ? c.lowSide && c.out.size() >= kCoils
           : w.size() == 2 ? !c.lowSide && c.out.size() == 4
                           : c.out.size() == (c.lowSide ? 1u : 2u);
  };
  for (const auto* c : free) {
    if (!suits(*c)) continue;
    if (!inParallel) return one(*c);
    for (const auto* other : free)
      if (w.size() == 1 && other != c && std::ranges::count(c->parallel, other->id) > 0) return joinedAs(*c, *other);
  }
  if (w.size() == 1 && !inParallel) return relaysFor(stage, free, bothWays);
  if (inParallel || w.size() == 1) return std::nullopt;
  std::erase_if(free, [&](const Channel* c) { return c->lowSide != tap || c->out.size() != (tap ? 1u : 2u); });
  if (!tap && free.size() >= 2) return bothBridges(*free[0], *free[1]);
  if (!tap || free.size() < kCoils) return std::nullopt;
  ChannelUse out;
  for (std::size_t k = 0; k < kCoils; ++k) {
    const auto in = free[k]->signals.find("in");
    if (in == free[k]->signals.end()) return std::nullopt;
    out.channels.push_back(free[k]);
    out.signals["in" + std::to_string(k + 1)] = in->second;
    out.out.push_back(free[k]->out.front());
  }
  return out;
}

}  // namespace bold::choose
