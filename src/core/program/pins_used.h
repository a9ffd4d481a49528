#pragma once

#include "core/harness/source_read.h"
#include "core/parts/part.h"
#include "core/program/read_program.h"

namespace bold::program {

/// What a program does with each pin of its controller, as the document keeps it. Ids are left to the caller.
/// @param prefix what comes before the names of the files, so that they are relative to the document: "src/" or nothing
harness::SourceRead pinsUsed(const ReadProgram& program, const std::string& controller, const parts::Part& part, const PublicCalls& calls,
                             const std::string& prefix = {});

}  // namespace bold::program
