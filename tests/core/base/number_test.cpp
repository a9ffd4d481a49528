#include "core/base/number.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <clocale>
#include <filesystem>
#include <regex>

#include "core/base/plausible.h"
#include "core/base/quantity.h"
#include "core/parts/search.h"
#include "core/parts/typed_part.h"
#include "support/benches.h"

using namespace bold;

TEST_CASE("the tests run under the decimal point that they are said to run under") {
  const char* said = std::getenv("BOLD_DECIMAL_POINT");
  if (!said) return;  // started by hand
  CHECK(std::string(std::localeconv()->decimal_point) == said);
}

TEST_CASE("numbers are read with a decimal point under any locale") {
  CHECK(realOf("12.5") == 12.5);
  CHECK(realOf("+1e3") == 1000);
  CHECK(realOf("-0.25") == -0.25);
  for (const auto* bad : {"", " ", "12,5", "1.5 ", "0x10", "inf", "nan", "1e999", "+-1", "++1", "."}) {
    INFO(bad);
    CHECK_FALSE(realOf(bad));
  }
  CHECK(realAtStart("1.5f") == 1.5);
  CHECK_FALSE(realAtStart("f1.5"));
  CHECK(wholeOf("42") == 42);
  CHECK(wholeOf("1010", 2) == 10);
  CHECK(wholeOf("fF", 16) == 255);
  for (const auto* bad : {"", "4.2", "42 ", "99999999999999999999", "0x1f"}) {
    INFO(bad);
    CHECK_FALSE(wholeOf(bad));
  }
  CHECK(wholeAtStart("22awg") == 22);
  CHECK_FALSE(wholeAtStart("awg"));
  CHECK(wholeAtStart("99999999999999999999") == std::numeric_limits<long long>::max());
  for (const auto unit : {Unit::One, Unit::Volt, Unit::Amp, Unit::Ohm, Unit::Celsius, Unit::KelvinPerWatt}) {
    CHECK_FALSE(plausible({-1e6, unit}));
    CHECK_FALSE(plausible({1e30, unit}));
    CHECK(plausible({20, unit}));
  }
  CHECK(positionIn("2", 3) == 2U);
  for (const auto* bad : {"3", "-1", "", "x", "terminals"}) CHECK_FALSE(positionIn(bad, 3));
}

TEST_CASE("what is written of a number reads back equal under any locale") {
  rc::check("file text", [] {
    const double v = *rc::gen::map(rc::gen::arbitrary<int>(), [](int i) { return i / 1000.0; });
    const auto back = parseQuantity(fileText(AnyQuantity{v, Unit::Volt}), Unit::Volt);
    RC_ASSERT(back.has_value());
    RC_ASSERT(back->value == v);
  });
}

TEST_CASE("a search takes decimals as they were typed under any locale") {
  const auto q = parts::parseQuery("12.5 V 0.25 A adapter");
  REQUIRE(q.figures.size() == 2);
  CHECK(q.figures[0].value == 12.5);
  CHECK(q.figures[1].value == 0.25);
  CHECK(parts::parseQuery("4r7").figures.front().value == Approx(4.7));
  const auto typed = parts::typedParts("12.5 V 0.25 A adapter");
  REQUIRE(typed.size() == 1);
  CHECK(typed[0].overrides.at("nominal") == "12.5 V");
  CHECK(typed[0].overrides.at("continuous") == "250 mA");
}

// They follow the locale of the process, which the window sets.
TEST_CASE("no source reads or writes numbers by the C library or by streams") {
  const std::regex follows(
      R"(\b(strto(d|f|ld|l|ul|ll|ull)|ato(f|i|l|ll)|sto(d|f|i|l|ld|ul|ll|ull)|s?n?printf|sscanf|[io]?stringstream|ostream|istream)\s*[<(])"
      R"(|%L|\{:[^}]*L[^}]*\})");
  REQUIRE(std::regex_search("std::stod(x)", follows));
  REQUIRE(std::regex_search("{:.2Lf}", follows));
  int looked = 0;
  for (const auto& e : std::filesystem::recursive_directory_iterator(std::string(BOLD_SOURCE_DIR) + "/src")) {
    if (e.path().extension() != ".cpp" && e.path().extension() != ".h") continue;
    ++looked;
    INFO(e.path().string());
    const auto text = test::readFile("src/" + std::filesystem::relative(e.path(), std::string(BOLD_SOURCE_DIR) + "/src").string());
    std::smatch found;
    if (std::regex_search(text, found, follows)) FAIL_CHECK(found.str());
  }
  CHECK(looked > 500);
}
