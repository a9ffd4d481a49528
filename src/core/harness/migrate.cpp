#include "core/harness/migrate.h"

#include <array>
#include <nlohmann/json.hpp>

#include "core/harness/harness.h"

namespace bold::harness {
namespace {
using Step = Json (*)(Json);
// steps[n] takes format n + 1 to format n + 2; a sample of each older format is kept in tests/harness/formats.
constexpr std::array<Step, kFormat - 1> kSteps{};
}  // namespace

Json migrate(Json harness) {
  auto format = harness["format"].get<std::size_t>();
  for (; format <= kSteps.size(); ++format) {
    harness = kSteps[format - 1](std::move(harness));  // NOLINT: empty until format 2 exists
    harness["format"] = format + 1;
  }
  return harness;
}

}  // namespace bold::harness
