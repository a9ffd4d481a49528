#include "core/parts/condition.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>

using namespace bold;
using namespace bold::parts;

namespace {
Level value(std::string_view text, std::map<std::string, Level> levels, std::optional<double> volts = 5.0) {
  const auto awake = Condition::parse("V(VCC,GND) > 2 V", {});
  const auto c = Condition::parse(text, {{"awake", *awake}});
  REQUIRE(c);
  Condition::World w;
  w.level = [&](const std::string& t) { return levels.contains(t) ? levels.at(t) : Level::Undefined; };
  w.volts = [&](const std::string&, const std::string&) { return volts; };
  return c->evaluate(w);
}
}  // namespace

TEST_CASE("conditions are three-valued") {
  CHECK(value("A & B", {{"A", Level::High}, {"B", Level::High}}) == Level::High);
  CHECK(value("A & B", {{"A", Level::Low}}) == Level::Low);
  CHECK(value("A & B", {{"A", Level::High}}) == Level::Undefined);
  CHECK(value("A | B", {{"A", Level::High}}) == Level::High);
  CHECK(value("!A", {{"A", Level::Low}}) == Level::High);
  CHECK(value("!A", {}) == Level::Undefined);
  CHECK(value("!(A | B) & awake", {{"A", Level::Low}, {"B", Level::Low}}) == Level::High);
  CHECK(value("A & awake", {{"A", Level::High}}, 1.0) == Level::Low);
  CHECK(value("A & awake", {{"A", Level::High}}, std::nullopt) == Level::Low);
}

TEST_CASE("a condition knows which inputs decide it") {
  CHECK(Condition::parse("IN1 & !IN2 & V(VM,GND) > 3 V", {})->inputs() == std::set<std::string>{"IN1", "IN2"});
}

TEST_CASE("broken conditions are refused with a place") {
  CHECK(Condition::parse("A &", {}).error().what == "The condition \"A &\" cannot be read: a terminal is missing at character 4.");
  CHECK_FALSE(Condition::parse("(A", {}));
  CHECK_FALSE(Condition::parse("A B", {}));
  CHECK_FALSE(Condition::parse("V(A) > 2 V", {}));
  CHECK_FALSE(Condition::parse("V(A,B) > 2 A", {}));
  std::string deep(300, '!');
  deep += 'A';
  CHECK_FALSE(Condition::parse(deep, {}));
  CHECK_FALSE(Condition::parse(std::string(300, '('), {}));
}

TEST_CASE("no text crashes the condition parser") {
  rc::prop("any text", [](const std::string& t) {
    const auto c = Condition::parse(t, {});
    RC_ASSERT(c.has_value() || !c.error().what.empty());
  });
}
