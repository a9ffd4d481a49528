#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <functional>
#include <random>

#include "core/base/csv.h"
#include "core/draw/shapes.h"
#include "core/draw/svg.h"
#include "core/harness/document_file.h"
#include "core/parts/library.h"
#include "core/picture/draw_loom.h"
#include "core/program/pins_used.h"
#include "core/program/read_program.h"
#include "core/report/report.h"
#include "core/wiring/wire_list.h"
#include "fuzz/targets.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

namespace {

constexpr unsigned kSeed = 20261125;

using Random = std::mt19937;

std::size_t below(Random& random, std::size_t n) {
  return n == 0 ? 0 : random() % n;
}

// One of the ways in which bytes go wrong.
std::string spoilt(std::string text, Random& random, const std::vector<std::string>& words) {
  const auto at = below(random, text.size() + 1);
  const auto length = std::min(text.size() - at, below(random, 40) + 1);
  switch (random() % 7) {
    case 0:
      if (at < text.size()) text[at] = static_cast<char>(random());
      break;
    case 1:
      text.erase(at, length);
      break;
    case 2:
      text.insert(at, text.substr(below(random, text.size() + 1), length));
      break;
    case 3:
      text.insert(at, words[below(random, words.size())]);
      break;
    case 4:
      text.replace(at, length, words[below(random, words.size())]);
      break;
    case 5:
      text.resize(at);
      break;
    default:
      // What stands between two quotes is exchanged for a word: whole JSON with strange content.
      if (const auto from = text.find('"', at); from != std::string::npos)
        if (const auto to = text.find('"', from + 1); to != std::string::npos)
          text.replace(from + 1, to - from - 1, words[below(random, words.size())]);
  }
  return text;
}

void spoil(const std::vector<std::string>& seeds, const std::vector<std::string>& words, int runs,
           const std::function<void(std::string_view)>& target) {
  Random random(kSeed);  // NOLINT: the same bytes every time
  for (int run = 0; run < runs; ++run) {
    auto text = seeds[below(random, seeds.size())];
    for (auto n = random() % 4 + 1; n > 0; --n) text = spoilt(std::move(text), random, words);
    target(text);
  }
}

const std::vector<std::string> kWords{"null",    "true",  "-1",           "1e308",         "99999999999999999999",
                                      "\"\"",    "[]",    "{}",           "planned",       "s1",
                                      "IN1",     "psu",   "GND",          "12 V",          "-5 V",
                                      "1e9 A",   "0 ohm", "4k7",          "nan",           "inf",
                                      "\\u0000", "\xff",  "on the bench", "to be removed", "wire",
                                      "jumper",  "plug",  "BK",           "28 AWG",        "-3 AWG",
                                      "both",    "typ",   "~x",           "!IN1 & (",      "V(A,B) > 2 V"};

std::string written(const std::string& bench) {
  return harness::writeHarness(good(bench));
}

// In a process of its own that may take half a gigabyte; true when it ends in good order. The alarm ends one that does not.
bool bounded(const std::function<bool()>& body) {
  const auto pid = ::fork();
  if (pid == 0) {
    ::alarm(120);
    const rlimit memory{std::size_t{768} << 20U, std::size_t{768} << 20U};
    ::setrlimit(RLIMIT_AS, &memory);
    ::_exit(body() ? 0 : 1);
  }
  int status = -1;
  ::waitpid(pid, &status, 0);
  return WIFEXITED(status) && WEXITSTATUS(status) == 0;
}

}  // namespace

TEST_CASE("spoilt bench files are read, written and judged without a promise broken") {
  spoil({written("low-side"), written("bridge"), written("npn"), written("step-dir")}, kWords, 1500, fuzz::harnessFile);
}

TEST_CASE("spoilt part files become a sound part or a sentence") {
  std::vector<std::string> seeds;
  for (const auto* id : {"l298n-module", "drv8825-carrier", "nmos-irlz44n", "adapter-12v-5a", "brushed-130-3v"})
    if (const auto* json = library().json(id)) seeds.push_back(jsonText(*json));
  REQUIRE(seeds.size() >= 4);
  spoil(seeds, kWords, 400, fuzz::partFile);
}

TEST_CASE("whatever is typed is understood or answered") {
  spoil({"d9 s1.in1", "uno.D9 s1.IN1", "4k7", "500 mA", "12V", "0.3 m", "22 AWG", "12 V 0.5 A, 2 A stall", "nema 17 1.5 a", "d9-d10",
         "gnd gnd"},
        kWords, 6000, fuzz::typedText);
}

TEST_CASE("spoilt lists are read, said and written again without a promise broken") {
  auto words = kWords;
  words.insert(words.end(), {"\"", "\"\"", "'=1+1", "'", ",", ";", "\t", "\n", "\r\n", "l298n-module", "3", "part,count", "999999999"});
  spoil({"part,count\nl298n-module,3\nuno,1\n", "l298n-module;3\n\"a, b\";4\nnonsense\n", "wire,from,to,colour\nw1,uno.D9,s1.IN1,RD\n",
         "uno.D9\ts1.IN1\tred\t22\t0.3 m\n"},
        words, 4000, fuzz::lists);
}

TEST_CASE("what is very large is worked out within bounds, or it is said that it is not") {
  const auto program = [](const std::string& text, std::vector<std::pair<std::string, std::string>> more = {}) {
    more.insert(more.begin(), {"tank.ino", text});
    return program::readTexts(more, "board-uno-atmega328p", program::shippedCalls());
  };
  const auto saysTooMuch = [](const program::ReadProgram& read, const std::string& what) {
    return std::ranges::any_of(read.followed.unread, [&](const auto& u) { return u.why.find(what) != std::string::npos; });
  };
  const auto many = [](const std::string& s, int n) {
    std::string out;
    for (int k = 0; k < n; ++k) out += s;
    return out;
  };
  const std::string setup = "void setup() { pinMode(9, OUTPUT); }\nvoid loop() {}\n";
  // Conditions within conditions, conditions that nobody can know, headers that include each other.
  CHECK(bounded([&] { return saysTooMuch(program(many("#if X\n", 200'000) + setup + many("#endif\n", 200'000)), "too deep"); }));
  CHECK(bounded([&] { return !program(many("#if X\n#define A 1\n#endif\n", 70'000) + setup).followed.events.empty(); }));
  CHECK(bounded([&] {
    return saysTooMuch(program("#include \"a.h\"\n" + setup, {{"a.h", "#include \"b.h\"\n#include \"b.h\"\nint f();\n"},
                                                              {"b.h", "#include \"a.h\"\n#include \"a.h\"\nint g();\n"}}),
                       "more than can be read");
  }));
  // A field of a list with two million line ends in it; a name of five million letters; very many unknown keys, and marks.
  CHECK(bounded([&] { return readCsv("wire,from,to\nw1,\"" + many("\n", 2'000'000) + "\",b\n").size() == 2; }));
  const auto bench = [](const std::string& more, const std::string& name = "S1") {
    return R"({"format": 2, "devices": [{"id": "s1", "part": "l298n-module", "name": ")" + name +
           R"("}, {"id": "r", "part": "resistor-1k"}],)" + more +
           R"("connections": [{"id": "w1", "wire": ["s1.GND", "r.A"]}], "goals": []})";
  };
  const auto reported = [](const std::string& text, std::size_t most) {
    const auto h = harness::readHarness(text, "b")->harness;
    const auto a = analyseFast(h);
    const auto report = report::text("b", h, a, {});
    return a.verdict == Verdict::NotJudged && report.size() < most &&
           !draw::svgOf(picture::loomDrawing(picture::layOut(h, library()), {}, true), "x").empty();
  };
  CHECK(bounded([&] { return reported(bench({}, std::string(5'000'000, 'N')), 20'000); }));
  std::string keys, marks;
  for (int k = 0; k < 50'000; ++k) keys += "\"k" + std::to_string(k) + "\": 1, ";
  for (int k = 0; k < 20'000; ++k)
    marks += (k > 0 ? "," : "") + std::string("{\"id\": \"m") + std::to_string(k) +
             "\", \"wire\": \"w1\", \"mark\": \"seen\", \"digest\": \"x\", \"y\": 1}";
  CHECK(bounded([&] { return reported(bench(keys), 20'000); }));
  CHECK(bounded([&] { return reported(bench("\"marks\": [" + marks + "],"), 20'000); }));
  // A text is cut and broken in one go, however long it is.
  const std::string word(5'000'000, 'w');
  CHECK(bounded([&] {
    return draw::shortened(word, 10, false, false, 300).size() < 100 && draw::wrapped(word, 10, false, false, 300).size() > 1000;
  }));
}

TEST_CASE("what to measure at each wire of a very large bench is not worked out, and that is said") {
  const auto h = good("bridge");
  const auto a = analyseFast(h);
  const wiring::ExpectedVoltages few(*a.solved, h.connections.size());
  const wiring::ExpectedVoltages many(*a.solved, 10'000'000);
  CHECK_FALSE(few.tooMany());
  CHECK(many.tooMany());
  for (const auto& c : h.connections) {
    CHECK(few.at(c.a) == wiring::expectedVoltage(*a.solved, c.a));
    CHECK(many.at(c.a).empty());
  }
}

TEST_CASE("huge, deep and endless files get one sentence, in bounded memory") {
  const auto said = [](const std::string& text, const std::string& what) {
    return bounded([&] {
      const auto reading = harness::readHarness(text, "f");
      return !reading && reading.error().what.find(what) != std::string::npos;
    });
  };
  CHECK(said(std::string(50'000'000, ' ') + "{}", "larger than 16 MiB"));
  CHECK(said(std::string(5'000'000, '['), "nested deeper than 200 levels"));
  std::string deep;
  for (int i = 0; i < 100'000; ++i) deep += R"({"devices":)";
  CHECK(said(deep, "nested deeper than 200 levels"));
  CHECK(said(R"({"format": 2, "title": ")" + std::string(50'000'000, 'a') + "\"}", "larger than 16 MiB"));
  std::string wires = R"({"format": 2, "devices": [], "goals": [], "connections": [)";
  for (int i = 0; i < 250'000; ++i) wires += R"({"id":"w)" + std::to_string(i) + R"(","wire":["a.A","b.B"]},)";
  wires.back() = ']';
  CHECK(said(wires + "}", "holds 250000 connections"));
  // A number too large for any type is a text that is no quantity, or a number that is not finite.
  const auto numbers = harness::readHarness(
      R"({"format": 2, "settings": {"ambient": "1e999 degC"}, "devices": [{"id": "m", "part": "brushed-130-3v"}], "connections": [],
          "goals": [], "program": [{"id": "i", "motor": "m", "dutyCap": 1e308, "stepsPerTurn": 99999999999999999999, "pwm": "-1 Hz"}]})",
      "f");
  REQUIRE(numbers);
  CHECK(numbers->problems.size() >= 3);
  CHECK_FALSE(numbers->harness.ambient);
}

TEST_CASE("a file without an end is not read to it") {
  CHECK(bounded([&] {
    const auto text = Disk(Feed::PipesToo).read("/dev/zero");
    return !text && text.error().what == "The file is larger than 16 MiB.";
  }));
  const auto text = Disk().read("/dev/zero");
  REQUIRE_FALSE(text);
  CHECK(text.error().what == "This is a device, not a file.");
}
