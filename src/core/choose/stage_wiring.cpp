#include "core/choose/stage_wiring.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <set>
#include <utility>

#include "core/choose/channel_use.h"
#include "core/choose/control_resistor.h"
#include "core/choose/fitting_parts.h"
#include "core/choose/old_stage.h"
#include "core/choose/pin_plan.h"
#include "core/choose/stage_questions.h"
#include "core/harness/edit_maker.h"
#include "core/harness/intent.h"
#include "core/parts/connectors.h"
#include "core/parts/roles.h"
#include "core/parts/truth_table.h"

namespace bold::choose {
namespace {

using harness::Device;
using parts::Channel;
using parts::Part;
using parts::Requirement;

constexpr Metres kSignal{0.2}, kPower{0.3}, kClose{0.05};
constexpr std::array kSignalColours{"YE", "GN", "BU", "WH", "OG", "VT", "GY"};
constexpr std::array kLeadColours{"BN", "WH", "GN", "BU"};

struct Poles {
  std::string device;
  Address plus, minus;
  Volts full;
};

template <class Element>
const Element* first(const Part& p) {
  for (const auto& e : p.elements)
    if (const auto* x = std::get_if<Element>(&e.body)) return x;
  return nullptr;
}

class Wiring {
 public:
  Wiring(const harness::Harness& h, const parts::Library& library, StageWish wish)
      : m_h(h),
        m_library(library),
        m_wish(std::move(wish)),
        m_maker(h.ids(), harness::State::Planned),
        m_old(oldStageOf(h, library, m_wish.motor)) {}

  Result<harness::Edit> run() {
    if (auto why = find(); !why.empty()) return fail(std::move(why));
    for (const auto& c : m_h.connections)
      if (m_old.connections.contains(c.id)) m_maker.remove(c);
    for (auto d : m_h.devices)
      if (m_old.devices.contains(d.id)) m_maker.remove(std::move(d));
    if (!m_shared) {
      Device d;
      d.part = m_stage->id;
      if (const auto rated = m_windings.size() == 2 ? parts::ratedCurrent(*m_windings[0]) : std::nullopt)
        if (const auto set = currentSwitch(
                *m_stage, Amps{std::min(*rated, m_use.channels.front()->continuous.typical().value_or(*rated)) * std::numbers::sqrt2}))
          d.settings[set->setting].value = set->value;
      m_id = m_maker.device(std::move(d), "s");
      supplies();
      grounds();
    }
    if (auto why = signals(); !why.empty()) return fail(std::move(why));
    leads();
    for (const auto& r : m_stage->requirements)
      if (!m_shared || r.kind == Requirement::Kind::Clamp || r.kind == Requirement::Kind::RailDiodes) require(r);
    return done();
  }

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
  StageWish m_wish;
  harness::EditMaker m_maker;
  OldStage m_old;
  std::shared_ptr<const Part> m_motor, m_stage, m_board;
  ChannelUse m_use;
  std::vector<const parts::Winding*> m_windings;
  std::string m_id, m_controller;
  Poles m_supply;
  harness::Intent m_intent;
  std::set<std::string> m_wired;          // terminals of the stage
  std::vector<harness::Signal> m_stated;  // before
  std::size_t m_colour = 0;
  std::set<std::string> m_held;  // by loose parts only
  bool m_shared = false;         // a stage that is on the bench already

  Address on(const std::string& terminal) const { return {m_id, terminal}; }
  Volts full() const { return m_supply.full; }
  bool lowSide() const { return m_use.channels.front()->lowSide; }

  bool isLoose(const std::string& device) const {
    const auto* d = m_h.device(device);
    const auto p = d ? m_library.find(d->part) : nullptr;
    return p && p->terminals.size() == 2 && !parts::isSource(*p) && !parts::isMotor(*p);
  }

  std::string find() {
    const auto* motor = m_h.device(m_wish.motor);
    m_motor = motor ? partOf(m_library, *motor) : nullptr;
    if (!m_motor || !parts::isMotor(*m_motor)) return fmt::format("\"{}\" is no motor on this bench.", m_wish.motor);
    if (const auto* shared = m_h.device(m_wish.stage)) {
      if (m_old.devices.contains(shared->id)) return fmt::format("{} hangs on {} already.", motor->called(), shared->called());
      m_shared = true;
      m_id = shared->id;
      m_stage = partOf(m_library, *shared);
      for (const auto& c : m_h.connections)
        for (const auto* end : {&c.a, &c.b})
          if (end->device == m_id && !m_old.connections.contains(c.id) && c.state != harness::State::ToBeRemoved)
            (isLoose(end == &c.a ? c.b.device : c.a.device) ? m_held : m_wired).insert(end->terminal);
    } else {
      m_stage = m_library.find(m_wish.stage);
    }
    if (!m_stage) return fmt::format("There is no part \"{}\".", m_wish.stage);
    m_intent = harness::intentFor(m_h, m_wish.motor);
    for (const auto& d : m_h.devices)
      if (const auto p = partOf(m_library, d);
          p && m_controller.empty() && parts::isController(*p) && d.state != harness::State::ToBeRemoved)
        m_controller = d.id, m_board = p;
    if (!m_board) return "There is no controller on this bench that could drive it.";
    if (!findSupply()) return "There is no supply on this bench that could feed it.";
    const auto use = channelsFor(*m_stage, *m_motor, m_wired, m_wish.parallel, m_intent.bothDirections);
    if (!use && m_wish.parallel)
      return fmt::format("{} has no two {}channels that may be joined for {}.", m_stage->name, m_shared ? "free " : "", motor->called());
    if (!use) return fmt::format("{} has no {}channel for {}.", m_stage->name, m_shared ? "free " : "", motor->called());
    m_use = *use;
    m_windings = windingsOf(*m_motor);
    if (lowSide() && m_intent.bothDirections && m_windings.size() == 1)
      return fmt::format("{} switches to ground only: it turns {} one way.", m_stage->name, motor->called());
    if (!m_use.contacts.empty() && m_intent.speedControl)
      return fmt::format("{} switches {} on and off; it sets no speed.", m_stage->name, motor->called());
    if (sitsOnABoard()) return fmt::format("{} is plugged onto a board: put it there as a whole.", m_stage->name);
    if (std::ranges::any_of(m_stage->terminals, [](const parts::Terminal& t) { return !t.bus.empty(); }))
      return fmt::format("{} is steered over a bus: that is not wired by itself.", m_stage->name);
    return {};
  }

  // A header of its own that goes into the controller's.
  bool sitsOnABoard() const {
    for (const auto& own : parts::connectorsOf(*m_stage))
      for (const auto& other : parts::connectorsOf(*m_board))
        if (own.terminals.size() > 4 && parts::mates(own, other)) return true;
    return false;
  }

  bool findSupply() {
    // By a plug, or by its plus; that grounds are joined feeds nothing.
    const auto feeds = [&](const std::string& device, const parts::Source& s) {
      return std::ranges::any_of(m_h.connections, [&](const auto& c) {
        const auto* end = c.a.device == device ? &c.a : c.b.device == device ? &c.b : nullptr;
        const auto* other = end == &c.a ? &c.b : &c.a;
        return end && other->device == m_controller && (c.kind == harness::ConnectionKind::Plug || end->terminal == s.positive);
      });
    };
    for (const bool spare : {true, false})
      for (const auto& d : m_h.devices) {
        const auto p = partOf(m_library, d);
        const auto* s = p ? first<parts::Source>(*p) : nullptr;
        if (!s || d.state == harness::State::ToBeRemoved) continue;
        if (m_wish.supply.empty() ? spare && feeds(d.id, *s) : d.id != m_wish.supply) continue;
        m_supply = {d.id, {d.id, s->positive}, {d.id, s->negative}, Volts{s->full.greatest().value_or(s->nominal.greatest().value_or(0))}};
        return true;
      }
    return false;
  }

  Amps load() const {
    double most = 0;
    for (const auto* w : m_windings) {
      if (const auto phase = w->phase.typical()) most = std::max(most, *phase);
      if (const auto run = w->run.typical()) most = std::max(most, *run);
      const auto r = w->resistance.typical();
      const auto v = w->nominal.typical();
      if (!w->phase.known() && !w->run.known() && r && v && *r > 0) most = std::max(most, std::min(*v, full().value) / *r);
    }
    return Amps{most};
  }

  void power(const Address& a, const Address& b, const char* colour) { m_maker.wire(a, b, colour, gaugeFor(m_library, load()), kPower); }
  void signal(const Address& a, const Address& b, const std::string& colour) { m_maker.wire(a, b, colour, 24, kSignal); }

  bool wiredTo(const std::string& terminal) const {
    return std::ranges::any_of(m_wired, [&](const std::string& w) { return joined(*m_stage, w, terminal); });
  }

  void supplies() {
    bool motor = false;
    for (const auto& t : m_stage->terminals) {
      if (!t.supply) continue;
      if (t.supply->purpose == parts::SupplyFor::Motor && !motor) {
        power(m_supply.plus, on(t.id), "RD");
        power(m_supply.minus, on(t.supply->back), "BK");
        m_wired.insert({t.id, t.supply->back});
        motor = true;
        const bool asked = std::ranges::any_of(m_stage->requirements, [](const auto& r) { return r.kind == Requirement::Kind::Capacitor; });
        if (const auto bulk = t.supply->bulk.typical(); bulk && !asked)
          require({.kind = Requirement::Kind::Capacitor, .a = t.id, .b = t.supply->back, .c = {}, .value = t.supply->bulk});
      } else if (t.supply->purpose == parts::SupplyFor::Logic && !feedsItself(*m_stage, t.id)) {
        if (const auto rail = railFor(*m_board, *t.supply)) {
          signal({m_controller, *rail}, on(t.id), "RD");
          m_wired.insert(t.id);
        }
      }
    }
    if (!motor && lowSide())
      for (const auto* c : m_use.channels)
        if (m_wired.insert(c->returnTerminal).second) power(m_supply.minus, on(c->returnTerminal), "BK");
  }

  // What its inputs are measured against, its returns, and every ground that nothing inside joins to one of these.
  void grounds() {
    const auto ground = first<parts::Pins>(*m_board)->ground;
    std::set<std::string> reference;
    for (const auto& [role, t] : m_use.signals)
      if (const auto* facts = m_stage->find(t))
        reference.insert(facts->input ? std::string(facts->input->ground) : m_use.of(t).returnTerminal);
    bool first = true;
    for (const auto& t : m_stage->terminals) {
      const bool measured = reference.contains(t.id);
      const bool any = std::ranges::any_of(reference, [&](const auto& r) { return joined(*m_stage, r, t.id); });
      if (!measured && !(t.ground && !t.optional && !wiredTo(t.id))) continue;
      if (measured || any) {
        if (first || !wiredTo(t.id)) signal({m_controller, ground}, on(t.id), "BK");
        first = false;
      } else {
        power(m_supply.minus, on(t.id), "BK");
      }
      m_wired.insert(t.id);
    }
  }

  void tie(const std::string& input, parts::Level level) {
    if (pulled(*m_stage, input, level) || m_wired.contains(input)) return;
    m_wired.insert(input);
    if (level == parts::Level::Low) {
      const auto* facts = m_stage->find(input);
      signal(on(input), on(facts->input ? std::string(facts->input->ground) : m_use.of(input).returnTerminal), "BK");
      return;
    }
    for (const auto& t : m_stage->terminals)
      if (t.supply && t.supply->purpose == parts::SupplyFor::Logic) return signal(on(input), on(t.id), "RD");
    signal(on(input), {m_controller, first<parts::Pins>(*m_board)->rail}, "RD");
  }

  // Of a stage that has a transistor to be fed through a resistor, with this load.
  Drive pinDrive() const { return {pinLevel(*m_board), *first<parts::Pins>(*m_board)}; }
  Ohms seriesResistor() const {
    const auto* b = first<parts::Bipolar>(*m_stage);
    return b ? choose::baseResistor(*b, pinDrive(), load()) : gateResistor(pinDrive());
  }

  void isolated(const std::string& terminal) {
    if (m_stage->find(terminal)->input) return;
    for (const auto& end : wayBack(*m_stage, terminal))
      if (m_wired.insert(end).second) signal({m_controller, first<parts::Pins>(*m_board)->ground}, on(end), "BK");
  }

  // By a resistor, to where nothing moves; once.
  void hold(const std::string& input, parts::Level off) {
    const auto* facts = m_stage->find(input);
    if (!facts->input || !m_held.insert(input).second) return;
    std::string to(facts->input->ground);
    if (off == parts::Level::High)
      for (const auto& t : m_stage->terminals)
        if (t.supply && t.supply->purpose == parts::SupplyFor::Logic) to = t.id;
    require({.kind = Requirement::Kind::Pull, .a = input, .b = to, .c = {}, .value = {}});
  }

  // Until the program runs: low at the one input that stops everything, or at all that nothing inside holds.
  void holdAtBoot(const Channel& channel, const std::vector<std::pair<std::string, std::string>>& driven) {
    const auto rows = parts::truthTable(*m_stage, channel);
    std::vector<std::string> loose;
    for (const auto& signal : driven) {
      if (&m_use.of(signal.second) != &channel) continue;
      const auto& input = signal.second;
      const auto* facts = m_stage->find(input);
      if (!facts->input || signal.first == "step" || signal.first == "dir") continue;
      const bool stopsAll = lowStopsAll(rows, input);
      if (stopsAll && (pulled(*m_stage, input, parts::Level::Low) || m_held.contains(input))) return;
      if (stopsAll) {
        loose = {input};
        break;
      }
      if (m_held.contains(input)) return;
      if (!pulled(*m_stage, input, parts::Level::Low)) loose.push_back(input);
    }
    for (const auto& input : loose) hold(input, parts::Level::Low);
  }

  void drive(const std::string& role, const std::string& terminal, const Address& pin) {
    const std::string colour = kSignalColours[m_colour++ % kSignalColours.size()];
    // A jumper that gave it a level for good.
    for (const auto& c : m_h.connections)
      if (c.kind == harness::ConnectionKind::Jumper && (c.a == on(terminal) || c.b == on(terminal))) m_maker.remove(c);
    m_wired.insert(terminal);
    m_intent.signals.push_back({role, pin, "label", harness::Active::Unsaid});
    const auto* series = seriesAt(*m_stage, terminal);
    const auto ohms = series ? series->value.typical() : std::nullopt;
    const auto fitted = series ? resistor(m_library, ohms ? Ohms{*ohms} : seriesResistor()) : std::nullopt;
    if (!fitted) return signal(pin, on(terminal), colour);
    const auto r = loose(*fitted, "r");
    const auto p = m_library.find(fitted->part);
    signal(pin, {r, p->terminals[0].id}, colour);
    m_maker.wire({r, p->terminals[1].id}, on(terminal), colour, 24, kClose);
  }

  // Inputs with inputs, outputs with outputs: one pin drives both channels.
  void join() {
    for (const auto& [second, firstOf] : m_use.joined) {
      m_wired.insert(second);
      if (!mine(second)) continue;  // outputs: with the leads
      for (const auto& c : m_h.connections)
        if (c.kind == harness::ConnectionKind::Jumper && (c.a == on(second) || c.b == on(second))) m_maker.remove(c);
      m_maker.wire(on(second), on(firstOf), "GY", 24, kClose);
    }
  }

  bool drives(const std::string& output) const {
    return std::ranges::any_of(m_use.channels, [&](const Channel* c) { return std::ranges::count(c->out, output) > 0; });
  }

  // Whether an input is the channel's.
  bool mine(const std::string& terminal) const {
    return std::ranges::any_of(m_use.channels, [&](const Channel* c) {
      return std::ranges::any_of(c->signals, [&](const auto& s) { return s.second == terminal; });
    });
  }

  PinDemand demand(const std::string& role, const std::string& terminal, bool pwm) const {
    PinDemand out{.motor = m_wish.motor, .role = role, .controller = m_controller, .pwm = pwm, .frequency = m_intent.pwm};
    out.off = offLevel(*m_stage, m_use.of(terminal), terminal);
    for (const auto& s : m_stated)
      if (s.role == role && s.pin.device == m_controller) out.has = m_board->find(s.pin.terminal) ? m_board->find(s.pin.terminal)->id : "";
    const auto* series = seriesAt(*m_stage, terminal);
    const auto level = pinLevel(*m_board);
    out.current = inputCurrent(*m_stage, terminal, level);
    if (const auto* b = first<parts::Bipolar>(*m_stage); series && !series->value.known() && b)
      out.current = std::max(out.current, baseCurrent(*b, pinDrive(), seriesResistor()));
    return out;
  }

  std::string signals() {
    m_stated = std::exchange(m_intent.signals, {});
    std::vector<std::pair<std::string, std::string>> driven;
    for (const auto& [role, terminal] : m_use.signals) {
      const auto rows = parts::truthTable(*m_stage, m_use.of(terminal));
      const bool speed = role.starts_with("speed") && (m_intent.speedControl || !stopsWithout(rows, terminal));
      // With a speed input of its own, its direction inputs need no PWM.
      if (drivenRole(role) || speed)
        driven.emplace_back(role, terminal);
      else if (const auto* jumper = jumperAt(*m_stage, terminal); !jumper)
        tie(terminal, working(rows, terminal));
    }
    std::ranges::sort(driven, {}, [&](const auto& d) { return m_stage->indexOf(d.second); });
    for (const auto& [role, terminal] : driven) isolated(terminal);
    const bool ownSpeed = std::ranges::any_of(m_use.signals, [](const auto& s) { return s.first.starts_with("speed"); });
    std::vector<PinDemand> demands;
    for (const auto& [role, terminal] : driven)
      demands.push_back(
          demand(role, terminal, m_intent.speedControl && (role.starts_with("speed") || (!ownSpeed && role.starts_with("in")))));
    const auto pins = placeSignals(m_h, m_library, std::move(demands), m_old.connections);
    if (!pins.problem.empty()) return pins.problem;
    for (std::size_t k = 0; k < driven.size(); ++k) drive(driven[k].first, driven[k].second, pins.choices[k].pin);
    join();
    for (const auto* c : m_use.channels)
      if (m_use.contacts.empty()) holdAtBoot(*c, driven);
    for (std::size_t k = 0; k < driven.size(); ++k)
      if (pins.choices[k].hold) hold(driven[k].second, *pins.choices[k].demand.off);
    for (const auto& jumper : m_stage->fitted)
      if ((!m_shared || mine(jumper.first) || mine(jumper.second)) && !m_wired.contains(jumper.first) && !m_wired.contains(jumper.second))
        m_maker.jumper(on(jumper.first), on(jumper.second));
    // Inputs without a role: modes. Of other channels: nothing hangs on them.
    for (const auto& t : m_stage->terminals) {
      const bool role = std::ranges::any_of(m_stage->channels, [&](const Channel& c) {
        return std::ranges::any_of(c.signals, [&](const auto& s) { return s.second == t.id; });
      });
      if (t.input && !role && !t.optional) tie(t.id, parts::Level::Low);
    }
    return {};
  }

  // The plus that the load hangs on: the stage's own terminal behind its supply, else the supply.
  Address loadPlus() const {
    for (const auto& t : m_stage->terminals)
      if (!t.supply && !t.ground && !t.output)
        for (const auto& s : m_stage->terminals)
          if (s.supply && s.supply->purpose == parts::SupplyFor::Motor && joined(*m_stage, s.id, t.id)) return on(t.id);
    return m_supply.plus;
  }

  void leads() {
    const auto motor = [&](const std::string& t) { return Address{m_wish.motor, t}; };
    // A plug of the motor that goes into the stage.
    for (const auto& own : parts::connectorsOf(*m_motor))
      for (const auto& other : parts::connectorsOf(*m_stage))
        if (own.contact == "lead" && parts::mates(own, other)) {
          m_maker.plug(motor(own.id), on(other.id));
          return;
        }
    const auto& w = m_windings;
    const auto& out = m_use.out;
    if (w.size() == 1 && w[0]->brushed && m_intent.forwardLead.empty()) m_intent.forwardLead = w[0]->a;
    if (!m_use.contacts.empty()) return contacts();
    std::size_t colour = 0;
    const auto lead = [&](const Address& a, const parts::Node& b) { power(a, motor(b), kLeadColours[colour++ % kLeadColours.size()]); };
    if (out.size() == 1) {
      lead(loadPlus(), w[0]->a);
      lead(on(out[0]), w[0]->b);
    } else if (sharesTap(w)) {
      const bool common = std::ranges::all_of(w, [&](const auto* x) { return x->a == w[0]->a; });
      lead(loadPlus(), w[0]->a);
      for (std::size_t k = 0; k < w.size() && k < out.size(); ++k) {
        if (k > 0 && !common && w[k]->a != w[k - 1]->a) lead(loadPlus(), w[k]->a);
        lead(on(out[k]), w[k]->b);
      }
    } else {
      for (std::size_t k = 0; k < w.size() && 2 * k + 1 < out.size(); ++k) {
        lead(on(out[2 * k]), w[k]->a);
        lead(on(out[2 * k + 1]), w[k]->b);
      }
    }
    for (const auto& [second, firstOf] : m_use.joined)
      for (std::size_t k = 0; k < out.size(); ++k)
        if (out[k] == firstOf) power(on(second), motor(k == 0 && out.size() > 1 ? w[0]->a : w[0]->b), kLeadColours[k]);
  }

  // One contact lies in the plus of the motor. Of two each brings its lead to plus while its relay is on, and to minus at rest: no position
  // joins the poles.
  void contacts() {
    const Address a{m_wish.motor, m_windings[0]->a}, b{m_wish.motor, m_windings[0]->b};
    const auto& used = m_use.contacts;
    if (used.size() == 1) {
      power(m_supply.plus, on(used[0].common), "RD");
      power(on(used[0].on), a, "BN");
      power(m_supply.minus, b, "BK");
      if (m_windings[0]->inductance.known()) diode(b, a);
      return;
    }
    for (const auto& [contact, lead] : {std::pair(used[0], a), std::pair(used[1], b)}) {
      power(m_supply.plus, on(contact.on), "RD");
      power(m_supply.minus, on(contact.rest), "BK");
      power(on(contact.common), lead, lead == a ? "BN" : "WH");
    }
  }

  std::string loose(const Fitting& f, const char* stem) {
    Device d;
    d.part = f.part;
    d.overrides = f.figures;
    d.group = m_id;
    return m_maker.device(std::move(d), stem);
  }

  void diode(const Address& anode, const Address& cathode) {
    const auto fitted = clampDiode(m_library, load(), full());
    if (!fitted) return;
    const auto* d = first<parts::Diode>(*m_library.find(fitted->part));
    const auto id = loose(*fitted, "d");
    m_maker.wire({id, d->cathode}, cathode, "RD", gaugeFor(m_library, load()), kClose);
    m_maker.wire({id, d->anode}, anode, "BK", gaugeFor(m_library, load()), kClose);
  }

  void require(const Requirement& r) {
    const auto between = [&](const Fitting& f, const char* stem, const std::string& a, const std::string& b) {
      const auto p = m_library.find(f.part);
      const auto id = loose(f, stem);
      m_maker.wire({id, p->terminals[0].id}, on(a), "RD", 22, kClose);
      m_maker.wire({id, p->terminals[1].id}, on(b), "BK", 22, kClose);
    };
    switch (r.kind) {
      case Requirement::Kind::Capacitor:
        if (const auto c = capacitor(m_library, Farads{r.value.typical().value_or(0)}, full())) between(*c, "c", r.a, r.b);
        break;
      case Requirement::Kind::Pull:
        if (const auto f = resistor(m_library, Ohms{r.value.typical().value_or(10e3)})) between(*f, "r", r.a, r.b);
        break;
      case Requirement::Kind::Clamp:
        if (m_windings.size() == 1) diode({m_wish.motor, m_windings[0]->b}, {m_wish.motor, m_windings[0]->a});
        break;
      case Requirement::Kind::RailDiodes:
        if (!drives(r.a)) break;
        diode(on(r.a), on(r.b));
        diode(on(r.c), on(r.a));
        break;
      case Requirement::Kind::Join:
        power(loadPlus(), on(r.a), "RD");
        break;
      case Requirement::Kind::Series:
        break;  // with its signal
    }
  }

  harness::Edit done() {
    m_intent.stage = m_id;
    const bool named = m_stage->channels.size() > 1 && (m_use.channels.size() == 1 || m_use.parallel());
    m_intent.channel = named ? m_use.channels.front()->id : std::string();
    auto edit = m_maker.take(m_shared ? fmt::format("Hang {} on channel {} of {}", m_h.device(m_wish.motor)->called(),
                                                    m_use.channels.front()->id, m_h.device(m_id)->called())
                                      : fmt::format("Put {} on the bench for {}", m_stage->name, m_h.device(m_wish.motor)->called()));
    auto stated = harness::stating(m_h, m_intent, {});
    edit.changes.insert(edit.changes.end(), std::make_move_iterator(stated.changes.begin()), std::make_move_iterator(stated.changes.end()));
    return edit;
  }
};

}  // namespace

Result<harness::Edit> wireStage(const harness::Harness& h, const parts::Library& library, const StageWish& wish) {
  return Wiring(h, library, wish).run();
}

}  // namespace bold::choose
