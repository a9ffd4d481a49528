#include "core/harness/several_wires.h"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>

#include "core/harness/join.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"
#include "core/parts/named_terminal.h"
#include "core/places/arrangement.h"

namespace bold::harness {
namespace {

constexpr std::size_t kMostInARun = 100;
constexpr std::size_t kMostWordsOfALine = 12;

// "IN3" is "IN" and 3; nothing where it ends in no number.
std::optional<std::pair<std::string, int>> numbered(const std::string& label) {
  const auto digits = label.find_last_not_of("0123456789") + 1;
  if (digits >= label.size()) return std::nullopt;
  int n = 0;
  if (std::from_chars(label.data() + digits, label.data() + label.size(), n).ec != std::errc()) return std::nullopt;
  return std::pair{label.substr(0, digits), n};
}

// By their numbers: D4, D5, D6, D7.
std::vector<std::string> byNumber(const parts::Part& part, const parts::Terminal& from, const parts::Terminal& to) {
  const auto a = numbered(from.label);
  const auto b = numbered(to.label);
  if (!a || !b || a->first != b->first || static_cast<std::size_t>(std::abs(a->second - b->second)) > kMostInARun) return {};
  std::vector<std::string> out;
  const int step = a->second <= b->second ? 1 : -1;
  for (int n = a->second;; n += step) {
    const auto label = a->first + std::to_string(n);
    const auto it = std::ranges::find(part.terminals, label, &parts::Terminal::label);
    if (it == part.terminals.end()) return {};  // one of them is not there
    out.push_back(it->id);
    if (n == b->second) return out;
  }
}

// As they lie beside each other in one row.
std::vector<std::string> byPlace(const parts::Part& part, const parts::Terminal& from, const parts::Terminal& to) {
  const auto arrangement = part.layoutKnown ? places::arrangementOf(part) : std::nullopt;
  const auto* a = arrangement ? arrangement->at(part.indexOf(from.id)) : nullptr;
  const auto* b = arrangement ? arrangement->at(part.indexOf(to.id)) : nullptr;
  if (!a || !b || a->row != b->row || a->column != b->column) return {};
  std::vector<std::string> out;
  for (int k = a->index;; k += a->index <= b->index ? 1 : -1) {
    for (const auto& s : arrangement->spots)
      if (s.row == a->row && s.column == a->column && s.index == k) out.push_back(part.terminals[s.terminal].id);
    if (k == b->index || out.size() > kMostInARun) return out;
  }
}

std::string joinedWords(const std::vector<std::string>& words, std::size_t from, std::size_t to) {
  std::string out;
  for (std::size_t k = from; k < to; ++k) out += (k == from ? "" : " ") + words[k];
  return out;
}

}  // namespace

Result<std::vector<Address>> parseTypedRun(const Harness& h, const parts::Library& library, std::string_view text) {
  const auto whole = parseTypedEnd(h, library, text);
  if (whole) return std::vector<Address>{*whole};
  // Names hold dashes too ("GND-2"): the one dash at which both sides are terminals of one device.
  for (auto dash = text.find('-'); dash != std::string_view::npos; dash = text.find('-', dash + 1)) {
    const auto from = parseTypedEnd(h, library, text.substr(0, dash));
    if (!from) continue;
    const auto part = library.find(h.device(from->device)->part);
    const auto second = std::string(text.substr(dash + 1));
    auto to = parts::terminalNamed(*part, second);
    if (to.empty())  // "s1.in1-s1.in4"
      if (const auto end = parseTypedEnd(h, library, second); end && end->device == from->device) to = end->terminal;
    if (to.empty()) continue;
    const auto &a = *part->find(from->terminal), &b = *part->find(to);
    auto run = byNumber(*part, a, b);
    if (run.empty()) run = byPlace(*part, a, b);
    if (run.empty()) return fail(fmt::format("From {} to {} there is no row and no number that leads on.", a.label, b.label));
    std::vector<Address> out;
    for (auto& t : run) out.push_back({from->device, std::move(t)});
    return out;
  }
  return fail(whole.error());
}

Result<Edit> typedWires(const Harness& h, const parts::Library& library, std::string_view text) {
  auto one = typedJoin(h, library, text);
  if (one || text.find('-') == std::string_view::npos) return one;
  const auto words = typedWords(text);
  if (words.size() < 2 || words.size() > kMostWordsOfALine) return one;
  std::optional<Problem> why;
  for (std::size_t gap = 1; gap < words.size(); ++gap) {
    const auto a = parseTypedRun(h, library, joinedWords(words, 0, gap));
    const auto b = parseTypedRun(h, library, joinedWords(words, gap, words.size()));
    if (!a || !b) {
      if (!why) why = a ? b.error() : a.error();
      continue;
    }
    if (a->size() != b->size())
      return fail(fmt::format("{} on one side and {} on the other: as many have to be on both.", a->size(), b->size()));
    if (a->size() == 1) return one;
    Harness grown = h;
    Edit all{fmt::format("Add {} wires from {} to {}", a->size(), shownEnd(h, library, a->front()), shownEnd(h, library, b->front())), {}};
    for (std::size_t k = 0; k < a->size(); ++k) {
      const auto wire = join(grown, library, (*a)[k], (*b)[k]);
      if (!wire) return fail(wire.error());
      apply(grown, *wire);
      all.changes.insert(all.changes.end(), wire->changes.begin(), wire->changes.end());
    }
    return all;
  }
  return fail(std::move(*why));
}

}  // namespace bold::harness
