#include "support/mutants.h"

#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "core/bench/bench.h"
#include "core/bench/nets.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

// Every mutant of every good bench must lead to a new caution or stop about something that was changed, or be excused:
// by a rule (the copper is the same) or by the reviewed list.
namespace {

// Mutants that nothing is said about, each with its reason. What is neither here nor noticed is a miss; what is here and
// noticed by now has to leave.
const std::map<std::string, std::string> kExcused{
    {"breadboard: removed bb.e12 bb.tn5", "the gate that floats then is named at the transistor, not at the breadboard's row"},
    {"bridge-loose-bjt: exchanged q1.B and q1.C", "noticed at the transistor that suffers"},
    {"bridge-loose-bjt: exchanged q4.B and q4.C", "noticed at the transistor that suffers"},
    {"bridge-loose-bjt: exchanged q5.B and q5.C", "noticed at the transistor that suffers"},
    {"bridge-loose-bjt: exchanged q6.B and q6.C", "noticed at the transistor that suffers"},
    {"bridge-loose-bjt: moved psu.P to psu.N (other end r7.B)", "named at the transistor that it opens"},
    {"bridge-loose-bjt: moved psu.P to psu.N (other end r8.B)", "named at the transistor that it opens"},
    {"bridge-loose-bjt: moved q1.B to q1.C (other end r7.A)", "a base that nothing holds is off but for leaks"},
    {"bridge-loose-bjt: moved q2.B to q2.C (other end r8.A)", "a base that nothing holds is off but for leaks"},
    {"bridge-stack-expander: set s1.power fitted", "the board chooses between USB and VIN by itself"},
    {"bridge-stack: set s1.power fitted", "the board chooses between USB and VIN by itself"},
    {"bridge-stack-expander: set s1.logic 3.3 V", "the stage works as well on 3.3 V, and nothing is driven over the bus"},
    {"button: exchanged b1.1 and b1.2b", "a contact carries either way"},
    {"bts7960-lipo: moved s1.REN to s1.LEN (other end r1.A)", "either enable pulled low keeps the bridge still"},
    {"bts7960: moved s1.REN to s1.LEN (other end r1.A)", "either enable pulled low keeps the bridge still"},
    {"drv8833-one-battery: moved pico.VSYS to pico.VBUS (other end sw.B)", "the board runs from its USB line as well, behind its diode"},
    {"drv8833-one-battery: set s1.sleepLink fitted", "the link holds the stage awake; the wire does the same"},
    {"drv8833: set s1.sleepLink fitted", "the link holds the stage awake; the plan's pin does the same"},
    {"drv8835: removed s1.MODE s1.GND",
     "with its mode open the stage wants phase and enable on the same two pins, and a program for that moves the motor"},
    {"latch-magnet: exchanged magnet.P and magnet.N", "a coil is on either way round"},
    {"latch-magnet: moved u2.OE to u2.D1 (other end r1.A)", "named at the magnet, which is on while the latch stands at random"},
    {"latch-magnet: moved uno.5V to uno.GND (other end r1.B)", "named at the magnet, which is on while the latch stands at random"},
    {"relay-shifted-one: exchanged k1.COM and k1.NO", "a contact carries either way"},
    {"relay-shifted-one: exchanged valve.P and valve.N", "a coil is on either way round"},
    {"l293: moved s1.VCC2 to s1.3-4EN (other end c1.P)", "the part asks for no capacitor, and that bridge drives nothing"},
    {"l298-chip: moved s1.GND to s1.VSS (other end c1.N)", "the part asks for no capacitor"},
    {"low-side-9v-block: moved reg.OUT to reg.IN (other end rm.A)", "named at the motor, which gets too much"},
    {"low-side-attiny: moved t.GND to t.PB0 (other end c1.B)", "100 nF on the pin slow its edges by some microseconds"},
    {"low-side-attiny: moved t.VCC to t.PB5 (other end c1.A)", "nothing asks for the capacitor, and the pin is not in the plan"},
    {"npn-bd139-chip: moved pic.VSS to pic.OSC1 (other end reg.GND)", "the chip's two grounds are one inside; its card asks for both"},
    {"npn-regulator: moved reg.OUT to reg.IN (other end c1.P)", "nothing asks for the regulator's capacitor but its card"},
    {"opto-common-anode: moved s1.PUL-P to s1.PUL-N (other end s1.DIR-P)", "the direction still lights while the step pin is high"},
    {"coin-attiny: moved t.GND to t.PB0 (other end c1.B)", "100 nF on the pin slow its edges by some microseconds"},
    {"coin-attiny: moved t.VCC to t.PB5 (other end c1.A)", "nothing asks for the capacitor, and the pin is not in the plan"},
    {"esc-wave-maker: exchanged esc.A and esc.B", "two phases exchanged turn it the other way, which nobody said"},
    {"esc-wave-maker: exchanged esc.B and esc.C", "two phases exchanged turn it the other way, which nobody said"},
    {"esc-wave-maker: exchanged m.A and m.B", "two phases exchanged turn it the other way, which nobody said"},
    {"esc-wave-maker: exchanged m.B and m.C", "two phases exchanged turn it the other way, which nobody said"},
    {"mosfet-module-520-shifted: exchanged q1.B and q1.C", "named at the pump, which runs, and at the pin, which no longer reaches it"},
    {"mosfet-module-520-shifted: moved psu.N to psu.P (other end r4.B)", "named at the pump, which runs while the controller starts"},
    {"mosfet-module-520-shifted: moved psu.P to psu.N (other end r3.B)", "named at the pump, which runs while the controller starts"},
    {"mosfet-module-520-shifted: removed psu.P s1.VIN", "it feeds the module's V+ and nothing else, and nothing hangs there"},
    {"pmos-irf9540n: exchanged valve.P and valve.N", "a coil is on either way round"},
    {"register-shifted: exchanged k1.A1 and k1.A2", "a coil is on either way round"},
    {"register-shifted: exchanged k1.COM and k1.NO", "a contact carries either way"},
    {"register-shifted: exchanged pad.P and pad.N", "a heater is on either way round"},
    {"pump-four-relays: exchanged k1.COM1 and k1.NO1", "a contact carries either way"},
    {"pump-relay: exchanged k1.COM and k1.NO", "a contact carries either way"},
    {"pumps-relays: exchanged k1.COM1 and k1.NO1", "a contact carries either way"},
    {"pumps-relays: exchanged k1.COM2 and k1.NO2", "a contact carries either way"},
    {"pump-on-large-boost: moved up.OUT-N to up.IN-P (other end c1.N)", "a capacitor between output and input holds the output as well"},
    {"tilt-on-cells: moved up.OUT-N to up.IN-P (other end c1.N)", "a capacitor between output and input holds the output as well"},
    {"pump-on-boost: moved up.OUT-N to up.IN-P (other end c1.N)", "a capacitor between output and input holds the output as well"},
    {"pump-on-boost: moved up.OUT-N to up.IN-P (other end q1.S)",
     "the pump then runs between output and input, on 7 V, and board and transistor stand on the input: it works"},
    {"inverter-valve: exchanged valve.P and valve.N", "a coil is on either way round"},
    {"inverter-valve: moved q1.G to q1.D (other end r2.A)", "the inverter holds the gate, whatever its pin does"},
    {"inverter-valve: moved u1.1A to u1.1Y (other end r3.A)", "named at the valve, which is on while the controller starts"},
    {"inverter-valve: moved uno.5V to uno.GND (other end r3.B)", "named at the valve, which is on while the controller starts"},
    {"magnet-array: exchanged magnet.P and magnet.N", "a coil is on either way round"},
    {"register-array: moved u2.OE to u2.SER (other end r1.A)", "named at the pump, which runs while the register stands at random"},
    {"register-array: moved uno.5V to uno.GND (other end r1.B)", "named at the pump, which runs while the register stands at random"},
    {"relay-12v-heater: exchanged k1.A1 and k1.A2", "a coil is on either way round"},
    {"relay-12v-heater: exchanged k1.COM and k1.NO", "a contact carries either way"},
    {"relay-12v-heater: exchanged pad.P and pad.N", "a heater is on either way round"},
    {"relay-bare: exchanged k1.A1 and k1.A2", "a coil is on either way round"},
    {"relay-bare: exchanged k1.COM and k1.NO", "a contact carries either way"},
    {"solenoid-12v-tip122: exchanged latch.P and latch.N", "a coil is on either way round"},
    {"solenoid-5v: exchanged latch.P and latch.N", "a coil is on either way round"},
    {"valve: exchanged valve.P and valve.N", "a coil is on either way round"},
    {"sn754410: moved s1.VCC2 to s1.3-4EN (other end c1.P)", "the part asks for no capacitor, and that bridge drives nothing"},
    {"stack-carriers: set k.yMS1 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.yMS2 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.yMS3 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.zMS1 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.zMS2 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.zMS3 fitted", "no carrier is in that socket"},
    {"step-dir-esp32: moved s1.VIO to s1.GND-2 (other end r1.B)", "the stage holds at boot, which for step/dir stages is the default"},
    {"stepper-drv8833: set s1.sleepLink fitted", "the link holds the stage awake; the wire does the same"},
    {"tb6612-snubbed: moved s1.VM to s1.VCC (other end c1.P)", "the part asks for no capacitor"},
    {"tb6612-snubbed: moved s1.VM to s1.VCC (other end z1.K)", "the capacitors take what the motor gives back, without it as well"},
};

// The terminals that hang together, by name: equal for two benches that differ in nothing a meter would show.
std::set<std::set<std::string>> copper(const harness::Harness& h) {
  const auto b = bench::makeBench(h, library());
  const bench::Nets nets(b);
  std::set<std::set<std::string>> out;
  for (int n = 0; n < nets.count(); ++n) {
    std::set<std::string> names;
    for (const auto t : nets.members(n)) names.insert(b.address(t));
    if (names.size() > 1) out.insert(names);
  }
  return out;
}

bool noticed(const Mutant& m, const std::set<std::string>& known) {
  const auto a = analyseFast(m.bench);
  return std::ranges::any_of(a.findings, [&](const auto& f) {
    if (f.severity == checks::Severity::Note || known.contains(f.identity())) return false;
    return std::ranges::any_of(f.subjects,
                               [&](const std::string& s) { return m.changed.contains(s) || m.changed.contains(s.substr(0, s.find('.'))); });
  });
}

}  // namespace

TEST_CASE("every way a good bench is easily spoilt is noticed at the place, or excused for a reason") {
  int all = 0;
  int same = 0;
  std::set<std::string> unnoticed;
  for (const auto& name : goodNames()) {
    const auto h = good(name);
    std::set<std::string> known;
    for (const auto& f : analyseFast(h).findings) known.insert(f.identity());
    const auto before = copper(h);
    everyMutant(name, h, [&](const Mutant& m) {
      ++all;
      if (copper(m.bench) == before && m.name.find(": set ") == std::string::npos) {
        ++same;  // two grounds, both ends of a fuse, a doubled wire
        return;
      }
      const bool seen = noticed(m, known);
      INFO(m.name);
      CHECK(seen != kExcused.contains(m.name));
      if (!seen) unnoticed.insert(m.name);
    });
  }
  CHECK(all > 1000);
  CHECK(unnoticed.size() == kExcused.size());
  CHECK(static_cast<double>(kExcused.size()) <= 0.05 * all);
  WARN(all << " mutants, " << same << " with the same copper, " << unnoticed.size() << " excused");
}
