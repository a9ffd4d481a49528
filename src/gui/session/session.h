#pragma once

#include "gui/session/analyser.h"
#include "gui/session/bench_file.h"
#include "gui/session/concealment.h"
#include "gui/session/document.h"
#include "gui/session/program_reader.h"
#include "gui/session/selection.h"

namespace bold::gui {

/// What panels and picture share. Panels read the document and its last analysis, and ask for edits.
class Session {
 public:
  /// @param library shipped and own parts; @param disk outlives the session
  /// @param stateFolder where changes are kept for a recovery and open files are marked
  Session(parts::Library library, FileSystem& disk, std::string stateFolder = harness::stateFolder());

  Document document;
  BenchFile file;
  Analyser analyser;
  Selection selection;
  Concealment concealment;
  ProgramReader program;

  /// What the last analysis holds of the command that is looked at. Nothing when it has no commands. Lives as long as
  /// analyser.analysis().solved.
  const bench::OperatingPoint* shownPoint() const;
};

}  // namespace bold::gui
