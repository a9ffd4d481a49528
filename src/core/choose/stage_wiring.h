#pragma once

#include <string>

#include "core/harness/edit.h"
#include "core/parts/library.h"

namespace bold::choose {

/// What is to be put on the bench, for which motor.
struct StageWish {
  std::string motor;      ///< device
  std::string stage;      ///< part; or a device of the bench that has a channel free
  std::string supply;     ///< device that feeds the motor; empty: the first supply that feeds no controller, else the first of all
  bool parallel = false;  ///< on two channels that may be joined
};

/// The edit, all of it planned, that puts a stage on the bench for a motor, in the place of the one it hangs on, and wires it: supplies by
/// purpose, grounds, signals to free pins, ties for inputs that must not float, jumpers that come with it, what its part requires besides,
/// the motor's leads; and states the pins that it took. Everything follows from the part's file: elements, roles, conditions, requirements.
/// Errors: what the bench lacks or why the stage cannot drive such a motor, in one sentence.
[[nodiscard]] Result<harness::Edit> wireStage(const harness::Harness& harness, const parts::Library& library, const StageWish& wish);

}  // namespace bold::choose
