#include <fmt/core.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <fstream>
#include <map>
#include <sstream>

#include "core/checks/program/on_bench.h"
#include "core/program/corpus.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

namespace {

const std::string kStandIns = std::string(BOLD_SOURCE_DIR) + "/tests/programs_stand_ins/";

std::string pathOf(const ProgramCase& c) {
  return std::string(BOLD_SOURCE_DIR) + "/tests/programs/" + c.name;
}

// What the compiler of the program's board would be told.
std::vector<std::string> boardOf(const ProgramCase& c) {
  if (c.name.find("attiny") != std::string::npos) return {"-D__AVR_ATtiny85__"};
  if (c.bench.find("esp32") != std::string::npos)
    return {"-DESP32", c.texts.front().second.find("ledcAttach(") != std::string::npos ? "-DLEDC_BY_PIN" : "-DLEDC_BY_CHANNEL"};
  return {};
}

// The stand-ins as they are for a board, compiled once: their header, and the program that runs the sketch.
class StandIns {
 public:
  explicit StandIns(const std::vector<std::string>& board) {
    std::ofstream(header()) << "#include \"" << kStandIns << "cpp/Arduino.h\"\n";
    auto options = optionsOf(board);
    auto compile = options;
    compile.insert(compile.end(), {"-x", "c++-header", header(), "-o", header() + ".gch"});
    REQUIRE(runProgram("g++", compile).code == 0);
    options.insert(options.end(), {"-include", header(), "-c", kStandIns + "cpp/main.cpp", "-o", start()});
    REQUIRE(runProgram("g++", options).code == 0);
  }

  static std::vector<std::string> optionsOf(const std::vector<std::string>& board) {
    std::vector<std::string> out{"-w", "-std=c++20", "-I" + kStandIns + "cpp"};
    out.insert(out.end(), board.begin(), board.end());
    return out;
  }
  std::string header() const { return m_folder.path("standing_in.h"); }
  std::string start() const { return m_folder.path("start.o"); }

 private:
  TemporaryFolder m_folder;
};

using StandInsByBoard = std::map<std::vector<std::string>, StandIns>;

// Compiled or run against what records; nothing where its language or its state does not allow it.
std::optional<std::vector<std::string>> recorded(const ProgramCase& c, StandInsByBoard& prepared) {
  const TemporaryFolder folder;
  const auto program = folder.path("program");
  Ran ran;
  if (c.name.ends_with(".py")) {
    ran = runProgram("env", {"PYTHONPATH=" + kStandIns + "python", "PYTHONDONTWRITEBYTECODE=1", "python3",
                             kStandIns + "python/run_recorded.py", pathOf(c)});
  } else {
    const bool plainC = c.name.ends_with(".c");
    const auto path = pathOf(c);
    const auto board = boardOf(c);
    std::vector<std::string> build;
    if (plainC) {
      build = {"-w"};
      build.insert(build.end(), board.begin(), board.end());
      build.insert(build.end(), {"-std=gnu17", "-I" + kStandIns + "c", path});
    } else {
      const auto& standIns = prepared.try_emplace(board, board).first->second;
      build = StandIns::optionsOf(board);
      build.insert(build.end(), {"-include", standIns.header(), "-x", "c++", path});
      for (const auto& [name, text] : c.texts)
        if (name.ends_with(".cpp")) build.push_back(path.substr(0, path.rfind('/') + 1) + name);
      build.insert(build.end(), {"-x", "none", standIns.start()});
    }
    build.insert(build.end(), {"-o", program});
    if (runProgram(plainC ? "gcc" : "g++", build).code != 0) return std::nullopt;
    ran = runProgram(program, {});
  }
  if (ran.code != 0) return std::nullopt;
  std::vector<std::string> out;
  std::istringstream lines(ran.out);
  for (std::string l; std::getline(lines, l);)
    if (l.starts_with("drives ")) out.push_back(l.substr(7));
  return out;
}

}  // namespace

TEST_CASE("each pin that a program really drives is among those that were read, run against stand-ins that record") {
  int programs = 0, pins = 0;
  std::string unrecorded;
  StandInsByBoard prepared;
  for (const auto& c : programCases()) {
    INFO(c.name);
    const auto driven = recorded(c, prepared);
    if (!driven) {
      unrecorded += c.name + " ";
      continue;
    }
    ++programs;
    const auto h = benchOf(c);
    for (const auto& word : *driven) {
      INFO(word);
      ++pins;
      const auto& uses = h.sources.front().pins;
      CHECK(std::ranges::any_of(uses, [&](const harness::PinUse& u) { return u.word == word && checks::drives(u); }));
    }
  }
  // The third waits for an interrupt, which nothing here brings about.
  CHECK(unrecorded == "cpp/axis_interrupt.ino cpp/broken.ino cpp/unknown_library.ino ");
  CHECK(programs >= 69);
  CHECK(pins >= 220);
}
