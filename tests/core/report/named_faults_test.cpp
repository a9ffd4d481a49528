#include "core/report/named_faults.h"

#include <catch2/catch.hpp>

#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

struct FirstTry {
  harness::Harness bench;
  Analysis analysis;
};
const FirstTry& firstTry() {
  static const auto kOne = [] {
    auto h = harness::readHarness(readFile("demo/wave-tank-first-try.harness"), "b")->harness;
    auto a = analyse(h, library());
    return FirstTry{std::move(h), std::move(a)};
  }();
  return kOne;
}

// Checks of the findings that a line names; "-" where it names none.
std::string names(const std::string& line) {
  const auto out = report::compareNamed(firstTry().bench, library(), firstTry().analysis, {line});
  std::string checks;
  for (const auto& id : out.named.at(0).means) checks += (checks.empty() ? "" : " ") + firstTry().analysis.find(id)->check;
  return checks.empty() ? "-" : checks;
}

}  // namespace

TEST_CASE("a fault is understood in the words of somebody who saw it") {
  CHECK(names("no common ground between the controller and S1") == "ground-not-shared");
  CHECK(names("the diode D1 is backwards") == "flyback-reversed command-outcome");
  CHECK(names("D7 has no PWM") == "pin-no-pwm");
  CHECK(names("s2 rst is floating") == "input-floating");
  CHECK(names("sluice gate - is not connected") == "open-lead");
  CHECK(names("coils of the sand carriage are swapped") == "coil-pairs");
}

TEST_CASE("what is not found is not read into a line") {
  CHECK(names("the camera has no film") == "-");
  CHECK(names("C1 has the wrong capacitance") == "-");
  CHECK(names("psu") == "-");  // a place that nothing is wrong with
  CHECK(names("wrong") == "-");
}

TEST_CASE("what nobody named is missed, each cause once; all named, nothing is missed") {
  const auto& a = firstTry().analysis;
  const auto none = report::compareNamed(firstTry().bench, library(), a, {"", "  "});
  CHECK(none.named.empty());
  int causes = 0;
  std::vector<std::string> headlines;
  for (const auto& f : a.findings) {
    causes += f.severity != checks::Severity::Note && f.explainedBy.empty();
    if (f.severity != checks::Severity::Note) headlines.push_back(f.headline);
  }
  CHECK(none.missed.size() == static_cast<std::size_t>(causes));
  // The program's own headlines name what they head: all but a few that two findings share.
  const auto all = report::compareNamed(firstTry().bench, library(), a, headlines);
  CHECK(all.missed.empty());
  for (const auto& n : all.named) {
    INFO(n.text);
    CHECK_FALSE(n.means.empty());
  }
}
