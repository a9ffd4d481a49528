#pragma once

#include <cstdio>
#include <optional>
#include <string>
#include <vector>

#include "core/base/file_system.h"
#include "core/harness/harness.h"
#include "core/parts/library.h"

/// One function a sub-command; each prints and returns the exit code: 0 fine, 1 a bench must not be switched on or was
/// not judged, 2 something could not be used.
namespace bold::cli {

struct CheckArguments {
  std::vector<std::string> files;
  std::string format = "text";  ///< text, json, sarif, junit
  bool summary = false;
  bool margins = false;
};
struct SolveArguments {
  std::string file;
  std::string command;  ///< its id; empty: all
  std::string corner;   ///< full, nominal, empty, strong; empty: all that are solved
  bool json = false;
};
int solve(const SolveArguments& arguments);
int check(const CheckArguments& arguments);
int explain(const std::string& check, bool json);
int listChecks(bool json);
int showPart(const std::string& id, bool json);  ///< its card
int listParts(const std::vector<std::string>& words, bool json);

/// Shipped parts and the user's own; says on standard error what of these cannot be used.
parts::Library ownLibrary(FileSystem& disk);

/// A bench with the library it is to be judged by: shipped parts, the user's own, and the document's copies.
struct Loaded {
  harness::Harness harness;
  parts::Library library;
  std::string text;  ///< of the file
};
struct LoadedOrNot {
  std::optional<Loaded> bench;    ///< nothing when it cannot be used
  std::vector<Problem> problems;  ///< with the file, as far as no report names them
};
LoadedOrNot load(FileSystem& disk, const parts::Library& library, const std::string& file);
void complain(const std::vector<Problem>& problems);

/// Colour only where a person reads.
bool onTerminal();

}  // namespace bold::cli
