#include "core/parts/own_parts.h"

#include <catch2/catch.hpp>
#include <functional>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/file_system.h"
#include "core/base/parallel.h"
#include "core/harness/part_copies.h"
#include "core/harness/read_harness.h"
#include "core/parts/each_figure.h"
#include "core/parts/library.h"
#include "core/parts/named_figures.h"
#include "core/parts/truth_table.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::parts;

namespace {

const std::string kMotor = R"({"format": 1, "id": "my-motor", "name": "My motor", "kind": "brushed motor",
  "figures": {"winding": {"unit": "ohm", "value": "3 ohm"}, "run": {"unit": "A", "value": "0.4 A"}, "nominal": {"unit": "V", "value": "6 V"},
              "stall": {"unit": "A", "derived": "nominal / winding"}},
  "terminals": [{"id": "P"}, {"id": "N"}],
  "elements": [{"winding": ["P", "N"], "brushed": true, "r": "@winding", "run": "@run", "nominal": "@nominal"}]})";

std::string replaced(std::string text, const std::string& from, const std::string& to) {
  const auto at = text.find(from);
  REQUIRE(at != std::string::npos);
  return text.replace(at, from.size(), to);
}

// The sentences about one broken file, loaded beside a sound one that must survive.
std::vector<std::string> wrong(const std::string& content) {
  auto l = Library::shipped();
  const auto before = l.size();
  std::vector<Problem> problems;
  l.addOwn({{"broken.json", content}, {"sound.json", replaced(kMotor, "my-motor", "sound-motor")}}, problems);
  CHECK(l.find("sound-motor"));
  CHECK(l.size() == before + 1);
  std::vector<std::string> out;
  for (const auto& p : problems) out.push_back(text(p));
  REQUIRE_FALSE(out.empty());
  return out;
}

}  // namespace

TEST_CASE("own parts are added beside the shipped ones") {
  auto l = Library::shipped();
  std::vector<Problem> problems;
  l.addOwn({{"m.json", kMotor}}, problems);
  CHECK(problems.empty());
  REQUIRE(l.find("my-motor"));
  CHECK(l.find("my-motor")->own);
  CHECK(l.find("my-motor")->figure("stall")->figure.typical() == 2.0);
  CHECK_FALSE(l.find("resistor")->own);
}

TEST_CASE("a part based on another takes over what it does not say") {
  auto l = Library::shipped();
  std::vector<Problem> problems;
  l.addOwn(
      {{"a.json", R"({"format": 1, "id": "weak", "name": "Weak", "basedOn": "middle", "figures": {"run": {"value": "0.1 A"}}})"},
       {"b.json",
        R"({"format": 1, "id": "middle", "name": "Middle", "basedOn": "brushed-gear25-12v", "figures": {"winding": {"value": "9 ohm"}}})"}},
      problems);
  for (const auto& p : problems) FAIL_CHECK(text(p));
  REQUIRE(l.find("weak"));
  CHECK(l.find("weak")->name == "Weak");
  CHECK(l.find("weak")->figure("winding")->figure.typ == 9.0);
  CHECK(l.find("weak")->figure("run")->figure.typ == 0.1);
  CHECK(l.find("weak")->terminals.size() == 2);
}

TEST_CASE("each kind of broken part file gets its sentence and the others load") {
  CHECK(wrong("")[0] == "broken.json: The file is empty.");
  CHECK(wrong("{\"format\": 1")[0] == "broken.json: The file is not whole JSON: it ends too early at line 1, column 13.");
  CHECK(wrong("{}")[0] == "broken.json#/id: The part has no \"id\". The other parts were loaded.");
  CHECK(wrong(replaced(kMotor, "my-motor", "resistor"))[0] ==
        "broken.json#/id: A part with the id \"resistor\" is in the library already. The library's part was kept.");
  CHECK(wrong(replaced(kMotor, "3 ohm", "-3 ohm"))[0] ==
        "broken.json#/figures/winding/value: \"value\" is negative. The part was left out; the other parts were loaded.");
  CHECK(wrong(replaced(kMotor, "3 ohm", "NaN ohm"))[0] ==
        "broken.json#/figures/winding/value: \"value\" cannot be used: \"NaN ohm\" does not begin with a number. The part was left out; "
        "the other parts were loaded.");
  CHECK(wrong(replaced(kMotor, "3 ohm", "1e308 ohm"))[0].find("is not a quantity in ohm") != std::string::npos);
  CHECK(wrong(replaced(kMotor, "3 ohm", "3 V"))[0].find("\"3 V\" is not a quantity in ohm") != std::string::npos);
  CHECK(wrong(replaced(kMotor, "\"3 ohm\"", "3"))[0] ==
        "broken.json#/figures/winding/value: \"value\" is not a figure: write it with its unit, as text. The part was left out; the other "
        "parts were loaded.");
  CHECK(wrong(replaced(kMotor, "\"brushed\": true", "\"brush\": true"))[0] ==
        "broken.json#/elements/0/brush: \"brush\" is not a field of this element. The part was left out; the other parts were loaded.");
  CHECK(wrong(replaced(kMotor, "@winding", "@windings"))[0].find("names a figure \"windings\" that the part does not have") !=
        std::string::npos);
  CHECK(wrong(replaced(kMotor, "[\"P\", \"N\"]", "[\"P\", \"M\"]"))[0].find("names the terminal \"M\", which the part does not have") !=
        std::string::npos);
  CHECK(wrong(replaced(kMotor, "{\"id\": \"N\"}", "{\"id\": \"P\"}"))[0].find("has the id \"P\" twice") != std::string::npos);
  CHECK(wrong(replaced(kMotor, "\"format\": 1", "\"format\": 9"))[0].find("this program reads part format 1") != std::string::npos);
  CHECK(wrong(R"({"format": 1, "id": "me", "name": "Me", "kind": "x", "basedOn": "me"})")[0] ==
        "broken.json#/basedOn: The part is based on itself by way of \"me\". The other parts were loaded.");
  CHECK(wrong(R"({"format": 1, "id": "me", "name": "Me", "kind": "x", "basedOn": "nobody"})")[0] ==
        "broken.json#/basedOn: The part is based on \"nobody\", which is not in the library. The other parts were loaded.");
  CHECK(wrong(replaced(kMotor, "\"id\": \"N\"", "\"id\": \"\""))[0] ==
        "broken.json#/terminals/1/id: \"id\" is empty. The part was left out; the other parts were loaded.");
  CHECK(wrong(R"({"basedOn": "tb6612fng", "format": 1, "id": "me", "name": "Me", "kind": "bridge",
                  "figures": {"peak": {"label": "peak", "unit": "A", "value": "0.5 A"}}})")[0] ==
        "broken.json#/channels: \"channels\" has the channel \"A\" with a peak of 500 mA, less than the 1 A it carries all the time. "
        "The part was left out; the other parts were loaded.");
  CHECK(wrong(R"({"basedOn": "tb6612fng", "format": 1, "id": "me", "name": "Me", "kind": "bridge",
                  "figures": {"peak": {"label": "peak", "unit": "A", "value": {"typ": "2 A", "secondReading": "much"}}}})")[0]
            .find("broken.json#/figures/peak/value/secondReading: \"secondReading\" cannot be used") == 0);
}

TEST_CASE("a word that a part file may not say is named") {
  const auto with = [](const std::string& pin, const std::string& supply, const std::string& channel) {
    return wrong(R"({"format": 1, "id": "me", "name": "Me", "kind": "bridge", "terminals": [
      {"id": "D1", "pin": {"code": "1", "boot": ")" +
                 pin + R"("}}, {"id": "GND", "ground": true},
      {"id": "V", "supply": {"for": ")" +
                 supply + R"(", "return": "GND"}}],
      "channels": [{"id": "1", "out": [], "protection": ")" +
                 channel + R"("}]})");
  };
  CHECK(
      with("weakly-up", "motor", "none")[0] ==
      "broken.json#/terminals/0/pin/boot: \"boot\" is not one of float, weak-up, weak-down, toggles, low. The part was left out; the other "
      "parts were loaded.");
  CHECK(with("low", "motors", "none")[0].starts_with("broken.json#/terminals/2/supply/for: \"for\" is not one of motor, logic, board."));
  CHECK(with("low", "board", "thermally")[0].starts_with(
      "broken.json#/channels/0/protection: \"protection\" is not one of none, thermal, over-current, current-limit."));
}

TEST_CASE("a field that cannot be used is named once") {
  const auto said = wrong(replaced(kMotor, R"("format": 1,)", R"("format": 1, "source": 5,)"));
  CHECK(said ==
        std::vector<std::string>{"broken.json#/source: \"source\" is not a text. The part was left out; the other parts were loaded."});
}

TEST_CASE("a source's poles are terminals; a contact may end inside the part") {
  const auto with = [](const std::string& element) { return replaced(kMotor, R"("elements": [)", R"("elements": [)" + element + ", "); };
  CHECK(wrong(with(R"({"source": ["~cell", "N"], "nominal": "9 V"})"))[0].find(
            "broken.json#/elements: \"elements\" has a source at \"~cell\"") == 0);
  CHECK(wrong(with(R"({"source": ["P", ""], "nominal": "9 V"})"))[0].find("broken.json#/elements: \"elements\" has a source at \"\"") == 0);
  auto l = Library::shipped();
  std::vector<Problem> problems;
  l.addOwn({{"mine.json", with(R"({"contact": ["P", "~x"]}, {"resistor": ["~x", "N"], "r": "1 kohm", "conductor": true})")}}, problems);
  REQUIRE(problems.empty());
  auto h = test::wiredBench("from bridge\npart extra brushed-gear25-12v");
  h.devices.back().part = "my-motor";
  CHECK(analyse(h, l).solved->bench.problems.empty());
}

TEST_CASE("a repetition that cannot be used is named") {
  const auto with = [](const std::string& repetition) {
    return wrong(replaced(kMotor, R"("elements": [)", R"("elements": [)" + repetition + ", "))[0];
  };
  const std::string joint = R"("elements": [{"joint": ["P", "$n"]}]})";
  CHECK(with(R"({"for": "2..1", )" + joint).find("broken.json#/elements/0: This repetition has no rows or nothing to repeat.") == 0);
  CHECK(with(R"({"for": "1..2", "as": [1], )" + joint).find("broken.json#/elements/0: This repetition has an \"as\" that is not") == 0);
  CHECK(with(R"({"for": "1..2", "as": "n", )" + joint).find("broken.json#/elements/0: This repetition has an \"as\" that is not") == 0);
  CHECK(with(R"({"for": ["a\"b"], )" + joint).find("broken.json#/elements/0: This repetition has a row with a character that") == 0);
  CHECK(with(R"({"for": "99999999999999999999..99999999999999999999", )" + joint).find("names the terminal \"1000000\", which") !=
        std::string::npos);
}

TEST_CASE("overriding one end of a derived figure recomputes the other") {
  const auto l = Library::shipped();
  std::vector<Problem> problems;
  const auto stalled = l.withOverrides("brushed-gear25-12v", {{"stall", "3 A"}}, problems);
  CHECK(stalled->figure("winding")->figure.typical() == 4.0);
  const auto measured = l.withOverrides("brushed-gear25-12v", {{"winding", "6 ohm"}}, problems);
  CHECK(measured->figure("stall")->figure.typical() == 2.0);
  CHECK(measured->figure("winding")->figure.overridden);
  CHECK_FALSE(measured->figure("winding")->figure.spreadMin);
  CHECK(problems.empty());
}

TEST_CASE("figures given for a bench that contradict the part are refused with what they contradict") {
  const auto l = Library::shipped();
  std::vector<Problem> problems;
  const auto plain = l.find("l298n-module");
  const auto peak = std::ranges::find_if(plain->channels, [](const Channel& c) { return c.peak.named >= 0 && c.continuous.known(); });
  REQUIRE(peak != plain->channels.end());
  const auto& figure = plain->figures[peak->peak.named];
  const auto p = l.withOverrides("l298n-module", {{figure.id, "0.1 A"}}, problems);
  CHECK(p->figure(figure.id)->figure.typical() == figure.figure.typical());
  REQUIRE(problems.size() == 1);
  CHECK(problems[0].what.find("contradict the part: it has the channel") != std::string::npos);
  CHECK(problems[0].what.find("with a peak of 100 mA, less than the") != std::string::npos);
  CHECK(problems[0].kept == "The library's figures were kept.");
}

// A figure that the walk forgets would be used as the library has it, whatever was measured.
TEST_CASE("every use of a named figure in the library is found, and takes what is given for a bench") {
  const auto l = Library::shipped();
  int uses = 0, parts = 0;
  for (const auto& plain : l.search("")) {
    const auto& json = *l.json(plain->id);
    std::map<std::string, int> written;
    bool repeats = false;
    const std::function<void(const Json&)> walk = [&](const Json& j) {
      if (j.is_object() && j.contains("for"))
        repeats = repeats || j["for"].is_array() || j["for"].get<std::string>().find("..") != std::string::npos;
      if (j.is_structured())
        for (const auto& child : j) walk(child);
      if (j.is_string() && j.get<std::string>().starts_with('@')) ++written[j.get<std::string>().substr(1)];
    };
    walk(json);
    if (repeats) continue;  // one text stands for several uses
    ++parts;
    Part part = *plain;
    std::map<std::string, int> found;
    eachFigure(part, [&](Figure& f) {
      if (f.named >= 0) ++found[plain->figures[f.named].id];
    });
    INFO(plain->id);
    CHECK(found == written);
    for (const auto& named : plain->figures) {
      const auto at = named.figure.typical();
      if (!at || *at <= 0) continue;
      std::vector<Problem> problems;
      const auto given = AnyQuantity{*at * 1.25, named.figure.unit};
      Part changed = replaceFigures(*plain, {{named.id, fileText(given)}}, problems);
      if (!problems.empty()) continue;  // it contradicts the part
      eachFigure(changed, [&](Figure& f) {
        if (f.named < 0 || plain->figures[f.named].id != named.id) return;
        ++uses;
        CHECK(f.typical().value_or(0) == Approx(given.value).epsilon(1e-3));
        CHECK(f.overridden);
      });
    }
  }
  CHECK(parts > 140);
  CHECK(uses > 500);
}

TEST_CASE("overrides that cannot be used are named and the library's figure kept") {
  const auto l = Library::shipped();
  std::vector<Problem> problems;
  const auto p =
      l.withOverrides("brushed-gear25-12v", {{"winding", "-6 ohm"}, {"run", "fast"}, {"colour", "1 V"}, {"nominal", "1e400 V"}}, problems);
  CHECK(p->figure("winding")->figure.typical() == 5.7);
  CHECK(p->figure("run")->figure.typical() == 0.5);
  CHECK(problems.size() == 4);
}

TEST_CASE("a part with the same figures replaced is the same part, from several threads too, and its remarks are made again") {
  const auto l = Library::shipped();
  const auto copy = l;
  const std::map<std::string, std::string> measured{{"winding", "6 ohm"}, {"colour", "1 V"}};
  std::vector<std::shared_ptr<const Part>> made(64);
  std::vector<std::vector<Problem>> problems(made.size());
  inParallel(made.size(),
             [&](std::size_t k) { made[k] = (k % 2 == 0 ? l : copy).withOverrides("brushed-gear25-12v", measured, problems[k]); });
  for (std::size_t k = 0; k < made.size(); ++k) {
    CHECK(made[k] == made[0]);
    REQUIRE(problems[k].size() == 1);
    CHECK(problems[k][0].what == "The part brushed-gear25-12v has no figure \"colour\".");
  }
  std::vector<Problem> none;
  CHECK(l.withOverrides("brushed-gear25-12v", {{"winding", "7 ohm"}}, none) != made[0]);
}

TEST_CASE("a replaced figure follows the part it is put on when that is read anew") {
  auto l = Library::shipped();
  std::vector<Problem> problems;
  l.addOwn({{"mine.json", kMotor}}, problems);
  CHECK(l.withOverrides("my-motor", {{"winding", "6 ohm"}}, problems)->figure("run")->figure.typical() == 0.4);
  auto other = *l.json("my-motor");
  other["figures"]["run"]["value"] = "0.3 A";
  l.addFromDocument(other, "document", problems);
  CHECK(l.withOverrides("my-motor", {{"winding", "6 ohm"}}, problems)->figure("run")->figure.typical() == 0.3);
  CHECK(problems.empty());
}

TEST_CASE("the template in the documentation is a sound part that drives both ways") {
  const auto page = test::readFile("docs/parts.md");
  const auto from = page.find("```json\n") + 8;
  const auto text = page.substr(from, page.find("```", from) - from);
  std::vector<Problem> problems;
  auto library = parts::Library::shipped();
  library.addOwn(std::map<std::string, std::string>{{"mine.json", text}}, problems);
  for (const auto& p : problems) INFO(p.what);
  CHECK(problems.empty());
  const auto part = library.find("my-bridge");
  REQUIRE(part);
  std::set<parts::BridgeAction> does;
  for (const auto& row : parts::truthTable(*part, part->channels.front())) does.insert(parts::bridgeAction(row.outputs[0], row.outputs[1]));
  CHECK(does.size() == 4);
  CHECK_FALSE(does.contains(parts::BridgeAction::Short));
}

TEST_CASE("a copy of a shipped part is sound under its own id, and is read back as one's own") {
  const test::TemporaryFolder folder;
  Disk disk;
  const auto text = copyOf(test::library(), "l298n-module", "my-l298", "My bridge");
  REQUIRE(text);
  CHECK(problemsOfOwn(*text).empty());
  const auto path = saveOwn(disk, folder.path("parts"), *text);
  REQUIRE(path);
  CHECK(*path == folder.path("parts") + "/my-l298.json");
  auto library = parts::Library::shipped();
  std::vector<Problem> problems;
  library.addOwn(disk.readFolder(folder.path("parts"), ".json").files, problems);
  CHECK(problems.empty());
  REQUIRE(library.find("my-l298"));
  CHECK(library.find("my-l298")->own);
  CHECK(library.find("my-l298")->channels.size() == 2);
}

TEST_CASE("what is no part of one's own is refused with one sentence, and nothing is written") {
  const test::TemporaryFolder folder;
  Disk disk;
  const auto refused = [&](const std::string& text) {
    const auto saved = saveOwn(disk, folder.path("parts"), text);
    REQUIRE_FALSE(saved);
    CHECK(disk.readFolder(folder.path("parts"), ".json").files.empty());
    return saved.error().what;
  };
  CHECK(refused("{").find("not whole JSON") != std::string::npos);
  CHECK(refused(*copyOf(test::library(), "l298n-module", "l298n-module", "x")).find("in the library already") != std::string::npos);
  CHECK(refused(*copyOf(test::library(), "l298n-module", "../evil", "x")).find("The id needs small letters") != std::string::npos);
  CHECK(refused(replaced(*copyOf(test::library(), "l298n-module", "my-l298", "x"), "\"2.5 A\"", "\"2.5 apples\"")).find("2.5 apples") !=
        std::string::npos);
  CHECK_FALSE(copyOf(test::library(), "no-such-part", "a", "b"));
}

TEST_CASE("a part of a bench file may be based on one of the library or of the file, whichever comes first") {
  const std::string text = R"({"format": 2, "goals": [], "assignments": [], "program": [], "parts": [
    {"format": 1, "id": "my-small-fet", "basedOn": "my-fet", "name": "My smaller FET", "figures": {"peak": {"value": "10 A"}}},
    {"format": 1, "id": "my-fet", "basedOn": "nmos-irlz44n", "name": "My FET", "figures": {"continuous": {"value": "3 A"}}},
    {"format": 1, "id": "my-ghost", "basedOn": "nobody-knows", "name": "Ghost"}],
    "devices": [{"id": "q1", "part": "my-small-fet"}], "connections": []})";
  std::vector<Problem> problems;
  const auto read = harness::readHarness(text, "b.harness");
  REQUIRE(read);
  const auto& h = read->harness;
  const auto all = harness::withDocumentParts(bold::test::library(), h, "b.harness", problems);
  const auto part = all.find("my-small-fet");
  REQUIRE(part);
  CHECK(part->figure("continuous")->figure.typical() == 3);
  CHECK(part->figure("peak")->figure.typical() == 10);
  CHECK(part->figure("vds")->figure.typical() == 55);
  CHECK_FALSE(all.find("my-ghost"));
  REQUIRE(problems.size() == 1);
  CHECK(problems[0].what == "The part is based on \"nobody-knows\", which is not in the library.");
  CHECK(problems[0].where == "b.harness#/parts/2/basedOn");
  // What the file says of it stays as it is.
  auto carried = h;
  harness::carryParts(carried, all);
  CHECK(harness::writeHarness(carried).find("\"basedOn\": \"my-fet\"") != std::string::npos);
}
