#include "core/parts/own_parts.h"

#include <cstdlib>

namespace bold::parts {

std::string ownFolder() {
  const char* data = std::getenv("XDG_DATA_HOME");  // NOLINT(concurrency-mt-unsafe): read once, at start
  if (data && *data == '/') return std::string(data) + "/bold-harness/parts";
  const char* home = std::getenv("HOME");  // NOLINT(concurrency-mt-unsafe)
  return home && *home ? std::string(home) + "/.local/share/bold-harness/parts" : std::string();
}

}  // namespace bold::parts
