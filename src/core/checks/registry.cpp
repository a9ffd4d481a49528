#include <algorithm>
#include <array>
#include <type_traits>

#include "core/base/embedded.h"
#include "core/checks/check.h"

// One line a check, causes before consequences: what it returns (Said where it measures, Findings where it does not), function,
// id, family, title, harm. The page and the examples are in docs/checks/<family>/<id>.md.
#define BOLD_CHECKS(X)                                                                                                             \
  X(Said, outsideScope, "outside-scope", "commands", "Outside what is judged", WillNotWork)                                        \
  X(Findings, notSolved, "not-solved", "commands", "A command without a solution", WillNotWork)                                    \
  X(Said, supplyShort, "supply-short", "voltage", "A supply is shorted", Danger)                                                   \
  X(Findings, supplyReversed, "supply-reversed", "voltage", "A supply the wrong way round", Damage)                                \
  X(Findings, regulatorReversed, "regulator-reversed", "voltage", "A regulator the wrong way round", Damage)                       \
  X(Said, controllerUnpowered, "controller-unpowered", "voltage", "The controller is not powered", WillNotWork)                    \
  X(Said, railsJoined, "rails-joined", "voltage", "Two supplies joined at one wire", Damage)                                       \
  X(Findings, outputShort, "output-short", "voltage", "An output on a rail", Damage)                                               \
  X(Findings, paralleledChannels, "paralleled-channels", "current", "Channels joined at their outputs", Damage)                    \
  X(Findings, shootThrough, "shoot-through", "commands", "Both switches of a leg on", Danger)                                      \
  X(Findings, motorOnPin, "motor-on-pin", "current", "A motor straight on a pin", Damage)                                          \
  X(Findings, railDead, "rail-dead", "grounds", "A rail that nothing feeds", WillNotWork)                                          \
  X(Findings, railBroken, "rail-broken", "grounds", "A breadboard rail that is two", WillNotWork)                                  \
  X(Findings, isolatedCommon, "isolated-common", "grounds", "The common of isolated inputs", WillNotWork)                          \
  X(Findings, groundNotShared, "ground-not-shared", "grounds", "Controller and stage share no ground", WillNotWork)                \
  X(Findings, supplyReturnMissing, "supply-return-missing", "grounds", "No way back to the supply", WillNotWork)                   \
  X(Said, groundThroughBoard, "ground-through-board", "grounds", "Motor current through the controller's ground", WillNotWork)     \
  X(Findings, motorAcrossChannels, "motor-across-channels", "grounds", "A motor between two channels", WillNotWork)                \
  X(Findings, motorToGround, "motor-to-ground", "grounds", "A motor from an output to a rail", WillNotWork)                        \
  X(Findings, transistorOrientation, "transistor-orientation", "grounds", "A transistor the wrong way round", WillNotWork)         \
  X(Said, highSideN, "high-side-n", "grounds", "An N-type transistor above the motor", WillNotWork)                                \
  X(Findings, highSidePStaysOn, "high-side-p-stays-on", "grounds", "A P-type transistor that never turns off", Danger)             \
  X(Findings, groundedCaseMotor, "grounded-case-motor", "grounds", "A motor whose case is one of its leads", Damage)               \
  X(Findings, coilInterrupted, "coil-interrupted", "steppers", "A switch in a coil's lead", Damage)                                \
  X(Findings, openLead, "open-lead", "grounds", "A lead goes nowhere", WillNotWork)                                                \
  X(Said, regulatorInput, "regulator-input", "voltage", "A regulator's input out of range", Damage)                                \
  X(Said, backFeed, "back-feed", "voltage", "Two supplies on one net", Damage)                                                     \
  X(Said, capacitorRating, "capacitor-rating", "voltage", "A capacitor beyond its voltage or reversed", Damage)                    \
  X(Said, capacitorOnOutput, "capacitor-on-output", "voltage", "A capacitor on an output", Damage)                                 \
  X(Said, bulkCapacitorMissing, "bulk-capacitor-missing", "voltage", "No capacitor near the stage", Damage)                        \
  X(Said, leadSpike, "lead-spike", "voltage", "A supply plugged in live rings", Damage)                                            \
  X(Said, regeneration, "regeneration", "voltage", "A braking motor lifts its supply", Damage)                                     \
  X(Said, gateOvervoltage, "gate-overvoltage", "voltage", "A gate or base beyond its limit", Damage)                               \
  X(Said, servoSupply, "servo-supply", "steppers", "A servo's supply", Damage)                                                     \
  X(Findings, polaritySensitiveLoad, "polarity-sensitive-load", "steppers", "Electronics on an output that turns round", Damage)   \
  X(Said, motorSupplyTooHigh, "motor-supply-too-high", "voltage", "Motor supply too high for the stage", Damage)                   \
  X(Said, motorSupplyTooLow, "motor-supply-too-low", "voltage", "Motor supply too low for the stage", WillNotWork)                 \
  X(Said, motorOvervoltage, "motor-overvoltage", "voltage", "Too many volts for the motor", Damage)                                \
  X(Said, motorUndervoltage, "motor-undervoltage", "voltage", "Too few volts for the motor", WillNotWork)                          \
  X(Findings, moduleRegulatorSetting, "module-regulator-setting", "voltage", "The regulator link of a module", WillNotWork)        \
  X(Said, brownOut, "brown-out", "voltage", "A motor start pulls the logic down", WillNotWork)                                     \
  X(Said, logicSupplyOutOfRange, "logic-supply-out-of-range", "voltage", "Logic supply out of range", Damage)                      \
  X(Said, phaseCurrentUnlimited, "phase-current-unlimited", "current", "Nothing limits the coil current", Damage)                  \
  X(Findings, diodeOnReversibleMotor, "diode-on-reversible-motor", "flyback", "A diode across a reversible motor", Damage)         \
  X(Findings, flybackReversed, "flyback-reversed", "flyback", "A clamp diode the wrong way round", Damage)                         \
  X(Findings, arrayCommonOpen, "array-common-open", "flyback", "An array's common left open", Damage)                              \
  X(Findings, bridgeDiodesMissing, "bridge-diodes-missing", "flyback", "A bridge without clamp diodes", Damage)                    \
  X(Said, flybackMissing, "flyback-missing", "flyback", "No path for the winding's current", Damage)                               \
  X(Findings, flybackMisplaced, "flyback-misplaced", "flyback", "A diode where it clamps nothing", Damage)                         \
  X(Said, stageUndersized, "stage-undersized", "current", "The stage is too small for the motor", Damage)                          \
  X(Said, flybackRating, "flyback-rating", "flyback", "The clamp diode's ratings", Damage)                                         \
  X(Said, runningCurrent, "running-current", "current", "More running current than the stage stands", Damage)                      \
  X(Said, stallCurrent, "stall-current", "current", "More stall current than the stage stands", Damage)                            \
  X(Said, reversalCurrent, "reversal-current", "current", "The current of a sudden reversal", Damage)                              \
  X(Said, brakeCurrent, "brake-current", "current", "The current of a sudden brake", Damage)                                       \
  X(Said, currentLimitVsProtection, "current-limit-vs-protection", "current", "A start above the trip level", WillNotWork)         \
  X(Said, sharedChannel, "shared-channel", "current", "Several motors on one channel", Damage)                                     \
  X(Said, boardRailCurrent, "board-rail-current", "current", "More from a board's rail than it gives", Damage)                     \
  X(Said, vinAsOutput, "vin-as-output", "current", "Motors fed through a board's input pin", Damage)                               \
  X(Said, supplyCurrent, "supply-current", "current", "More than the supply gives", WillNotWork)                                   \
  X(Said, junctionTemperature, "junction-temperature", "heat", "Too hot inside", Damage)                                           \
  X(Said, regulatorHeat, "regulator-heat", "heat", "A regulator gets too hot", Damage)                                             \
  X(Said, heatSinkNeeded, "heat-sink-needed", "heat", "A heat sink is needed", Damage)                                             \
  X(Said, resistorPower, "resistor-power", "heat", "A resistor that gets too hot", Damage)                                         \
  X(Said, motorHeat, "motor-heat", "heat", "A motor's winding gets too hot", Damage)                                               \
  X(Said, pinCurrent, "pin-current", "current", "More current than a pin stands", Damage)                                          \
  X(Said, pinTotalCurrent, "pin-total-current", "current", "More current than all pins together stand", Damage)                    \
  X(Said, currentLimitSetting, "current-limit-setting", "current", "The current limit of a step/dir stage", Damage)                \
  X(Said, runTime, "run-time", "current", "A battery that lasts less than half an hour", WillNotWork)                              \
  X(Findings, packOverDischarge, "pack-over-discharge", "current", "A lithium pack without cut-off", Danger)                       \
  X(Findings, noCutOff, "no-cut-off", "current", "A strong supply without a switch", Danger)                                       \
  X(Said, fuse, "fuse", "current", "Fuses", Danger)                                                                                \
  X(Said, diodeCurrent, "diode-current", "current", "A diode in the way of the current", Damage)                                   \
  X(Said, wireCurrent, "wire-current", "current", "More than a wire carries", Danger)                                              \
  X(Said, contactCurrent, "contact-current", "current", "More than a contact carries", Damage)                                     \
  X(Said, snubberNote, "snubber-note", "flyback", "Long leads without suppression", WillNotWork)                                   \
  X(Findings, wireToItself, "wire-to-itself", "grounds", "A wire or part that does nothing", WillNotWork)                          \
  X(Said, switchRating, "switch-rating", "steppers", "A switch beyond its DC rating", Danger)                                      \
  X(Findings, supplySequence, "supply-sequence", "steppers", "The order of two supplies", Damage)                                  \
  X(Said, baseDrive, "base-drive", "current", "Too little base current", WillNotWork)                                              \
  X(Said, gateDrive, "gate-drive", "current", "Too little gate voltage", WillNotWork)                                              \
  X(Findings, pinBootState, "pin-boot-state", "pins", "A motor moves at power-up", Danger)                                         \
  X(Findings, pinCannotDrive, "pin-cannot-drive", "pins", "A pin that cannot be written", WillNotWork)                             \
  X(Findings, pinConflict, "pin-conflict", "pins", "Two jobs for one pin, two pins on one net", Damage)                            \
  X(Findings, pinStrapping, "pin-strapping", "pins", "A pin that decides how the board starts", WillNotWork)                       \
  X(Findings, pinSerial, "pin-serial", "pins", "A signal on the console's pin", WillNotWork)                                       \
  X(Findings, staticDirectionPwm, "static-direction-pwm", "pins", "Direction and PWM on two inputs", WillNotWork)                  \
  X(Findings, pinNumbering, "pin-numbering", "pins", "A pin number that means two pins", WillNotWork)                              \
  X(Findings, pwmChannelShared, "pwm-channel-shared", "pins", "Two speeds on one PWM channel", WillNotWork)                        \
  X(Findings, pinNoPwm, "pin-no-pwm", "pins", "Speed asked of a pin without PWM", WillNotWork)                                     \
  X(Said, pwmFrequency, "pwm-frequency", "pins", "The PWM frequency", WillNotWork)                                                 \
  X(Said, stepRate, "step-rate", "steppers", "The step rate", WillNotWork)                                                         \
  X(Said, levelHigh, "level-high", "levels", "A high that is not read as high", WillNotWork)                                       \
  X(Said, levelLow, "level-low", "levels", "A low that is not read as low", WillNotWork)                                           \
  X(Said, inputOvervoltage, "input-overvoltage", "levels", "An input above what it stands", Damage)                                \
  X(Findings, inputUnpowered, "input-unpowered", "levels", "An input driven without supply", Damage)                               \
  X(Findings, openDrainWithoutPullUp, "open-drain-without-pull-up", "levels", "An open-drain output without pull-up", WillNotWork) \
  X(Said, optoInputCurrent, "opto-input-current", "levels", "The LED current of an isolated input", Damage)                        \
  X(Said, optoNeverOff, "opto-never-off", "levels", "An isolated input that never goes off", WillNotWork)                          \
  X(Said, darlingtonInput, "darlington-input", "levels", "Too few volts at an array's input", WillNotWork)                         \
  X(Findings, activeLevel, "active-level", "levels", "On and off the wrong way round", WillNotWork)                                \
  X(Findings, neverDriven, "never-driven", "commands", "A motor that no pin can move", WillNotWork)                                \
  X(Findings, inputFloating, "input-floating", "levels", "An input that nothing holds", WillNotWork)                               \
  X(Findings, leadCount, "lead-count", "steppers", "A stepper's leads and its stage", WillNotWork)                                 \
  X(Findings, phaseOrder, "phase-order", "steppers", "Coils out of order", WillNotWork)                                            \
  X(Findings, microstepSetting, "microstep-setting", "steppers", "Mode pins against the program's steps", WillNotWork)             \
  X(Said, stepTiming, "step-timing", "steppers", "Step pulses too short or too fast", WillNotWork)                                 \
  X(Findings, stageNotAwake, "stage-not-awake", "steppers", "A stage kept off", WillNotWork)                                       \
  X(Findings, coilPairs, "coil-pairs", "steppers", "Coil leads over two bridges", WillNotWork)                                     \
  X(Findings, commandOutcome, "command-outcome", "commands", "A command comes out wrong", WillNotWork)

namespace bold::checks {

#define BOLD_DECLARE(result, function, id, family, title, harm) /* NOLINT(bugprone-macro-parentheses) */ \
  result function(const bench::SolvedBench&);
BOLD_CHECKS(BOLD_DECLARE)
#undef BOLD_DECLARE

namespace {
Said said(Said said) {
  return said;
}
Said said(Findings findings) {
  return {std::move(findings), {}};
}

#define BOLD_ENTRY(result, function, id, family, title, harm) /* NOLINT(bugprone-macro-parentheses) */ \
  Check{id, family, title, Harm::harm, std::is_same_v<result, Said>, [](const bench::SolvedBench& s) { return said(function(s)); }},
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

std::string_view howToMend(std::string_view id) {
  constexpr std::string_view kHead = "## How to mend\n";
  const auto all = page(id);
  const auto at = all.find(kHead);
  if (at == std::string_view::npos) return {};
  auto text = all.substr(at + kHead.size());
  text = text.substr(0, text.find("\n## "));
  while (!text.empty() && text.front() == '\n') text.remove_prefix(1);
  while (!text.empty() && text.back() == '\n') text.remove_suffix(1);
  return text;
}

}  // namespace bold::checks
