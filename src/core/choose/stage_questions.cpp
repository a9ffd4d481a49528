#include "core/choose/stage_questions.h"

#include <algorithm>
#include <set>

namespace bold::choose {
namespace {

constexpr double kNextTo = 1.001;  // what is rounded is not more
constexpr double kNearly = 0.97;   // what a wire or a diode takes is no other supply

// Whether an element is there with the settings that the part comes with.
bool asItComes(const parts::Part& part, const parts::Element& e) {
  return std::ranges::all_of(e.when, [&](const auto& when) {
    const auto* s = part.setting(when.first);
    return s && s->standard == when.second;
  });
}

const parts::Pins* pinsOf(const parts::Part& board) {
  for (const auto& e : board.elements)
    if (const auto* p = std::get_if<parts::Pins>(&e.body)) return p;
  return nullptr;
}

}  // namespace

std::shared_ptr<const parts::Part> partOf(const parts::Library& library, const harness::Device& device) {
  if (device.overrides.empty()) return library.find(device.part);
  std::vector<Problem> ignored;
  return library.withOverrides(device.part, device.overrides, ignored);
}

bool drivenRole(const std::string& role) {
  static const std::set<std::string> all{"in", "in1", "in2", "in3", "in4", "dir", "dir2", "step", "pulse", "forward", "reverse"};
  return all.contains(role);
}

bool joined(const parts::Part& part, const std::string& a, const std::string& b) {
  return a == b || std::ranges::any_of(part.elements, [&](const parts::Element& e) {
           const auto* j = std::get_if<parts::Joint>(&e.body);
           return j && std::ranges::count(j->nodes, a) > 0 && std::ranges::count(j->nodes, b) > 0;
         });
}

bool feedsItself(const parts::Part& part, const std::string& terminal) {
  return std::ranges::any_of(part.elements, [&](const parts::Element& e) {
    const auto* g = std::get_if<parts::Regulator>(&e.body);
    return g && g->out == terminal && asItComes(part, e);
  });
}

bool pulled(const parts::Part& part, const std::string& input, parts::Level level) {
  return std::ranges::any_of(part.elements, [&](const parts::Element& e) {
    const auto* r = std::get_if<parts::Resistor>(&e.body);
    if (!r || r->conductor || !asItComes(part, e) || (r->a != input && r->b != input)) return false;
    const auto* other = part.find(r->a == input ? r->b : r->a);
    return other && (level == parts::Level::Low ? other->ground : other->supply.has_value());
  });
}

std::vector<std::string> wayBack(const parts::Part& part, const std::string& terminal) {
  std::set<std::string> seen{terminal};
  for (bool more = true; more;) {
    more = false;
    for (const auto& e : part.elements) {
      std::vector<std::string> ends;
      if (const auto* r = std::get_if<parts::Resistor>(&e.body))
        ends = {r->a, r->b};
      else if (const auto* d = std::get_if<parts::Diode>(&e.body); d && d->led)
        ends = {d->anode, d->cathode};
      if (ends.empty() || !asItComes(part, e)) continue;
      for (const int k : {0, 1})
        if (seen.contains(ends[k]) && (ends[k] == terminal || ends[k].starts_with('~')) && seen.insert(ends[1 - k]).second) more = true;
    }
  }
  std::vector<std::string> out;
  for (const auto& end : seen)
    if (end != terminal && !end.starts_with('~')) out.push_back(end);
  return out;
}

Amps inputCurrent(const parts::Part& part, const std::string& input, Volts high) {
  Amps out{};
  for (const auto& e : part.elements) {
    const auto* r = std::get_if<parts::Resistor>(&e.body);
    if (!r || r->conductor || !asItComes(part, e) || (r->a != input && r->b != input)) continue;
    const auto& other = r->a == input ? r->b : r->a;
    const auto* facts = part.find(other);
    const auto least = r->resistance.least();
    if (!least || *least <= 0 || (!other.inner() && !(facts && facts->ground))) continue;
    double drop = 0;
    for (const auto& x : part.elements)
      if (const auto* d = std::get_if<parts::Diode>(&x.body); d && (d->anode == other || d->cathode == other))
        drop = std::max(drop, d->drop.least().value_or(0));
    out = out + Volts{std::max(high.value - drop, 0.0)} / Ohms{*least};
  }
  return out;
}

std::optional<CurrentSwitch> currentSwitch(const parts::Part& part, Amps most) {
  std::optional<CurrentSwitch> out;
  Amps best{};
  for (const auto& s : part.settings)
    for (const auto& v : s.values)
      if (const auto amps = parse<Amps>(v); amps && *amps <= most * kNextTo && *amps > best) {
        best = *amps;
        out = {s.id, s.label, v};
      }
  return out;
}

Volts pinLevel(const parts::Part& board) {
  const auto* pins = pinsOf(board);
  for (const auto& e : board.elements)
    if (const auto* g = std::get_if<parts::Regulator>(&e.body); g && pins && g->out == pins->rail)
      if (const auto v = g->set.typical()) return Volts{*v};
  const auto* rail = pins ? board.find(pins->rail) : nullptr;
  return Volts{rail && rail->supply ? rail->supply->recommended.typical().value_or(5) : 5};
}

const std::pair<std::string, std::string>* jumperAt(const parts::Part& part, const std::string& terminal) {
  const auto it = std::ranges::find_if(part.fitted, [&](const auto& j) { return j.first == terminal || j.second == terminal; });
  return it == part.fitted.end() ? nullptr : &*it;
}

const parts::Requirement* seriesAt(const parts::Part& part, const std::string& terminal) {
  const auto it =
      std::ranges::find_if(part.requirements, [&](const auto& r) { return r.kind == parts::Requirement::Kind::Series && r.a == terminal; });
  return it == part.requirements.end() ? nullptr : &*it;
}

std::optional<std::string> railFor(const parts::Part& board, const parts::SupplyFacts& supply) {
  const auto& need = supply.recommended;
  const auto fits = [&](const Figure& gives) {
    const auto low = gives.least();
    const auto high = gives.greatest();
    return low && high && (!need.min || *low >= kNearly * *need.min) && (!need.max || *high * kNearly <= *need.max);
  };
  const auto* pins = pinsOf(board);
  std::optional<std::string> other;
  const auto take = [&](const std::string& terminal) -> std::optional<std::string> {
    if (pins && terminal == pins->rail) return terminal;
    if (!other) other = terminal;
    return std::nullopt;
  };
  for (const auto& e : board.elements)
    if (const auto* g = std::get_if<parts::Regulator>(&e.body); g && !g->out.inner() && fits(g->set))
      if (auto rail = take(g->out)) return rail;
  for (const auto& t : board.terminals)
    if (t.supply && t.place.contact != "socket" && fits(t.supply->recommended))
      if (auto rail = take(t.id)) return rail;
  // What comes in by a plug of the board stands at a pin too.
  for (const auto& t : board.terminals)
    if (t.supply && fits(t.supply->recommended))
      if (auto rail = take(t.id)) return rail;
  return other;
}

parts::Level working(const std::vector<parts::TruthRow>& rows, const std::string& input) {
  std::set<std::vector<parts::Drive>> can[2];
  for (const auto& row : rows) {
    const auto it = row.inputs.find(input);
    if (it != row.inputs.end() && std::ranges::count(row.outputs, parts::Drive::Short) == 0)
      can[it->second == parts::Level::High].insert(row.outputs);
  }
  return can[1].size() > can[0].size() ? parts::Level::High : parts::Level::Low;
}

namespace {

bool still(const parts::TruthRow& row, bool lowSide = false) {
  return lowSide || row.outputs.size() < 2 ? std::ranges::all_of(row.outputs, [](parts::Drive d) { return d == parts::Drive::Open; })
                                           : std::ranges::all_of(row.outputs, [&](parts::Drive d) { return d == row.outputs.front(); });
}

}  // namespace

std::optional<parts::Level> offLevel(const parts::Part& part, const parts::Channel& channel, const std::string& input) {
  std::vector<std::string> group{input};
  for (const auto& [role, terminal] : channel.signals)
    if (role.starts_with("in") &&
        std::ranges::any_of(channel.signals, [&](const auto& s) { return s.second == input && s.first.starts_with("in"); }))
      group.push_back(terminal);
  bool moves[2] = {false, false};
  bool known = false;
  for (const auto& row : parts::truthTable(part, channel)) {
    const auto it = row.inputs.find(input);
    if (it == row.inputs.end()) continue;
    known = true;
    const bool alike =
        std::ranges::all_of(group, [&](const std::string& g) { return !row.inputs.contains(g) || row.inputs.at(g) == it->second; });
    if (alike && !still(row, channel.lowSide)) moves[it->second == parts::Level::High] = true;
  }
  // Both are off: low is what pins are given first.
  if (!known || (moves[0] && moves[1])) return std::nullopt;
  if (!moves[0] && !moves[1] && group.size() < 2) return std::nullopt;
  return moves[0] ? parts::Level::High : parts::Level::Low;
}

bool stopsWithout(const std::vector<parts::TruthRow>& rows, const std::string& input) {
  const auto level = working(rows, input);
  return std::ranges::any_of(rows, [&](const parts::TruthRow& row) {
    const auto it = row.inputs.find(input);
    return it != row.inputs.end() && it->second == level && still(row);
  });
}

bool lowStopsAll(const std::vector<parts::TruthRow>& rows, const std::string& input) {
  bool known = false;
  for (const auto& row : rows) {
    const auto it = row.inputs.find(input);
    if (it == row.inputs.end()) continue;
    known = true;
    const bool open = std::ranges::all_of(row.outputs, [](parts::Drive d) { return d == parts::Drive::Open; });
    if (it->second == parts::Level::Low && !open) return false;
  }
  return known;
}

}  // namespace bold::choose
