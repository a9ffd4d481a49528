#pragma once

#include "core/checks/program/absence.h"

/// Checks that say what a program never does: what each would say if nothing were open.
namespace bold::checks {

namespace program_pin_undriven {
Absences absences(const ProgramOnBench& program);
}
namespace program_goal_unserved {
Absences absences(const ProgramOnBench& program);
}
namespace program_enable_inverted {
Absences absences(const ProgramOnBench& program);
}
namespace program_pin_mode {
Absences absences(const ProgramOnBench& program);
}
namespace program_read_floats {
Absences absences(const ProgramOnBench& program);
}

}  // namespace bold::checks
