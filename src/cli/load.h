#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/file_system.h"
#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::cli {

/// Shipped parts and the user's own; says on standard error what of these cannot be used.
parts::Library ownLibrary(FileSystem& disk);

/// A bench with the library it is to be judged by: shipped parts, the user's own, and the document's copies.
struct Loaded {
  harness::Harness harness;
  parts::Library library;
  std::string text;  ///< of the file
};
struct LoadedOrNot {
  std::optional<Loaded> bench;    ///< nothing when it cannot be used
  std::vector<Problem> problems;  ///< with the file, as far as no report names them
};
LoadedOrNot load(FileSystem& disk, const parts::Library& library, const std::string& file);
void complain(const std::vector<Problem>& problems);

/// The bench of one file, to be worked on; nothing where it cannot be used, or is to be written and comes from a newer version: that is
/// said then.
std::optional<Loaded> openBench(FileSystem& disk, const std::string& file, bool toBeWritten);
/// Writes a bench over whatever is there; false where that was not possible, which is said.
bool writeBench(FileSystem& disk, Loaded& bench, const std::string& path);

/// The id of the device that is called so, by id or by name; what was typed where there is none.
std::string deviceId(const harness::Harness& harness, const std::string& typed);

}  // namespace bold::cli
