#include <catch2/catch.hpp>
#include <filesystem>
#include <set>

#include "core/base/file_system.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

namespace {

const harness::Harness& exported() {
  static const auto kBench = harness::readHarness(readFile("demo/wave-tank.harness"), "demo")->harness;
  return kBench;
}
std::string written(const TemporaryFolder& folder, const std::string& name, std::vector<std::string> more = {}) {
  std::vector<std::string> all{"export", kDemo, "--output", folder.path(name), "--date", "2026-11-30"};
  all.insert(all.end(), more.begin(), more.end());
  const auto ran = run(all);
  INFO(ran.err);
  REQUIRE(ran.code == 0);
  CHECK(ran.out.empty());
  CHECK(ran.err.empty());
  return folder.path(name);
}
std::string bytes(const std::string& path) {
  Disk disk;
  const auto text = disk.read(path);
  REQUIRE(text);
  return *text;
}

}  // namespace

TEST_CASE("the loom is an SVG that another program draws, with every part and wire in it") {
  const TemporaryFolder folder;
  const auto svg = bytes(written(folder, "loom.svg"));
  for (const auto& d : exported().devices) CHECK(svg.find(">" + d.called() + "<") != std::string::npos);
  // Beside each end, or told as one of several there.
  CHECK(svg.find(">w4 YE<") != std::string::npos);
  CHECK(svg.find("#e3c112") != std::string::npos);
  const auto drawn = runProgram("rsvg-convert", {folder.path("loom.svg"), "-o", folder.path("drawn.png")});
  CHECK(drawn.code == 0);
  const auto size = runProgram("identify", {"-format", "%w %h %k", folder.path("drawn.png")});
  CHECK(size.code == 0);
  int w = 0, h = 0, colours = 0;
  REQUIRE(std::sscanf(size.out.c_str(), "%d %d %d", &w, &h, &colours) == 3);
  CHECK(w > 500);
  CHECK(h > 500);
  CHECK(colours > 20);
}

TEST_CASE("the loom as PNG is twice as sharp as it is drawn") {
  const TemporaryFolder folder;
  const auto size = runProgram("identify", {"-format", "%m %w %k", written(folder, "loom.png")});
  int w = 0, colours = 0;
  REQUIRE(std::sscanf(size.out.c_str(), "PNG %d %d", &w, &colours) == 2);
  CHECK(w > 1000);
  CHECK(colours > 20);
}

TEST_CASE("the sheet for the bench holds verdict, every wire with both its ends, settings and margins, on A4 or Letter") {
  const TemporaryFolder folder;
  const auto text = runProgram("pdftotext", {"-layout", written(folder, "sheet.pdf"), "-"}).out;
  CHECK(text.find("Wave tank, bench 3") != std::string::npos);
  CHECK(text.find("Clear to switch on") != std::string::npos);
  CHECK(text.find("2026-11-30") != std::string::npos);
  CHECK(text.find("supply, bottom, 1st screw") != std::string::npos);
  CHECK(text.find("5 V regulator link") != std::string::npos);
  CHECK(text.find("at most 5.5 V") != std::string::npos);
  for (const auto& c : exported().connections) CHECK(text.find(" " + c.id + " ") != std::string::npos);
  const auto a4 = runProgram("pdfinfo", {folder.path("sheet.pdf")}).out;
  CHECK(a4.find("595 x 842 pts (A4)") != std::string::npos);
  CHECK(a4.find("Wave tank, bench 3") != std::string::npos);
  const auto letter = runProgram("pdfinfo", {written(folder, "letter.pdf", {"--paper", "letter"})}).out;
  CHECK(letter.find("612 x 792 pts (letter)") != std::string::npos);
  CHECK(runProgram("pdffonts", {folder.path("sheet.pdf")}).out.find(" yes ") != std::string::npos);  // they come with it
}

TEST_CASE("the same bench gives the same bytes, whatever the clock says") {
  const TemporaryFolder folder;
  for (const std::string ending : {".svg", ".png", ".pdf", ".csv", ".h", ".hpp", ".py"}) {
    const auto one = bytes(written(folder, "one" + ending));
    const auto two = bytes(written(folder, "two" + ending));
    INFO(ending);
    CHECK(one.size() > 100);
    CHECK(one == two);
  }
}

TEST_CASE("lists are read by another program: wires to cut add up, parts are all there") {
  const TemporaryFolder folder;
  const auto sum = [&](const std::string& file, const std::string& column) {
    return runProgram("python3", {"-c",
                                  "import csv,sys\nrows=list(csv.DictReader(open(sys.argv[1],newline='',encoding='utf-8')))\n"
                                  "print(len(rows),sum(int(r['" +
                                      column + "']) for r in rows))",
                                  file})
        .out;
  };
  int rows = 0, all = 0;
  REQUIRE(std::sscanf(sum(written(folder, "cuts.csv", {"--what", "cuts"}), "count").c_str(), "%d %d", &rows, &all) == 2);
  CHECK(all == std::ranges::count(exported().connections, harness::ConnectionKind::Wire, &harness::Connection::kind));
  REQUIRE(std::sscanf(sum(written(folder, "parts.csv", {"--what", "parts"}), "count").c_str(), "%d %d", &rows, &all) == 2);
  CHECK(all == static_cast<int>(exported().devices.size()));
  std::set<std::string> parts;
  for (const auto& d : exported().devices) parts.insert(d.part);
  CHECK(rows == static_cast<int>(parts.size()));
  // The wire list comes back to the same bench.
  const auto back = run({"wires", kDemo, "--take", written(folder, "wires.csv"), "--output", folder.path("back.harness")});
  CHECK(back.code == 0);
  CHECK(run({"diff", kDemo, folder.path("back.harness")}).code == 0);
}

TEST_CASE("pin constants compile, and hold the pins that the wires lead to in the numbering that was asked for") {
  const TemporaryFolder folder;
  written(folder, "pins.h");
  written(folder, "pins.hpp");
  const auto c = folder.write("a.c", "#include \"pins.h\"\n_Static_assert(WAVE_PADDLE_SPEED == 9 && SAND_CARRIAGE_STEP == 2, \"\");\n");
  CHECK(runProgram("gcc", {"-std=c11", "-fsyntax-only", c}).code == 0);
  const auto cpp =
      folder.write("a.cpp", "#include \"pins.hpp\"\nstatic_assert(pins::wavePaddleSpeed == 9 && pins::sandCarriageStep == 2);\n");
  CHECK(runProgram("g++", {"-std=c++20", "-fsyntax-only", cpp}).code == 0);
  const auto python =
      runProgram("python3", {"-c", "import runpy,sys;p=runpy.run_path(sys.argv[1]);print(p['WAVE_PADDLE_SPEED'],p['SLUICE_GATE_IN1'])",
                             written(folder, "pins.py")});
  CHECK(python.out == "9 14\n");
  const auto printed = bytes(written(folder, "printed.py", {"--numbers", "printed"}));
  CHECK(printed.find("WAVE_PADDLE_SPEED = \"D9\"") != std::string::npos);
  CHECK(printed.find("# SAND_CARRIAGE_SLEEP: tied high, no pin") != std::string::npos);
  const auto chip = bytes(written(folder, "chip.h", {"--numbers", "chip"}));
  CHECK(chip.find("#define WAVE_PADDLE_SPEED PB1") != std::string::npos);
}

TEST_CASE("names that people give stand in no program as anything but names") {
  const TemporaryFolder folder;
  auto h = exported();
  h.title = "*/ int x = 1; /* \n#error";
  for (auto& d : h.devices) {
    if (d.id == "paddle") d.name = "9\" fan\\\n#error";
    if (d.id == "gate") d.name = "Größe";
    if (d.id == "pump") d.name = "9 fan error";
    if (d.id == "uno")
      d.name =
          "Board ?"
          "?/";
  }
  const auto file = folder.write("odd.harness", harness::writeHarness(h));
  for (const std::string name : {"pins.h", "pins.py", "loom.svg", "sheet.pdf"}) {
    INFO(name);
    CHECK(run({"export", file, "--output", folder.path(name)}).code == 0);
  }
  CHECK(runProgram("gcc", {"-std=c11", "-Werror", "-fsyntax-only", folder.write("a.c", "#include \"pins.h\"\nint a;\n")}).code == 0);
  CHECK(runProgram("python3", {folder.path("pins.py")}).code == 0);
  CHECK(runProgram("rsvg-convert", {folder.path("loom.svg"), "-o", folder.path("x.png")}).code == 0);
}

TEST_CASE("what cannot be written is said: another ending, a content that does not go there, a folder that is not there") {
  const TemporaryFolder folder;
  const auto fails = [&](const std::vector<std::string>& arguments) {
    const auto ran = run(arguments);
    CHECK(ran.code == 2);
    return ran.err;
  };
  CHECK(fails({"export", kDemo, "--output", folder.path("x.doc")}) ==
        "boldh: \"" + folder.path("x.doc") + "\": a file ends in .svg, .png, .pdf, .csv, .h, .hpp or .py.\n");
  CHECK(fails({"export", kDemo, "--output", folder.path("x.svg"), "--what", "sheet"}) ==
        "boldh: A file that ends in .svg holds loom, not sheet.\n");
  CHECK(fails({"export", kDemo, "--output", "/no/such/folder/x.csv"}).find("/no/such/folder/x.csv") != std::string::npos);
  CHECK(fails({"export", "/no/such/bench", "--output", folder.path("x.svg")}).find("/no/such/bench") != std::string::npos);
  CHECK(fails({"export", kDemo}) == "boldh: \"\": a file ends in .svg, .png, .pdf, .csv, .h, .hpp or .py.\n");
}

TEST_CASE("an empty bench and every good bench make a sheet and a loom") {
  const TemporaryFolder folder;
  const auto empty = folder.write("empty.harness", harness::writeHarness({}));
  CHECK(run({"export", empty, "--output", folder.path("e.pdf")}).code == 0);
  CHECK(run({"export", empty, "--output", folder.path("e.svg")}).code == 0);
  for (const std::string name : {"bridge-stack", "array-sbc", "opto-box-tb6600", "esc-wave-maker", "breadboard"}) {
    const auto file = folder.write(name + ".harness", harness::writeHarness(good(name)));
    INFO(name);
    CHECK(run({"export", file, "--output", folder.path("s.pdf"), "--force"}).code == 0);
    const auto text = runProgram("pdftotext", {"-layout", folder.path("s.pdf"), "-"}).out;
    for (const auto& c : good(name).connections) CHECK(text.find(" " + c.id + " ") != std::string::npos);
  }
}

TEST_CASE("without fonts a page is not written, and that is said") {
  const TemporaryFolder folder;
  const auto bench = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  const auto fonts = folder.write(
      "fonts.conf", "<?xml version=\"1.0\"?><!DOCTYPE fontconfig SYSTEM \"fonts.dtd\"><fontconfig><dir>/nonexistent</dir></fontconfig>");
  const auto bare = [&](const std::string& program, const std::string& arguments) {
    return runProgram("bash", {"-c", "FONTCONFIG_FILE=" + fonts + " QT_QPA_FONTDIR=/nonexistent QT_QPA_PLATFORM=offscreen exec " + program +
                                         " " + arguments});
  };
  for (const std::string ending : {"pdf", "png"}) {
    const auto out = folder.path("out." + ending);
    const auto said = bare(BOLDH, "export " + bench + " --output " + out);
    INFO(said.err);
    CHECK(said.code == 2);
    CHECK(said.err.find("No fonts are installed") != std::string::npos);
    CHECK_FALSE(std::filesystem::exists(out));
  }
  CHECK(bare(BOLDH, "export " + bench + " --output " + folder.path("out.svg")).code == 0);  // whose text is drawn by whoever opens it
}
