#include "core/base/json.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/base/address.h"

using namespace bold;

namespace {
std::string wrong(std::string_view text) {
  std::vector<Problem> problems;
  const auto j = parseJson(text, "f", problems);
  return j ? std::string() : j.error().what;
}
}  // namespace

TEST_CASE("text that is not whole JSON is refused with its place") {
  CHECK(wrong("") == "The file is empty.");
  CHECK(wrong("  \n ") == "The file is empty.");
  CHECK(wrong("hello") == "The file is not whole JSON: it stops making sense at line 1, column 1.");
  CHECK(wrong("{\"a\": 1,\n  oops}") == "The file is not whole JSON: it stops making sense at line 2, column 3.");
  CHECK(wrong("{\"a\": [1, 2") == "The file is not whole JSON: it ends too early at line 1, column 12.");
  CHECK(wrong(std::string(1000, '[')) == "The file cannot be read: it is nested deeper than 200 levels.");
}

TEST_CASE("a duplicate key is reported and the first value kept") {
  std::vector<Problem> problems;
  const auto j = parseJson(R"({"a": {"b": 1, "b": 2}, "c": [0, {"d": 1, "d": {"x": 3}}]})", "bench", problems);
  REQUIRE(j);
  CHECK((*j)["a"]["b"] == 1);
  CHECK((*j)["c"][1]["d"] == 1);
  REQUIRE(problems.size() == 2);
  CHECK(text(problems[0]) == "bench#/a/b: The key \"b\" appears twice in one object. The first value was kept.");
  CHECK(problems[1].where == "bench#/c/1/d");
}

TEST_CASE("written JSON keeps the order of keys and reads back") {
  std::vector<Problem> problems;
  const auto j = parseJson(R"({"z": 1, "a": "x, \"y\": z\\", "list": [[1,2],[3]], "n": null})", "f", problems);
  REQUIRE(j);
  const auto out = jsonText(*j);
  CHECK(out == "{\"z\": 1, \"a\": \"x, \\\"y\\\": z\\\\\", \"list\": [[1, 2], [3]], \"n\": null}\n");
  CHECK(parseJson(out, "f", problems).value() == *j);
}

TEST_CASE("no bytes crash the JSON reader") {
  rc::prop("any text gives a value or a sentence", [](const std::string& t) {
    std::vector<Problem> problems;
    const auto j = parseJson(t, "f", problems);
    RC_ASSERT(j.has_value() || !j.error().what.empty());
  });
}

TEST_CASE("addresses split at their first dot") {
  CHECK(parseAddress("s1.IN1").value() == Address{"s1", "IN1"});
  CHECK_FALSE(parseAddress("s1"));
  CHECK_FALSE(parseAddress("s1."));
  CHECK(parseAddress("s1.3.3V").value() == Address{"s1", "3.3V"});
  CHECK(parseAddress("sh.power, left").value() == Address{"sh", "power, left"});
  CHECK(parseAddress("a b.c").error().what == "\"a b.c\" is not a terminal address such as s1.IN1");
}
