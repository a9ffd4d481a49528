#include <fmt/core.h>

#include "core/choose/pin_demands.h"
#include "core/harness/names.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::pins {
namespace {

struct Taken {
  std::string file, motor, output, format = "text";
  bool why = false, force = false;
};

Json jsonOf(const harness::Harness& h, const parts::Library& library, const bold::choose::PinPlan& plan, bool why) {
  Json out{{"possible", plan.problem.empty()}, {"signals", Json::array()}};
  const auto signal = [](const bold::choose::PinDemand& d) {
    Json one{{"motor", d.motor}, {"role", d.role}};
    if (!d.end.device.empty()) one["input"] = d.end.text();
    if (d.pwm) one["pwm"] = true;
    if (!d.has.empty()) one["has"] = Address{d.controller, d.has}.text();
    return one;
  };
  for (const auto& c : plan.choices) {
    auto one = signal(c.demand);
    one["pin"] = c.pin.text();
    one["why"] = c.why;
    if (why) {
      one["others"] = Json::array();
      for (const auto& p : passedOver(h, library, plan, c)) one["others"].push_back({{"pin", p.pin}, {"why", p.why}});
    }
    out["signals"].push_back(std::move(one));
  }
  if (!plan.problem.empty()) {
    out["problem"] = plan.problem;
    out["clashing"] = Json::array();
    for (const auto& d : plan.clashing) out["clashing"].push_back(signal(d));
  }
  return out;
}

void print(const harness::Harness& h, const parts::Library& library, const bold::choose::PinPlan& plan, bool why) {
  std::string motor;
  for (const auto& c : plan.choices) {
    if (c.demand.motor != motor) say(fmt::format("{}\n", shownName(h, *h.device(c.demand.motor))));
    motor = c.demand.motor;
    say(fmt::format("  {:8} {:14} {}\n", c.demand.role, shownEnd(h, library, c.pin), c.why));
    if (!why) continue;
    for (const auto& p : passedOver(h, library, plan, c)) say(fmt::format("             {:6} {}\n", p.pin, p.why));
  }
}

int place(const Taken& a) {
  Disk disk;
  auto bench = openBench(disk, a.file, !a.output.empty());
  if (!bench) return 2;
  auto& h = bench->harness;
  const auto motor = a.motor.empty() ? std::string() : deviceId(h, a.motor);
  if (!motor.empty() && !h.device(motor)) {
    bold::cli::complain(fmt::format("\"{}\" is no motor on this bench.", a.motor));
    return 2;
  }
  const auto demands = bold::choose::pinDemands(h, bench->library, motor);
  const auto plan = bold::choose::placeSignals(h, bench->library, demands);
  if (a.format == "json")
    sayJson(jsonText(jsonOf(h, bench->library, plan, a.why)));
  else if (!plan.problem.empty())
    say(plan.problem + "\n");
  else if (demands.empty())
    say("No motor here needs a pin: put a stage on the bench first.\n");
  else
    print(h, bench->library, plan, a.why);
  if (!plan.problem.empty()) return 1;
  if (a.output.empty()) return 0;
  apply(h, bold::choose::pinEdit(h, bench->library, plan));
  if (!writeBench(disk, *bench, a.output, a.force)) return 2;
  if (a.format == "text") say(fmt::format("Written to {}.\n", a.output));
  return 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("FILE", a->file, "a bench");
  takes.option("--motor", a->motor, "of this motor alone, by id or name");
  takes.option("--format", a->format, "text or json", {"text", "json"});
  takes.flag("--why", a->why, "also why not each of the other pins");
  takes.option("--output", a->output, "where the bench is written with wires and statements planned");
  takes.flag("--force", a->force, kForceHelp);
  return [a] { return place(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"pins", "Place the signals that motors need on free pins of the controller, and say why.", declare};
}

}  // namespace bold::cli::pins
