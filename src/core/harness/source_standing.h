#pragma once

#include <set>

#include "core/base/file_system.h"
#include "core/harness/harness.h"

/// Whether the sources of a bench's programs are still those that were read.
namespace bold::harness {

/// Digest of a source's bytes, as SourceFile has it.
std::string sourceDigest(const std::string& bytes);

/// Sources that a person asked for, by canonical path. A bench names files, and a stranger's bench may name any: what lies outside the
/// bench's own folder, links followed, is opened for a person only.
using AskedFor = std::set<std::string>;

/// Whether a source of the document may be opened: a regular file below the document's folder, or asked for.
/// @param document its path; empty: it has none, and no folder of its own
bool mayOpen(FileSystem& disk, const std::string& document, const std::string& file, const AskedFor& askedFor);

/// Looks at every source of the document; returns whether any stands otherwise than it was known to.
/// @param document its path: sources lie relative to it
bool lookAtSources(FileSystem& disk, Harness& harness, const std::string& document, const AskedFor& askedFor = {});

/// Where a source of the document lies.
std::string sourcePath(const std::string& document, const std::string& file);

/// The sources are named anew where the document goes to another folder; both are paths of documents, "" of one that has none.
void moveSources(Harness& harness, const std::string& from, const std::string& to);

/// What of a program could not be told, a sentence each: it may have to do with any pin.
std::vector<std::string> untoldOf(const Harness& harness);

/// Why the program of a bench can not be judged, a sentence each: sources that are missing, changed, or that nobody looked at.
std::vector<std::string> staleSources(const Harness& harness);

}  // namespace bold::harness
