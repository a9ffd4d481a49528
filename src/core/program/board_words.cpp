#include "core/program/board_words.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/base/lower.h"
#include "core/places/numbering.h"

namespace bold::program {
namespace {

bool digits(const std::string& text) {
  return !text.empty() && std::ranges::all_of(text, [](unsigned char c) { return std::isdigit(c); });
}

int byCode(const parts::Part& part, const std::string& code) {
  for (std::size_t k = 0; k < part.terminals.size(); ++k)
    if (part.terminals[k].pin && lower(part.terminals[k].pin->code) == lower(code)) return static_cast<int>(k);
  return -1;
}

int byName(const parts::Part& part, const std::string& word) {
  const auto w = lower(word);
  for (std::size_t k = 0; k < part.terminals.size(); ++k) {
    const auto& t = part.terminals[k];
    if (!t.pin) continue;
    const auto is = [&](const std::string& name) { return !name.empty() && lower(name) == w; };
    if (is(t.label) || is(t.id) || is(t.pin->chip) || is(t.pin->code) || std::ranges::any_of(t.aliases, is)) return static_cast<int>(k);
  }
  return -1;
}

int byPosition(const parts::Part& part, const std::string& number) {
  for (std::size_t k = 0; k < part.terminals.size(); ++k)
    if (std::to_string(places::positionOf(part, part.terminals[k])) == number) return static_cast<int>(k);
  return -1;
}

// "GPIO17", "BCM17", "GP5", "IO5", "pin5", "BOARD11", "J8:11": a number behind its system.
int byNumberedName(const parts::Part& part, const std::string& word) {
  const auto w = lower(word);
  const auto at = w.find_first_of("0123456789");
  if (at == std::string::npos) return -1;
  auto before = w.substr(0, at);
  auto number = w.substr(at);
  if (before == "j" && number.find(':') != std::string::npos) {
    number = number.substr(number.find(':') + 1);
    before = "board";
  }
  if (!digits(number)) return -1;
  if (before == "board") return byPosition(part, number);
  for (const auto* system : {"gpio", "bcm", "gp", "io", "pin", "gpio_", "d"})
    if (before == system) return byCode(part, number);
  return -1;
}

}  // namespace

int terminalOf(const parts::Part& part, const PinWord& pin, bool analog, const PublicCalls& calls) {
  if (pin.word.empty()) return -1;
  if (pin.numbering == "register") {
    for (const auto& i : calls.interfaces)
      for (const auto& c : i.compares)
        if (c.name == pin.word)
          if (const auto it = c.pins.find(part.id); it != c.pins.end()) return byName(part, it->second);
    return -1;
  }
  if (pin.numbering == "position") return digits(pin.word) ? byPosition(part, pin.word) : byName(part, pin.word);
  if (digits(pin.word)) {
    if (analog)
      if (const int t = byName(part, "A" + pin.word); t >= 0) return t;
    return byCode(part, pin.word);
  }
  if (const auto board = calls.boards.find(part.id); board != calls.boards.end())
    if (const auto it = board->second.pins.find(pin.word); it != board->second.pins.end()) return byName(part, it->second);
  if (const int t = byName(part, pin.word); t >= 0) return t;
  return byNumberedName(part, pin.word);
}

}  // namespace bold::program
