#pragma once

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <thread>
#include <vector>

namespace bold {

/// Calls f(0) .. f(n - 1), each once, on as many threads as the machine has; comes back when all are done. What f writes
/// must be apart for each index, so that the result does not depend on how many threads there are. f must not throw.
template <class F>
void inParallel(std::size_t n, const F& f) {
  std::atomic<std::size_t> next{0};
  const auto work = [&] {
    for (std::size_t k = next++; k < n; k = next++) f(k);
  };
  const auto cores = std::min<std::size_t>(std::max(1U, std::thread::hardware_concurrency()), n);
  std::vector<std::jthread> helpers;
  for (std::size_t k = 1; k < cores; ++k) helpers.emplace_back(work);
  work();
}

}  // namespace bold
