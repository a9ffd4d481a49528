#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

/// A command of boldh is a file that is called as it is, with a namespace of that name, and a line in subcommand.cpp.
namespace bold::cli {

/// What a command takes. The variables are filled in before it runs and must live until then.
class Arguments {
 public:
  struct Parser;  // the library behind it, which is dear to compile
  explicit Arguments(Parser& parser) : m_parser(parser) {}

  /// @param name as the help shows it: "FILE"
  void positional(const std::string& name, std::string& value, const std::string& help);
  void positionals(const std::string& name, std::vector<std::string>& values, const std::string& help, bool required);
  /// @param oneOf what it may be; empty: anything
  void option(const std::string& name, std::string& value, const std::string& help, const std::vector<std::string>& oneOf = {});
  /// One that may be given several times, each with one value.
  void options(const std::string& name, std::vector<std::string>& values, const std::string& help);
  void flag(const std::string& name, bool& value, const std::string& help);
  /// Two that do not go together.
  void either(const std::string& one, const std::string& other);

 private:
  Parser& m_parser;
};

/// Prints, and returns the exit code: 0 fine, 1 a bench must not be switched on or was not judged, 2 something could not be used.
using Run = std::function<int()>;

struct Subcommand {
  std::string name, help;
  Run (*declare)(Arguments& takes);
};
std::vector<Subcommand> subcommands();

/// The whole of boldh.
int run(int argc, char** argv);

}  // namespace bold::cli
