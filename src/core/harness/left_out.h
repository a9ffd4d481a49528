#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/harness/edit.h"
#include "core/harness/harness.h"

/// What a file says and this program could not use as it stands. Such a bench is never Clear: a wire that was left out may be
/// the one that burns the board. docs/leftout.md is the table of all of it.
namespace bold::harness {

/// One sentence each, in file order; `where` is "#" and a JSON pointer into the file as it was read. What has been changed
/// since, so that it can be used, is not among them.
std::vector<Problem> leftOut(const Harness& harness);

/// The lists that a file has to have and has not, by name, as long as nothing stands in them: taken as empty, and told.
std::vector<std::string> missingLists(const Harness& harness);

/// Takes away from the document what could not be used there, so that the rest can be judged.
/// @param where as leftOut gives it. Nothing when it is not among those, or has to be mended and cannot be taken away.
std::optional<Edit> takeOut(const Harness& harness, const std::string& where);

}  // namespace bold::harness
