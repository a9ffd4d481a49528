#include "core/base/json_text.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

using namespace bold;

TEST_CASE("members and elements are found whatever stands in texts and between them") {
  const auto members = membersOf(R"( { "a\"}" : [1, {"b": "]"}] ,"c":"x\\", "a\"}": 2 } )");
  REQUIRE(members.size() == 3);
  CHECK(members[0].key == "a\"}");
  CHECK(members[0].value == R"([1, {"b": "]"}])");
  CHECK(members[1].value == R"("x\\")");
  CHECK(members[2].value == "2");
  const auto elements = elementsOf(R"([ 1 , "a,b", [], {"x": [2]} ])");
  REQUIRE(elements.size() == 4);
  CHECK(elements[1] == "\"a,b\"");
  CHECK(elements[3] == R"({"x": [2]})");
  CHECK(membersOf("{}").empty());
  CHECK(elementsOf("[ ]").empty());
}

TEST_CASE("a member is set in its place, or behind the last as that stands") {
  CHECK(withMember(R"({"a": 1,  "b":2})", "b", "3") == R"({"a": 1,  "b":3})");
  CHECK(withMember(R"({"a": 1, "b": 2})", "c", "3") == R"({"a": 1, "b": 2, "c": 3})");
  CHECK(withMember(R"({"a": 1})", "b", "2") == R"({"a": 1, "b": 2})");
  CHECK(withMember("{ }", "b", "2") == R"({"b": 2})");
  CHECK(withMember("{\n  \"a\": 1\n}", "b", "2") == "{\n  \"a\": 1,\n  \"b\": 2\n}");
  CHECK(withMember("{\n  \"a\": 1,\n  \"b\": 2\n}", "c", "3") == "{\n  \"a\": 1,\n  \"b\": 2,\n  \"c\": 3\n}");
  CHECK(withMember(R"({"a": 1, "b": 2, "a": 3, "a": 4})", "a", "5") == R"({"a": 5, "b": 2})");
  CHECK(withFirstMember(R"({"a": 1, "b": 2, "a": 3})", "a", "5") == R"({"a": 5, "b": 2, "a": 3})");
}

TEST_CASE("a member is taken away with its comma, and with all that repeat its key") {
  CHECK(withoutMember(R"({"a": 1, "b": 2, "c": 3})", "a") == R"({"b": 2, "c": 3})");
  CHECK(withoutMember(R"({"a": 1, "b": 2})", "b") == R"({"a": 1})");
  CHECK(withoutMember(R"({"a": 1})", "a") == "{}");
  CHECK(withoutMember(R"({"a": 1, "b": 2, "a": 3})", "a") == R"({"b": 2})");
  CHECK(withoutMember(R"({"a": 1})", "b") == R"({"a": 1})");
  CHECK(without(R"({"s": [{"x": 1}, {"x": 2, "y": 3}]})", {"s", "1", "x"}, false) == R"({"s": [{"x": 1}, {"y": 3}]})");
  CHECK(without(R"({"s": [1, 2, 3]})", {"s", "1"}, false) == R"({"s": [1, 3]})");
  CHECK(without(R"({"s": {"x": 1, "x": 2}})", {"s", "x"}, true) == R"({"s": {"x": 1}})");
}

TEST_CASE("a changed text says what was set and nothing else changes") {
  rc::prop("any object, any key", [] {
    Json object = Json::object();
    for (const auto& key : *rc::gen::container<std::vector<std::string>>(rc::gen::string<std::string>()))
      if (Json(key).dump(-1, ' ', false, Json::error_handler_t::replace).find("\xEF\xBF\xBD") == std::string::npos)
        object[key] = *rc::gen::arbitrary<int>();
    const std::string key = *rc::gen::element<std::string>("a", "", "\"", "\\", ":", "x y", "a\\\"");
    for (const auto& text : {jsonText(object), object.dump(), lineText(object)}) {
      auto expected = object;
      expected[key] = Json::array({"new"});
      RC_ASSERT(parsedJson(withMember(text, key, R"(["new"])")) == expected);
      expected.erase(key);
      RC_ASSERT(parsedJson(withoutMember(withMember(text, key, R"(["new"])"), key)) == expected);
    }
  });
}
