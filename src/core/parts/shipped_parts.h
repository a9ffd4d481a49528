#pragma once

#include <memory>
#include <mutex>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/base/json.h"
#include "core/parts/part.h"

namespace bold::parts {

/// A part and the file it was read from, base applied. Shared: benches and analyses in other threads keep them alive.
struct LibraryEntry {
  std::shared_ptr<const Part> part;
  std::shared_ptr<const Json> json;
};

/// The parts compiled into the program. Each is read when it is first asked for: a bench names a handful of them. A file is
/// named after the id of its part (a test holds that), which is the index. Safe from several threads.
class ShippedParts {
 public:
  ShippedParts();

  /// The only ones there are; they never change.
  static std::shared_ptr<const ShippedParts> all();

  bool has(std::string_view id) const { return m_slots.contains(id); }
  /// nullptr when there is none.
  const LibraryEntry* find(std::string_view id) const;
  /// In order. Reads none of them.
  std::vector<std::string_view> ids() const;
  std::size_t size() const { return m_slots.size(); }

 private:
  struct Slot {
    std::string_view text;
    std::once_flag once{};
    LibraryEntry entry{};
  };
  std::unordered_map<std::string_view, std::unique_ptr<Slot>> m_slots;
};

}  // namespace bold::parts
