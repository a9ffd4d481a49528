#include "core/harness/record.h"

namespace bold::harness {

std::string_view word(Marked what) {
  switch (what) {
    case Marked::Fitted:
      return "fitted";
    case Marked::Tugged:
      return "tugged";
    case Marked::Seen:
      return "seen";
    case Marked::Wrong:
      return "wrong";
  }
  return {};
}

}  // namespace bold::harness
