#include <fmt/core.h>

#include <array>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_duty_scale {
namespace {

constexpr double kTinyShare = 0.02;  // no motor turns below

// The scale that a duty may have been meant in, where it is far below its own; 0: none.
double meantScale(double written, double scale) {
  for (const double other : {1.0, 100.0, 255.0, 1023.0, 4095.0})
    if (other < scale / 3 && written <= other && written > other * 0.2) return other;
  return 0;
}

}  // namespace

// The greatest duty that is written against what counts as all of the time.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& u : program.used()) {
    if (u.pin < 0 || !u.use->written || !u.use->scale || program.rolesAt(u.pin).empty()) continue;
    const double written = *u.use->written, scale = *u.use->scale;
    const auto& motor = called(s, s.motors[program.rolesAt(u.pin).front()->motor]);
    const bool over = written > scale * 1.0001 || written < 0;
    // That it never turns is only known where nothing else may write the pin.
    const bool under = written > 0 && written / scale < kTinyShare && u.use->duty && !program.openAt(u.pin);
    if (!over && !under) continue;
    const double meant = under ? meantScale(written, scale) : 0;
    auto f = programFinding(
        over ? Severity::Stop : Severity::Caution, fmt::format("A duty of {:g} on a scale of {:g}", written, scale),
        over ? fmt::format("The program writes a duty of {:g} to {} of {}, where {:g} is all of the time: it is cut off, starts again from "
                           "nothing, or is refused.",
                           written, said(*u.use), motor, scale)
             : fmt::format("The program writes a duty of at most {:g} to {} of {}, where {:g} is all of the time: {} never turns{}.",
                           written, said(*u.use), motor, scale, motor,
                           meant > 0 ? fmt::format(". As {:g} of {:g} it would be {:.0f} %", written, meant, 100 * written / meant) : ""),
        {s.bench.address(u.pin)}, *u.use);
    f.formula =
        over ? fmt::format("{:g} > {:g}", written, scale) : fmt::format("{:g} / {:g} = {:.2f} %", written, scale, 100 * written / scale);
    f.ways = {{fmt::format("Write duties from 0 to {:g} there.", scale)}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-duty-scale", "program", "A duty on the wrong scale", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_duty_scale
