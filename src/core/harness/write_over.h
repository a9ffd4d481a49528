#pragma once

#include <optional>
#include <string>

#include "core/base/file_system.h"

/// What stands in the way of writing somewhere. Every command and the window ask here before anything is written.
namespace bold::harness {

/// What is to be written.
enum class Written { Bench, Export };

/// What the person who wants it knows of what stands there.
enum class Overwrite {
  Ask,             ///< nothing: whatever stands there is asked about
  AskUnlessAlike,  ///< that there is a file (a dialog has said so): a link, a read-only file and one of another kind are asked about
  Yes,             ///< insists
};

inline constexpr const char* kAsk = "Nothing was written.";

/// Why somebody has to insist before a path is written to; nothing: go on. One sentence, with kept = kAsk.
std::optional<Problem> objection(FileSystem& disk, const std::string& path, Written what, Overwrite overwrite);

/// Writes an export whole or not at all. Errors: an objection, with kept = kAsk; cannot be written.
[[nodiscard]] Result<bool> writeExport(FileSystem& disk, const std::string& path, const std::string& bytes, Overwrite overwrite);

}  // namespace bold::harness
