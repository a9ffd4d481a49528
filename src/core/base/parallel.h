#pragma once

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <thread>
#include <vector>

namespace bold {

// Whether this thread works for no inParallel. Not called "helping" and false: Debian 12's mold (1.10) may put a segment of
// zero-initialised thread-local data where nothing is mapped, and the program does not start.
inline thread_local bool t_idle = true;

/// Calls f(0) .. f(n - 1), each once, on as many threads as the machine has; comes back when all are done. What f writes
/// must be apart for each index, so that the result does not depend on how many threads there are. f must not throw. Called by
/// an f, it is done by f's thread alone: the others are busy already.
template <class F>
void inParallel(std::size_t n, const F& f) {
  std::atomic<std::size_t> next{0};
  const bool within = !t_idle;
  const auto work = [&] {
    t_idle = n < 2 && !within;  // with a single task there is nobody to wait for
    for (std::size_t k = next++; k < n; k = next++) f(k);
    t_idle = !within;
  };
  const auto cores = within ? 1 : std::min<std::size_t>(std::max(1U, std::thread::hardware_concurrency()), n);
  std::vector<std::jthread> helpers;
  for (std::size_t k = 1; k < cores; ++k) helpers.emplace_back(work);
  work();
}

}  // namespace bold
