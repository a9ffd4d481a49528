#include "support/benches.h"

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <stdexcept>

#include "support/bench_text.h"

namespace bold::test {

const parts::Library& library() {
  static const auto kLibrary = parts::Library::shipped();
  return kLibrary;
}

std::string readFile(const std::string& path) {
  std::ifstream in(std::string(BOLD_SOURCE_DIR) + "/" + path);
  if (!in) throw std::runtime_error("cannot read " + path);
  std::ostringstream text;
  text << in.rdbuf();
  return text.str();
}

std::vector<std::string> goodNames() {
  std::vector<std::string> out;
  for (const auto& e : std::filesystem::directory_iterator(std::string(BOLD_SOURCE_DIR) + "/tests/benches/good"))
    out.push_back(e.path().stem().string());
  std::ranges::sort(out);
  return out;
}

harness::Harness wiredBench(std::string_view text) {
  return readBenchText(text, library(), [](const std::string& name) {
    return readFile(name == "wave-tank" ? "demo/wave-tank.bench" : "tests/benches/good/" + name + ".bench");
  });
}

std::vector<checks::Finding> findingsOf(const Analysis& a, std::string_view check) {
  std::vector<checks::Finding> out;
  std::ranges::copy_if(a.findings, std::back_inserter(out), [&](const auto& f) { return f.check == check; });
  return out;
}

std::unique_ptr<bench::SolvedBench> solved(const harness::Harness& h) {
  return bench::solveBench(bench::makeBench(h, library()), {});
}

Analysis analyseFast(const harness::Harness& h) {
  Options o;
  o.explain = false;
  return analyse(h, library(), o);
}

}  // namespace bold::test
