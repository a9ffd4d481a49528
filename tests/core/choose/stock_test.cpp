#include "core/choose/stock.h"

#include <catch2/catch.hpp>
#include <random>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("a drawer is read from CSV: headings, quotes, separators, counts that add up; what cannot be used is said by its line") {
  const auto read =
      choose::readStock("\xEF\xBB\xBFpart;count\r\nl298n-module;2\r\n\"resistor-10k\"; 12\r\n\nl298n-module;1\r\n", library());
  CHECK(read.problems.empty());
  CHECK(read.stock == choose::Stock{{"l298n-module", 3}, {"resistor-10k", 12}});

  const auto wrong = choose::readStock("l298n-module,two\n,4\nno-such-part,1\nl9110s-module,-1\ntb6612fng\n", library());
  CHECK(wrong.stock == choose::Stock{{"no-such-part", 1}});
  std::vector<std::string> said;
  for (const auto& p : wrong.problems) said.push_back(p.where + ": " + p.what);
  // The first line is a heading where its second field is no number.
  CHECK(said == std::vector<std::string>{"line 2: It names no part.", "line 3: No library knows a part \"no-such-part\".",
                                         "line 4: \"-1\" is no count of \"l9110s-module\": a whole number from 0 on is.",
                                         "line 5: \"\" is no count of \"tb6612fng\": a whole number from 0 on is."});
  // What could not be used stays in the file.
  CHECK(wrong.unread.size() == 3);
  const auto again = choose::readStock(choose::writeStock(wrong.stock, wrong.unread), library());
  CHECK(again.stock == wrong.stock);
  CHECK(again.unread == wrong.unread);
  CHECK(choose::readStock("", library()).stock.empty());
}

TEST_CASE("a drawer that is written is read as it was; any bytes are read without harm") {
  const choose::Stock stock{{"l298n-module", 2}, {"with, comma", 1}, {"with \"quotes\"", 7}, {"x;y", 1000000}};
  CHECK(choose::readStock(choose::writeStock(stock), library()).stock == stock);
  std::mt19937 dice(3);
  const std::string alphabet = "a1,;\"\t\r\n -9\xff";
  for (int k = 0; k < 3000; ++k) {
    std::string text;
    for (auto n = dice() % 60; n > 0; --n) text += alphabet[dice() % alphabet.size()];
    const auto read = choose::readStock(text, library());
    for (const auto& [part, n] : read.stock) {
      CHECK_FALSE(part.empty());
      CHECK(n >= 0);
    }
    CHECK(choose::readStock(choose::writeStock(read.stock), library()).stock == read.stock);
  }
}

TEST_CASE("what a candidate takes, for one bench and for five, against what there is") {
  const auto bench = wiredBench(
      "part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\npart v adapter-12v-2a\npart m pump-diaphragm-12v "
      "Motor\n"
      "intent m speed");
  const auto before = choose::beforeStages(bench, library(), "m", {});
  const auto c = choose::candidate(bench, library(), "m", {"nmos-irlz44n"}, {}, {}, *before);
  REQUIRE(c);
  const auto added = choose::addedParts(*c);
  REQUIRE(added.size() == 4);  // the transistor, two resistors, a diode
  CHECK(added.front() == std::pair<std::string, int>{"nmos-irlz44n", 1});
  choose::Stock stock{{"nmos-irlz44n", 5}};
  for (const auto& [part, n] : added)
    if (part.starts_with("resistor-10k")) stock[part] = 4;
  CHECK(choose::inStock(*c, stock, 5));
  CHECK_FALSE(choose::inStock(*c, stock, 6));
  for (const auto& [part, n] : choose::toBuy(*c, stock, 5)) {
    CHECK(part != "nmos-irlz44n");
    CHECK(n == (part.starts_with("resistor-10k") ? 1 : 5));
  }
  CHECK(choose::toBuy(*c, {}, 1).size() == added.size());
}
