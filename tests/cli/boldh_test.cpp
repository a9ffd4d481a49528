#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <sstream>

#include "core/base/json.h"
#include "core/checks/check.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

namespace {

int widest(const std::string& text) {
  int most = 0;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) {
    int n = 0;
    for (const char c : line) n += (static_cast<unsigned char>(c) & 0xC0U) != 0x80U;
    most = std::max(most, n);
  }
  return most;
}
}  // namespace

TEST_CASE("boldh without a sub-command says how to use it and ends 2") {
  const auto r = run({});
  CHECK(r.code == 2);
  CHECK(r.err.find("A subcommand is required") != std::string::npos);
  CHECK(run({"solder"}).code == 2);
  CHECK(run({"check"}).code == 2);
  CHECK(run({"check", "--format", "morse", kDemo}).code == 2);
}

TEST_CASE("boldh --version and --help end 0") {
  CHECK(run({"--version"}).out == "boldh 0.1.0\n");
  CHECK(run({"--help"}).code == 0);
}

TEST_CASE("check --margins lists how near everything comes, the tightest first, as text and as JSON") {
  const auto text = run({"check", "--margins", kDemo});
  CHECK(text.code == 0);
  CHECK(text.out.find("Margins, the tightest first") != std::string::npos);
  CHECK(text.out.find("Sluice gate: voltage while running 10.9 V [motor-overvoltage]") != std::string::npos);
  CHECK(widest(text.out) <= 80);
  CHECK(run({"check", kDemo}).out.find("Margins") == std::string::npos);

  const auto j = parsedJson(run({"check", "--margins", "--format", "json", kDemo}).out);
  REQUIRE(j["margins"].size() > 100);
  double last = 1000;
  for (const auto& m : j["margins"]) {
    bool notes = true;
    for (const auto& l : m["limits"]) notes = notes && l["consequence"] == "note";
    if (notes || m["used"].is_null()) break;
    CHECK(m["used"].get<double>() <= last);
    last = m["used"];
  }
  std::size_t measuring = 0;
  for (const auto& c : checks::registry()) measuring += c.measures();
  CHECK(j["withoutNumber"].size() == checks::registry().size() - measuring);
  CHECK_FALSE(parsedJson(run({"check", "--format", "json", kDemo}).out).contains("margins"));
  CHECK(run({"check", "--margins", "--format", "sarif", kDemo}).code == 2);
  CHECK(run({"check", "--margins", "--summary", kDemo}).code == 2);
}

TEST_CASE("check of the demo prints exactly this and ends 0") {
  const auto r = run({"check", kDemo});
  CHECK(r.code == 0);
  CHECK(r.err.empty());
  CHECK(r.out == "Wave tank, bench 3 (" + kDemo +
                     ")\n"
                     "Clear to switch on: 1 note; tightest: input voltage of S2 RST, 95 % of absolute\n"
                     "maximum\n"
                     "Judged: " +
                     std::to_string(checks::registry().size()) +
                     " checks, 50 commands solved, 0 figures unknown.\n"
                     "  taken: 25 wires without gauge or length: taken as 28 AWG 0.2 m at controllers\n"
                     "         and logic, 22 AWG 0.3 m elsewhere.\n"
                     "  taken: contacts, each mated pair: screwed, crimped or soldered 1 mΩ, header 10\n"
                     "         to 20 mΩ, breadboard or clip 10 to 50 mΩ.\n"
                     "  taken: ambient 30 °C.\n"
                     "\n"
                     " - 2 motors will whistle [note] pwm-frequency\n"
                     "   Wave paddle is planned at 490 Hz, which can be heard. Circulation pump is\n"
                     "   planned at 976 Hz, which can be heard.\n"
                     "   all between 200 Hz and 18 kHz\n"
                     "   way: Set the PWM of Wave paddle below 200 Hz or above 18 kHz.\n");
}

TEST_CASE("check of the first try ends 1, at most 80 columns wide, without colour") {
  const auto r = run({"check", kFirstTry});
  CHECK(r.code == 1);
  CHECK(r.out.find("Do not switch on: 4 would do damage, 9 will not work, 2 to look at again, 1\nnote; 17 more follow from these") !=
        std::string::npos);
  CHECK(r.out.find(" 1 D1 is the wrong way round [stop, damage] flyback-reversed\n"
                   "   While Circulation pump is on, 354 mA flow through D1 instead of through the\n"
                   "   motor.\n"
                   "   354 mA forward while the switch is closed\n"
                   "   to do: Turn D1 round: its band to Circulation pump +.\n") != std::string::npos);
  CHECK(r.out.find('\x1b') == std::string::npos);
  const auto body = r.out.substr(r.out.find('\n') + 1);  // the first line holds the path
  CHECK(widest(body) <= 80);
}

TEST_CASE("of several files the highest exit code counts") {
  const TemporaryFolder folder;
  const auto broken = folder.write("broken.harness", "{");
  CHECK(run({"check", kDemo, kFirstTry}).code == 1);
  CHECK(run({"check", kFirstTry, broken, kDemo}).code == 2);
}

TEST_CASE("a summary is one line a bench") {
  const auto r = run({"check", "--summary", kDemo, kFirstTry});
  CHECK(r.out == kDemo + ": Clear to switch on: 1 note; tightest: input voltage of S2 RST, 95 % of absolute maximum\n" + kFirstTry +
                     ": Do not switch on: 4 would do damage, 9 will not work, 2 to look at again, 1 note; 17 more follow from these\n");
}

TEST_CASE("files that cannot be used get one sentence on stderr and end 2") {
  const TemporaryFolder folder;
  const auto wrong = [&](const std::string& content) {
    const auto path = folder.write("b.harness", content);
    const auto r = run({"check", path});
    CHECK(r.code == 2);
    CHECK(r.out.empty());
    REQUIRE(r.err.starts_with("boldh: " + path));
    return r.err.substr(7 + path.size());
  };
  CHECK(wrong("") == ": The file is empty.\n");
  CHECK(wrong("no") == ": The file is not whole JSON: it ends too early at line 1, column 2.\n");
  CHECK(wrong("{\"format\": 2, \"dev") == ": The file is not whole JSON: it ends too early at line 1, column 19.\n");
  CHECK(wrong("{\"format\": 7, \"devices\": [], \"connections\": [], \"goals\": []}") ==
        "#/format: The file has bench format 7; this program knows formats up to 2. It was opened read-only and is not judged.\n");
  CHECK(run({"check", folder.path("none")}).err ==
        "boldh: " + folder.path("none") + ": The file cannot be read (No such file or directory).\n");
}

TEST_CASE("a bench that cannot be judged ends 1 and says why") {
  const TemporaryFolder folder;
  const auto path =
      folder.write("b.harness", R"({"format": 2, "devices": [{"id": "x", "part": "nobody-knows"}], "connections": [], "goals": []})");
  const auto r = run({"check", path});
  CHECK(r.code == 1);
  CHECK(r.out.find("why: The part \"nobody-knows\" of x is not in the library.") != std::string::npos);
}

TEST_CASE("check as JSON holds findings in a stable form") {
  const auto r = run({"check", "--format", "json", kFirstTry});
  CHECK(r.code == 1);
  const auto j = parsedJson(r.out);
  CHECK(j["verdict"] == "Do not switch on");
  REQUIRE(j["findings"].is_array());
  CHECK(j["findings"].size() == 33);
  for (const auto& f : j["findings"])
    for (const auto* key : {"check", "severity", "harm", "headline", "text", "formula", "subjects", "sources", "values", "repair",
                            "explainedBy", "identity", "mendedAfter"})
      CHECK(f.contains(key));
  const auto base = std::ranges::find_if(j["findings"], [](const auto& f) { return f["check"] == "base-drive"; });
  REQUIRE(base != j["findings"].end());
  CHECK((*base)["values"]["collector"]["unit"] == "A");
  CHECK((*base)["values"]["collector"]["value"].template get<double>() == Approx(0.6));
}

TEST_CASE("checks lists every check, explain prints its page") {
  const auto j = parsedJson(run({"checks", "--format", "json"}).out);
  CHECK(j["checks"].size() == checks::registry().size());
  const auto text = run({"checks"}).out;
  for (const auto& c : checks::registry()) {
    CHECK(text.find(c.id) != std::string::npos);
    const auto page = run({"explain", std::string(c.id)});
    CHECK(page.code == 0);
    CHECK(page.out == checks::page(c.id));
  }
  const auto none = run({"explain", "magic-smoke"});
  CHECK(none.code == 2);
  CHECK(none.err == "boldh: There is no check \"magic-smoke\". \"boldh checks\" lists them all.\n");
}

TEST_CASE("parts finds parts by words, own parts too, and names broken files") {
  CHECK(run({"parts", "drv8825", "cooled"}).out ==
        "drv8825-carrier          Step/dir carrier DRV8825: one bipolar stepper, 1.5 A a coil bare, 2.2 A cooled\n");
  const auto j = parsedJson(run({"parts", "uln2003", "board", "--format", "json"}).out);
  REQUIRE(j["parts"].size() == 1);
  CHECK(j["parts"][0]["id"] == "uln2003-board");
  CHECK(j["parts"][0]["figures"][0]["unit"] == "A");
  CHECK(run({"parts", "warp", "drive"}).err == "boldh: No part matches all of these words.\n");
  const TemporaryFolder data;
  data.write(
      "bold-harness/parts/mine.json",
      R"({"format": 1, "id": "bench-lamp", "name": "Bench lamp", "kind": "resistor", "summary": "5 W", "terminals": [{"id": "A"}, {"id": "B"}], "elements": [{"resistor": ["A", "B"], "r": "5 ohm"}]})");
  data.write("bold-harness/parts/broken.json", "{");
  const auto own = run({"parts", "bench", "lamp"}, data.path());
  CHECK(own.code == 0);
  CHECK(own.out == "bench-lamp               Bench lamp: 5 W (your own)\n");
  CHECK(own.err.find("broken.json: The file is not whole JSON") != std::string::npos);
}

TEST_CASE("parts makes a part of figures that are typed") {
  const auto r = run({"parts", "12", "V", "0.5", "A,", "2", "A", "stall"});
  CHECK(r.code == 0);
  CHECK(r.out.find("Brushed motor 12 V, 500 mA running, 2 A stalled, as typed (highest 12 V, nominal 12 V, run 500 mA, winding 6 ohm)") !=
        std::string::npos);
  const auto j = parsedJson(run({"parts", "stepper", "1.5", "A", "3", "V", "--format", "json"}).out);
  CHECK(j["parts"].back()["overrides"]["winding"] == "2 ohm");
}

TEST_CASE("part prints the card of a part") {
  const auto r = run({"part", "l298n-module"});
  CHECK(r.code == 0);
  CHECK(r.out.starts_with("# Bridge module L298N\n"));
  const auto none = run({"part", "warp-coil"});
  CHECK(none.code == 2);
  CHECK(none.err == "boldh: There is no part \"warp-coil\". \"boldh parts WORD\" finds them.\n");
}

TEST_CASE("a mistyped wire is named in the report, with its place, and nothing is clear") {
  const TemporaryFolder folder;
  auto text = readFile("demo/wave-tank.harness");
  text.insert(text.find("    {\"id\": \"w1\""), "    {\"id\": \"wx\", \"wire\": [\"psu.P\", \"uno D5\"]},\n");
  const auto path = folder.write("b.harness", text);
  const auto r = run({"check", path});
  CHECK(r.code == 1);
  CHECK(r.out.find("Not judged: 1 note, 1 left out of the file") != std::string::npos);
  CHECK(r.out.find("left out of #/connections/1/wire") != std::string::npos);
  const auto j = parsedJson(run({"check", "--format", "json", path}).out);
  REQUIRE(j["leftOut"].size() == 1);
  CHECK(j["leftOut"][0]["where"] == "#/connections/1/wire");
  CHECK(run({"solve", path}).code == 1);
}

TEST_CASE("what a file says is shown on a terminal and never acts there") {
  const TemporaryFolder folder;
  const auto path =
      folder.write("b.harness",
                   "{\"format\": 2, \"title\": \"a\\u001b[2J\\nb.harness: Clear to switch on\", \"devices\": [{\"id\": \"x\", "
                   "\"part\": \"\xE2\x80\xAE\\u0007<b>\"}], \"connections\": [{\"\\u009b31m\": 1}], \"goals\": []}");
  const auto acts = [](const std::string& s) {
    return s.find('\x1b') != std::string::npos || s.find('\a') != std::string::npos || s.find("\xE2\x80\xAE") != std::string::npos ||
           s.find("\xC2\x9B") != std::string::npos || s.find("\nb.harness: Clear") != std::string::npos;
  };
  for (const std::string format : {"text", "json", "sarif", "junit"}) {
    const auto r = run({"check", "--format", format, path});
    INFO(format << "\n" << r.out << r.err);
    CHECK(r.code == 1);
    CHECK_FALSE(acts(r.out));
    CHECK_FALSE(acts(r.err));
    if (format == "json") CHECK(parsedJson(r.out)["title"] == "a\\u{1B}[2J\\nb.harness: Clear to switch on");
  }
  for (const auto& r :
       {run({"solve", path}), run({"explain", "\x1b[2J"}), run({"part", "\x1b[2J"}), run({"check", folder.path("\x1b]0;x\a")})}) {
    CHECK_FALSE(acts(r.out));
    CHECK_FALSE(acts(r.err));
  }
}

TEST_CASE("an output that cannot be written ends 2, and one line a bench goes with no format") {
  const auto demo = std::string(BOLD_SOURCE_DIR) + "/demo/wave-tank.harness";
  const auto status = std::system((std::string(BOLDH) + " check " + demo + " >/dev/full 2>/dev/null").c_str());
  CHECK(WEXITSTATUS(status) == 2);
  CHECK(run({"check", "--summary", "--format", "json", demo}).code == 2);
}
