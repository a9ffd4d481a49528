#include "core/harness/typed_end.h"

#include <fmt/core.h>

#include <algorithm>
#include <cctype>

#include "core/base/lower.h"
#include "core/harness/seen_part.h"
#include "core/parts/named_terminal.h"
#include "core/parts/roles.h"
#include "core/places/numbering.h"
#include "core/places/words.h"

namespace bold::harness {
namespace {

constexpr std::size_t kMostWords = 12;  // of a line that is taken apart at every gap

std::string joined(const std::vector<std::string>& words, std::size_t from, std::size_t to) {
  std::string out;
  for (std::size_t k = from; k < to; ++k) out += (k == from ? "" : " ") + words[k];
  return out;
}

bool named(const Device& d, std::string_view word) {
  return lower(d.id) == word || lower(d.name) == word;
}

// A terminal that is meant, and by which count where a number means it.
struct Hit {
  Address end;
  std::optional<places::Numbering> by;
};

// Device and terminal apart: at the first dot, or at any gap. A word by itself is a terminal of a controller.
std::vector<Hit> endsTyped(const Harness& h, const parts::Library& library, const std::string& text) {
  std::vector<Hit> out;
  const auto look = [&](const auto& meant, const std::string& terminal) {
    for (const auto& d : h.devices) {
      const auto part = seenPart(library.find(d.part), d, h);
      if (!part || d.state == State::ToBeRemoved || !meant(d, *part)) continue;
      const auto counted = places::numbersMeant(*part, terminal);
      for (const auto& m : counted) out.push_back({{d.id, part->terminals[m.terminal].id}, m.in});
      if (counted.empty())
        for (const auto& t : parts::terminalsNamed(*part, terminal)) out.push_back({{d.id, t}, std::nullopt});
    }
  };
  const auto device = [](const std::string& head) { return [head](const Device& d, const parts::Part&) { return named(d, head); }; };
  const auto dot = text.find('.');
  if (dot != std::string::npos) look(device(text.substr(0, dot)), text.substr(dot + 1));
  for (std::size_t gap = text.find(' '); gap != std::string::npos; gap = text.find(' ', gap + 1))
    look(device(text.substr(0, gap)), text.substr(gap + 1));
  if (dot == std::string::npos) look([](const Device&, const parts::Part& p) { return parts::isController(p); }, text);
  return out;
}

// "GPIO18 by position (J8, right column, 6th from the top, position 12): pos 12"
std::string reading(const Harness& h, const parts::Library& library, const Hit& hit) {
  const auto* d = h.device(hit.end.device);
  const auto part = seenPart(library.find(d->part), *d, h);
  const auto& t = *part->find(hit.end.terminal);
  return fmt::format("{} by {} ({})", t.label, places::word(*hit.by), places::fullPlace(*part, t, d->lie));
}

// A number counts one pin in one system and another in the next: it is asked, not guessed.
std::optional<std::string> twoCounts(const Harness& h, const parts::Library& library, const std::string& text,
                                     const std::vector<Hit>& hits) {
  const auto other = std::ranges::find_if(hits, [&](const Hit& x) { return x.by && x.end != hits.front().end; });
  if (!hits.front().by || other == hits.end() || other->end.device != hits.front().end.device) return std::nullopt;
  const auto* d = h.device(other->end.device);
  const auto part = library.find(d->part);
  const auto write = [&](const Hit& x) { return lower(places::shownIn(*part, *part->find(x.end.terminal), *x.by)); };
  return fmt::format("\"{}\" can be {}, or {}: write {} or {}.", text, reading(h, library, hits.front()), reading(h, library, *other),
                     write(hits.front()), write(*other));
}

Result<Address> typedEnd(const Harness& h, const parts::Library& library, const std::string& text) {
  const auto hits = endsTyped(h, library, text);
  if (hits.empty()) return fail(fmt::format("\"{}\" is no terminal on this bench: write device.terminal, such as s1.in1.", text));
  const bool ambiguous = std::ranges::any_of(hits, [&](const Hit& hit) { return hit.end.device != hits.front().end.device; });
  if (ambiguous)
    return fail(fmt::format("\"{}\" could be {} or {}: write device.terminal.", text, hits.front().end.text(), hits.back().end.text()));
  if (const auto asked = twoCounts(h, library, text, hits)) return fail(*asked);
  // Equal labels (three grounds) are one choice to most people: the first that nothing hangs on.
  for (const auto& hit : hits) {
    const bool taken = std::ranges::any_of(h.connections, [&](const Connection& c) { return c.a == hit.end || c.b == hit.end; });
    if (!taken) return hit.end;
  }
  return hits.front().end;
}

}  // namespace

std::vector<std::string> typedWords(std::string_view text) {
  std::vector<std::string> words;
  std::string word;
  for (const char c : lower(text) + " ") {
    if (c != ' ' && c != '\t') {
      word += c;
    } else if (!word.empty()) {
      words.push_back(word);
      word.clear();
    }
  }
  return words;
}

Result<Address> parseTypedEnd(const Harness& h, const parts::Library& library, std::string_view text) {
  const auto words = typedWords(text);
  return typedEnd(h, library, joined(words, 0, words.size()));
}

Result<TypedWire> parseTypedWire(const Harness& h, const parts::Library& library, std::string_view text) {
  const auto words = typedWords(text);
  if (words.size() < 2 || words.size() > kMostWords)
    return fail(std::string("A wire has two ends: write them with a space between, such as d9 s1.in1."));
  const auto both = [&](std::size_t gap) -> Result<TypedWire> {
    auto a = typedEnd(h, library, joined(words, 0, gap));
    if (!a) return fail(a.error());
    auto b = typedEnd(h, library, joined(words, gap, words.size()));
    if (!b) return fail(b.error());
    return TypedWire{*a, *b};
  };
  // Names may have spaces in them: the one gap at which both sides are ends.
  Result<TypedWire> found = both(1);
  for (std::size_t gap = 2; gap < words.size() && !found; ++gap)
    if (auto other = both(gap)) found = std::move(other);
  if (!found && words.size() > 2)
    return fail(fmt::format("\"{}\" is not two terminals on this bench: write device.terminal twice, such as uno.d9 s1.in1.",
                            joined(words, 0, words.size())));
  if (found && found->a == found->b) return fail(fmt::format("Both ends are {}.", found->a.text()));
  return found;
}

std::vector<const Device*> devicesTyped(const Harness& h, const parts::Library& library, std::string_view text) {
  const auto word = lower(text);
  std::vector<const Device*> out;
  const auto collect = [&](auto means) {
    for (const auto& d : h.devices)
      if (d.state != State::ToBeRemoved && means(d)) out.push_back(&d);
    return !out.empty();
  };
  if (word.empty() || collect([&](const Device& d) { return named(d, word); })) return out;
  (void)collect([&](const Device& d) {
    const auto part = library.find(d.part);
    return part && (std::ranges::any_of(part->words, [&](const auto& w) { return lower(w) == word; }) ||
                    std::ranges::count(typedWords(part->name), word) > 0 || lower(part->kind) == word);
  });
  return out;
}

}  // namespace bold::harness
