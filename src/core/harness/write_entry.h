#pragma once

#include "core/harness/harness.h"

/// Entries as text: what nobody changed since it was read stays as it stood, to the byte.
namespace bold::harness {

/// @param indent columns in which an entry stands that is written anew
std::string entryText(const Device& device, std::size_t indent);
std::string entryText(const Connection& connection, std::size_t indent);
std::string entryText(const Goal& goal, std::size_t indent);
std::string entryText(const Assignment& assignment, std::size_t indent);
std::string entryText(const ProgramFacts& facts, std::size_t indent);
std::string entryText(const SourceRead& source, std::size_t indent);
std::string entryText(const Mark& mark, std::size_t indent);
std::string entryText(const Round& round, std::size_t indent);
/// The document's text with title and settings as they are now; its lists as they were read. `raw` must be one.
std::string headText(const Harness& harness);

}  // namespace bold::harness
