#include "core/parts/part_card.h"

#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::parts;
using namespace bold::test;

namespace {
std::string card(const std::string& id) {
  const auto part = library().find(id);
  REQUIRE(part);
  return partCard(*part, library().json(id));
}
}  // namespace

TEST_CASE("every part has a card that names each of its figures with a source, each pitfall and each terminal") {
  for (const auto& p : library().search("")) {
    INFO(p->id);
    const auto text = partCard(*p, library().json(p->id));
    CHECK(text.starts_with("# " + p->name + "\n"));
    for (const auto& f : p->figures) CHECK(text.find("| " + f.label + " |") != std::string::npos);
    for (const auto& pitfall : p->pitfalls) CHECK(text.find(pitfall) != std::string::npos);
    if (p->terminals.size() < 100)
      for (const auto& t : p->terminals) CHECK(text.find("| " + t.label) != std::string::npos);
    CHECK(text.find(" nan") == std::string::npos);
  }
}

TEST_CASE("a bridge's card says what its inputs do, brake and coast apart") {
  const auto text = card("tb6612fng");
  CHECK(text.find("brakes") != std::string::npos);
  CHECK(text.find("coasts") != std::string::npos);
  CHECK(text.find("short through") == std::string::npos);
}

TEST_CASE("a motor's card says how its winding is measured, a carrier's how its reference is") {
  CHECK(card("brushed-130-3v").find("shaft turned to three positions") != std::string::npos);
  CHECK(card("a4988-carrier").find("trimmer's wiper") != std::string::npos);
  CHECK(card("diode-1n4148").find("## To measure") == std::string::npos);
}

TEST_CASE("an unknown figure stands as unknown") {
  CHECK(card("a4988-carrier").find("| reference voltage, as trimmed | reference | unknown |") != std::string::npos);
}

TEST_CASE("a card lists what a stage needs besides, and everything that it is judged by") {
  const auto text = card("tb6612fng");
  CHECK(text.find("## It also needs\n\n- 10 µF or more at VM") != std::string::npos);
  CHECK(text.find("| output current | continuous | 1 A |") != std::string::npos);
  CHECK(text.find("econd reading") == std::string::npos);  // nothing is judged by it
  for (const auto* row :
       {"| VM | motor supply | 2.5 V to 13.5 V |", "| levels cmos | high from | 0.7 x VCC |",
        "| channel A | peak, once | 3.2 A for 10 ms |", "| channel A | protection | thermal |", "| channel A | PWM up to | 100 kHz |",
        "| package U1 | hottest junction | 150 °C |", "| switches | resistance | 250 mΩ |"})
    CHECK(text.find(row) != std::string::npos);
  CHECK(text.find("- A: outputs AO1, AO2; signals in1 = AIN1, in2 = AIN2, speed = PWMA, standby = STBY") != std::string::npos);
  CHECK(card("l298n-module").find("| 5 V regulator link | reg | on, off | on |") != std::string::npos);
  // Whatever has to be clamped from outside says so.
  for (const auto& p : library().search(""))
    if (p->kind == "transistor") {
      INFO(p->id);
      CHECK(card(p->id).find("- A diode across the motor") != std::string::npos);
    }
}
