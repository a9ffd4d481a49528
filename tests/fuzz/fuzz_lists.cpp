#include <cstddef>
#include <cstdint>

#include "fuzz/targets.h"

// For libFuzzer: ./dev fuzz lists SECONDS
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  bold::fuzz::lists({reinterpret_cast<const char*>(data), size});
  return 0;
}
