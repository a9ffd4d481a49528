#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>

#include "core/base/figure.h"

using namespace bold;

TEST_CASE("quantities are read as people write them") {
  CHECK(parse<Volts>("4.5 V")->value == 4.5);
  CHECK(parse<Volts>("12V")->value == 12);
  CHECK(parse<Amps>("500 mA")->value == 0.5);
  CHECK(parse<Ohms>("4k7")->value == 4700);
  CHECK(parse<Ohms>("4k7 ohm")->value == 4700);
  CHECK(parse<Ohms>("10k")->value == 10000);
  CHECK(parse<Ohms>("2.2 Mohm")->value == 2.2e6);
  CHECK(parse<Farads>("100 uF")->value == 100e-6);
  CHECK(parse<Farads>("100 µF")->value == 100e-6);
  CHECK(parse<Metres>("0.3 m")->value == 0.3);
  CHECK(parse<Metres>("20 mm")->value == 0.02);
  CHECK(parse<Metres>("25 cm")->value == 0.25);
  CHECK_FALSE(parse<Volts>("25 cV"));
  CHECK(parseQuantity("22 AWG", Unit::Awg)->value == 22);
  CHECK(parseAnyQuantity("1.5 kohm")->unit == Unit::Ohm);
  CHECK(parseAnyQuantity("490 Hz")->unit == Unit::Hertz);
}

TEST_CASE("what is no quantity is refused with a sentence") {
  CHECK(parse<Volts>("4,5 V").error().what == "\"4,5 V\" has a comma: write a decimal point");
  CHECK(parse<Volts>("twelve").error().what == "\"twelve\" does not begin with a number");
  CHECK(parse<Volts>("12 A").error().what == "\"12 A\" is not a quantity in V");
  CHECK(parse<Volts>("12").error().what == "\"12\" is not a quantity in V");
  CHECK(parse<Volts>("1e308 V").error().what == "\"1e308 V\" is not a quantity in V");
  CHECK(parse<Volts>("nan V").error().what == "\"nan V\" does not begin with a number");
  CHECK_FALSE(parse<Volts>("1.2.3 V"));
  CHECK_FALSE(parse<Volts>(""));
  CHECK_FALSE(parse<Celsius>("20 mdegC"));
}

TEST_CASE("file text has the fewest digits and the right prefix") {
  CHECK(fileText(Metres{0.2}) == "0.2 m");
  CHECK(fileText(Metres{0.05}) == "0.05 m");
  CHECK(fileText(Ohms{4700}) == "4.7 kohm");
  CHECK(fileText(Amps{0.0005}) == "500 uA");
  CHECK(fileText(Hertz{976.56}) == "976.56 Hz");
  CHECK(fileText(Volts{0}) == "0 V");
  CHECK(fileText(Celsius{-5}) == "-5 degC");
}

TEST_CASE("shown text has three significant digits") {
  CHECK(displayText(Amps{1.68}) == "1.68 A");
  CHECK(displayText(Amps{0.349}) == "349 mA");
  CHECK(displayText(Volts{12.6}) == "12.6 V");
  CHECK(displayText(Volts{12.0}) == "12 V");
  CHECK(displayText(Ohms{4700}) == "4.7 kΩ");
  CHECK(displayText(Amps{0.9999}) == "1 A");
  CHECK(displayText(Volts{-0.001}) == "-1 mV");
  CHECK(displayText(Volts{-2e-7}) == "0 V");
  CHECK(displayText(Amps{2e-9}) == "2 nA");
  CHECK(displayText(AnyQuantity{1e-9, Unit::Farad}) == "1 nF");
}

TEST_CASE("every number survives being written and read") {
  rc::prop("file text reads back to the same number", [] {
    const auto digits = *rc::gen::inRange<int>(0, 100000000);
    const auto exponent = *rc::gen::inRange<int>(-14, 10);
    const double value = digits * std::pow(10.0, exponent);
    for (const auto unit : {Unit::Volt, Unit::Ohm, Unit::Metre, Unit::Farad, Unit::Celsius}) {
      const auto text = fileText({value, unit});
      const auto back = parseQuantity(text, unit);
      RC_ASSERT(back.has_value());
      RC_ASSERT(back->value == value);
    }
  });
}

TEST_CASE("no text crashes the parser") {
  rc::prop("any bytes give a value or a sentence", [](const std::string& text) {
    const auto q = parseAnyQuantity(text);
    RC_ASSERT(q.has_value() || !q.error().what.empty());
    const auto f = parseFigure(text, Unit::Amp);
    RC_ASSERT(f.has_value() || !f.error().what.empty());
  });
}

TEST_CASE("figures say which end is known") {
  const auto two = parseFigure("4.5 V .. 36 V", Unit::Volt);
  REQUIRE(two);
  CHECK(two->min == 4.5);
  CHECK_FALSE(two->typ);
  CHECK(two->max == 36);
  CHECK(two->typical() == 20.25);
  const auto three = parseFigure("12 ohm .. 20 ohm .. 40 ohm", Unit::Ohm);
  REQUIRE(three);
  CHECK(three->typical() == 20);
  CHECK(three->least() == 12);
  CHECK(three->greatest() == 40);
  const auto one = parseFigure("2 A", Unit::Amp);
  CHECK(one->greatest() == 2);
  CHECK_FALSE(parseFigure("unknown", Unit::Amp)->known());
  CHECK(displayText(*parseFigure("unknown", Unit::Amp)) == "unknown");
  CHECK(parseFigure("5 V .. 3 V", Unit::Volt).error().what == "\"5 V .. 3 V\" runs from the larger to the smaller value");
}
