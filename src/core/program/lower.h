#pragma once

#include "core/program/code.h"
#include "core/program/preprocess.h"
#include "core/program/syntax.h"

/// From syntax trees to Code. What nobody could read stands there as Unread; nothing ever fails.
namespace bold::program {

/// Deeper than this nobody nests by hand: what is inside is not read, and that is said.
inline constexpr int kDeepestCode = 160;

/// A Block of everything in a C or C++ text.
Code lowerC(Language language, const ExpandedText& expanded, std::vector<Unread>& unread, const std::function<bool()>& cancelled = {});
/// The same of a formula in data: no macros, no places.
Code lowerFormula(const std::string& formula);
/// A Block of everything in a Python text.
Code lowerPython(const SourceText& source, int file, std::vector<Unread>& unread, const std::function<bool()>& cancelled = {});

}  // namespace bold::program
