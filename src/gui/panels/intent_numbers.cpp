#include "gui/panels/intent_numbers.h"

#include <QObject>

#include "core/base/number.h"
#include "core/harness/kinds.h"
#include "gui/qs.h"

namespace bold::gui {
namespace {

template <class Q>
IntentNumber quantityOf(const char* id, const QString& label, const QString& example, const QString& help, bool ofSteppers,
                        harness::Kind kind, std::optional<Q> harness::Intent::*field) {
  return {id,
          label,
          example,
          help,
          ofSteppers,
          [field](const harness::Intent& i) { return i.*field ? qs(displayText(*(i.*field))) : QString(); },
          [field, kind](harness::Intent& i, const std::string& text) -> std::optional<Problem> {
            if (text.empty()) {
              (i.*field).reset();
              return std::nullopt;
            }
            const auto q = harness::parseKind(text, kind);
            if (!q) return q.error();
            i.*field = Q{q->value};
            return std::nullopt;
          }};
}

}  // namespace

const std::vector<IntentNumber>& intentNumbers() {
  using harness::Intent;
  static const std::vector<IntentNumber> all{
      quantityOf<Hertz>("pwm", QObject::tr("PWM"), QObject::tr("490 Hz"), QObject::tr("How often the program switches in a second"), false,
                        harness::kPwmFrequency, &Intent::pwm),
      {"duty", QObject::tr("greatest duty"), QObject::tr("80 %"),
       QObject::tr("The program never asks for more than this share of full speed"), false,
       [](const Intent& i) { return i.dutyCap ? QString("%1 %").arg(*i.dutyCap * 100) : QString(); },
       [](Intent& i, const std::string& text) -> std::optional<Problem> {
         if (text.empty()) {
           i.dutyCap.reset();
           return std::nullopt;
         }
         const auto percent = realOf(qs(text).remove('%').trimmed().toStdString());
         if (!percent || *percent <= 0 || *percent > 100) return Problem{"The greatest duty is a share between 0 and 100 %.", {}, {}};
         i.dutyCap = *percent / 100;
         return std::nullopt;
       }},
      quantityOf<Hertz>("rate", QObject::tr("step rate"), QObject::tr("800 Hz"), QObject::tr("Step pulses a second that are wanted"), true,
                        harness::kStepRate, &Intent::rate),
      {"steps", QObject::tr("steps a turn"), QObject::tr("200, or 1600 with eighth steps"),
       QObject::tr("Step pulses that the program counts for one turn of the shaft"), true,
       [](const Intent& i) { return i.stepsPerTurn ? QString::number(*i.stepsPerTurn) : QString(); },
       [](Intent& i, const std::string& text) -> std::optional<Problem> {
         if (text.empty()) {
           i.stepsPerTurn.reset();
           return std::nullopt;
         }
         const auto steps = wholeOf(qs(text).trimmed().toStdString());
         if (!steps || *steps < 1 || *steps > 1000000) return Problem{"Steps a turn are a whole number from 1 to 1000000.", {}, {}};
         i.stepsPerTurn = static_cast<int>(*steps);
         return std::nullopt;
       }},
      quantityOf<Seconds>("pulse", QObject::tr("step pulse"), QObject::tr("2 us"), QObject::tr("How long the program holds a step pulse"),
                          true, harness::kPulseLength, &Intent::pulse)};
  return all;
}

}  // namespace bold::gui
