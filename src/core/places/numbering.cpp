#include "core/places/numbering.h"

#include <algorithm>
#include <array>
#include <cctype>

#include "core/base/lower.h"
#include "core/parts/named_terminal.h"

namespace bold::places {
namespace {

constexpr std::array kNames{std::pair{Numbering::Printed, "printed"}, std::pair{Numbering::Position, "position"},
                            std::pair{Numbering::Chip, "chip"}, std::pair{Numbering::Program, "program"},
                            std::pair{Numbering::Function, "function"}};
constexpr int kFewest = 4;  // pins with a name in a system from which a part has that system

bool digits(std::string_view s) {
  return !s.empty() && std::ranges::all_of(s, [](unsigned char c) { return std::isdigit(c) != 0; });
}

// The number at the end of a chip's name where that is all that counts it: GPIO17, not PD3 or P0.31.
std::string_view gpioNumber(std::string_view chip) {
  constexpr std::string_view kPrefix = "GPIO";
  return chip.starts_with(kPrefix) && digits(chip.substr(kPrefix.size())) ? chip.substr(kPrefix.size()) : std::string_view();
}

// "pin 3" as an alias says a position.
bool saysPosition(const std::string& alias) {
  return alias.starts_with("pin ") && digits(std::string_view(alias).substr(4));
}

}  // namespace

std::string_view word(Numbering n) {
  return std::ranges::find(kNames, n, [](const auto& p) { return p.first; })->second;
}

std::optional<Numbering> numberingNamed(std::string_view w) {
  for (const auto& [n, name] : kNames)
    if (w == name) return n;
  return std::nullopt;
}

int positionOf(const parts::Part& part, const parts::Terminal& t) {
  const auto& layout = part.layout;
  if (layout.numbers == parts::Numbers::None) return 0;
  int before = 0;
  // Down the left row, then up the right one.
  for (const auto& row : layout.rows) {
    const auto it = std::ranges::find(row.terminals, t.id);
    const auto n = static_cast<int>(row.terminals.size());
    if (it != row.terminals.end()) {
      const auto k = static_cast<int>(it - row.terminals.begin());
      if (layout.numbers == parts::Numbers::Header) return row.columns == 2 ? k + 1 : 0;
      const bool up = row.edge == parts::Edge::Right && !row.fromTheEnd;
      return before + (up ? n - k : k + 1);
    }
    before += n;
  }
  return 0;
}

std::string nameIn(const parts::Part& part, const parts::Terminal& t, Numbering n) {
  switch (n) {
    case Numbering::Printed:
      return t.label;
    case Numbering::Position: {
      const int k = positionOf(part, t);
      return k > 0 ? std::to_string(k) : std::string();
    }
    case Numbering::Chip:
      return t.pin ? t.pin->chip : std::string();
    case Numbering::Program:
      return t.pin ? t.pin->code : std::string();
    case Numbering::Function:
      break;
  }
  for (const auto& a : t.aliases)
    if (!saysPosition(a) && !(t.pin && (a == t.pin->chip || a == t.pin->code))) return a;
  return {};
}

std::string shownIn(const parts::Part& part, const parts::Terminal& t, Numbering n) {
  auto name = nameIn(part, t, n);
  if (name.empty()) return t.label;
  if (n == Numbering::Position) return "pos " + name;
  return n == Numbering::Program && digits(name) ? "code " + name : name;
}

std::vector<Numbering> numberingsOf(const parts::Part& part) {
  std::vector<Numbering> out{Numbering::Printed};
  for (const auto n : {Numbering::Position, Numbering::Chip, Numbering::Program, Numbering::Function}) {
    int named = 0;
    int otherwise = 0;
    for (const auto& t : part.terminals) {
      const auto name = nameIn(part, t, n);
      named += !name.empty();
      otherwise += !name.empty() && name != t.label;
    }
    if (named >= kFewest && otherwise > 0) out.push_back(n);
  }
  return out;
}

std::vector<Meaning> numbersMeant(const parts::Part& part, std::string_view typed) {
  auto w = lower(typed);
  std::erase_if(w, [](unsigned char c) { return c == ' ' || c == '-' || c == '_'; });
  std::vector<Numbering> systems;
  const auto take = [&](std::string_view prefix, std::vector<Numbering> in) {
    if (!systems.empty() || !w.starts_with(prefix) || !digits(std::string_view(w).substr(prefix.size()))) return;
    w.erase(0, prefix.size());
    systems = std::move(in);
  };
  take("", {Numbering::Printed, Numbering::Program, Numbering::Chip, Numbering::Position});
  for (const auto* p : {"position", "pos", "pin", "leg"}) take(p, {Numbering::Position});
  for (const auto* p : {"gpio", "chip"}) take(p, {Numbering::Chip});
  for (const auto* p : {"program", "code"}) take(p, {Numbering::Program});
  std::vector<Meaning> out;
  for (const auto n : systems)
    for (std::size_t t = 0; t < part.terminals.size(); ++t) {
      const auto& facts = part.terminals[t];
      const auto name = nameIn(part, facts, n);
      const bool here = name == w || (n == Numbering::Chip && gpioNumber(name) == w);
      const bool known = std::ranges::any_of(out, [&](const Meaning& m) { return m.terminal == static_cast<int>(t); });
      if (here && !known) out.push_back({static_cast<int>(t), n});
    }
  return out;
}

int terminalMeant(const parts::Part& part, const std::string& word) {
  if (const int i = part.indexOf(word); i >= 0) return i;
  const auto counted = numbersMeant(part, word);
  if (!counted.empty()) return counted.size() == 1 ? counted.front().terminal : -1;  // a number that counts two pins means neither
  return part.indexOf(parts::terminalNamed(part, word));
}

}  // namespace bold::places
