#pragma once

#include "core/harness/edit.h"
#include "core/parts/library.h"
#include "core/program/read_program.h"

/// A program that was read goes onto the bench.
namespace bold::wiring {

/// Controllers of a bench, as ids, those first whose usual languages the sources are written in.
std::vector<std::string> controllersFor(const harness::Harness& harness, const parts::Library& library,
                                        const std::vector<std::string>& sources);

/// What was read replaces what was read before of that controller's program; every role of a motor that the wires bring to a pin which the
/// program drives, and of which nobody typed a pin, is stated to be at that pin, with the line of the source.
/// @param prefix what comes before the names of the sources, so that they are relative to the document
harness::Edit programEdit(const harness::Harness& harness, const parts::Library& library, const program::ReadProgram& read,
                          const std::string& controller, const std::string& prefix);

/// The same when a program is forgotten: what it stated goes with it.
harness::Edit forgetProgram(const harness::Harness& harness, const std::string& controller);

/// "", "src/" or "../code/": what leads from the folder of a document to another one; both absolute.
std::string prefixTo(const std::string& documentFolder, const std::string& sourceFolder);

/// A program for a bench whose document lies in a folder (absolute), read from the disk, and the edit that takes it.
struct ProgramRead {
  harness::Edit edit;
  std::vector<Problem> problems;           ///< what was read all the same
  std::vector<program::SourceText> files;  ///< as they were read, for whoever shows them
};
/// Errors: none of the sources can be read; the controller is none of the bench's.
Result<ProgramRead> readProgramFor(FileSystem& disk, const harness::Harness& harness, const parts::Library& library,
                                   const std::string& controller, const std::vector<std::string>& sources,
                                   const std::string& documentFolder);

}  // namespace bold::wiring
