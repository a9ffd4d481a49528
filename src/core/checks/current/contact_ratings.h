#pragma once

#include "core/checks/queries.h"

namespace bold::checks {

/// What a contact carries for long; nothing for soldered and unknown ones.
std::optional<Amps> contactRating(const std::string& contact);

}  // namespace bold::checks
