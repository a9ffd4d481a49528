#pragma once

#include <map>
#include <memory>
#include <mutex>
#include <string>
#include <utility>
#include <vector>

#include "core/base/result.h"
#include "core/parts/named_figures.h"

namespace bold::parts {

/// Parts with figures replaced that have been asked for before: every edit, and every repair that is tried, asks for the same
/// ones. Safe from several threads.
class ReplacedParts {
 public:
  struct One {
    std::shared_ptr<const Part> part;
    std::vector<Problem> problems;  ///< of its replacements
  };

  /// @param plain the part it is made from; another of the same id is another part
  One of(const std::shared_ptr<const Part>& plain, const Overrides& overrides);

 private:
  std::mutex m_busy;
  std::map<std::pair<std::shared_ptr<const Part>, Overrides>, One> m_known;
};

}  // namespace bold::parts
