#include "core/program/public_calls.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "core/base/embedded.h"
#include "core/parts/shipped_parts.h"
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
                                  [&](const parts::Terminal& t) { return t.pin && t.pin->chip == pin && !t.pin->pwm.empty(); }));
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
