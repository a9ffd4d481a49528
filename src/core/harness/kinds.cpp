#include "core/harness/kinds.h"

#include <fmt/core.h>

namespace bold::harness {

std::string bounds(const Kind& kind) {
  return fmt::format("{} to {}", fileText({kind.least, kind.unit}), fileText({kind.most, kind.unit}));
}

Result<AnyQuantity> parseKind(std::string_view text, const Kind& kind) {
  auto q = parseQuantity(text, kind.unit);
  if (q && !plausible(kind, q->value)) return fail(fmt::format("\"{}\" is not from {}", text, bounds(kind)));
  return q;
}

}  // namespace bold::harness
