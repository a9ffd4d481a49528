#include <algorithm>
#include <array>

#include "core/base/embedded.h"
#include "core/checks/check.h"

// One line a check, causes before consequences: function, id, family, title, harm. The page and the examples are in
// docs/checks/<family>/<id>.md.
#define BOLD_CHECKS(X)                                                                                        \
  X(outsideScope, "outside-scope", "commands", "Outside what is judged", WillNotWork)                         \
  X(notSolved, "not-solved", "commands", "A command without a solution", WillNotWork)                         \
  X(supplyShort, "supply-short", "voltage", "A supply is shorted", Danger)                                    \
  X(supplyReversed, "supply-reversed", "voltage", "A supply the wrong way round", Damage)                     \
  X(controllerUnpowered, "controller-unpowered", "voltage", "The controller is not powered", WillNotWork)     \
  X(outputShort, "output-short", "voltage", "An output on a rail", Damage)                                    \
  X(motorOnPin, "motor-on-pin", "current", "A motor straight on a pin", Damage)                               \
  X(groundNotShared, "ground-not-shared", "grounds", "Controller and stage share no ground", WillNotWork)     \
  X(supplyReturnMissing, "supply-return-missing", "grounds", "No way back to the supply", WillNotWork)        \
  X(openLead, "open-lead", "grounds", "A lead goes nowhere", WillNotWork)                                     \
  X(motorSupplyTooHigh, "motor-supply-too-high", "voltage", "Motor supply too high for the stage", Damage)    \
  X(motorSupplyTooLow, "motor-supply-too-low", "voltage", "Motor supply too low for the stage", WillNotWork)  \
  X(motorOvervoltage, "motor-overvoltage", "voltage", "Too many volts for the motor", Damage)                 \
  X(logicSupplyOutOfRange, "logic-supply-out-of-range", "voltage", "Logic supply out of range", Damage)       \
  X(flybackReversed, "flyback-reversed", "flyback", "A clamp diode the wrong way round", Damage)              \
  X(flybackMissing, "flyback-missing", "flyback", "No path for the winding's current", Damage)                \
  X(flybackMisplaced, "flyback-misplaced", "flyback", "A diode where it clamps nothing", Damage)              \
  X(runningCurrent, "running-current", "current", "More running current than the stage stands", Damage)       \
  X(stallCurrent, "stall-current", "current", "More stall current than the stage stands", Damage)             \
  X(pinCurrent, "pin-current", "current", "More current than a pin stands", Damage)                           \
  X(currentLimitSetting, "current-limit-setting", "current", "The current limit of a step/dir stage", Damage) \
  X(baseDrive, "base-drive", "current", "Too little base current", WillNotWork)                               \
  X(gateDrive, "gate-drive", "current", "Too little gate voltage", WillNotWork)                               \
  X(pinCannotDrive, "pin-cannot-drive", "pins", "A pin that cannot be written", WillNotWork)                  \
  X(pinConflict, "pin-conflict", "pins", "Two jobs for one pin, two pins on one net", Damage)                 \
  X(pinNoPwm, "pin-no-pwm", "pins", "Speed asked of a pin without PWM", WillNotWork)                          \
  X(levelHigh, "level-high", "levels", "A high that is not read as high", WillNotWork)                        \
  X(inputFloating, "input-floating", "levels", "An input that nothing holds", WillNotWork)                    \
  X(stageNotAwake, "stage-not-awake", "steppers", "A stage kept off", WillNotWork)                            \
  X(coilPairs, "coil-pairs", "steppers", "Coil leads over two bridges", WillNotWork)                          \
  X(commandOutcome, "command-outcome", "commands", "A command comes out wrong", WillNotWork)

namespace bold::checks {

#define BOLD_DECLARE(function, id, family, title, harm) /* NOLINT(bugprone-macro-parentheses) */ \
  Findings function(const circuit::SolvedBench&);
BOLD_CHECKS(BOLD_DECLARE)
#undef BOLD_DECLARE

namespace {
#define BOLD_ENTRY(function, id, family, title, harm) /* NOLINT(bugprone-macro-parentheses) */ \
  Check{id, family, title, Harm::harm, &function},
constexpr std::array kRegistry{BOLD_CHECKS(BOLD_ENTRY)};
#undef BOLD_ENTRY
}  // namespace

std::span<const Check> registry() {
  return kRegistry;
}

const Check* findCheck(std::string_view id) {
  const auto it = std::ranges::find(kRegistry, id, &Check::id);
  return it == kRegistry.end() ? nullptr : &*it;
}

std::string_view page(std::string_view id) {
  const auto* c = findCheck(id);
  if (!c) return {};
  const auto path = std::string(c->family) + "/" + std::string(id) + ".md";
  for (const auto& f : embedded::pages())
    if (f.path == path) return f.text;
  return {};
}

}  // namespace bold::checks
