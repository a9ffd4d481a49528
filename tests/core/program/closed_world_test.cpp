#include <catch2/catch.hpp>
#include <regex>
#include <sstream>

#include "core/program/reading.h"

// What a program never does may only be said where nothing is open: held over every program of the corpus.
using namespace bold;
using namespace bold::test;

namespace {

using Texts = std::vector<std::pair<std::string, std::string>>;

// That a program never does something to a pin.
bool accuses(const checks::Finding& f) {
  for (const auto* c : {"program-pin-undriven", "program-goal-unserved", "program-enable-inverted", "program-pin-mode"})
    if (f.check == c) return true;
  return f.check == "program-pin-slip" && f.severity == checks::Severity::Stop;
}

std::set<std::string> accusations(const Analysis& a) {
  std::set<std::string> out;
  for (const auto& f : a.findings)
    if (accuses(f)) out.insert(f.identity());
  return out;
}

std::set<std::string> saidOfProgram(const Analysis& a) {
  std::set<std::string> out;
  for (const auto& f : a.findings)
    if (f.check.starts_with("program-") && f.severity <= checks::Severity::Caution) out.insert(f.identity());
  return out;
}

// Names that the texts call and that some interface describes, as they stand in the source.
std::set<std::string> describedCalls(const Texts& texts) {
  std::set<std::string> known, out;
  for (const auto& i : program::shippedCalls().interfaces)
    for (const auto& c : i.calls) {
      auto name = c.name.substr(c.name.rfind('.') == std::string::npos ? 0 : c.name.rfind('.') + 1);
      if (!c.does.empty() && c.does != "delay" && c.does != "numbering") known.insert(name);
    }
  static const std::regex kCall(R"(\b([A-Za-z_]\w*)\s*\()");
  for (const auto& [file, text] : texts)
    for (auto it = std::sregex_iterator(text.begin(), text.end(), kCall); it != std::sregex_iterator(); ++it)
      if (const auto name = (*it)[1].str();
          known.contains(name) && !std::regex_search(text, std::regex("(void|int|bool|def|function) +" + name + " *\\(")))
        out.insert(name);
  return out;
}

Texts renamed(Texts texts, const std::string& call) {
  const std::regex from("\\b" + call + "\\b");
  for (auto& [file, text] : texts) text = std::regex_replace(text, from, call + "Tide");
  return texts;
}

bool python(const ProgramCase& c) {
  return c.texts.front().first.ends_with(".py");
}

// The same program with something that nobody describes and that is handed no pin of the bench.
Texts besideUnknownCode(const ProgramCase& c) {
  auto texts = c.texts;
  auto& text = texts.front().second;
  const std::string unknown =
      python(c) ? "import tidelog\ntidelog.begin('high water', 4711)\n" : "#include <TideLog.h>\nTideLog tideLog(4711);\n";
  text = unknown + text;
  return texts;
}

}  // namespace

TEST_CASE("no call of a program that is renamed to something unknown makes it an accusation") {
  int tried = 0;
  for (const auto& c : programCases()) {
    if (!c.says.empty()) continue;
    const auto before = accusations(analyseFast(benchOf(c)));
    for (const auto& call : describedCalls(c.texts)) {
      const auto texts = renamed(c.texts, call);
      if (texts == c.texts) continue;
      const auto h = benchOf(c, texts);
      const auto a = analyseFast(h);
      ++tried;
      std::string now;
      for (const auto& f : a.findings)
        if (accuses(f) && !before.contains(f.identity())) now += f.check + ": " + f.text + "\n";
      for (const auto& u : h.sources.front().untold) now += now.empty() ? "" : u.what + "\n";
      INFO(c.name << ": " << call << "\n" << now);
      CHECK(now.empty());
    }
  }
  CHECK(tried >= 120);
}

TEST_CASE("what is unknown and touches no pin of the bench changes nothing") {
  for (const auto& c : programCases()) {
    if (!c.says.empty()) continue;
    INFO(c.name);
    const auto before = analyseFast(benchOf(c));
    const auto after = analyseFast(benchOf(c, besideUnknownCode(c)));
    CHECK(saidOfProgram(after) == saidOfProgram(before));
    CHECK(after.verdict == before.verdict);
  }
}

TEST_CASE("all that drives a pin taken out of a program is said") {
  int all = 0, said = 0;
  std::string missed;
  for (const auto& c : programCases()) {
    if (!c.says.empty() || c.texts.size() > 1) continue;
    const auto base = benchOf(c);
    for (const auto& u : base.sources.front().pins) {
      if (u.number.line == 0 || u.name.empty() || !u.does.contains("write") || u.terminal.empty()) continue;
      // Every line that names it, but the one that says which pin it is.
      auto texts = c.texts;
      std::string left, line;
      int n = 0, out = 0;
      const std::regex name("\\b" + u.name.substr(0, u.name.find('.')) + "\\b");
      bool clean = true;
      for (std::istringstream lines(texts.front().second); std::getline(lines, line);) {
        ++n;
        const bool names = n != u.number.line && std::regex_search(line, name);
        clean = clean && !(names && (line.find('{') != std::string::npos || line.ends_with(":") || line.find(';') == std::string::npos));
        out += names;
        left += (names ? std::string() : line) + "\n";
      }
      if (!clean || out == 0) continue;
      texts.front().second = left;
      const auto h = benchOf(c, texts);
      if (std::ranges::any_of(h.sources.front().pins, [&](const auto& x) { return x.terminal == u.terminal && x.does.contains("write"); }))
        continue;
      ++all;
      const bool is = !saidOfProgram(analyseFast(h)).empty();
      said += is;
      if (!is) missed += c.name + ": " + u.name + "\n";
    }
  }
  INFO(missed);
  CHECK(all >= 10);
  CHECK(said == all);
}

TEST_CASE("nine in ten mistakes beside unknown code are still said") {
  int all = 0, said = 0;
  std::string missed;
  for (const auto& c : programCases()) {
    if (!c.says.empty()) continue;
    const auto base = benchOf(c);
    const auto before = saidOfProgram(analyseFast(base));
    for (const auto& u : base.sources.front().pins) {
      if (u.number.line == 0 || u.number.file != c.texts.front().first || u.word.find_first_not_of("0123456789") != std::string::npos)
        continue;
      ProgramCase changed = c;
      std::size_t line = 0;
      for (int k = 1; k < u.number.line; ++k) line = changed.texts.front().second.find('\n', line) + 1;
      changed.texts.front().second.replace(line + static_cast<std::size_t>(u.number.column) - 1, static_cast<std::size_t>(u.number.length),
                                           std::to_string(std::stoi(u.word) + 1));
      if (saidOfProgram(analyseFast(benchOf(c, changed.texts))) == before) continue;  // it matters to nobody
      ++all;
      const bool is = saidOfProgram(analyseFast(benchOf(c, besideUnknownCode(changed)))) != before;
      said += is;
      if (!is) missed += fmt::format("{}: {} ({})\n", c.name, u.word, u.name);
    }
  }
  INFO(missed);
  CHECK(all >= 80);
  CHECK(said >= 0.9 * all);
}

TEST_CASE("a name that only begins like something harmless is open, and so is what is called by its name") {
  const auto reach = [](const std::string& file, const std::string& text, const std::string& board) {
    const auto s = read(file, text, board);
    return s.untold.empty() ? std::string("none") : fmt::format("{}", fmt::join(s.untold.front().pins, " "));
  };
  const std::string uno = "board-uno-atmega328p", pico = "board-rp2040-40";
  CHECK(reach("a.ino", "SerialServo s(9);\nvoid setup() { s.go(); }\nvoid loop() {}", uno) == "D9");
  CHECK(reach("a.ino", "WiFiRelay r(9);\nvoid setup() { r.on(); }\nvoid loop() {}", uno) == "D9");
  CHECK(reach("a.ino", "void setup() { Serial.begin(9600); Serial.println(9); String s = String(9); }\nvoid loop() {}", uno) == "none");
  CHECK(reach("a.py", "from machine import Pin\npump = Pin(5, Pin.OUT)\ngetattr(pump, input())()\n", pico) == "GP5");
  CHECK(reach("a.py", "import random\ndef f():\n  return ValueError(5)\nprint(random.randint(1, 5), f())\n", pico) == "none");
}
