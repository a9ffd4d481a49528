#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/program/corpus.h"
#include "core/program/pins_used.h"
#include "fuzz/targets.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

namespace {

harness::SourceRead readOf(const std::string& file, const std::string& text) {
  return program::pinsUsed(program::readTexts({{file, text}}, "board-uno-atmega328p", program::shippedCalls()), "uno",
                           *library().find("board-uno-atmega328p"), program::shippedCalls());
}
bool drives5(const harness::SourceRead& s) {
  return std::ranges::any_of(s.pins, [](const harness::PinUse& u) { return u.terminal == "D5" && u.does.contains("write"); });
}
std::string repeated(const std::string& text, int n) {
  std::string out;
  for (int k = 0; k < n; ++k) out += text;
  return out;
}
const std::string kDrive = "void setup() { pinMode(5, OUTPUT); digitalWrite(5, HIGH); }\nvoid loop() {}\n";

}  // namespace

TEST_CASE("broken and half-typed sources: what stands whole is read, the rest is said") {
  for (const std::string broken : {"void setup() { digitalWrite(5, HIGH); if (", "}}}}}\n", "int x = ;\n", "#if\n#endif\n", "#define F(\n",
                                   "\"never closed\n", "class {\n};\n", "/* never closed"}) {
    INFO(broken);
    const bool closes = broken.find("never closed") == std::string::npos || broken[0] == '"';
    const auto s = readOf("a.ino", broken.starts_with("void setup") ? broken : broken + kDrive);
    if (closes) CHECK(drives5(s));
  }
  CHECK(drives5(readOf("a.py", "from machine import Pin\np = Pin(5, Pin.OUT)\np.on()\ndef half(:\n  x = [1,\n")));
  const auto s = readOf("a.ino", kDrive + "void f() { int = 5 5; digitalWrite(; }\n");
  CHECK(drives5(s));
  CHECK_FALSE(s.untold.empty());
  CHECK(s.untold.front().place.line == 3);
}

TEST_CASE("deep nesting, endless recursion and very long texts end, with what can be read") {
  CHECK(drives5(readOf("a.ino", kDrive + "int x = " + repeated("(", 5000) + "1" + repeated(")", 5000) + ";\n")));
  CHECK(drives5(readOf("a.ino", kDrive + "void f() " + repeated("{ if (1) ", 3000) + ";" + repeated("}", 3000))));
  CHECK(drives5(readOf("a.ino", "int x = " + repeated("1 + ", 20000) + "1;\n" + kDrive)));
  CHECK(drives5(readOf("a.ino", "int f(int n) { return f(n + 1); }\n" + kDrive + "int y = f(0);\n")));
  CHECK(drives5(readOf("a.ino", "#define A A B\n#define B A A\nint A;\n" + kDrive)));
  CHECK(drives5(readOf("a.ino", "#include \"a.ino\"\n" + kDrive)));
  std::string doubling = "#define X0 x\n";
  for (int k = 1; k < 30; ++k)
    doubling += "#define X" + std::to_string(k) + " X" + std::to_string(k - 1) + " X" + std::to_string(k - 1) + "\n";
  CHECK(drives5(readOf("a.ino", kDrive + doubling)));
  const auto bomb = readOf("a.ino", kDrive + doubling + "int a = X29;\n");
  CHECK(drives5(bomb));
  CHECK(std::ranges::any_of(bomb.untold, [](const auto& u) { return u.what.find("make more than can be read") != std::string::npos; }));
  CHECK(drives5(readOf(
      "a.ino",
      kDrive + "void f() { for (;;) for (;;) for (long i = 0; i < 2000000000; i++) digitalWrite(6, i & 1); }\nint z = (f(), 1);\n")));
  CHECK(drives5(
      readOf("a.py", "from machine import Pin\np = Pin(5, Pin.OUT)\np.on()\nx = " + repeated("[", 4000) + repeated("]", 4000) + "\n")));
  CHECK(drives5(readOf("a.py", "from machine import Pin\np = Pin(5, Pin.OUT)\np.on()\nx = [1]\nwhile True:\n  x = x + x\n")));
}

TEST_CASE("a source of two megabytes is read, and one that is longer as far as the bound") {
  const auto line = std::string("void filler() { int a[] = {1, 2, 3, 4, 5, 6, 7, 8}; a[0] = a[1]; }  // some words\n");
  const auto s = readOf("a.ino", kDrive + repeated(line, static_cast<int>(2'000'000 / line.size())));
  CHECK(drives5(s));
  const auto numbers = readOf("a.ino", kDrive + "const int table[] = {" + repeated("123, ", 300'000) + "4};\n");
  CHECK(drives5(numbers));
  const auto longer = program::readSource("a", std::string(program::kMostSource + 10, '\n'));
  CHECK(longer.remarks.size() == 1);
  CHECK(longer.text.size() <= program::kMostSource);
}

TEST_CASE("includes and imports are regular files below the folder of the program") {
  const TemporaryFolder folder;
  folder.write("secret.h", "#define P 6\n");
  folder.write("secret.py", "P = 6\n");
  const auto main = folder.write("program/main.ino",
                                 "#include \"../secret.h\"\n#include \"link.h\"\n#include \"pipe.h\"\n#include \"sub/own.h\"\n" + kDrive);
  folder.write("program/sub/own.h", "#include \"near.h\"\n");
  folder.write("program/sub/near.h", "const int q = 7;\n");
  REQUIRE(std::system(("ln -s ../secret.h " + folder.path("program/link.h") + " && mkfifo " + folder.path("program/pipe.h")).c_str()) == 0);
  Disk disk;
  const auto read = program::readProgram(disk, {main}, "board-uno-atmega328p", program::shippedCalls());
  REQUIRE(read);
  std::set<std::string> files;
  for (const auto& f : read->sources.files) files.insert(f.file);
  CHECK(files == std::set<std::string>{"main.ino", "sub/own.h", "sub/near.h"});
  CHECK(read->problems.size() == 3);
  for (const auto& p : read->problems) CHECK(p.what.find("no file below the program's folder") != std::string::npos);
  CHECK_FALSE(program::readProgram(disk, {folder.path("none.ino")}, "", program::shippedCalls()));
}

TEST_CASE("programs spoilt at random never break a promise") {
  unsigned seed = 20261130;
  const auto random = [&] { return seed = seed * 1664525u + 1013904223u; };
  static const std::vector<std::string> words{"(",         ")",
                                              "{",         "}",
                                              "#if X\n",   "#endif\n",
                                              "#define A", "\"",
                                              "'",         "/*",
                                              "\\\n",      "5",
                                              "-1",        "while True:\n",
                                              "for(;;)",   "digitalWrite(",
                                              "\xff",      "def f():\n",
                                              "class ",    "import ",
                                              "GPIO.",     "[",
                                              "]",         "<<",
                                              "~"};
  for (int run = 0; run < 300; ++run) {
    const auto& c = programCases()[random() % programCases().size()];
    auto text = c.texts.front().second;
    for (unsigned n = random() % 5 + 1; n > 0; --n) {
      const auto at = random() % (text.size() + 1);
      if (random() % 2 == 0)
        text.erase(at, random() % 30);
      else
        text.insert(at, words[random() % words.size()]);
    }
    fuzz::program((c.name.ends_with(".py") ? "p" : c.name.ends_with(".c") ? "c" : "i") + text);
  }
}

TEST_CASE("sources that were written for something else are read without breaking a promise") {
  // Our own sources: C++ with templates, lambdas and all that framework C++ has not.
  std::vector<std::filesystem::path> files;
  const std::filesystem::path project = BOLD_SOURCE_DIR;
  for (const auto* folder : {"src", "tests", "tools"})
    for (const auto& f : std::filesystem::recursive_directory_iterator(project / folder))
      if (const auto e = f.path().extension(); f.is_regular_file() && (e == ".cpp" || e == ".h" || e == ".py" || e == ".c"))
        files.push_back(f.path());
  std::ranges::sort(files);
  REQUIRE(files.size() > 500);
  for (std::size_t k = 0; k < files.size(); k += 17) {
    INFO(files[k]);
    const auto text = readFile(std::filesystem::relative(files[k], project).string());
    CHECK_NOTHROW(fuzz::program((files[k].extension() == ".py" ? "p" : "i") + text));
  }
}

TEST_CASE("what grows, holds itself or is made while it is gone through stays within bounds") {
  for (const std::string python : {
           "a = []\na.append(a)\nb = []\nb.append(b)\nif a == b:\n  p.on()\nx = Pin(a)\n",
           "x = 'a'\nfor i in range(8000):\n  x = x + x\n",
           "x = [1]\nfor i in range(8000):\n  x = x + x\n",
           "x = [1]\nfor i in range(60):\n  x = [x, x]\ny = [1]\nfor i in range(60):\n  y = [y, y]\nz = x == y\nq = Pin(x)\n",
           "x = []\nfor i in range(8000):\n  x = [x]\n",
           "x = 0\nfor i in range(8000):\n  x = list(range(8000))\n",
           "class N:\n  def __init__(self, n):\n    self.n = n\n    self.me = self\nx = None\nfor i in range(8000):\n  x = N(x)\n",
           "x = list(range(4000))\nfor i in range(4000):\n  z = list(zip(x, x, x))\n",
           "import atexit\ndef f():\n  atexit.register(f)\natexit.register(f)\n",
       }) {
    INFO(python);
    const auto text = "from machine import Pin\np = Pin(5, Pin.OUT)\np.on()\n" + python;
    CHECK(drives5(readOf("a.py", text)));
    CHECK_NOTHROW(fuzz::program("p" + text));
  }
  for (const std::string cpp : {
           "int next() { static int n = 3; return n++; }\nstruct M { int pin = next(); int more = next(); M(int p = next()) : pin(p) {} "
           "};\nM a; "
           "M b(next());\n",
           "struct N { N* n; int pin; };\nN all[3];\nstruct G { std::vector<int> v; G(int x) { kept.push_back(x); } };\nstd::vector<int> "
           "kept = "
           "{1, 2};\nG g[] = {1, 2, 3};\n",
           "void f(char *, int *, char **);\nvoid f(char *, int *p, char **) { *p = 6; }\nint x; void g() { f(0, &x, 0); }\n",
           "void w() { for (long i = 0; i < 5000; i++) for (long k = 0; k < 9; k++) digitalWrite(6, i * k); }\nint q = (w(), 1);\n",
       }) {
    INFO(cpp);
    CHECK(drives5(readOf("a.ino", kDrive + cpp)));
    CHECK_NOTHROW(fuzz::program("i" + kDrive + cpp));
  }
}
