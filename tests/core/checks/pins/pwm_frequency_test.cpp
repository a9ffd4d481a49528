#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

// Two motors on an L298N module with pins for everything; the second is chopped at another rate.
std::string ratesWith(const std::string& pins) {
  return R"(part usb usb-port-0a5
part u board-uno-atmega328p Board
plug usb.USB u.USB
part v adapter-12v-2a Supply
part s l298n-module Stage
part m1 brushed-gear25-12v Paddle
part m2 brushed-gear25-12v Carriage
unwire s.ENA s.ENA-5V
unwire s.ENB s.ENB-5V
wire s.OUT1 m1.P
wire s.OUT2 m1.N
wire s.OUT3 m2.P
wire s.OUT4 m2.N
wire v.+ s.12V
wire v.- s.GND
wire s.GND u.GND
wire u.D9 s.ENA
wire u.D8 s.IN1
wire u.D7 s.IN2
intent m1 both speed pwm=490Hz speed=u.D9 in1=u.D8 in2=u.D7
)" + pins;
}

}  // namespace

TEST_CASE("one timer, two rates: counted for what carries a duty, not for a direction input beside a speed input") {
  const auto direction =
      ratesWith("wire u.D11 s.ENB\nwire u.D10 s.IN3\nwire u.D12 s.IN4\nintent m2 both speed pwm=980Hz speed=u.D11 in1=u.D10 in2=u.D12");
  for (const auto& f : findingsOf(analyseFast(wiredBench(direction)), "pwm-frequency")) CHECK(f.severity == checks::Severity::Note);
  const auto duty =
      ratesWith("wire u.D10 s.ENB\nwire u.D11 s.IN3\nwire u.D12 s.IN4\nintent m2 both speed pwm=980Hz speed=u.D10 in1=u.D11 in2=u.D12");
  const auto said = findingsOf(analyseFast(wiredBench(duty)), "pwm-frequency");
  REQUIRE_FALSE(said.empty());
  CHECK(said.front().severity == checks::Severity::Stop);
  CHECK(said.front().text.find("D10") != std::string::npos);
}
