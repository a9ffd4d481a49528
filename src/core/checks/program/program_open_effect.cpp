#include <fmt/core.h>

#include <algorithm>

#include "core/base/shown_text.h"
#include "core/checks/check.h"
#include "core/checks/program/absence.h"
#include "core/checks/program/absences.h"

namespace bold::checks::program_open_effect {
namespace {

struct Open {
  const harness::Untold* effect;
  std::vector<int> motors;
  std::vector<std::string> pins;  // addresses
};

}  // namespace

// What the program does there could not be told, and it decides whether a motor is driven.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  std::vector<Open> all;
  for (const auto of : {program_pin_undriven::absences, program_goal_unserved::absences, program_enable_inverted::absences,
                        program_pin_mode::absences, program_read_floats::absences})
    for (const auto& a : of(program)) {
      const auto* effect = openFor(program, a);
      if (!effect) continue;
      auto it = std::ranges::find(all, effect, &Open::effect);
      if (it == all.end()) it = all.insert(all.end(), Open{effect, {}, {}});
      for (const int m : a.motors)
        if (std::ranges::count(it->motors, m) == 0) it->motors.push_back(m);
      for (const auto pin : a.pins)
        if (program.openAt(pin) && std::ranges::count(it->pins, s.bench.address(pin)) == 0) it->pins.push_back(s.bench.address(pin));
    }
  Findings out;
  for (const auto& o : all) {
    std::string motors, pins;
    for (const int m : o.motors) motors += (motors.empty() ? "" : ", ") + called(s, s.motors[m]);
    for (const auto& p : o.pins) pins += (pins.empty() ? "" : ", ") + p;
    const auto at = where(o.effect->place);
    const auto& what = motors.empty() ? pins : motors;  // of a pin that is only read there is no motor
    auto f = finding(
        Severity::Caution, fmt::format("What the program does with {} could not be told", what),
        fmt::format("{}: {}. Whether it uses {} the way {} is not known.", at.empty() ? std::string("In the program") : shownText(at),
                    shownText(o.effect->what), pins, motors.empty() ? std::string("the wires need") : motors + " needs"),
        o.pins);
    for (const int m : o.motors) f.subjects.push_back(idOf(s.bench, s.motors[m].device));
    if (o.effect->place.line > 0) f.spots = {o.effect->place};
    f.formula = fmt::format("{}: not told", pins);
    f.ways = {{fmt::format("Compare what happens there with the wires of {} by hand.", what)}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-open-effect", "program", "Something in the program that could not be told", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_open_effect
