#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/connectors.h"
#include "core/parts/roles.h"

namespace bold::checks::controller_unpowered {
namespace {

constexpr double kLeast = 3.0;     // V, of a controller that does not say
constexpr double kNotAtAll = 0.5;  // of the least: below that it is not fed at all

struct Powered {
  Margin margin;
  int device;
  TerminalIndex rail;
  Volts supply, least;
};

std::vector<Powered> measure(const SolvedBench& s) {
  std::vector<Powered> out;
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  if (!p) return out;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    if (pins.bus) return;  // of a register its logic supply is judged
    const auto rail = s.bench.terminal(d, pins.rail);
    const auto& supply = s.bench.facts(rail).supply;
    const bool stated = supply && supply->recommended.min;
    const Volts least{stated ? *supply->recommended.min : kLeast};
    const Volts v = p->across(rail, s.bench.terminal(d, pins.ground)).value_or(Volts{0});
    Margin margin{.quantity = "controller supply",
                  .subjects = {idOf(s.bench, d)},
                  .unit = Unit::Volt,
                  .value = v.value,
                  .limits = rising(atLeast(LimitKind::Promised, Severity::Stop, kNotAtAll * least.value, "half its least",
                                           stated ? supply->recommended.source : "")),
                  .at = p};
    if (!stated) margin.assumed = {"a least supply of " + show(least)};
    out.push_back({std::move(margin), d, rail, v, least});
  });
  return out;
}

// A plug that lies on the bench and goes into a socket of this board by its name, with nothing in either.
std::optional<Repair> plugIn(const SolvedBench& s, int board) {
  const auto ends = [&](int d) {
    std::vector<parts::Connector> out = parts::connectorsOf(*s.bench.devices[d].part);
    std::erase_if(out, [&](const parts::Connector& c) {
      return std::ranges::any_of(c.terminals, [&](const std::string& t) { return s.bench.connected(s.bench.terminal(d, t)); });
    });
    return out;
  };
  const auto sockets = ends(board);
  for (std::size_t k = 0; k < s.bench.devices.size(); ++k) {
    const int d = static_cast<int>(k);
    if (d == board || !parts::isSource(*s.bench.devices[k].part)) continue;
    for (const auto& plug : ends(d))
      for (const auto& socket : sockets)
        if (plug.id == socket.id && parts::mates(plug, socket))
          return RepairDraft(s.bench)
              .plug({idOf(s.bench, d), plug.id}, {idOf(s.bench, board), socket.id})
              .repair(fmt::format("Plug {} into the {} socket of {}.", called(s.bench, d), socket.name, called(s.bench, board)));
  }
  return std::nullopt;
}

}  // namespace

// The rail of a controller's pins below half of what the chip needs. Whether what it gets is enough is for logic-supply-out-of-range.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Powered& m) {
    const auto& name = called(s.bench, m.device);
    auto f = finding(fmt::format("{} is not powered", name),
                     fmt::format("{} has {} on its supply; it needs {}. Plug in its supply, or put it on the bench.", name, show(m.supply),
                                 show(m.least)),
                     m.margin.subjects);
    // The loose regulator that should feed it is where to look next.
    eachElement<parts::Regulator>(s.bench, [&](int r, int, const parts::Regulator& reg) {
      if (r != m.device && s.nets.same(at(s.bench, r, reg.out), m.rail)) f.subjects.push_back(idOf(s.bench, r));
    });
    f.repair = plugIn(s, m.device);
    f.ways = {{fmt::format("Put what feeds {} on the bench, such as a USB port, and plug it in.", name)}};
    f.formula = against(m.supply, "<", m.least);
    f.args = {{"voltage", m.supply}, {"least", m.least}};
    f.bar = barOf(m.margin, m.least.value, "least", {}, true);
    return f;
  });
}

Check check() {
  return {"controller-unpowered", "voltage", "The controller is not powered", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::controller_unpowered
