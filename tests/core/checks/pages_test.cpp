#include <catch2/catch.hpp>
#include <filesystem>
#include <set>

#include "core/base/embedded.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

std::string section(std::string_view page, std::string_view name) {
  const auto head = "\n## " + std::string(name) + "\n";
  const auto from = page.find(head);
  if (from == std::string_view::npos) return {};
  const auto body = page.substr(from + head.size());
  return std::string(body.substr(0, body.find("\n## ")));
}

std::string example(std::string_view page, std::string_view name) {
  const auto s = section(page, name);
  const auto from = s.find("```bench\n");
  const auto to = s.rfind("```");
  return from == std::string::npos || to <= from ? std::string() : s.substr(from + 9, to - from - 9);
}

}  // namespace

TEST_CASE("every check has a page with all its parts, and no page is without a check") {
  std::set<std::string> ids;
  std::set<std::string> paths;
  for (const auto& c : checks::registry()) {
    INFO(c.id);
    CHECK(ids.insert(std::string(c.id)).second);
    const auto page = checks::page(c.id);
    REQUIRE_FALSE(page.empty());
    CHECK(page.find("# " + std::string(c.title) + "\n") == 0);
    for (const auto* s : {"Why it matters", "How it is decided", "Flagged", "Accepted", "How to mend", "Silent when", "Source"}) {
      INFO(s);
      CHECK(section(page, s).size() > 5);
    }
    paths.insert(std::string(c.family) + "/" + std::string(c.id) + ".md");
    auto file = std::string(c.id);
    std::replace(file.begin(), file.end(), '-', '_');
    CHECK(std::filesystem::exists(std::filesystem::path(BOLD_SOURCE_DIR) / "src/core/checks" / c.family / (file + ".cpp")));
  }
  for (const auto& p : embedded::pages()) {
    INFO(p.path);
    CHECK(paths.contains(std::string(p.path)));
  }
}

TEST_CASE("the flagged example of every page fires its check and the accepted one is quiet") {
  for (const auto& c : checks::registry()) {
    INFO(c.id);
    const auto page = checks::page(c.id);
    const auto analysed = [&](const char* name) {
      const auto bench = wiredBench(example(page, name));
      return c.supposes() ? analyse(bench, library()) : analyseFast(bench);
    };
    const auto flagged = analysed("Flagged");
    std::string all;
    for (const auto& f : flagged.findings) all += f.check + ": " + f.text + "\n";
    INFO(all);
    CHECK_FALSE(findingsOf(flagged, c.id).empty());
    const auto accepted = analysed("Accepted");
    CHECK(findingsOf(accepted, c.id).empty());
  }
}

TEST_CASE("every finding has words, a formula and a subject on the bench") {
  for (const auto& c : checks::registry()) {
    const auto h = wiredBench(example(checks::page(c.id), "Flagged"));
    for (const auto& f : analyseFast(h).findings) {
      INFO(f.check << ": " << f.headline);
      CHECK(f.headline.size() > 5);
      CHECK(f.text.ends_with("."));
      CHECK_FALSE(f.formula.empty());
      REQUIRE_FALSE(f.subjects.empty());
      for (const auto& s : f.subjects) {
        const auto device = s.substr(0, s.find('.'));
        CHECK((h.device(device) || h.connection(device)));
      }
    }
  }
}
