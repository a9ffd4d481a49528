#include <fmt/core.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <sstream>

#include "core/program/corpus.h"
#include "support/benches.h"
#include "support/run_length.h"

using namespace bold;
using namespace bold::test;

namespace {

// Everything that is said of a bench, and what could not be told.
std::multiset<std::string> saidOf(const harness::Harness& h) {
  std::multiset<std::string> out;
  for (const auto& f : analyseFast(h).findings) out.insert(f.identity() + std::string(word(f.severity)));
  for (const auto& u : h.sources.front().untold) out.insert(u.what);
  return out;
}

// What the program does with pins, without places, names and waits: where that stays the same, no pin gets another level than before.
std::vector<harness::PinUse> doingsOf(const harness::Harness& h) {
  auto out = h.sources.front().pins;
  for (auto& u : out) {
    u.number = {};
    u.places.clear();
    u.name.clear();
    u.first.clear();  // where it stands before anything is written
    u.off.clear();
    u.pulse.reset();
    u.rate.reset();
    u.frequency.reset();
  }
  std::ranges::sort(out, {}, &harness::PinUse::word);
  return out;
}

struct Share {
  int all = 0, noticed = 0, harmless = 0, flagged = 0;
  std::string missed;
};

void one(const ProgramCase& c, const std::vector<std::pair<std::string, std::string>>& texts, const harness::Harness& base,
         const std::multiset<std::string>& said, const std::string& what, Share& share) {
  const auto h = benchOf(c, texts);
  ++share.all;
  if (saidOf(h) != said)
    ++share.noticed;
  else if (doingsOf(h) == doingsOf(base))
    ++share.harmless;
  else if (!c.says.empty())
    ++share.flagged;  // the same is said as before: it was no good program to begin with
  else
    share.missed += fmt::format("{}: {}\n", c.name, what);
}

// The text with what stands at a place exchanged.
std::string changed(const std::string& text, const harness::Spot& at, const std::string& instead) {
  std::size_t line = 0;
  for (int k = 1; k < at.line; ++k) line = text.find('\n', line) + 1;
  auto out = text;
  out.replace(line + static_cast<std::size_t>(at.column) - 1, static_cast<std::size_t>(at.length), instead);
  return out;
}

}  // namespace

TEST_CASE("a pin's number that is changed in a program is noticed") {
  Share share;
  for (const auto& c : programCases()) {
    const auto base = benchOf(c);
    const auto said = saidOf(base);
    for (const auto& u : base.sources.front().pins) {
      if (u.number.line == 0 || u.word.find_first_not_of("0123456789") != std::string::npos) continue;
      for (const int by : {1, 20}) {
        auto texts = c.texts;
        for (auto& [name, text] : texts)
          if (name == u.number.file) text = changed(text, u.number, std::to_string(std::stoi(u.word) + by));
        one(c, texts, base, said, fmt::format("{} + {}", u.word, by), share);
      }
    }
  }
  INFO(share.missed);
  CHECK(share.all >= 200);
  INFO(fmt::format("{} numbers: {} noticed, {} harmless, {} flagged before", share.all, share.noticed, share.harmless, share.flagged));
  CHECK(share.noticed >= 0.97 * share.all);
}

TEST_CASE("a line that is dropped from a program is noticed, or does nothing to a pin") {
  Share share;
  const int every = oneOf(3);
  int number = 0;
  for (const auto& c : programCases()) {
    const auto base = benchOf(c);
    const auto said = saidOf(base);
    const auto& text = c.texts.front().second;
    for (std::size_t at = 0; at < text.size();) {
      const auto end = std::min(text.find('\n', at), text.size());
      const auto line = text.substr(at, end - at);
      const auto first = line.find_first_not_of(' ');
      const bool code = first != std::string::npos && line[first] != '/' && line[first] != '#' && line[first] != '}' &&
                        line.back() != '{' && line.back() != ':';
      if (code && ++number % every == 0) {
        auto texts = c.texts;
        texts.front().second = text.substr(0, at) + text.substr(std::min(end + 1, text.size()));
        one(c, texts, base, said, line, share);
      }
      at = end + 1;
    }
  }
  INFO(share.missed);
  INFO(fmt::format("{} lines: {} noticed, {} harmless, {} flagged before", share.all, share.noticed, share.harmless, share.flagged));
  CHECK(share.all >= 250);
  CHECK(share.noticed >= 0.6 * share.all);
  CHECK(share.noticed + share.harmless + share.flagged >= 0.93 * share.all);
}
