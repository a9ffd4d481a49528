#include "core/choose/pin_plan.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/choose/board_pins.h"
#include "core/harness/intent.h"
#include "core/harness/names.h"
#include "core/places/numbering.h"

namespace bold::choose {
namespace {

// A demand for each signal that is stated for a motor which none of the others is for: it stays where it is.
std::vector<PinDemand> withOthers(const harness::Harness& h, const parts::Library& library, std::vector<PinDemand> demands) {
  for (const auto& intent : harness::intentsOf(h)) {
    if (std::ranges::any_of(demands, [&](const PinDemand& d) { return !d.stays && d.motor == intent.motor; })) continue;
    const auto duties = harness::dutySignals(intent);
    for (const auto& s : intent.signals) {
      const auto* device = h.device(s.pin.device);
      const auto part = device ? library.find(device->part) : nullptr;
      const int t = part ? places::terminalMeant(*part, s.pin.terminal) : -1;
      if (t < 0) continue;
      const bool pwm = std::ranges::count(duties, &s) > 0;
      demands.push_back({.motor = intent.motor,
                         .role = s.role,
                         .controller = s.pin.device,
                         .pwm = pwm,
                         .servo = s.role == "pulse",
                         .frequency = intent.pwm,
                         .has = part->terminals[static_cast<std::size_t>(t)].id,
                         .stays = true});
    }
  }
  return demands;
}

// The name that a signal has in a sentence.
std::string called(const harness::Harness& h, const PinDemand& d) {
  const auto* motor = h.device(d.motor);
  return fmt::format("{} of {}", d.role, motor ? harness::shownName(h, *motor) : d.motor);
}

struct Question {
  BoardPins board;
  std::vector<PinDemand> demands;  // those that were asked first, then what stays
  PinPuzzle puzzle;
};

Question ask(const harness::Harness& h, const parts::Library& library, std::vector<PinDemand> demands, const std::set<std::string>& gone) {
  // What stands on other boards is in nobody's way.
  std::set<std::string> boards;
  for (const auto& d : demands) boards.insert(d.controller);
  Question q{BoardPins(h, library, gone, boards), withOthers(h, library, std::move(demands)), {}};
  std::erase_if(q.demands, [&](const PinDemand& d) { return !boards.contains(d.controller); });
  const auto& pins = q.board.pins();
  for (const auto& pin : pins) q.puzzle.spots.push_back(pin.spot);
  q.puzzle.budgets = q.board.budgets();
  const auto at = [&](const PinDemand& d) { return q.board.find(d.controller, d.has); };
  // A pin that one of these signals is wired to is not taken by its wire: it may give way.
  auto open = pins;
  for (const auto& d : q.demands)
    if (const int p = at(d); p >= 0 && d.wired) open[static_cast<std::size_t>(p)].taken.clear();
  int group = -1;
  std::set<int> staying;  // pins that a signal stays on
  for (std::size_t s = 0; s < q.demands.size(); ++s) {
    const auto& d = q.demands[s];
    if (s == 0 || d.motor != q.demands[s - 1].motor || d.stays != q.demands[s - 1].stays) ++group;
    auto& fits = q.puzzle.fits.emplace_back();
    const bool shared = d.stays && staying.contains(at(d));
    if (!d.stays)
      for (std::size_t p = 0; p < pins.size(); ++p)
        if (against(d, open[p]).empty()) fits.push_back(static_cast<int>(p));
    // What stays twice on one pin, or on a pin that is none, is not for here to judge.
    if (d.stays && (at(d) < 0 || shared)) {
      q.puzzle.fits.pop_back();
      q.demands.erase(q.demands.begin() + static_cast<std::ptrdiff_t>(s--));
      continue;
    }
    if (d.stays) staying.insert(at(d));
    if (d.stays) fits = {at(d)};
    q.puzzle.wired.push_back(at(d));
    q.puzzle.group.push_back(group);
    q.puzzle.scarce.push_back(d.pwm);
    q.puzzle.current.push_back(d.stays ? 0 : d.current.value);
  }
  return q;
}

void rules(Question& q) {
  const bool units = std::ranges::count_if(q.demands, [](const PinDemand& d) { return d.pwm || d.servo; }) > 1;
  if (!units) return;
  for (const auto& d : q.demands) q.puzzle.clashes.push_back(d.pwm || d.servo);
  q.puzzle.clash = [&q](int a, int pa, int b, int pb) {
    const auto& one = q.demands[static_cast<std::size_t>(a)];
    const auto& other = q.demands[static_cast<std::size_t>(b)];
    if (one.stays && other.stays) return false;
    return !againstBoth(one, q.board.pins()[static_cast<std::size_t>(pa)], other, q.board.pins()[static_cast<std::size_t>(pb)]).empty();
  };
}

std::string list(const std::vector<std::string>& all) {
  std::string out;
  for (std::size_t i = 0; i < all.size(); ++i) out += (i == 0 ? "" : i + 1 == all.size() ? " and " : ", ") + all[i];
  return out;
}

std::string impossible(const harness::Harness& h, const Question& q, const std::vector<int>& clashing) {
  std::vector<std::string> names;
  std::set<int> pins;
  bool pwm = true;
  for (const int s : clashing) {
    const auto& d = q.demands[static_cast<std::size_t>(s)];
    names.push_back(called(h, d));
    const auto& fits = q.puzzle.fits[static_cast<std::size_t>(s)];
    pins.insert(fits.begin(), fits.end());
    pwm = pwm && d.pwm;
  }
  const auto* board = h.device(q.demands[static_cast<std::size_t>(clashing.front())].controller);
  const auto name = board ? harness::shownName(h, *board) : std::string("the controller");
  const char* kind = pwm ? " with PWM" : "";
  if (pins.empty()) return fmt::format("{} has no free pin{} for {}.", name, kind, list(names));
  std::vector<std::string> have;
  for (const int p : pins) have.push_back(q.board.called(p));
  return fmt::format("{} cannot give {} a pin each: {}{} {} all that could. Without any one of them there is room.", name, list(names),
                     list(have), kind, have.size() == 1 ? "is" : "are");
}

bool beside(const PinSpot& a, const PinSpot& b) {
  return a.side == b.side && std::abs(a.position - b.position) == 1;
}

std::string reason(const Question& q, const std::vector<int>& pins, std::size_t s) {
  const auto& d = q.demands[s];
  const auto& pin = q.board.pins()[static_cast<std::size_t>(pins[s])];
  std::string why;
  if (pins[s] == q.puzzle.wired[s]) {
    why = "it has this pin already";
  } else {
    std::size_t run = 1;
    while (s + run < pins.size() && q.puzzle.group[s + run] == q.puzzle.group[s] &&
           beside(q.puzzle.spots[static_cast<std::size_t>(pins[s + run - 1])], q.puzzle.spots[static_cast<std::size_t>(pins[s + run])]))
      ++run;
    const bool next =
        s > 0 && q.puzzle.group[s] == q.puzzle.group[s - 1] && beside(pin.spot, q.puzzle.spots[static_cast<std::size_t>(pins[s - 1])]);
    if (next)
      why = "beside " + q.board.called(pins[s - 1]);
    else if (run > 1)
      why = fmt::format("the first of {} side by side", run);
    else
      why = "free";
    if (const int old = q.puzzle.wired[s]; old >= 0)
      if (const auto no = against(d, q.board.pins()[static_cast<std::size_t>(old)]); !no.empty())
        why += fmt::format("; {}, where it is, {}", q.board.called(old), no);
  }
  if (d.pwm) why += "; PWM of " + pin.facts->pin->pwm;
  if (d.interrupt && pin.group->interrupts) why += "; it has an interrupt";
  if (d.at == At::Measures) why += "; it measures a voltage";
  return why;
}

}  // namespace

PinPlan placeSignals(const harness::Harness& h, const parts::Library& library, std::vector<PinDemand> demands,
                     const std::set<std::string>& gone) {
  const auto asked = demands.size();
  auto q = ask(h, library, demands, gone);
  rules(q);
  auto pins = assignPins(q.puzzle);
  if (!pins) {
    for (auto& d : demands) d.mayBePulled = true;
    q = ask(h, library, std::move(demands), gone);
    rules(q);
    pins = assignPins(q.puzzle);
  }
  PinPlan out;
  if (!pins) {
    const auto clashing = clashingSignals(q.puzzle);
    for (const int s : clashing) out.clashing.push_back(q.demands[static_cast<std::size_t>(s)]);
    out.problem = impossible(h, q, clashing);
    return out;
  }
  for (std::size_t s = 0; s < asked; ++s) {
    const auto& pin = q.board.pins()[static_cast<std::size_t>((*pins)[s])];
    const bool hold = q.puzzle.wired[s] != (*pins)[s] && pulledOn(q.demands[s], pin);
    out.choices.push_back({q.demands[s], pin.address, reason(q, *pins, s), hold});
    if (hold)
      out.choices.back().why +=
          fmt::format("; pulled {} while the board starts: a resistor has to hold it", pin.boot == parts::Boot::WeakUp ? "up" : "down");
  }
  return out;
}

std::vector<PassedOver> passedOver(const harness::Harness& h, const parts::Library& library, const PinPlan& plan, const PinChoice& choice,
                                   const std::set<std::string>& gone) {
  std::vector<PinDemand> demands;
  for (const auto& c : plan.choices) demands.push_back(c.demand);
  const auto q = ask(h, library, demands, gone);
  std::vector<PassedOver> out;
  const auto& pins = q.board.pins();
  for (std::size_t p = 0; p < pins.size(); ++p) {
    if (pins[p].address == choice.pin || pins[p].address.device != choice.pin.device) continue;
    std::string why = against(choice.demand, pins[p]);
    for (std::size_t s = 0; s < q.demands.size(); ++s) {
      const auto& other = q.demands[s];
      if (other.motor == choice.demand.motor && other.role == choice.demand.role) continue;
      const auto at = s < plan.choices.size() ? plan.choices[s].pin : Address{other.controller, other.has};
      if (at == pins[p].address) why = "is for " + called(h, other);
      const int stands = q.board.find(at.device, at.terminal);
      if (why.empty() && stands >= 0) why = againstBoth(choice.demand, pins[p], other, pins[static_cast<std::size_t>(stands)]);
    }
    if (why.empty()) why = choice.demand.has == choice.pin.terminal ? "would do" : "would do, but does not lie as well";
    out.push_back({q.board.called(static_cast<int>(p)), std::move(why)});
  }
  return out;
}

}  // namespace bold::choose
