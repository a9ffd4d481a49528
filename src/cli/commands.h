#pragma once

#include <string>
#include <vector>

/// One function a sub-command; each prints and returns the exit code: 0 fine, 1 a bench must not be switched on or was
/// not judged, 2 something could not be used.
namespace bold::cli {

struct CheckArguments {
  std::vector<std::string> files;
  bool json = false;
  bool summary = false;
};
int check(const CheckArguments& arguments);
int explain(const std::string& check, bool json);
int listChecks(bool json);
int listParts(const std::vector<std::string>& words, bool json);

/// Colour only where a person reads.
bool onTerminal();

}  // namespace bold::cli
