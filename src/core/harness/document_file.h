#pragma once

#include <string>
#include <vector>

#include "core/base/file_system.h"
#include "core/harness/part_copies.h"
#include "core/harness/read_harness.h"
#include "core/harness/write_over.h"
#include "core/parts/library.h"

namespace bold::harness {

/// A harness file as last read or written, so that a change made by somebody else is noticed.
struct OpenFile {
  std::string path;    ///< absolute; empty: none
  std::string digest;  ///< of the bytes on disk
};

struct Loaded {
  Harness harness;
  OpenFile file;
  std::vector<Problem> problems;
};

inline constexpr const char* kNoFile = "no file";
/// Digest of a file's bytes, as in OpenFile.
std::string bytesDigest(const std::string& bytes);
/// Digest of what stands there now, as in OpenFile; kNoFile when it cannot be read.
std::string digestOnDisk(FileSystem& disk, const std::string& path);

[[nodiscard]] Result<Loaded> load(FileSystem& disk, const std::string& path);

/// Saves whole or not at all.
/// Errors: cannot be written; changed on disk since `file` was read, or read-only; over another file than `file`, an objection to that
/// (write_over.h); a document of a newer format. The error of a file that may be written over when that is wanted has kept = kAsk.
[[nodiscard]] Result<OpenFile> save(FileSystem& disk, Harness& harness, const parts::Library& library, const OpenFile& file,
                                    const std::string& path, Overwrite overwrite);

}  // namespace bold::harness
