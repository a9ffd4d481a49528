#include "subcommand.h"

// In the order of the help.
#define BOLD_SUBCOMMANDS(X) \
  X(check)                  \
  X(solve)                  \
  X(explain)                \
  X(checks_list) X(parts_list) X(part) X(place) X(stages) X(choose) X(pins) X(diff) X(wires) X(program) X(export_file) X(class_table)

namespace bold::cli {

#define BOLD_DECLARE(name) \
  namespace name {         \
  Subcommand subcommand(); \
  }
BOLD_SUBCOMMANDS(BOLD_DECLARE)
#undef BOLD_DECLARE

std::vector<Subcommand> subcommands() {
#define BOLD_ENTRY(name) name::subcommand(),
  return {BOLD_SUBCOMMANDS(BOLD_ENTRY)};
#undef BOLD_ENTRY
}

}  // namespace bold::cli
