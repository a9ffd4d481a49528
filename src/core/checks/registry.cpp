#include <algorithm>
#include <array>

#include "core/base/embedded.h"
#include "core/checks/check.h"

// One line a check, causes before consequences: function, id, family, title, harm. The page and the examples are in
// docs/checks/<family>/<id>.md.
#define BOLD_CHECKS(X)                                                                                                   \
  X(outsideScope, "outside-scope", "commands", "Outside what is judged", WillNotWork)                                    \
  X(notSolved, "not-solved", "commands", "A command without a solution", WillNotWork)                                    \
  X(supplyShort, "supply-short", "voltage", "A supply is shorted", Danger)                                               \
  X(supplyReversed, "supply-reversed", "voltage", "A supply the wrong way round", Damage)                                \
  X(controllerUnpowered, "controller-unpowered", "voltage", "The controller is not powered", WillNotWork)                \
  X(outputShort, "output-short", "voltage", "An output on a rail", Damage)                                               \
  X(paralleledChannels, "paralleled-channels", "current", "Channels joined at their outputs", Damage)                    \
  X(shootThrough, "shoot-through", "commands", "Both switches of a leg on", Danger)                                      \
  X(motorOnPin, "motor-on-pin", "current", "A motor straight on a pin", Damage)                                          \
  X(railBroken, "rail-broken", "grounds", "A breadboard rail that is two", WillNotWork)                                  \
  X(isolatedCommon, "isolated-common", "grounds", "The common of isolated inputs", WillNotWork)                          \
  X(groundNotShared, "ground-not-shared", "grounds", "Controller and stage share no ground", WillNotWork)                \
  X(supplyReturnMissing, "supply-return-missing", "grounds", "No way back to the supply", WillNotWork)                   \
  X(groundThroughBoard, "ground-through-board", "grounds", "Motor current through the controller's ground", WillNotWork) \
  X(motorToGround, "motor-to-ground", "grounds", "A motor from an output to a rail", WillNotWork)                        \
  X(transistorOrientation, "transistor-orientation", "grounds", "A transistor the wrong way round", WillNotWork)         \
  X(highSideN, "high-side-n", "grounds", "An N-type transistor above the motor", WillNotWork)                            \
  X(highSidePStaysOn, "high-side-p-stays-on", "grounds", "A P-type transistor that never turns off", Danger)             \
  X(groundedCaseMotor, "grounded-case-motor", "grounds", "A motor whose case is one of its leads", Damage)               \
  X(coilInterrupted, "coil-interrupted", "steppers", "A switch in a coil's lead", Damage)                                \
  X(openLead, "open-lead", "grounds", "A lead goes nowhere", WillNotWork)                                                \
  X(regulatorInput, "regulator-input", "voltage", "A regulator's input out of range", Damage)                            \
  X(backFeed, "back-feed", "voltage", "Two supplies on one net", Damage)                                                 \
  X(capacitorRating, "capacitor-rating", "voltage", "A capacitor beyond its voltage or reversed", Damage)                \
  X(capacitorOnOutput, "capacitor-on-output", "voltage", "A capacitor on an output", Damage)                             \
  X(bulkCapacitorMissing, "bulk-capacitor-missing", "voltage", "No capacitor near the stage", Damage)                    \
  X(leadSpike, "lead-spike", "voltage", "A supply plugged in live rings", Damage)                                        \
  X(regeneration, "regeneration", "voltage", "A braking motor lifts its supply", Damage)                                 \
  X(gateOvervoltage, "gate-overvoltage", "voltage", "A gate or base beyond its limit", Damage)                           \
  X(servoSupply, "servo-supply", "steppers", "A servo's supply", Damage)                                                 \
  X(polaritySensitiveLoad, "polarity-sensitive-load", "steppers", "Electronics on an output that turns round", Damage)   \
  X(motorSupplyTooHigh, "motor-supply-too-high", "voltage", "Motor supply too high for the stage", Damage)               \
  X(motorSupplyTooLow, "motor-supply-too-low", "voltage", "Motor supply too low for the stage", WillNotWork)             \
  X(motorOvervoltage, "motor-overvoltage", "voltage", "Too many volts for the motor", Damage)                            \
  X(motorUndervoltage, "motor-undervoltage", "voltage", "Too few volts for the motor", WillNotWork)                      \
  X(moduleRegulatorSetting, "module-regulator-setting", "voltage", "The regulator link of a module", WillNotWork)        \
  X(brownOut, "brown-out", "voltage", "A motor start pulls the logic down", WillNotWork)                                 \
  X(logicSupplyOutOfRange, "logic-supply-out-of-range", "voltage", "Logic supply out of range", Damage)                  \
  X(diodeOnReversibleMotor, "diode-on-reversible-motor", "flyback", "A diode across a reversible motor", Damage)         \
  X(flybackReversed, "flyback-reversed", "flyback", "A clamp diode the wrong way round", Damage)                         \
  X(arrayCommonOpen, "array-common-open", "flyback", "An array's common left open", Damage)                              \
  X(bridgeDiodesMissing, "bridge-diodes-missing", "flyback", "A bridge without clamp diodes", Damage)                    \
  X(flybackMissing, "flyback-missing", "flyback", "No path for the winding's current", Damage)                           \
  X(flybackMisplaced, "flyback-misplaced", "flyback", "A diode where it clamps nothing", Damage)                         \
  X(stageUndersized, "stage-undersized", "current", "The stage is too small for the motor", Damage)                      \
  X(flybackRating, "flyback-rating", "flyback", "The clamp diode's ratings", Damage)                                     \
  X(runningCurrent, "running-current", "current", "More running current than the stage stands", Damage)                  \
  X(stallCurrent, "stall-current", "current", "More stall current than the stage stands", Damage)                        \
  X(reversalCurrent, "reversal-current", "current", "The current of a sudden reversal", Damage)                          \
  X(brakeCurrent, "brake-current", "current", "The current of a sudden brake", Damage)                                   \
  X(currentLimitVsProtection, "current-limit-vs-protection", "current", "A start above the trip level", WillNotWork)     \
  X(sharedChannel, "shared-channel", "current", "Several motors on one channel", Damage)                                 \
  X(boardRailCurrent, "board-rail-current", "current", "More from a board's rail than it gives", Damage)                 \
  X(vinAsOutput, "vin-as-output", "current", "Motors fed through a board's input pin", Damage)                           \
  X(supplyCurrent, "supply-current", "current", "More than the supply gives", WillNotWork)                               \
  X(phaseCurrentUnlimited, "phase-current-unlimited", "current", "Nothing limits the coil current", Damage)              \
  X(junctionTemperature, "junction-temperature", "heat", "Too hot inside", Damage)                                       \
  X(regulatorHeat, "regulator-heat", "heat", "A regulator gets too hot", Damage)                                         \
  X(heatSinkNeeded, "heat-sink-needed", "heat", "A heat sink is needed", Damage)                                         \
  X(motorHeat, "motor-heat", "heat", "A motor's winding gets too hot", Damage)                                           \
  X(pinCurrent, "pin-current", "current", "More current than a pin stands", Damage)                                      \
  X(pinTotalCurrent, "pin-total-current", "current", "More current than all pins together stand", Damage)                \
  X(currentLimitSetting, "current-limit-setting", "current", "The current limit of a step/dir stage", Damage)            \
  X(runTime, "run-time", "current", "A battery that lasts less than half an hour", WillNotWork)                          \
  X(packOverDischarge, "pack-over-discharge", "current", "A lithium pack without cut-off", Danger)                       \
  X(noCutOff, "no-cut-off", "current", "A strong supply without a switch", Danger)                                       \
  X(fuse, "fuse", "current", "Fuses", Danger)                                                                            \
  X(wireCurrent, "wire-current", "current", "More than a wire carries", Danger)                                          \
  X(contactCurrent, "contact-current", "current", "More than a contact carries", Damage)                                 \
  X(snubberNote, "snubber-note", "flyback", "Long leads without suppression", WillNotWork)                               \
  X(wireToItself, "wire-to-itself", "grounds", "A wire or part that does nothing", WillNotWork)                          \
  X(switchRating, "switch-rating", "steppers", "A switch beyond its DC rating", Danger)                                  \
  X(supplySequence, "supply-sequence", "steppers", "The order of two supplies", Damage)                                  \
  X(baseDrive, "base-drive", "current", "Too little base current", WillNotWork)                                          \
  X(gateDrive, "gate-drive", "current", "Too little gate voltage", WillNotWork)                                          \
  X(pinBootState, "pin-boot-state", "pins", "A motor moves at power-up", Danger)                                         \
  X(pinCannotDrive, "pin-cannot-drive", "pins", "A pin that cannot be written", WillNotWork)                             \
  X(pinConflict, "pin-conflict", "pins", "Two jobs for one pin, two pins on one net", Damage)                            \
  X(pinStrapping, "pin-strapping", "pins", "A pin that decides how the board starts", WillNotWork)                       \
  X(pinSerial, "pin-serial", "pins", "A signal on the console's pin", WillNotWork)                                       \
  X(staticDirectionPwm, "static-direction-pwm", "pins", "Direction and PWM on two inputs", WillNotWork)                  \
  X(pinNumbering, "pin-numbering", "pins", "A pin number that means two pins", WillNotWork)                              \
  X(pinNoPwm, "pin-no-pwm", "pins", "Speed asked of a pin without PWM", WillNotWork)                                     \
  X(pwmFrequency, "pwm-frequency", "pins", "The PWM frequency", WillNotWork)                                             \
  X(stepRate, "step-rate", "steppers", "The step rate", WillNotWork)                                                     \
  X(levelHigh, "level-high", "levels", "A high that is not read as high", WillNotWork)                                   \
  X(levelLow, "level-low", "levels", "A low that is not read as low", WillNotWork)                                       \
  X(inputOvervoltage, "input-overvoltage", "levels", "An input above what it stands", Damage)                            \
  X(inputUnpowered, "input-unpowered", "levels", "An input driven without supply", Damage)                               \
  X(openDrainWithoutPullUp, "open-drain-without-pull-up", "levels", "An open-drain output without pull-up", WillNotWork) \
  X(optoInputCurrent, "opto-input-current", "levels", "The LED current of an isolated input", Damage)                    \
  X(optoNeverOff, "opto-never-off", "levels", "An isolated input that never goes off", WillNotWork)                      \
  X(darlingtonInput, "darlington-input", "levels", "Too few volts at an array's input", WillNotWork)                     \
  X(activeLevel, "active-level", "levels", "On and off the wrong way round", WillNotWork)                                \
  X(neverDriven, "never-driven", "commands", "A motor that no pin can move", WillNotWork)                                \
  X(inputFloating, "input-floating", "levels", "An input that nothing holds", WillNotWork)                               \
  X(leadCount, "lead-count", "steppers", "A stepper's leads and its stage", WillNotWork)                                 \
  X(phaseOrder, "phase-order", "steppers", "Coils out of order", WillNotWork)                                            \
  X(microstepSetting, "microstep-setting", "steppers", "Mode pins against the program's steps", WillNotWork)             \
  X(stepTiming, "step-timing", "steppers", "Step pulses too short or too fast", WillNotWork)                             \
  X(stageNotAwake, "stage-not-awake", "steppers", "A stage kept off", WillNotWork)                                       \
  X(coilPairs, "coil-pairs", "steppers", "Coil leads over two bridges", WillNotWork)                                     \
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
