#pragma once

#include <numeric>
#include <vector>

namespace bold {

/// Union-find over n items; find gives the least member as representative.
class Groups {
 public:
  explicit Groups(std::size_t n) : m_parent(n) { std::iota(m_parent.begin(), m_parent.end(), 0); }
  int find(int i);
  void join(int a, int b);

 private:
  std::vector<int> m_parent;
};

}  // namespace bold
