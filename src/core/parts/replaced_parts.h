#pragma once

#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <string>
#include <utility>
#include <vector>

#include "core/base/result.h"
#include "core/parts/part.h"

namespace bold::parts {

/// Parts with figures replaced that have been asked for before. Making one reads its file anew, and every edit, and every repair
/// that is tried, asks for the same ones. Safe from several threads.
class ReplacedParts {
 public:
  struct One {
    std::shared_ptr<const Part> part;
    std::vector<Problem> problems;  ///< of its replacements
  };
  using Overrides = std::map<std::string, std::string>;

  /// @param plain the part it is made from; another of the same id is another part
  One of(const std::shared_ptr<const Part>& plain, const Overrides& overrides, const std::function<One()>& make);

 private:
  std::mutex m_busy;
  std::map<std::pair<std::shared_ptr<const Part>, Overrides>, One> m_known;
};

}  // namespace bold::parts
