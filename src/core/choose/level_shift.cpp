#include "core/choose/level_shift.h"

#include <algorithm>
#include <vector>

#include "core/choose/stage_questions.h"
#include "core/harness/edit_maker.h"
#include "core/parts/roles.h"

namespace bold::choose {
namespace {

constexpr double kFiveFrom = 4.5, kFiveTo = 5.5;  // V
constexpr Metres kWay{0.2};

struct Shifter {
  std::shared_ptr<const parts::Part> part;
  std::string low, high, ground;                           // rails
  std::vector<std::pair<std::string, std::string>> lines;  // low end, high end
};

// The other end of a resistor that holds this terminal.
std::string heldAt(const parts::Part& part, const std::string& terminal) {
  for (const auto& e : part.elements)
    if (const auto* r = std::get_if<parts::Resistor>(&e.body); r && (r->a == terminal || r->b == terminal))
      return r->a == terminal ? r->b : r->a;
  return {};
}

std::optional<Shifter> shifter(const std::shared_ptr<const parts::Part>& part) {
  Shifter out{part, {}, {}, {}, {}};
  for (const auto& e : part->elements) {
    if (const auto* t = std::get_if<parts::Mosfet>(&e.body)) {
      const auto low = heldAt(*part, t->source);
      const auto high = heldAt(*part, t->drain);
      if (t->pChannel || low != t->gate || high.empty() || (!out.low.empty() && (out.low != low || out.high != high))) return std::nullopt;
      out.low = low;
      out.high = high;
      out.lines.emplace_back(t->source, t->drain);
    } else if (!std::holds_alternative<parts::Resistor>(e.body) && !std::holds_alternative<parts::Joint>(e.body)) {
      return std::nullopt;
    }
  }
  for (const auto& t : part->terminals)
    if (t.ground && out.ground.empty()) out.ground = t.id;
  if (out.lines.empty() || out.ground.empty() || !part->find(out.low) || !part->find(out.high)) return std::nullopt;
  return out;
}

// The smallest that has so many lines, else the largest.
std::optional<Shifter> shifterFor(const parts::Library& library, std::size_t lines) {
  std::optional<Shifter> best;
  for (const auto& p : library.search("")) {
    if (p->own || !p->channels.empty()) continue;
    auto s = shifter(p);
    if (!s) continue;
    const auto enough = [&](const Shifter& x) { return x.lines.size() >= lines; };
    const bool better = !best || (enough(*s) ? !enough(*best) || s->lines.size() < best->lines.size()
                                             : !enough(*best) && s->lines.size() > best->lines.size());
    if (better) best = std::move(s);
  }
  return best;
}

}  // namespace

std::optional<harness::Edit> shiftLevels(const harness::Harness& h, const parts::Library& library, const std::string& stage) {
  // Wires from a pin to an input of the stage, whichever end is which.
  std::vector<harness::Connection> straight;
  std::shared_ptr<const parts::Part> board;
  std::string controller;
  const auto* device = h.device(stage);
  const auto part = device ? library.find(device->part) : nullptr;
  if (!part) return std::nullopt;
  for (auto c : h.connections) {
    if (c.kind != harness::ConnectionKind::Wire || c.state != harness::State::Planned) continue;
    if (c.b.device != stage) std::swap(c.a, c.b);
    const auto* from = h.device(c.a.device);
    const auto source = from ? library.find(from->part) : nullptr;
    const auto* pin = source && parts::isController(*source) ? source->find(c.a.terminal) : nullptr;
    const auto* input = part->find(c.b.terminal);
    if (c.b.device != stage || !pin || !pin->pin || !input || !input->input) continue;
    board = source;
    controller = c.a.device;
    straight.push_back(std::move(c));
  }
  if (straight.empty() || pinLevel(*board).value >= kFiveFrom) return std::nullopt;
  parts::SupplyFacts five;
  five.recommended.min = kFiveFrom;
  five.recommended.max = kFiveTo;
  const auto rail = railFor(*board, five);
  const auto* pins = [&]() -> const parts::Pins* {
    for (const auto& e : board->elements)
      if (const auto* p = std::get_if<parts::Pins>(&e.body)) return p;
    return nullptr;
  }();
  if (!rail || !pins) return std::nullopt;
  harness::EditMaker maker(h.ids(), harness::State::Planned);
  std::vector<harness::Change> moved;
  for (std::size_t done = 0; done < straight.size();) {
    const auto with = shifterFor(library, straight.size() - done);
    if (!with) return std::nullopt;
    harness::Device d;
    d.part = with->part->id;
    d.group = stage;
    const auto id = maker.device(std::move(d), "ls");
    maker.wire({controller, pins->rail}, {id, with->low}, "OG", 24, kWay);
    maker.wire({controller, *rail}, {id, with->high}, "RD", 24, kWay);
    maker.wire({controller, pins->ground}, {id, with->ground}, "BK", 24, kWay);
    for (const auto& line : with->lines) {
      if (done == straight.size()) break;
      auto c = straight[done++];
      maker.wire({id, line.second}, c.b, c.colour, 24, kWay);
      c.b = {id, line.first};
      moved.emplace_back(harness::Put<harness::Connection>{std::move(c), {}});
    }
  }
  auto edit = maker.take("Put level shifters before the stage");
  edit.changes.insert(edit.changes.end(), std::make_move_iterator(moved.begin()), std::make_move_iterator(moved.end()));
  return edit;
}

}  // namespace bold::choose
