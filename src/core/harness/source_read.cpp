#include "core/harness/source_read.h"

namespace bold::harness {

const std::set<std::string> kPinDoings{"analog", "bus", "high", "input",  "interrupt", "low",  "output", "pull-down", "pull-up",
                                       "pulse",  "pwm", "read", "serial", "servo",     "soft", "tone",   "write"};

}  // namespace bold::harness
