#include "support/run_length.h"

#include <cstdlib>

namespace bold::test {

bool longRun() {
  return std::getenv("BOLD_LONG") != nullptr;  // NOLINT(concurrency-mt-unsafe): nothing sets it
}

int oneOf(int usually) {
  return longRun() ? 1 : usually;
}

}  // namespace bold::test
