#include "core/report/report.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <sstream>

#include "core/base/json.h"
#include "core/checks/planned.h"
#include "core/report/wrap.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::report;
using namespace bold::test;

namespace {

int columns(const std::string& s) {
  int n = 0;
  for (const char c : s) n += (static_cast<unsigned char>(c) & 0xC0U) != 0x80U;
  return n;
}
std::vector<std::string> lines(const std::string& text) {
  std::vector<std::string> out;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) out.push_back(line);
  return out;
}
std::string told(const harness::Harness& h, const TextOptions& o = {}) {
  return text("b.harness", h, analyse(h, library()), o);
}

}  // namespace

TEST_CASE("lines break at spaces and go on under their beginning") {
  CHECK(wrap("to do: ", "one two three four", 15) == "to do: one two\n       three\n       four\n");
  CHECK(wrap("", "short", 80) == "short\n");
  CHECK(wrap("- ", "", 80) == "- \n");
  // A word wider than the line stands alone; it is not cut.
  CHECK(wrap("", "a verylongwordindeed b", 10) == "a\nverylongwordindeed\nb\n");
  // µ and Ω are one column each.
  CHECK(wrap("", "µµµµ ΩΩΩΩ", 9) == "µµµµ ΩΩΩΩ\n");
  CHECK(wrap("", "µµµµ ΩΩΩΩ", 8) == "µµµµ\nΩΩΩΩ\n");
}

TEST_CASE("wrapping loses no word and keeps to the width") {
  rc::prop("any words", [] {
    const auto words =
        *rc::gen::container<std::vector<std::string>>(rc::gen::nonEmpty(rc::gen::container<std::string>(rc::gen::inRange('a', 'z'))));
    std::string text;
    std::string joined;
    for (const auto& w : words) {
      if (w.size() > 30) return;
      text += (text.empty() ? "" : " ") + w;
      joined += w;
    }
    const auto out = wrap("x ", text, 40);
    std::string back;
    for (const auto& l : lines(out)) {
      RC_ASSERT(columns(l) <= 40);
      for (const char c : l.substr(2))
        if (c != ' ') back += c;
    }
    RC_ASSERT(back == joined);
  });
}

TEST_CASE("a report is readable at 80 columns, and narrower when asked") {
  for (const auto& name : goodNames())
    for (const auto& l : lines(told(good(name)))) {
      INFO(name << ": " << l);
      CHECK(columns(l) <= 80);
    }
  for (const auto& l : lines(told(wiredBench(readFile("demo/wave-tank-first-try.bench")), {false, 60}))) CHECK(columns(l) <= 60);
}

TEST_CASE("colour only where it is asked for, and always switched off again") {
  const auto h = wiredBench("from low-side\nremove d1");
  CHECK(told(h).find('\x1b') == std::string::npos);
  const auto coloured = told(h, {true, 80});
  int on = 0;
  int off = 0;
  for (std::size_t i = coloured.find('\x1b'); i != std::string::npos; i = coloured.find('\x1b', i + 1))
    (coloured.compare(i, 4, "\x1b[0m") == 0 ? off : on) += 1;
  CHECK(on > 0);
  CHECK(on == off);
}

TEST_CASE("what is planned stands at the end, in words for the bench") {
  const auto h =
      wiredBench("from low-side\nremove d1\nplan\npart d9 diode-1n5822\nwire d9.K pump.P RD\nwire d9.A pump.N BK\nset q1.heatSink fitted");
  auto judged = analyse(h, library());
  judgePlanned(judged, h, library());
  const auto out = report::text("b", h, judged);
  CHECK(out.find("Once everything planned is made: Clear to switch on.") != std::string::npos);
  CHECK(out.find("To make on the bench (4):\n"
                 "   set heatSink of q1 from its standard to fitted\n"
                 "   add d9 (diode-1n5822)\n") != std::string::npos);
  CHECK(out.find("mended once 4 planned changes are made") != std::string::npos);
  auto gone = h;
  gone.connections[0].state = harness::State::ToBeRemoved;
  CHECK(told(gone).find("   take away p1: USB port USB to Controller USB") != std::string::npos);
}

TEST_CASE("why it is only to look at again is said") {
  auto h = good("bridge");
  h.assignments.clear();
  const auto out = told(h);
  CHECK(out.find("Look again: ") != std::string::npos);
  CHECK(out.find("why: Left has no signals (") != std::string::npos);
}

TEST_CASE("an empty bench is not judged and says so") {
  CHECK(told({}).find("b.harness\nNot judged: the bench is empty\n") == 0);
}

TEST_CASE("the JSON report says what the text says") {
  const auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  const auto a = analyse(h, library());
  const auto j = parsedJson(json("b.harness", h, a));
  CHECK(j["title"] == "Wave tank, first try");
  CHECK(j["judged"]["checks"] == checks::registry().size());
  REQUIRE(j["findings"].size() == a.findings.size());
  for (std::size_t i = 0; i < a.findings.size(); ++i) {
    const auto& f = j["findings"][i];
    CHECK(f["identity"] == a.findings[i].identity());
    CHECK(f["severity"] == word(a.findings[i].severity));
    CHECK(f["harm"].is_null() == (a.findings[i].severity != checks::Severity::Stop));
    CHECK(f["values"].size() == a.findings[i].args.size());
    if (!a.findings[i].explainedBy.empty()) CHECK(a.find(f["explainedBy"].get<std::string>()));
  }
}

TEST_CASE("the same bench gives the same bytes twice") {
  const auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  CHECK(told(h) == told(h));
  CHECK(json("b", h, analyse(h, library())) == json("b", h, analyse(h, library())));
}

TEST_CASE("a summary counts each kind of harm apart") {
  CHECK(summaryLine("f", analyse(wiredBench("from low-side\nwire psu.P psu.N\nremove d1"), library()))
            .starts_with("f: Do not switch on: 1 dangerous"));
  CHECK(summaryLine("f", analyse(good("npn"), library())).starts_with("f: Clear to switch on: nothing to mend; tightest: "));
  CHECK(summaryLine("f", analyse(good("low-side"), library())).starts_with("f: Clear to switch on: 1 note; tightest: "));
  CHECK(summaryLine("f", analyse(good("l293d"), library())).starts_with("f: Look again: 1 to look at again, 1 note; tightest: "));
}
