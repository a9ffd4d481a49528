#include <fmt/core.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "core/checks/check.h"
#include "core/checks/way_edit.h"
#include "core/checks/wired_signals.h"
#include "core/harness/intent.h"
#include "support/benches.h"
#include "support/expected.h"
#include "support/mutants.h"

using namespace bold;
using namespace bold::checks;
using namespace bold::test;

namespace {

// What a person reads: a sentence of this bench, no template left open, no number that is none.
void readable(const Way& way) {
  INFO(way.text);
  CHECK(way.text.size() > 10);
  CHECK(way.text.size() < 240);
  CHECK(std::isupper(static_cast<unsigned char>(way.text.front())));
  CHECK(way.text.ends_with('.'));
  CHECK(way.text.find("{}") == std::string::npos);
  for (const auto* no : {"nan", "inf ", "-0 ", "0 Ω or", " 0 A"}) CHECK(way.text.find(no) == std::string::npos);
}

}  // namespace

TEST_CASE("every finding on every spoilt bench says what to do, with this bench's names") {
  std::map<std::string, int> own;
  std::map<std::string, int> fromPage;
  std::set<std::string> checksSeen;
  const auto look = [&](const harness::Harness& h) {
    const auto a = analyseFast(h);
    for (const auto& f : a.findings) {
      INFO(f.check << ": " << f.headline);
      CHECK((f.repair || !f.ways.empty()));
      checksSeen.insert(f.check);
      for (const auto& w : f.ways) {
        readable(w);
        // What a field is named of is on the bench.
        if (!w.field.subject.empty()) CHECK((h.device(w.field.subject) || h.connection(w.field.subject)));
      }
      if (f.repair) continue;
      const bool page = f.ways.size() == 1 && f.ways.front().text == howToMend(f.check);
      ++(page ? fromPage : own)[f.check];
    }
  };
  for (const auto& folder : {"strangers", "batch-1", "batch-2"})
    for (const auto& name : namesIn(folder)) look(wiredBench(textOf(folder, name)));
  int n = 0;
  for (const auto& name : goodNames())
    everyMutant(name, good(name), [&](const Mutant& m) {
      if (++n % 37 == 0) look(m.bench);
    });
  int owns = 0;
  int pages = 0;
  for (const auto& [id, k] : own) owns += k;
  std::string which;
  for (const auto& [id, k] : fromPage) {
    pages += k;
    which += " " + id;
  }
  WARN(owns << " findings with ways of their own, " << pages << " with their page's:" << which << "; " << checksSeen.size()
            << " checks seen");
  CHECK(pages * 20 < owns);
}

TEST_CASE("ways have this bench's numbers: which resistor, which gauge, which duty, which reference") {
  const auto ways = [](std::string_view notation, std::string_view check) {
    const auto found = findingsOf(analyse(wiredBench(notation), library()), check);
    std::string out;
    for (const auto& f : found)
      for (const auto& w : f.ways) out += w.text + " [" + w.field.subject + " " + w.field.name + "]\n";
    return out;
  };
  // 4.7 kΩ at the base of a transistor that carries 250 mA: a smaller one helps.
  const auto base = ways("from npn\nswap r1 resistor\nfigure r1.resistance 4700 ohm", "base-drive");
  INFO(base);
  CHECK(base.find(" in the place of ") != std::string::npos);
  CHECK(base.find("Or take a logic-level MOSFET") != std::string::npos);
}

TEST_CASE("a base resistor that is taken as the way says mends what was found, and the pin stands it") {
  int told = 0;
  for (const auto* ohms : {"1200", "1500", "2200", "3300", "4700", "10000"}) {
    INFO(ohms);
    const std::string thin = "from npn\nfigure r1.resistance ";
    const auto found = findingsOf(analyse(wiredBench(thin + ohms + " ohm"), library()), "base-drive");
    if (found.empty()) continue;
    REQUIRE(!found.front().ways.empty());
    const auto& text = found.front().ways.front().text;
    INFO(text);
    REQUIRE(text.starts_with("Put "));
    const auto taken = wiredBench(thin + text.substr(4, text.find(" in the place") - 4));
    const auto after = analyse(taken, library());
    CHECK(findingsOf(after, "base-drive").empty());
    CHECK(findingsOf(after, "pin-current").empty());
    ++told;
  }
  CHECK(told > 3);
}

TEST_CASE("a figure or place that a way names takes its finding away, on every bench of strangers") {
  int told = 0;
  for (const auto* folder : {"strangers", "strangers-3", "batch-1", "batch-2", "batch-4"})
    for (const auto& name : namesIn(folder)) {
      const auto h = wiredBench(textOf(folder, name));
      const auto before = analyse(h, library());
      for (const auto& f : before.findings) {
        if (f.severity == Severity::Note || !f.explainedBy.empty()) continue;
        for (const auto& way : f.ways) {
          const auto edit = wayEdit(h, way);
          if (!edit) continue;
          ++told;
          auto obeyed = h;
          harness::apply(obeyed, *edit);
          INFO(folder << "/" << name << ": " << f.headline << ": " << way.text);
          CHECK_FALSE(analyseFast(harness::asPlanned(obeyed)).find(f.identity()));
        }
      }
    }
  WARN(told << " figures and places named");
  CHECK(told > 5);
}

TEST_CASE("a trimmer is never advised past the crest that its stage takes") {
  for (const auto* reference : {"0.1 V", "0.4 V", "1.9 V", "2.5 V"}) {
    const std::string bench = "from step-dir\nfigure s1.reference ";
    const auto found = findingsOf(analyse(wiredBench(bench + reference), library()), "current-limit-setting");
    REQUIRE(found.size() == 1);
    REQUIRE_FALSE(found.front().ways.empty());
    const auto& way = found.front().ways.front();
    INFO(reference << ": " << way.text);
    CHECK(std::ranges::none_of(findingsOf(analyseFast(wiredBench(bench + way.to)), "current-limit-setting"),
                               [](const Finding& f) { return f.severity != Severity::Note; }));
  }
}

TEST_CASE("what the wires say of a motor's pins is stated as if it were typed") {
  auto h = good("bridge");
  h.assignments.clear();
  const auto a = analyseFast(h);
  REQUIRE(a.solved);
  const auto& left = a.solved->motors.front();
  const auto wired = wiredSignals(*a.solved, left);
  std::map<std::string, std::string> pins;
  for (const auto& w : wired) pins[w.role] = w.pin.device.empty() ? "" : w.pin.text();
  CHECK(pins == std::map<std::string, std::string>{{"in1", "uno.D7"}, {"in2", "uno.D8"}, {"speed", "uno.D5"}});
  for (const auto& m : a.solved->motors) {
    const auto edit = stateAsWired(h, *a.solved, idOf(a.solved->bench, m.device));
    REQUIRE(edit);
    harness::apply(h, *edit);
  }
  CHECK(harness::intentOf(h, idOf(a.solved->bench, left.device))->signals.size() == 3);
  for (const auto& s : h.assignments) CHECK(s.source.typed());
  const auto stated = analyseFast(h);
  CHECK(stated.unstated.empty());
  CHECK(stated.verdict == analyseFast(good("bridge")).verdict);
  CHECK_FALSE(stateAsWired(h, *stated.solved, idOf(stated.solved->bench, left.device)));
}

TEST_CASE("an input that stands at a rail, or that two pins reach, is not stated for anybody") {
  const auto of = [](const harness::Harness& h, const std::string& role) {
    const auto a = analyseFast(h);
    for (const auto& m : a.solved->motors)
      for (const auto& w : wiredSignals(*a.solved, m))
        if (w.role == role) return w;
    return WiredSignal{};
  };
  const auto tied = of(wiredBench("from bridge\nunwire uno.D5 s1.ENA\nwire s1.ENA uno.5V"), "speed");
  CHECK(tied.pin.device.empty());
  CHECK(tied.tied == "high");
  const auto two = of(wiredBench("from bridge\nwire uno.D2 s1.IN1"), "in1");
  CHECK(two.pin.device.empty());
  CHECK(two.tied.empty());
}

TEST_CASE("beside a repair only what may be done instead is said, and the first way never begins with Or") {
  int beside = 0;
  for (const auto& name : namesIn("strangers"))
    for (const auto& f : analyse(wiredBench(textOf("strangers", name)), library()).findings) {
      if (!f.explainedBy.empty()) continue;
      INFO(name << ": " << f.headline);
      for (const auto& w : f.ways)
        if (f.repair) {
          CHECK(w.text.starts_with("Or "));
          ++beside;
        }
      if (!f.repair) {
        REQUIRE_FALSE(f.ways.empty());
        CHECK_FALSE(f.ways.front().text.starts_with("Or "));
      }
    }
  CHECK(beside > 5);
}

TEST_CASE("a sound bench whose pins nobody stated is looked at again, never stopped") {
  for (const auto& name : goodNames()) {
    auto h = good(name);
    h.assignments.clear();
    INFO(name);
    const auto a = analyseFast(h);
    for (const auto& f : a.findings) {
      INFO(f.check << ": " << f.text);
      CHECK(f.severity != Severity::Stop);
    }
  }
}

TEST_CASE("a larger supply is named by what is asked of it, not by the limit that it is held at; what comes up then is said with it") {
  const std::string bench =
      "part psu adapter-12v-2a Adapter\npart m brushed-gear37-12v Gate\nwire psu.P m.P BN 18AWG 0.3m\nwire psu.N m.N WH 18AWG 0.3m\n";
  const auto found = findingsOf(analyse(wiredBench(bench), library()), "supply-current");
  REQUIRE(found.size() == 1);
  REQUIRE_FALSE(found[0].ways.empty());
  const auto& text = found[0].ways.front().text;
  INFO(text);
  const std::string head = "Take a supply for ";
  REQUIRE(text.starts_with(head));
  const auto asked = parse<Amps>(text.substr(head.size(), text.find(" or more") - head.size()));
  REQUIRE(asked);
  const double amps = asked->value;
  CHECK(amps > 5);  // 12.6 V over 2.2 ohm and what lies in the way; its limit is 3 A
  CHECK(amps < 6.5);
  const auto obeyed = bench + fmt::format("figure psu.continuous {} A\nfigure psu.limit {} A", amps, amps * 1.05);
  CHECK(findingsOf(analyseFast(wiredBench(obeyed)), "supply-current").empty());
  const auto under = bench + fmt::format("figure psu.continuous {} A\nfigure psu.limit {} A", amps * 0.8, amps * 0.8);
  CHECK(findingsOf(analyseFast(wiredBench(under)), "supply-current").size() == 1);
}

TEST_CASE("a way that names places is shown only where it holds") {
  // A stage whose ground went to the wrong row: joined to the minus it works, and it is said.
  int carried = 0;
  for (const auto& name : namesIn("strangers-3"))
    for (const auto& f : analyse(wiredBench(textOf("strangers-3", name)), library()).findings)
      for (const auto& way : f.ways) carried += way.edit.has_value() && f.severity != Severity::Note;
  CHECK(carried > 0);
}

TEST_CASE("where a short draws what a supply gives, no larger supply is asked for") {
  const auto a = analyseFast(wiredBench(textOf("batch-9", "27-changeover-switch-shorts-thrown")));
  const auto found = findingsOf(a, "supply-current");
  REQUIRE(found.size() == 1);
  for (const auto& way : found[0].ways) CHECK(way.text.find("Take a supply") == std::string::npos);
}
