#pragma once

#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/json.h"
#include "core/parts/part.h"

namespace bold::parts {

class ReplacedParts;

/// Every part that can be put on a bench: shipped ones and the user's own. A value; copies share the parts.
class Library {
 public:
  Library();

  /// The shipped parts, compiled into the program.
  static Library shipped();

  /// Adds own parts. A part whose id is shipped, or that cannot be read, is left out and reported; the others load.
  /// @param files path -> text
  void addOwn(const std::map<std::string, std::string>& files, std::vector<Problem>& problems);

  /// Adds parts carried by a document that the library does not have.
  void addFromDocument(const Json& partJson, const std::string& file, std::vector<Problem>& problems);

  /// nullptr when there is none.
  std::shared_ptr<const Part> find(const std::string& id) const;
  /// The part file as read, base applied; nullptr when there is none.
  const Json* json(const std::string& id) const;
  /// The part with figures replaced; overrides that name no figure, or cannot be read, are reported. Asked for again, it is the
  /// same part. Safe from several threads.
  std::shared_ptr<const Part> withOverrides(const std::string& id, const std::map<std::string, std::string>& overrides,
                                            std::vector<Problem>& problems) const;

  /// Parts whose id, name, summary or words hold all the words of the query, best first; all for an empty query.
  std::vector<std::shared_ptr<const Part>> search(std::string_view query) const;

  std::size_t size() const { return m_parts.size(); }

 private:
  struct Entry {
    std::shared_ptr<const Part> part;  // shared: benches and analyses in other threads keep the part alive
    std::shared_ptr<const Json> json;
  };
  std::map<std::string, Entry> m_parts;
  std::shared_ptr<ReplacedParts> m_replaced;  // shared by copies

  void add(const std::map<std::string, std::string>& files, bool own, std::vector<Problem>& problems);
};

/// Compiled-in files: path relative to data/parts, text.
std::map<std::string, std::string> shippedPartFiles();

}  // namespace bold::parts
