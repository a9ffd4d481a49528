#include "core/harness/source_read.h"

namespace bold::harness {

PinUse::PinUse() = default;
PinUse::PinUse(const PinUse&) = default;
PinUse::PinUse(PinUse&&) noexcept = default;
PinUse& PinUse::operator=(const PinUse&) = default;
PinUse& PinUse::operator=(PinUse&&) noexcept = default;
PinUse::~PinUse() = default;

SourceRead::SourceRead() = default;
SourceRead::SourceRead(const SourceRead&) = default;
SourceRead::SourceRead(SourceRead&&) noexcept = default;
SourceRead& SourceRead::operator=(const SourceRead&) = default;
SourceRead& SourceRead::operator=(SourceRead&&) noexcept = default;
SourceRead::~SourceRead() = default;

const std::set<std::string> kPinDoings{"analog", "bus", "high", "input",  "interrupt", "low",  "output", "pull-down", "pull-up",
                                       "pulse",  "pwm", "read", "serial", "servo",     "soft", "tone",   "write"};

}  // namespace bold::harness
