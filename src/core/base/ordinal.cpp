#include "core/base/ordinal.h"

namespace bold {

std::string ordinal(int n) {
  const bool teen = n % 100 >= 11 && n % 100 <= 13;
  const char* tail = teen ? "th" : n % 10 == 1 ? "st" : n % 10 == 2 ? "nd" : n % 10 == 3 ? "rd" : "th";
  return std::to_string(n) + tail;
}

}  // namespace bold
