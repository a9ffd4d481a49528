#include "core/checks/margin.h"

#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "core/checks/check.h"
#include "core/report/report.h"
#include "support/benches.h"
#include "support/judged.h"
#include "support/random_bench.h"

using namespace bold;
using namespace bold::test;
using namespace bold::checks;

namespace {

Margin of(double value, std::vector<Limit> limits, std::optional<double> from = {}) {
  return {.quantity = "x", .value = value, .limits = std::move(limits), .from = from};
}
Limit most(double v, Severity s = Severity::Caution) {
  return atMost(LimitKind::Recommended, s, v, "most");
}
Limit least(double v, Severity s = Severity::Caution) {
  return atLeast(LimitKind::Recommended, s, v, "least");
}

// The margins of one check on a bench, by quantity and first subject.
std::map<std::string, Margin> marginsOf(std::string_view check, std::string_view notation) {
  std::map<std::string, Margin> out;
  for (const auto& m : analyseFast(wiredBench(notation)).margins())
    if (m.check == check) out.emplace(m.quantity + " of " + m.subjects.front(), m);
  return out;
}

// What holds of every margin there is. Limits that lie the same way rise: farther out it is at least as grave.
void sound(const Margin& m) {
  INFO(m.identity());
  CHECK_FALSE(m.quantity.empty());
  CHECK_FALSE(m.subjects.empty());
  CHECK(findCheck(m.check) != nullptr);
  for (std::size_t i = 0; i + 1 < m.limits.size(); ++i) {
    const auto& a = m.limits[i];
    const auto& b = m.limits[i + 1];
    if (a.most && b.most) CHECK(*a.most <= *b.most);
    if (a.least && b.least) CHECK(*a.least >= *b.least);
    if ((a.most && b.most) || (a.least && b.least)) CHECK(detail::rank(b.consequence) <= detail::rank(a.consequence));
  }
  const auto used = m.used();
  CHECK(used.has_value() == (m.value && m.judged()));
  if (!used) return;
  CHECK(*used >= 0);
  CHECK(*used <= 1000);
  const auto* passed = m.passed();
  const bool grave = passed && (m.onlyNotes() || passed->consequence != Severity::Note);
  if (grave) CHECK(*used >= 0.999);
  if (!grave) CHECK(*used <= 1.001);
}

}  // namespace

TEST_CASE("used runs from the reference to the limit") {
  CHECK(of(1, {most(2)}).used() == 0.5);
  CHECK(of(3, {most(2)}).used() == 1.5);
  CHECK(of(-1, {most(2)}).used() == 0);
  CHECK(of(75, {most(125)}, 25).used() == 0.5);  // heat from ambient
  CHECK(of(5, {within(LimitKind::Recommended, Severity::Caution, 4, 6, "window")}).used() == 0);
  CHECK(of(5.5, {within(LimitKind::Recommended, Severity::Caution, 4, 6, "window")}).used() == 0.5);
  CHECK(of(4.5, {within(LimitKind::Recommended, Severity::Caution, 4, 6, "window")}).used() == 0.5);
  CHECK(of(4, {least(2)}).used() == 0.5);
  CHECK(of(4, {least(2)}, 5).used().value() == Approx(1.0 / 3));
  CHECK(of(0, {least(2)}).used() == 1000);
  CHECK(of(130, {most(125)}, 140).used() == 1000);  // hotter round about than the part may be
}

TEST_CASE("the judged limit is the nearest that more than a note follows from, and what is passed is the gravest") {
  const auto m = of(1.2, {most(1, Severity::Note), most(2), most(3, Severity::Stop)});
  CHECK(m.judged() == &m.limits[1]);
  CHECK(m.used() == 0.6);
  CHECK(m.passed() == &m.limits[0]);
  CHECK_FALSE(m.stops());
  const auto far = of(4, {most(1, Severity::Note), most(2), most(3, Severity::Stop)});
  CHECK(far.stops());
  CHECK(far.used() == 2);
  const auto window = of(7.5, {within(LimitKind::Recommended, Severity::Caution, 8, 12, "window"), least(5, Severity::Stop)});
  CHECK(window.passed() == &window.limits[0]);
  CHECK(of(0.5, {most(1, Severity::Note)}).used() == 0.5);
}

TEST_CASE("what is not known stays unknown") {
  CHECK_FALSE(Margin{.limits = {most(2)}}.used());
  CHECK_FALSE(of(1, {}).used());
  CHECK_FALSE(of(1, {atMost(LimitKind::Absolute, Severity::Stop, {}, "nobody knows")}).used());
  CHECK(of(1, {atMost(LimitKind::Absolute, Severity::Stop, {}, "nobody knows")}).passed() == nullptr);
}

TEST_CASE("a check's words are as grave as the gravest limit that was passed") {
  struct Measured {
    Margins margins;
    std::optional<Severity> besides;
  };
  const auto severity = [](std::vector<Margin> margins, std::optional<Severity> besides = {}) {
    const auto said = say(std::vector<Measured>{{std::move(margins), besides}}, [](const Measured&) { return Finding{}; });
    return said.findings.empty() ? std::optional<Severity>() : said.findings[0].severity;
  };
  CHECK_FALSE(severity({of(1, {most(2)})}));
  CHECK(severity({of(3, {most(2)})}) == kCaution);
  CHECK(severity({of(3, {most(2)}), of(3, {most(2, Severity::Stop)})}) == kStop);
  CHECK(severity({of(1, {most(2)})}, kNote) == kNote);
  CHECK(severity({of(3, {most(2)})}, kNote) == kCaution);
}

TEST_CASE("margins of real wires have the figures of a hand sum, also when all is well") {
  const auto wires = marginsOf("stall-current", "from l293d");
  REQUIRE(wires.size() >= 1);
  const auto m = wires.begin()->second;
  CHECK(m.corner == bench::Corner::Full);
  CHECK(m.command.find("stalled") != std::string::npos);
  REQUIRE(m.limits.size() >= 2);
  CHECK(m.limits[0].name == "continuous");
  CHECK(*m.limits[0].most == Approx(0.6));
  CHECK(*m.limits[1].most == Approx(1.2));

  const auto heat = marginsOf("junction-temperature", "from bridge");
  REQUIRE_FALSE(heat.empty());
  for (const auto& [name, h] : heat) {
    CHECK(h.unit == Unit::Celsius);
    CHECK_FALSE(h.assumed.empty());  // nobody stated the ambient
  }
  CHECK(marginsOf("junction-temperature", "from bridge").at("junction of s1").from == 30.0);

  const auto logic = marginsOf("logic-supply-out-of-range", "from step-dir-3v3");
  REQUIRE_FALSE(logic.empty());
  for (const auto& [name, l] : logic) CHECK(*l.used() < 1);
}

TEST_CASE("an unknown rating leaves its margin without a share, and it is listed") {
  const auto known = marginsOf("running-current", "from l293d");
  REQUIRE(known.size() == 1);
  CHECK(known.begin()->second.used());
  const auto a = analyseFast(wiredBench("from l293d\nfigure s1.continuous unknown"));
  for (const auto& m : a.margins())
    if (m.check == "running-current") CHECK_FALSE(m.used());
}

TEST_CASE("every check that measures has margins where it fires and where all is well, the others have none") {
  std::set<std::string> well;
  std::set<std::string> past;
  const auto look = [&](const Analysis& a) {
    const auto margins = a.margins();
    for (const auto& m : margins) {
      sound(m);
      (m.passed() ? past : well).insert(m.check);
    }
    for (std::size_t i = 0; i + 1 < margins.size(); ++i) {
      const auto& m = margins[i];
      const auto& next = margins[i + 1];
      if (m.used() && next.used() && m.onlyNotes() == next.onlyNotes()) CHECK(*m.used() >= *next.used());
      if (!m.used()) CHECK_FALSE(next.used());
    }
  };
  for (const auto& name : goodNames()) look(analyseFast(good(name)));
  for (const auto& c : registry()) {
    const std::string page(checks::page(c.id));
    for (auto from = page.find("```bench\n"); from != std::string::npos; from = page.find("```bench\n", from + 1))
      look(analyseFast(wiredBench(page.substr(from + 9, page.find("```", from + 9) - from - 9))));
  }
  for (unsigned seed = 0; seed < 600; ++seed) look(analyseFast(randomBench(seed)));
  for (const auto& c : registry()) {
    INFO(c.id);
    CHECK(well.contains(std::string(c.id)) == c.measures());
    if (!c.measures()) CHECK_FALSE(past.contains(std::string(c.id)));
  }
  CHECK(past.size() > 40);
}

TEST_CASE("nothing is measured twice under one name on a bench") {
  for (const auto& name : goodNames()) {
    std::set<std::string> ids;
    for (const auto& m : analyseFast(good(name)).margins()) {
      INFO(name << ": " << m.identity());
      CHECK(ids.insert(m.identity()).second);
    }
  }
}

TEST_CASE("the list of margins names place, limits and what was taken for granted, and the checks without a number") {
  const auto h = good("l293d");
  const auto text = report::margins(analyse(h, library()), 80);
  CHECK(text.find("stall current") != std::string::npos);
  CHECK(text.find("(continuous: recommended, note)") != std::string::npos);
  CHECK(text.find("taken: ambient 30 °C") != std::string::npos);
  CHECK(text.find("Decided by the wires, without a number:") != std::string::npos);
  CHECK(text.find("ground-not-shared") != std::string::npos);
  const auto none = report::margins(analyse({}, library()), 80);
  CHECK(none.find("Nothing was measured.") != std::string::npos);
}
