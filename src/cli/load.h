#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/file_system.h"
#include "core/harness/document_file.h"
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
  harness::OpenFile file;
};
struct LoadedOrNot {
  std::optional<Loaded> bench;    ///< nothing when it cannot be used
  std::vector<Problem> problems;  ///< with the file, as far as no report names them
};
/// @param sources that the command line names: these may be opened wherever they lie
LoadedOrNot load(FileSystem& disk, const parts::Library& library, const std::string& file, const std::vector<std::string>& sources = {});
void complain(const std::vector<Problem>& problems);

/// The bench of one file, to be worked on; nothing where it cannot be used, or is to be written and comes from a newer version: that is
/// said then.
std::optional<Loaded> openBench(FileSystem& disk, const std::string& file, bool toBeWritten, const std::vector<std::string>& sources = {});
/// Writes a bench: over the file that it was read from, else where nothing stands in the way or `force` insists. False where it was not
/// written, which is said.
bool writeBench(FileSystem& disk, Loaded& bench, const std::string& path, bool force);
/// What every command says of an objection and of what goes wrong in writing.
void complainOfWriting(const Problem& problem);
inline constexpr const char* kForceHelp = "write over what stands there: another bench, another kind of file, a link, a read-only file";

/// The id of the device that is called so, by id or by name; what was typed where there is none.
std::string deviceId(const harness::Harness& harness, const std::string& typed);

}  // namespace bold::cli
