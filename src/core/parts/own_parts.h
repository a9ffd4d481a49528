#pragma once

#include <string>
#include <vector>

#include "core/base/file_system.h"
#include "core/parts/library.h"

namespace bold::parts {

/// $XDG_DATA_HOME/bold-harness/parts, else ~/.local/share/bold-harness/parts; empty when neither is known.
std::string ownFolder();

/// Adds the parts of one's own to a library. Problems: a folder or file that cannot be read, a part that is not sound.
void addOwn(Library& library, FileSystem& disk, std::vector<Problem>& problems);

/// What keeps a text from being a part of one's own beside the shipped ones, one sentence each; empty: nothing does.
std::vector<Problem> problemsOfOwn(const std::string& text);

/// A part of the library as the text of a file, under another id and name.
/// Errors: the part is not in the library.
[[nodiscard]] Result<std::string> copyOf(const Library& library, const std::string& part, const std::string& id, const std::string& name);

/// Writes a part of one's own into `folder`, over its own older version.
/// @return the file's path. Errors: the text is no sound part, or the file cannot be written.
[[nodiscard]] Result<std::string> saveOwn(FileSystem& disk, const std::string& folder, const std::string& text);

}  // namespace bold::parts
