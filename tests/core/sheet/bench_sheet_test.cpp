#include "core/sheet/bench_sheet.h"

#include <catch2/catch.hpp>

#include "core/harness/marks.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

std::vector<draw::Drawing> sheetOf(const harness::Harness& h, sheet::Paper paper = sheet::kA4) {
  return sheet::benchSheet(h, library(), analyse(h, library()), {"bench.harness", "2026-11-30", paper});
}
std::string wordsOf(const std::vector<draw::Drawing>& pages) {
  std::string out;
  for (const auto& p : pages)
    for (const auto& s : p.shapes)
      if (const auto* w = std::get_if<draw::Words>(&s)) out += w->text + "\n";
  return out;
}

}  // namespace

TEST_CASE("nothing on a page of the sheet lies outside it, or over the words below, on either paper") {
  for (const auto& name : goodNames())
    for (const auto paper : {sheet::kA4, sheet::kLetter}) {
      const auto pages = sheetOf(good(name), paper);
      INFO(name);
      REQUIRE_FALSE(pages.empty());
      for (const auto& p : pages) {
        CHECK(p.width == paper.width);
        for (const auto& s : p.shapes) {
          const auto* w = std::get_if<draw::Words>(&s);
          if (!w || w->upwards) continue;
          CHECK(w->where.x >= 0);
          CHECK(w->where.y >= 0);
          CHECK(w->where.bottom() <= paper.height);
          if (w->side == draw::Side::Left && !w->cut)
            CHECK(w->where.x + draw::textWidth(w->text, w->size, w->bold, w->mono) <= paper.width);
        }
      }
    }
}

TEST_CASE("the sheet says the verdict, what to mend with a box before it, and what is only planned") {
  auto h = harness::readHarness(readFile("demo/wave-tank-first-try.harness"), "b")->harness;
  h.connections[1].state = harness::State::Planned;
  const auto words = wordsOf(sheetOf(h));
  CHECK(words.find("Do not switch on\n") != std::string::npos);
  CHECK(words.find("D1 is the wrong way round") != std::string::npos);
  CHECK(words.find("To make on the bench\n") != std::string::npos);
  CHECK(words.find("to make\n") != std::string::npos);
  CHECK(words.find("Name, time:\n") != std::string::npos);
  CHECK(words.find("1 of ") != std::string::npos);
}

TEST_CASE("a long table begins anew on each page with its head, and a heading never stands alone at the end") {
  sheet::PageMaker pages(sheet::kA4, "foot");
  std::vector<std::vector<std::string>> rows;
  for (int k = 0; k < 299; ++k)
    rows.push_back(k % 25 == 24 ? std::vector<std::string>{"Group"} : std::vector<std::string>{"", std::to_string(k), "words of it"});
  pages.heading("Table");
  pages.table({{"done", 1, false, true}, {"number", 1}, {"what", 4}}, rows);
  const auto made = pages.take();
  CHECK(made.size() > 4);
  for (const auto& p : made) {
    double headAt = 0, last = 0;
    std::string lowest;
    for (const auto& s : p.shapes)
      if (const auto* w = std::get_if<draw::Words>(&s)) {
        if (w->text == "number") headAt = w->where.y;
        if (w->where.y > last && w->text != "foot" && w->text.find(" of ") == std::string::npos) {
          last = w->where.y;
          lowest = w->text;
        }
      }
    CHECK(headAt > 0);
    CHECK(lowest != "Group");
    CHECK(last < sheet::kA4.height - 50);
  }
  CHECK(sheet::PageMaker(sheet::kA4, "foot").take().size() == 1);
}

TEST_CASE("what was marked on a wire is ticked on the sheet, and what was found instead stands beside it") {
  auto h = good("bridge");
  const auto& wire = *std::ranges::find(h.connections, harness::ConnectionKind::Wire, &harness::Connection::kind);
  const auto strokes = [&] {
    int n = 0;
    for (const auto& p : sheetOf(h))
      for (const auto& s : p.shapes)
        if (const auto* l = std::get_if<draw::Lines>(&s)) n += l->segments.size() == 2 && l->stroke.width == 1.2;
    return n;
  };
  CHECK(strokes() == 0);
  h.marks.push_back({"mark1", wire.id, harness::Marked::Tugged, wireDigest(h, library(), wire), {}, {}, {}, {}, nullptr});
  CHECK(strokes() == 1);
  h.marks[0] = {"mark1", wire.id, harness::Marked::Wrong, wireDigest(h, library(), wire), {}, {}, {}, "hangs loose", nullptr};
  CHECK(wordsOf(sheetOf(h)).find("found:") != std::string::npos);
  CHECK(wordsOf(sheetOf(h)).find("hangs") != std::string::npos);
}
