#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::supply_current {
namespace {

constexpr double kAtItsLimit = 0.97;  // share of a limit from which a supply is held there
constexpr double kBatteryStart = 4;   // times its rating: a start that a battery sags under
constexpr double kBatterySags = 1.5;  // times its rating: running current that is more than a note

// Current of a source, with motors that the intent chops counted by their duty.
double meanCurrent(const SolvedBench& s, const OperatingPoint& p, const bench::Nets::Pole& pole) {
  double sum = p.element(pole.device, pole.element).value;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    if (motor.kind != MotorKind::TwoLead || !p.command().turning[m] || dutyOf(motor) >= 1) continue;
    const auto& w = bench::windingOf(s.bench, motor, 0);
    const bool mine =
        sourceAt(s, s.bench.terminal(motor.device, w.a), true) == &pole || s.nets.sources().size() == 1 ||
        std::ranges::any_of(motor.reached, [&](ChannelRef r) {
          const auto& terminals = s.bench.devices[r.device].part->terminals;
          return std::ranges::any_of(terminals, [&](const parts::Terminal& t) {
            return t.supply && t.supply->purpose == parts::SupplyFor::Motor && s.nets.same(s.bench.terminal(r.device, t.id), pole.positive);
          });
        });
    if (mine) sum -= (1 - dutyOf(motor)) * std::abs(p.element(motor.device, motor.windings[0]).value);
  }
  return sum;
}

struct Given {
  Margins margins;  // what runs for long; a start, where there is one
  int device;
  const parts::Source* source;
  Extreme running, start;

  bool over() const { return margins[0].passed() != nullptr; }
  bool held() const { return source->limit.typical() && margins.size() > 1 && margins[1].passed(); }
};

// What a battery is comfortable with is no limit: it sags. What a limited supply is rated for is one.
std::vector<Limit> runningLimits(const parts::Source& body, double continuous) {
  const auto& source = body.continuous.source;
  if (body.limit.typical()) return {atMost(LimitKind::Absolute, Severity::Stop, continuous, "rated", source)};
  return {atMost(LimitKind::Recommended, Severity::Note, continuous, "rated", source),
          atMost(LimitKind::Recommended, Severity::Caution, kBatterySags * continuous, "1.5 x rated", source)};
}
Limit startLimit(const parts::Source& body, double continuous) {
  if (const auto limit = body.limit.typical())
    return atMost(LimitKind::Absolute, Severity::Caution, kAtItsLimit * *limit, "current limit", body.limit.source);
  return atMost(LimitKind::Recommended, Severity::Caution, kBatteryStart * continuous, "4 x rated", body.continuous.source);
}

// What would be asked of it if it kept its voltage; the current itself where it is not held at its limit. Of what a held supply drives the
// current grows with the voltage past what bipolar switches drop.
Amps asked(const SolvedBench& s, const Given& g, const Extreme& at) {
  constexpr double kBipolarDrop = 2;  // V, of two of its switches
  const auto limit = g.source->limit.typical();
  const auto open = g.source->full.typical();
  if (!at.point || !limit || !open || at.value < kAtItsLimit * *limit) return Amps{at.value};
  const auto pole = std::ranges::find(s.nets.sources(), g.device, &bench::Nets::Pole::device);
  const auto v = at.point->across(pole->positive, pole->negative);
  const bool bipolar = std::ranges::any_of(s.bench.devices, [](const auto& d) {
    return std::ranges::any_of(d.part->elements, [](const parts::Element& e) {
      const auto* sw = std::get_if<parts::Switch>(&e.body);
      return sw && sw->oneWay;
    });
  });
  const double lost = bipolar ? kBipolarDrop : 0;
  if (!v || v->value <= lost || *open <= v->value) return Amps{at.value};
  return Amps{at.value * (*open - lost) / (v->value - lost)};
}

// Held so far below its voltage that a short, not a load, draws what it gives.
bool collapsed(const SolvedBench& s, const Given& g, const Extreme& at) {
  constexpr double kShorted = 0.25;  // share of its full voltage
  const auto pole = std::ranges::find(s.nets.sources(), g.device, &bench::Nets::Pole::device);
  const auto v = at.point ? at.point->across(pole->positive, pole->negative) : std::nullopt;
  const auto full = g.source->full.typical();
  return v && full && v->value < kShorted * *full;
}

// To the next tenth of an ampere.
Amps roundedUp(Amps a) {
  return Amps{std::ceil(a.value * 10 - 1e-6) / 10};
}

// Tried with the figures of the supply that is asked for.
Way largerSupply(const SolvedBench& s, const Given& g) {
  auto most = g.over() ? g.running.known().value_or(0) : 0;
  if (g.start.point) most = std::max(most, asked(s, g, g.start).value);
  if (g.running.point) most = std::max(most, asked(s, g, g.running).value);
  if (collapsed(s, g, g.start) || collapsed(s, g, g.running)) return {"Find what draws that much: no load of this bench is meant to."};
  const auto amps = roundedUp(Amps{most});
  const auto text = fmt::format("Take a supply for {} or more.", show(amps));
  const auto& figures = s.bench.devices[g.device].part->figures;
  const auto has = [&](const char* id) { return std::ranges::any_of(figures, [&](const auto& f) { return f.id == id; }); };
  if (!has("continuous") || (g.source->limit.typical() && !has("limit"))) return {text};
  RepairDraft draft(s.bench);
  draft.figure(g.device, "continuous", amps);
  if (g.source->limit.typical()) draft.figure(g.device, "limit", Amps{std::max(amps.value * 1.05, *g.source->limit.typical())});
  auto way = draft.way(text);
  way.unhides = true;
  return way;
}

std::vector<Given> measure(const SolvedBench& s) {
  std::vector<Given> out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    const auto continuous = body.continuous.typical();
    const std::vector subjects{idOf(s.bench, pole.device)};
    Given g{{}, pole.device, &body, {}, {}};
    g.running = largest(s, steady, [&](const OperatingPoint& p) { return meanCurrent(s, p, pole); });
    g.start = largest(
        s, [](const OperatingPoint& p) { return everyday(p) && p.command().moment == Moment::Stalled; },
        [&](const OperatingPoint& p) { return p.element(pole.device, pole.element).value; });
    const auto add = [&](std::string quantity, const Extreme& most, std::vector<Limit> limits) {
      g.margins.push_back({.quantity = std::move(quantity),
                           .subjects = subjects,
                           .unit = Unit::Amp,
                           .value = most.known(),
                           .limits = std::move(limits),
                           .at = most.point});
    };
    add("running current", g.running, continuous ? runningLimits(body, *continuous) : std::vector<Limit>{});
    if (g.start.point) add("start current", g.start, continuous ? std::vector{startLimit(body, *continuous)} : std::vector<Limit>{});
    out.push_back(std::move(g));
  }
  return out;
}

}  // namespace

// Every source: what runs for long against its rating, and a start against its limit.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Given& g) {
    const bool over = g.over();
    const bool held = g.held();
    const auto& worst = over ? g.running : g.start;
    const Amps amps{worst.value};
    const Amps rating{!over && held ? *g.source->limit.typical() : *g.source->continuous.typical()};
    const auto& name = called(s.bench, g.device);
    auto f = finding(over   ? fmt::format("{} gives {}", name, show(amps))
                     : held ? fmt::format("{} goes into its limit at a start", name)
                            : fmt::format("{} gives {} at a start", name, show(amps)),
                     over   ? fmt::format("With {} {} gives {}; it is rated for {}.", during(*worst.point), name, show(amps), show(rating))
                     : held ? fmt::format("With {} {} is held at {}: the motor may not start, and the supply may switch off and try again.",
                                          during(*worst.point), name, show(rating))
                            : fmt::format("With {} {} gives {}; it is rated for {}, so it sags and ages fast.", during(*worst.point), name,
                                          show(amps), show(rating)),
                     g.margins[0].subjects);
    f.ways = {largerSupply(s, g)};
    if (!over)
      f.ways.push_back({"Or let the motors start one after the other, and state which start together.",
                        s.motors.empty() ? Field{} : fieldOf(s, s.motors.front(), "together")});
    f.formula = fmt::format("{} {} {}", show(amps), held && !over ? "at its limit of" : ">", show(rating));
    f.args = {{"current", amps}, {"rating", rating}};
    f.bar = barOf(g.margins[over ? 0 : 1], rating.value, held && !over ? "current limit" : "rated", Amps{g.running.value});
    f.sources = sourcesOf({&g.source->continuous, &g.source->limit});
    return f;
  });
}

Check check() {
  return {"supply-current", "current", "More than the supply gives", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::supply_current
