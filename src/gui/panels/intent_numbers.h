#pragma once

#include <QString>
#include <functional>
#include <optional>
#include <vector>

#include "core/base/result.h"
#include "core/harness/intent.h"

namespace bold::gui {

/// A number of an intent: how it is shown, and how what was typed is taken in. Empty text clears it.
struct IntentNumber {
  const char* id;  ///< as in checks::Field
  QString label, example, help;
  bool ofSteppers;  ///< or of motors whose speed is set by PWM
  std::function<QString(const harness::Intent&)> show;
  std::function<std::optional<Problem>(harness::Intent&, const std::string&)> take;
};

/// All of them, in the order they are shown in.
const std::vector<IntentNumber>& intentNumbers();

}  // namespace bold::gui
