#pragma once

#include <fmt/core.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <map>
#include <string>

#include "core/program/corpus.h"
#include "core/program/pins_used.h"
#include "support/benches.h"

/// A program as a text, and what is read of it.
namespace bold::test {

inline harness::SourceRead read(const std::string& file, const std::string& text, const std::string& board = "board-uno-atmega328p") {
  return program::pinsUsed(program::readTexts({{file, text}}, board, program::shippedCalls()), "uno", *library().find(board),
                           program::shippedCalls());
}
// "D5 output pwm, D6 read"
inline std::string pins(const harness::SourceRead& s) {
  std::map<std::string, std::set<std::string>> all;
  for (const auto& u : s.pins) all[u.terminal.empty() ? "(" + u.word + ")" : u.terminal] = plainDoings(u);
  std::string out;
  for (const auto& [pin, does] : all) out += fmt::format("{}{} {}", out.empty() ? "" : ", ", pin, fmt::join(does, " "));
  return out;
}
inline std::string cpp(const std::string& text) {
  return pins(read("a.ino", text));
}
inline std::string python(const std::string& text, const std::string& board = "sbc-header-40") {
  return pins(read("a.py", text, board));
}
inline const harness::PinUse& use(const harness::SourceRead& s, const std::string& terminal) {
  return *std::ranges::find(s.pins, terminal, &harness::PinUse::terminal);
}

}  // namespace bold::test
