#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <random>

#include "core/choose/pin_demands.h"
#include "core/choose/smallest_change.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

// Any motor, supply, controller and goal, any stage: what is said of it before it is put on the plan is what the bench says then, and it
// goes again without a trace.
TEST_CASE("whatever is chosen for whatever motor: said before as it is said then, and taken back to the byte") {
  static constexpr std::array kMotors{"brushed-n20-6v",     "brushed-gear25-12v",         "brushed-gear37-12v",
                                      "pump-diaphragm-12v", "pump-submersible-5v",        "stepper-28byj48-5v",
                                      "stepper-nema17-0a4", "stepper-nema17-1a68",        "fan-80mm-12v",
                                      "brushed-coin-3v",    "electromagnet-5v",           "light-strip-12v",
                                      "brushed-worm-12v",   "stepper-unipolar-7v5deg-12v"};
  static constexpr std::array kSupplies{"adapter-5v-3a",   "adapter-12v-2a",  "adapter-12v-5a",   "adapter-24v-5a", "battery-4aa-nimh",
                                        "battery-lipo-2s", "battery-lipo-3s", "battery-9v-block", "adapter-9v-1a"};
  static constexpr std::array kBoards{"board-uno-atmega328p", "board-esp32-38", "board-rp2040-40", "board-nano-atmega328p"};
  static constexpr std::array kGoals{"", "both", "speed", "both speed", "both speed ramp", "speed pwm=20kHz", "both hold"};
  int fitted = 0;
  for (unsigned seed = 0; seed < 40; ++seed) {
    std::mt19937 dice(seed);
    const auto any = [&](const auto& from) { return from[dice() % from.size()]; };
    const std::string board = any(kBoards);
    const auto text = std::string("part usb usb-port-0a9\npart u ") + board + " Board\nplug usb.USB u.USB\npart v " + any(kSupplies) +
                      " Supply\npart m " + any(kMotors) + " Motor\nintent m " + any(kGoals);
    INFO(text);
    const auto bench = wiredBench(text);
    const auto before = choose::beforeStages(bench, library(), "m", {});
    REQUIRE(before);
    auto offers = choose::stagesFor(bench, library(), "m");
    std::ranges::shuffle(offers, dice);
    int tried = 0;
    for (const auto& offer : offers) {
      const auto c = choose::candidate(bench, library(), "m", offer, "v", {}, *before);
      REQUIRE(c);
      if (!c->excluded.empty()) {
        CHECK(c->excluded.ends_with("."));
        continue;
      }
      if (++tried > 6) break;
      INFO(offer.stage << (offer.parallel ? " in parallel" : ""));
      auto h = bench;
      const auto back = apply(h, c->edit);
      const auto a = analyseFast(harness::asPlanned(h));
      // The motor alone on the bench: nothing else can be to blame.
      int stops = 0;
      int cautions = 0;
      for (const auto& f : a.findings) {
        if (before->said.contains(f.identity())) continue;
        stops += f.severity == checks::Severity::Stop;
        cautions += f.severity == checks::Severity::Caution;
      }
      CHECK((c->verdict == Verdict::DoNotSwitchOn) == (stops > 0));
      CHECK((c->verdict == Verdict::Clear) == (stops + cautions == 0));
      // Every signal has its pin, and placing them anew changes nothing.
      const auto pins = choose::placeSignals(h, library(), choose::pinDemands(h, library()));
      CHECK(pins.problem.empty());
      CHECK(static_cast<int>(pins.choices.size()) == c->pins);
      CHECK(choose::pinEdit(h, library(), pins).changes.empty());
      fitted += c->verdict == Verdict::Clear;
      (void)apply(h, back);
      CHECK(h == bench);
    }
  }
  CHECK(fitted > 5);
}
