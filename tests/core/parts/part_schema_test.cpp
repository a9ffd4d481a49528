#include "core/parts/part_schema.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/parts/own_parts.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::parts;
using namespace bold::test;

namespace {

bool has(const std::vector<std::string>& list, const std::string& what) {
  return std::ranges::count(list, what) > 0;
}

// Calls f for every place in a part.
template <class F>
void everywhere(const Json& value, Path& path, const F& f) {
  f(path);
  std::size_t k = 0;
  if (value.is_object())
    for (const auto& [key, v] : value.items()) {
      path.push_back(key);
      everywhere(v, path, f);
      path.pop_back();
    }
  if (value.is_array())
    for (const auto& v : value) {
      path.push_back(std::to_string(k++));
      everywhere(v, path, f);
      path.pop_back();
    }
}

}  // namespace

TEST_CASE("the schema knows every place of every shipped part") {
  int places = 0;
  for (const auto& p : library().search("")) {
    const auto& json = *library().json(p->id);
    Path path;
    everywhere(json, path, [&](const Path& at) {
      INFO(p->id << " " << pointer(at));
      CHECK(schemaAt(json, at) != nullptr);
      ++places;
    });
  }
  CHECK(places > 10000);
}

TEST_CASE("what may be added depends on what stands there") {
  const auto& part = *library().json("tb6612fng");
  CHECK(has(missingFields(part, {}), "needs") == false);
  CHECK(has(missingFields(part, {}), "microsteps"));
  CHECK(has(missingFields(part, {"terminals", "0"}), "colour"));
  CHECK_FALSE(has(missingFields(part, {"terminals", "0"}), "supply"));
  CHECK(has(missingFields(part, {"terminals", "2"}), "supply"));
  CHECK(freelyNamed(part, {"figures"}));
  CHECK_FALSE(freelyNamed(part, {"terminals", "0"}));
  const auto kinds = itemKinds(part, {"elements"});
  for (const auto* kind : {"resistor", "diode", "switch", "mosfet", "chopper", "contact"}) CHECK(has(kinds, kind));
  CHECK(itemKinds(part, {"pitfalls"}) == std::vector<std::string>{""});
  CHECK(itemKinds(part, {"id"}).empty());
  CHECK(schemaAt(part, {"no such field"}) == nullptr);
  CHECK(schemaAt(part, {"terminals", "999"}) == nullptr);
}

TEST_CASE("every kind of element is offered with all that it must have, and judged as unfinished, never as unknown") {
  const auto& part = *library().json("tb6612fng");
  for (const auto& kind : itemKinds(part, {"elements"})) {
    INFO(kind);
    const auto item = blankItem(part, {"elements"}, kind);
    CHECK(item.is_object());
    CHECK(item.contains(kind));
    auto more = part;
    more["elements"].push_back(item);
    const Path at{"elements", std::to_string(more["elements"].size() - 1)};
    CHECK(schemaAt(more, at) != nullptr);
    CHECK_FALSE(missingFields(more, at).empty());
    for (const auto& p : problemsOfOwn(jsonText(more))) CHECK(p.what.find("no element this program knows") == std::string::npos);
  }
}

TEST_CASE("items of a list are told apart by id, or by what they are and between what") {
  CHECK(nameOfItem(Json{{"id", "IN1"}, {"contact", "pin"}}) == "IN1");
  CHECK(nameOfItem(parsedJson(R"({"when": {"power": "on"}, "resistor": ["A", "B"], "r": "1 ohm"})")) == "resistor A B");
  CHECK(nameOfItem(parsedJson(R"({"for": "1..4", "as": ["n"], "elements": []})")) == "several alike");
  CHECK(nameOfItem(Json("text")).empty());
}
