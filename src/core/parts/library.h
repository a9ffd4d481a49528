#pragma once

#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/json.h"
#include "core/parts/part.h"
#include "core/parts/shipped_parts.h"

namespace bold::parts {

class ReplacedParts;

/// Every part that can be put on a bench: shipped ones and the user's own. A value; copies share the parts.
class Library {
 public:
  Library();

  /// The shipped parts, compiled into the program. None is read before it is asked for.
  static Library shipped();

  /// Adds own parts. A part whose id is shipped, or that cannot be read, is left out and reported; the others load.
  /// @param files path -> text
  void addOwn(const std::map<std::string, std::string>& files, std::vector<Problem>& problems);

  /// Adds a part carried by a document, in the place of one of the user's own. A shipped one stays what it is.
  void addFromDocument(const Json& partJson, const std::string& file, std::vector<Problem>& problems);

  /// nullptr when there is none.
  std::shared_ptr<const Part> find(const std::string& id) const;
  /// The part file as read, base applied; nullptr when there is none.
  const Json* json(const std::string& id) const;
  /// The user's own part that the document's copy has taken the place of; nullptr when there is none.
  const Json* mine(const std::string& id) const;
  /// The part with figures replaced; overrides that name no figure, or cannot be read, are reported. Asked for again, it is the
  /// same part. Safe from several threads.
  std::shared_ptr<const Part> withOverrides(const std::string& id, const std::map<std::string, std::string>& overrides,
                                            std::vector<Problem>& problems) const;

  /// Replacements of one part that contradict each other, each with the one that is used.
  std::vector<Problem> contradictions(const std::string& id, const std::map<std::string, std::string>& overrides) const;

  /// Parts whose id, name, summary or words hold all the words of the query, best first; all for an empty query.
  std::vector<std::shared_ptr<const Part>> search(std::string_view query) const;

  std::size_t size() const { return m_own.size() + (m_shipped ? m_shipped->size() : 0); }

 private:
  std::shared_ptr<const ShippedParts> m_shipped;  // null: a library of one's own parts alone
  std::map<std::string, LibraryEntry> m_own;      // and those of the document
  std::map<std::string, std::shared_ptr<const Json>> m_mine;
  std::shared_ptr<ReplacedParts> m_replaced;  // shared by copies

  const LibraryEntry* entry(const std::string& id) const;
};

/// Compiled-in files: path relative to data/parts, text.
std::map<std::string, std::string> shippedPartFiles();

}  // namespace bold::parts
