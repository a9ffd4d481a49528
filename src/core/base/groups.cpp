#include "core/base/groups.h"

#include <utility>

namespace bold {

int Groups::find(int i) {
  while (m_parent[i] != i) {
    m_parent[i] = m_parent[m_parent[i]];
    i = m_parent[i];
  }
  return i;
}

void Groups::join(int a, int b) {
  a = find(a);
  b = find(b);
  if (a > b) std::swap(a, b);
  m_parent[b] = a;
}

}  // namespace bold
