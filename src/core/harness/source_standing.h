#pragma once

#include "core/base/file_system.h"
#include "core/harness/harness.h"

/// Whether the sources of a bench's programs are still those that were read.
namespace bold::harness {

/// Digest of a source's bytes, as SourceFile has it.
std::string sourceDigest(const std::string& bytes);

/// Looks at every source of the document; returns whether any stands otherwise than it was known to.
/// @param document its path: sources lie relative to it
bool lookAtSources(FileSystem& disk, Harness& harness, const std::string& document);

/// Where a source of the document lies.
std::string sourcePath(const std::string& document, const std::string& file);

/// The sources are named anew where the document goes to another folder; both are paths of documents, "" of one that has none.
void moveSources(Harness& harness, const std::string& from, const std::string& to);

/// What of a program could not be told, a sentence each: it may have to do with any pin.
std::vector<std::string> untoldOf(const Harness& harness);

/// Why the program of a bench can not be judged, a sentence each: sources that are missing, changed, or that nobody looked at.
std::vector<std::string> staleSources(const Harness& harness);

}  // namespace bold::harness
