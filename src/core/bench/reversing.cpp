#include "core/bench/reversing.h"

#include <algorithm>
#include <array>
#include <set>

namespace bold::bench {
namespace {

using parts::Level;

constexpr double kFed = 1000;  // V across whatever a condition asks for: supplies that are there

// What a relay's contact is while its input has this level, supplied or not.
Level closed(const parts::Switch& contact, Level input, double volts) {
  return contact.on.evaluate(
      {[&](const parts::Node&) { return input; }, [&](const parts::Node&, const parts::Node&) -> std::optional<double> { return volts; }});
}

enum class Pole { Plus, Minus, Unknown };

Pole poleAt(const Nets& nets, TerminalIndex t) {
  for (const auto& p : nets.sources()) {
    if (nets.same(p.positive, t)) return Pole::Plus;
    if (nets.same(p.negative, t)) return Pole::Minus;
  }
  return nets.grounded(nets.of(t)) ? Pole::Minus : Pole::Unknown;
}

// What contacts of both leads end on, and that is no pole of a source: what a converter or a protection feeds.
std::optional<int> feedOf(const Bench& bench, const Nets& nets, const std::set<int>& stages, const std::array<TerminalIndex, 2>& leads) {
  std::array<std::set<int>, 2> ends;
  for (const int d : stages)
    for (const auto& e : bench.devices[d].part->elements) {
      const auto* contact = std::get_if<parts::Switch>(&e.body);
      if (!contact || !contact->contact || !bench.devices[d].has(e)) continue;
      const auto a = bench.terminal(d, contact->a), b = bench.terminal(d, contact->b);
      for (std::size_t lead = 0; lead < 2; ++lead)
        for (const auto& [near, far] : {std::pair(a, b), std::pair(b, a)})
          if (near >= 0 && far >= 0 && nets.same(near, leads[lead]) && bench.connected(far) && poleAt(nets, far) == Pole::Unknown)
            ends[lead].insert(nets.of(far));
    }
  for (const int net : ends[0])
    if (ends[1].contains(net)) return net;
  return std::nullopt;
}

// What moves a contact: an input of its module, or of the stage that switches the coil of a bare relay.
struct Mover {
  TerminalIndex input;
  Level closes;  // of that input
  bool atRest;   // the contact is closed while nothing is supplied
  int coil = -1;
};

std::optional<Mover> moverOf(const Bench& bench, const std::vector<Motor>& motors, int device, const parts::Switch& contact) {
  const bool atRest = closed(contact, Level::Undefined, 0) == Level::High;
  if (contact.on.inputs().size() == 1) {
    const auto input = bench.terminal(device, *contact.on.inputs().begin());
    const auto high = closed(contact, Level::High, kFed), low = closed(contact, Level::Low, kFed);
    if (input < 0 || high == low || high == Level::Undefined || low == Level::Undefined) return std::nullopt;
    return Mover{input, high == Level::High ? Level::High : Level::Low, atRest};
  }
  const auto fed = closed(contact, Level::Undefined, kFed);
  if (!contact.on.inputs().empty() || fed == Level::Undefined || (fed == Level::High) == atRest) return std::nullopt;
  for (std::size_t k = 0; k < motors.size(); ++k) {
    const auto& coil = motors[k];
    if (coil.device != device || !coil.still || coil.meant.device < 0) continue;
    const auto on = inputsFor(bench, coil, {coil.meant, channelOf(bench, coil.meant).signals}, Action::Forward, 0);
    if (!on.found || on.inputs.size() != 1) continue;
    const auto& [id, level] = *on.inputs.begin();
    const auto input = bench.terminal(coil.meant.device, id);
    if (input < 0 || level == Level::Undefined) continue;
    return Mover{input, fed == Level::High ? level : !level, atRest, static_cast<int>(k)};
  }
  return std::nullopt;
}

}  // namespace

std::vector<PoleContact> poleContacts(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors, const Motor& m) {
  if (m.kind != MotorKind::TwoLead || m.windings.empty()) return {};
  const auto& w = windingOf(bench, m, 0);
  const std::array<TerminalIndex, 2> leads{bench.terminal(m.device, w.a), bench.terminal(m.device, w.b)};
  if (leads[0] < 0 || leads[1] < 0 || nets.same(leads[0], leads[1])) return {};
  std::vector<PoleContact> out;
  int guessed = 0;  // leads one of whose poles nothing is wired to
  std::set<int> stages;
  for (const auto& ref : m.reached)
    if (isContact(bench, ref)) stages.insert(ref.device);
  const auto feed = feedOf(bench, nets, stages, leads);
  for (int lead = 0; lead < 2; ++lead) {
    bool plus = false, minus = false;
    std::vector<PoleContact> open;
    for (const int d : stages)
      for (const auto& e : bench.devices[d].part->elements) {
        const auto* contact = std::get_if<parts::Switch>(&e.body);
        if (!contact || !contact->contact || !bench.devices[d].has(e)) continue;
        const auto a = bench.terminal(d, contact->a), b = bench.terminal(d, contact->b);
        const bool first = nets.same(a, leads[lead]);
        if (a < 0 || b < 0 || (!first && !nets.same(b, leads[lead]))) continue;
        const auto far = first ? b : a;
        const auto pole = feed && nets.of(far) == *feed ? Pole::Plus : poleAt(nets, far);
        if (pole == Pole::Unknown && bench.connected(far)) continue;
        const auto mover = moverOf(bench, motors, d, *contact);
        if (!mover) continue;
        plus = plus || pole == Pole::Plus;
        minus = minus || pole == Pole::Minus;
        (pole == Pole::Unknown ? open : out)
            .push_back({lead, pole == Pole::Plus, far, mover->input, mover->closes, mover->atRest, mover->coil});
      }
    // A contact that nothing is wired to is for the pole that the others leave, where the other lead has both: else the relays only switch
    // both leads on and off.
    if (!open.empty() && plus != minus) {
      for (auto& c : open) c.plus = minus;
      out.insert(out.end(), open.begin(), open.end());
      plus = minus = true;
      ++guessed;
    }
    if (!plus || !minus || guessed > 1) return {};
  }
  std::set<TerminalIndex> inputs;
  for (const auto& c : out) inputs.insert(c.input);
  return inputs.size() < 2 ? std::vector<PoleContact>{} : out;
}

std::map<TerminalIndex, Level> reversingInputs(const Bench& bench, const Motor& m, Action action) {
  std::map<TerminalIndex, Level> out;
  if (m.poles.empty()) return out;
  const bool turned = m.intent && m.intent->forwardLead == windingOf(bench, m, 0).b;
  const bool turns = action == Action::Forward || action == Action::Reverse;
  const int plusLead = (action == Action::Forward) != turned ? 0 : 1;
  for (const auto& c : m.poles) {
    const bool closes = turns ? c.plus == (c.lead == plusLead) : c.atRest;
    out[c.input] = closes ? c.closes : !c.closes;
  }
  return out;
}

Action turnedBy(const Motor& m, const std::map<TerminalIndex, Level>& inputs) {
  std::array<bool, 2> plus{}, minus{};
  for (const auto& c : m.poles) {
    const auto it = inputs.find(c.input);
    const bool closes = it == inputs.end() ? c.atRest : it->second == c.closes;
    if (closes) (c.plus ? plus : minus)[static_cast<std::size_t>(c.lead)] = true;
  }
  if (plus[0] && minus[1] && !plus[1] && !minus[0]) return Action::Forward;
  return plus[1] && minus[0] && !plus[0] && !minus[1] ? Action::Reverse : Action::AllOff;
}

TerminalIndex reversingInput(const Bench& bench, const Motor& m, const std::string& role) {
  if (m.poles.empty() || (role != "forward" && role != "reverse")) return -1;
  const auto rest = reversingInputs(bench, m, Action::AllOff);
  for (const auto& [input, level] : reversingInputs(bench, m, role == "forward" ? Action::Forward : Action::Reverse))
    if (rest.at(input) != level) return input;
  return -1;
}

}  // namespace bold::bench
