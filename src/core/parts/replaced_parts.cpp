#include "core/parts/replaced_parts.h"

namespace bold::parts {
namespace {
constexpr std::size_t kMost = 1000;  // more are not on a bench; figures being typed in leave theirs behind
}

ReplacedParts::One ReplacedParts::of(const std::shared_ptr<const Part>& plain, const Overrides& overrides) {
  const std::pair key{plain, overrides};
  {
    const std::lock_guard lock(m_busy);
    if (const auto it = m_known.find(key); it != m_known.end()) return it->second;
  }
  One made;
  made.part = std::make_shared<const Part>(replaceFigures(*plain, overrides, made.problems));
  const std::lock_guard lock(m_busy);
  if (m_known.size() >= kMost) m_known.clear();
  return m_known.emplace(key, std::move(made)).first->second;
}

}  // namespace bold::parts
