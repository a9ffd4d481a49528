#include "core/bench/stand_ins.h"

#include <catch2/catch.hpp>
#include <set>

#include "core/bench/solved_bench.h"
#include "core/checks/analysis.h"
#include "support/bench_text.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::bench;
using namespace bold::test;

namespace {

// Says what it is made of, and no figure.
const std::string kBare = R"({"format": 1, "id": "bare-stage", "name": "Bare stage", "kind": "stage",
  "terminals": [
    {"id": "VM", "contact": "screw", "supply": {"for": "motor", "return": "GND"}}, {"id": "GND", "ground": true, "contact": "screw"},
    {"id": "OUT", "output": true, "contact": "screw"}, {"id": "VO", "output": true, "contact": "screw"}],
  "elements": [
    {"id": "diode", "diode": ["OUT", "VM"], "drop": "unknown", "at": "unknown"},
    {"id": "transistor", "bipolar": ["OUT", "VO", "GND"], "type": "npn", "vbe": "unknown"},
    {"id": "regulator", "regulator": ["VM", "VO", "GND"], "set": "unknown", "dropout": "unknown"}]})";

std::set<std::string> namesOf(const std::vector<StoodIn>& list) {
  std::set<std::string> out;
  for (const auto& s : list) out.emplace(s.standIn->what);
  return out;
}

}  // namespace

TEST_CASE("every figure that stands in for an unknown one has a name of its own, a value and a reason") {
  std::set<std::string_view> names;
  for (const auto* s : standIns()) {
    CHECK(names.insert(s->what).second);
    CHECK(s->why.size() > 10);
    CHECK((s->value.unit == Unit::One) ==
          (s->what.starts_with("least gain") || s->what.starts_with("efficiency") || s->what.starts_with("transfer ratio")));
  }
}

TEST_CASE("a part without figures is worked out with stand-ins, each is said, and those of other parts are not") {
  auto own = library();
  std::vector<Problem> problems;
  own.addOwn({{"bare.json", kBare}}, problems);
  for (const auto& p : problems) FAIL_CHECK(text(p));
  const auto bench = readBenchText("part bat battery-lithium-3s\npart s bare-stage\nwire bat.P s.VM\nwire bat.N s.GND", own, {});
  const auto analysis = analyse(bench, own, {});
  const auto taken = namesOf(standInsOf(*analysis.solved));
  CHECK(taken == std::set<std::string>{"diode drop", "rated current of a diode", "base-emitter voltage", "least gain",
                                       "output of a regulator", "dropout of a regulator", "current limit of a regulator"});
  CHECK(std::ranges::count(analysis.assumptions, "diode drop 800 mV (of a silicon diode at its rated current): s") == 1);
}

TEST_CASE("a stand-in gives way to a figure") {
  auto own = library();
  std::vector<Problem> problems;
  auto known = kBare;
  const std::string unknown = R"("drop": "unknown", "at": "unknown")";
  known.replace(known.find(unknown), unknown.size(), R"("drop": "0.4 V", "at": "1 A")");
  own.addOwn({{"bare.json", known}}, problems);
  for (const auto& p : problems) FAIL_CHECK(text(p));
  const auto bench = readBenchText("part bat battery-lithium-3s\npart s bare-stage\nwire bat.P s.VM\nwire bat.N s.GND", own, {});
  const auto taken = namesOf(standInsOf(*analyse(bench, own).solved));
  CHECK(taken.count("diode drop") == 0);
  CHECK(taken.count("rated current of a diode") == 0);
  CHECK(taken.count("least gain") == 1);
}
