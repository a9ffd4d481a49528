#pragma once

#include <functional>
#include <set>

#include "core/base/file_system.h"
#include "core/program/follow.h"

/// A program as it stands on the disk, read and followed.
namespace bold::program {

struct ReadProgram {
  Sources sources;
  Followed followed;
  std::vector<Problem> problems;  ///< includes and imports that are not there, bytes that are no text: what was read all the same
};

/// Reads files and what they include and import, of a sketch all tabs of its folder, which must be regular files below the folder that the
/// named ones lie in.
/// @param board part of the controller, for what its compiler defines; empty: not known
/// @param cancelled asked now and then; where it says yes the rest is not read, and what comes back is of no use
/// Errors: none of the files can be read.
Result<ReadProgram> readProgram(FileSystem& disk, const std::vector<std::string>& files, const std::string& board, const PublicCalls& calls,
                                const std::function<bool()>& cancelled = {});

/// The folder that all of these lie below; absolute.
std::string commonFolder(FileSystem& disk, const std::vector<std::string>& files);

/// A program that is handed over as texts, by name: tests, fuzzing.
ReadProgram readTexts(const std::vector<std::pair<std::string, std::string>>& texts, const std::string& board, const PublicCalls& calls);

}  // namespace bold::program
