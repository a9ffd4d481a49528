#include "core/checks/current/contact_ratings.h"

#include <fmt/core.h>

#include <map>

#include "core/checks/queries.h"

namespace bold::checks {
std::optional<Amps> contactRating(const std::string& contact) {
  // Recalled figures of the class, not re-read: breadboard clips 1 A, pin headers with a decent socket 3 A, screw
  // terminals of 5 mm pitch 10 A.
  static const std::map<std::string, double> kAmps{{"hole", 1.0}, {"pin", 3.0}, {"socket", 3.0}, {"screw", 10.0}};
  const auto it = kAmps.find(contact);
  return it == kAmps.end() ? std::nullopt : std::optional(Amps{it->second});
}

}  // namespace bold::checks
