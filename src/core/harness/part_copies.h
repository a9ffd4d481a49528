#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/harness/edit.h"
#include "core/parts/library.h"

/// The copies of parts that a document carries, so that it can be read where the library lacks them.
namespace bold::harness {

/// Puts copies of every part that is used into the document. A copy that is not used stays as long as the library does not
/// hold the very same.
void carryParts(Harness& harness, const parts::Library& library);

/// The library as this document sees it: parts it carries that the library lacks are added, and its copies of own parts win.
/// Problems: a copy that is no sound part.
parts::Library withDocumentParts(const parts::Library& library, const Harness& harness, const std::string& file,
                                 std::vector<Problem>& problems);

/// Something about a part on the bench that comes from its file and is not the library's.
struct FromFile {
  std::string device;    ///< id of the first that it is about
  std::string part;      ///< its part
  std::string sentence;  ///< without the full stop
  bool mine = false;     ///< the user has a part of this id: `useMine` makes it count
  bool limits = false;   ///< what is judged hangs on figures that nobody but this file vouches for
};

/// What the bench takes from its file on trust, in document order: copies that differ from the library's part or the user's own,
/// parts that only the file has, and those that look like a shipped part and are not; ratings that the bench raises.
/// @param library as withDocumentParts gives it
std::vector<FromFile> fromFile(const Harness& harness, const parts::Library& library);

/// Lets the user's own part count instead of the document's copy.
Edit useMine(const std::string& part);

}  // namespace bold::harness
