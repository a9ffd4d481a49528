#include <CLI/CLI.hpp>
#include <map>

#include "output.h"
#include "subcommand.h"

namespace bold::cli {

struct Arguments::Parser {
  CLI::App* app;
  std::map<std::string, std::vector<std::string>> values;  // by option: what it may be
};

void Arguments::positional(const std::string& name, std::string& value, const std::string& help) {
  m_parser.app->add_option(name, value, help)->required();
}
void Arguments::positionals(const std::string& name, std::vector<std::string>& values, const std::string& help, bool required) {
  m_parser.app->add_option(name, values, help)->required(required);
}
void Arguments::option(const std::string& name, std::string& value, const std::string& help, const std::vector<std::string>& oneOf) {
  auto* option = m_parser.app->add_option(name, value, help);
  if (!oneOf.empty()) option->check(CLI::IsMember(oneOf));
  m_parser.values[name] = oneOf;
}
void Arguments::options(const std::string& name, std::vector<std::string>& values, const std::string& help) {
  m_parser.app->add_option(name, values, help)->expected(1)->take_all();
  m_parser.values[name] = {};
}
void Arguments::flag(const std::string& name, bool& value, const std::string& help) {
  m_parser.app->add_flag(name, value, help);
}
void Arguments::either(const std::string& one, const std::string& other) {
  m_parser.app->get_option(one)->excludes(m_parser.app->get_option(other));
}

namespace {

using Parsers = std::map<std::string, Arguments::Parser>;

// For completion: the words that may come next after these.
int printWords(const Parsers& parsers, const std::vector<std::string>& before) {
  std::vector<std::string> words;
  const auto it = before.empty() ? parsers.end() : parsers.find(before.front());
  if (it == parsers.end()) {
    for (const auto& s : subcommands()) words.push_back(s.name);
    words.insert(words.end(), {"--help", "--version"});
  } else if (const auto values = it->second.values.find(before.back()); before.size() > 1 && values != it->second.values.end()) {
    words = values->second;
  } else {
    for (const auto* o : it->second.app->get_options())
      if (!o->get_lnames().empty()) words.push_back("--" + o->get_lnames().front());
  }
  for (const auto& w : words) say(w + "\n");
  return 0;
}

}  // namespace

int run(int argc, char** argv) {
  CLI::App app{"Bold Harness: looks a motor bench over before power-up.\nJudges DC benches up to 60 V from their wires and parts."};
  app.name("boldh");
  app.set_version_flag("--version", "boldh " BOLD_VERSION);
  app.set_help_all_flag("--help-all", "Print the help of every command");
  app.require_subcommand(1);
  Parsers parsers;
  std::vector<std::pair<CLI::App*, Run>> runs;
  for (const auto& s : subcommands()) {
    auto& parser = parsers[s.name];
    parser.app = app.add_subcommand(s.name, s.help);
    Arguments takes(parser);
    runs.emplace_back(parser.app, s.declare(takes));
  }
  if (argc > 1 && std::string(argv[1]) == "--words") return printWords(parsers, {argv + 2, argv + argc});
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    return app.exit(e) == 0 ? 0 : 2;
  }
  for (const auto& [command, run] : runs)
    if (*command) return run();
  return 2;
}

}  // namespace bold::cli
