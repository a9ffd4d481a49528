#pragma once

#include <array>
#include <nlohmann/json.hpp>

#include "core/harness/harness.h"

/// Entries of a document and their JSON, both ways. For .cpp files of readers and writers only: it pulls in the whole JSON
/// library. What is read and written here is the whole of what a file can say; docs/leftout.md tells what of it may be left out.
namespace bold::harness {

/// An entry that was read, or why nothing of it can be used.
template <class T>
struct ReadEntry {
  std::optional<T> value;
  std::vector<Problem> problems;  ///< `where` is a JSON pointer below `at`; without a value the first says why
};

/// @param at JSON pointer of the entry in its file, without '#'
ReadEntry<Device> readDevice(const Json& json, const std::string& at);
ReadEntry<Connection> readConnection(const Json& json, const std::string& at);
ReadEntry<Goal> readGoal(const Json& json, const std::string& at);
ReadEntry<Assignment> readAssignment(const Json& json, const std::string& at);
ReadEntry<ProgramFacts> readProgramFacts(const Json& json, const std::string& at);
ReadEntry<SourceRead> readSourceRead(const Json& json, const std::string& at);
ReadEntry<Mark> readMark(const Json& json, const std::string& at);
ReadEntry<Round> readRound(const Json& json, const std::string& at);
/// Of the document as such: what stands beside the lists.
ReadEntry<Harness> readHead(const Json& json);

Json toJson(const Device& device);
Json toJson(const Connection& connection);
Json toJson(const Goal& goal);
Json toJson(const Assignment& assignment);
Json toJson(const ProgramFacts& facts);
Json toJson(const SourceRead& source);
Json toJson(const Mark& mark);
Json toJson(const Round& round);
Json headJson(const Harness& harness);

/// What was read of an entry's own text, before anybody changed it. `raw` must be one.
Device asRead(const Device& device);
Connection asRead(const Connection& connection);
Goal asRead(const Goal& goal);
Assignment asRead(const Assignment& assignment);
ProgramFacts asRead(const ProgramFacts& facts);
SourceRead asRead(const SourceRead& source);
Mark asRead(const Mark& mark);
Round asRead(const Round& round);

/// The keys of a JSON pointer that stands behind "#".
std::vector<std::string> pointerKeys(std::string_view where);

/// An entry's text with what was doubtful in it.
/// @param depth keys of a pointer that lead to the entry: 0 for the document as such, 2 for an entry of a list
/// @param repeats keys that stand there twice
Raw sourceOf(std::string text, std::size_t index, std::ptrdiff_t depth, std::vector<Problem> problems, std::vector<Problem> repeats);

inline constexpr std::array kSections{Section::Devices, Section::Connections, Section::Goals,  Section::Assignments, Section::Program,
                                      Section::Sources, Section::Marks,       Section::Rounds, Section::Parts};
const char* word(Section section);  ///< its key in the file

}  // namespace bold::harness
