#include "core/program/public_calls.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "core/base/embedded.h"
#include "core/parts/shipped_parts.h"
#include "core/program/reading.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;
using program::Taken;

TEST_CASE("every file of public calls can be used, and every word in it is known") {
  std::vector<std::pair<std::string, std::string>> files;
  for (const auto& f : embedded::programCalls()) files.emplace_back(f.path, f.text);
  REQUIRE(files.size() >= 12);
  const auto read = program::readPublicCalls(files);
  INFO((read ? std::string() : text(read.error())));
  REQUIRE(read);
  static const std::set<std::string> roles{
      "-",      "pins",   "port", "mask",  "level", "duty",  "scale",    "frequency", "bits",    "mode",    "pull",   "s",      "ms",
      "us",     "ns",     "turn", "steps", "rate",  "rpm",   "kind",     "function",  "values",  "unit",    "shares", "object", "from",
      "struct", "active", "pwm",  "up",    "angle", "width", "inverted", "wrap",      "divider", "channel", "slice",  "share"};
  int calls = 0;
  std::set<std::string> ids;
  for (const auto& i : read->interfaces) {
    CHECK(ids.insert(i.id).second);
    for (const auto& l : i.languages) CHECK((l == "c" || l == "c++" || l == "python"));
    CHECK((i.numbering == "program" || i.numbering == "chip" || i.numbering == "position" || i.numbering == "own"));
    for (const auto& c : i.calls) {
      INFO(c.name);
      ++calls;
      CHECK_FALSE(c.name.empty());
      bool optional = false;
      for (const auto& t : c.takes) {
        INFO(t.role);
        CHECK((t.role == "pin" || t.role.starts_with("pin.") || roles.contains(t.role)));
        // What may be left out stands behind what may not, unless it has a name.
        CHECK((!optional || t.optional || !t.keyword.empty()));
        optional = optional || t.optional;
      }
      for (const auto& [value, means] : c.modes) CHECK((means.starts_with("output") || means.starts_with("input")));
      for (const auto& [value, means] : c.pulls) CHECK((means == "up" || means == "down" || means == "none"));
    }
    for (const auto& r : i.registers) {
      CHECK(std::set<std::string>{"level", "direction", "input", "set", "clear", "toggle", "clear-set"}.contains(r.is));
      CHECK(r.pin.find("{n}") != std::string::npos);
    }
    for (const auto& r : i.compares)
      for (const auto& [part, pin] : r.pins) {
        INFO(part << " " << pin);
        const auto p = library().find(part);
        REQUIRE(p);
        CHECK(std::ranges::any_of(p->terminals,
                                  [&pin = pin](const parts::Terminal& t) { return t.pin && t.pin->chip == pin && !t.pin->pwm.empty(); }));
      }
  }
  CHECK(calls >= 250);
  for (const auto& [part, words] : read->boards) {
    INFO(part);
    const auto p = library().find(part);
    REQUIRE(p);
    for (const auto& [word, terminal] : words.pins) CHECK(p->find(terminal));
  }
}

TEST_CASE("a file of public calls that cannot be used says what and where") {
  const auto why = [](const std::string& json) {
    const std::vector<std::pair<std::string, std::string>> files{{"tide.json", json}};
    const auto read = program::readPublicCalls(files);
    return read ? std::string() : text(read.error());
  };
  CHECK(why(R"({"format": 1, "id": "t", "calls": []})").empty());
  CHECK(why("{").starts_with("tide.json"));
  CHECK(why(R"({"format": 2, "id": "t"})").find("format") != std::string::npos);
  CHECK(why(R"({"format": 1, "id": "t", "calls": [{"name": "f", "does": "dance"}]})").find("\"dance\", which nothing does") !=
        std::string::npos);
  CHECK(why(R"({"format": 1, "id": "t", "calls": [{"name": "f", "facts": {"scale": "1 +"}}]})").find("scale") != std::string::npos);
  CHECK(why(R"({"format": 1, "id": "t", "colls": []})").find("colls") != std::string::npos);
}

TEST_CASE("what the guide to public calls writes as an example can be added as it stands") {
  const auto guide = readFile("docs/program-calls.md");
  const auto from = guide.find("```json\n") + 8;
  std::vector<std::pair<std::string, std::string>> files;
  for (const auto& f : embedded::programCalls()) files.emplace_back(f.path, f.text);
  files.emplace_back("tide.json", guide.substr(from, guide.find("```", from) - from));
  const auto calls = program::readPublicCalls(files);
  INFO((calls ? std::string() : text(calls.error())));
  REQUIRE(calls);
  const auto read = program::pinsUsed(program::readTexts({{"gate.ino",
                                                           "#include <Tide.h>\n"
                                                           "Tide pump(9, 10, 2000);\n"
                                                           "void setup() {}\n"
                                                           "void loop() { pump.run(40 + TIDE_SLOW); }\n"}},
                                                         "board-uno-atmega328p", *calls),
                                      "uno", *library().find("board-uno-atmega328p"), *calls);
  CHECK(pins(read) == "D10 output pwm, D9 output pwm");
  const auto& in1 = use(read, "D9");
  REQUIRE(in1.written);
  CHECK(*in1.written == Approx(0.41));
  CHECK(read.untold.empty());
}

TEST_CASE("every word that a call says is one that the guide describes") {
  const auto guide = readFile("docs/program-calls.md");
  int words = 0;
  for (const auto& i : program::shippedCalls().interfaces)
    for (const auto& c : i.calls)
      for (const auto& [word, value] : c.said) {
        INFO(i.id << ": " << c.name << ": " << word);
        ++words;
        CHECK(guide.find("\n| `" + word + "` |") != std::string::npos);
      }
  CHECK(words > 20);
}
