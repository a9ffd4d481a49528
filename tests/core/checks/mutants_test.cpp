#include "support/mutants.h"

#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "core/circuit/bench.h"
#include "core/circuit/nets.h"
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
    {"bridge-stack-expander: set s1.logic 3.3 V", "the stage works as well on 3.3 V, and nothing is driven over the bus"},
    {"bts7960: moved s1.REN to s1.LEN (other end r1.A)", "either enable pulled low keeps the bridge still"},
    {"drv8833: set s1.sleepLink fitted", "the link holds the stage awake; the plan's pin does the same"},
    {"stack-carriers: set k.yMS1 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.yMS2 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.yMS3 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.zMS1 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.zMS2 fitted", "no carrier is in that socket"},
    {"stack-carriers: set k.zMS3 fitted", "no carrier is in that socket"},
    {"step-dir-esp32: moved s1.EN to s1.MS1 (other end r1.A)", "the stage holds at boot without it, and the plan names no microsteps"},
    {"step-dir-esp32: moved s1.VIO to s1.GND-2 (other end r1.B)", "the stage holds at boot, which for step/dir stages is the default"},
};

// The terminals that hang together, by name: equal for two benches that differ in nothing a meter would show.
std::set<std::set<std::string>> copper(const harness::Harness& h) {
  const auto b = circuit::makeBench(h, library());
  const circuit::Nets nets(b);
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
