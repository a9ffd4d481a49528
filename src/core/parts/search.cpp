#include "core/parts/search.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "core/base/lower.h"
#include "core/base/number.h"

namespace bold::parts {
namespace {

constexpr double kFigureWeight = 6;  // of a figure that is met exactly; a word at the start of a name counts 5
constexpr double kFar = 0.25;        // relative distance at which a figure no longer counts
constexpr double kPlain = 0.5;       // at most, for a name of one word
constexpr double kNearEnough = 0.4;  // of a figure's weight: below it a query of figures alone is not met

bool digit(char c) {
  return std::isdigit(static_cast<unsigned char>(c)) != 0;
}

std::vector<std::string> split(std::string_view text) {
  std::vector<std::string> out;
  std::string word;
  for (const char c : lower(text) + " ") {
    if (c != ' ' && c != ',' && c != ';') {
      word += c;
    } else if (!word.empty()) {
      out.push_back(word);
      word.clear();
    }
  }
  return out;
}

// Units as people type them, in lower case.
std::optional<std::pair<double, Unit>> unitOf(const std::string& word) {
  static const std::vector<std::pair<std::string, std::pair<double, Unit>>> all{
      {"v", {1, Unit::Volt}},     {"volt", {1, Unit::Volt}},   {"mv", {1e-3, Unit::Volt}}, {"a", {1, Unit::Amp}},
      {"amp", {1, Unit::Amp}},    {"ma", {1e-3, Unit::Amp}},   {"ohm", {1, Unit::Ohm}},    {"mohm", {1e-3, Unit::Ohm}},
      {"kohm", {1e3, Unit::Ohm}}, {"mh", {1e-3, Unit::Henry}}, {"uh", {1e-6, Unit::Henry}}};
  for (const auto& [name, unit] : all)
    if (name == word) return unit;
  return std::nullopt;
}

// "1.5" and what follows it in the same word: "1.5a" gives 1.5 and "a". A number has a digit first.
std::optional<std::pair<double, std::string>> numberIn(const std::string& word) {
  std::size_t end = 0;
  while (end < word.size() && (digit(word[end]) || (word[end] == '.' && end > 0))) ++end;
  if (end == 0) return std::nullopt;
  return std::pair{realAtStart(word.substr(0, end)).value_or(0), word.substr(end)};
}

// A resistance as it is printed (IEC 60062), in lower case: "r100" is 0.1 ohm, "4r7" 4.7 ohm, "220r" 220 ohm, "4k7" 4.7 kohm.
std::optional<double> printedOhms(const std::string& word) {
  const auto at = word.find_first_of("rk");
  if (at == std::string::npos || word.size() < 2 || word.size() > 6) return std::nullopt;
  auto digits = word;
  digits[at] = '.';
  if (!std::ranges::all_of(digits, [](char c) { return digit(c) || c == '.'; }) || std::ranges::count(digits, '.') != 1)
    return std::nullopt;
  const bool kilo = word[at] == 'k';
  if (kilo && (at == 0 || at + 1 == word.size())) return std::nullopt;  // "10k" is a word that parts have
  return realAtStart("0" + digits).value_or(0) * (kilo ? 1e3 : 1);
}

// "4xaa", "4 x aa": the cross only says how many.
std::vector<std::string> withoutCross(const std::vector<std::string>& words) {
  std::vector<std::string> out;
  for (const auto& word : words) {
    if (word == "x" || word == "\u00d7") continue;
    const auto number = numberIn(word);
    const bool crossed = number && number->second.size() > 1 && (number->second.front() == 'x' || number->second.starts_with("\u00d7"));
    if (!crossed) {
      out.push_back(word);
      continue;
    }
    out.push_back(word.substr(0, word.size() - number->second.size()));
    out.push_back(number->second.substr(number->second.front() == 'x' ? 1 : 2));
  }
  return out;
}

double wordScore(const Part& p, const std::string& word) {
  const std::string id = lower(p.id);
  const std::string name = lower(p.name);
  double s = 0;
  if ((lower(p.summary) + " " + lower(p.kind)).find(word) != std::string::npos) s = 1;
  for (const auto& w : p.words) {
    if (lower(w).find(word) != std::string::npos) s = std::max(s, 1.0);
    if (lower(w) == word) s = std::max(s, 4.0);
  }
  if (id.find(word) != std::string::npos) s = std::max(s, 3.0);
  if (name.find(word) != std::string::npos) s = std::max(s, name.starts_with(word) ? 5.0 : 3.0);
  return s;
}

// 1 when a figure of the part is this or has it between its ends; less with distance.
double figureScore(const Part& p, AnyQuantity wanted) {
  double best = 0;
  for (const auto& f : p.figures) {
    if (f.figure.unit != wanted.unit) continue;
    const auto typ = f.figure.typical();
    if (!typ) continue;
    double s = 1 - std::abs(*typ - wanted.value) / std::max(std::abs(wanted.value), 1e-12) / kFar;
    const bool between = (f.figure.spreadMin && *f.figure.spreadMin <= wanted.value && wanted.value <= *f.figure.spreadMax) ||
                         (f.figure.min && f.figure.max && *f.figure.min <= wanted.value && wanted.value <= *f.figure.max);
    if (between) s = std::max(s, 0.5);
    best = std::max(best, s);
  }
  return best;
}

}  // namespace

Query parseQuery(std::string_view text) {
  Query q;
  const auto tokens = withoutCross(split(text));
  for (std::size_t i = 0; i < tokens.size(); ++i) {
    const auto number = numberIn(tokens[i]);
    if (const auto ohms = printedOhms(tokens[i])) {
      q.figures.emplace_back(*ohms, Unit::Ohm);
      q.figureWords.emplace_back();
      q.words.emplace_back("resistor");
      continue;
    }
    if (number) {
      auto unit = unitOf(number->second);
      const bool apart = number->second.empty() && i + 1 < tokens.size() && unitOf(tokens[i + 1]);
      if (apart) unit = unitOf(tokens[++i]);
      if (unit) {
        q.figures.emplace_back(number->first * unit->first, unit->second);
        const bool named = i + 1 < tokens.size() && !numberIn(tokens[i + 1]);
        q.figureWords.push_back(named ? tokens[i + 1] : std::string());
        continue;
      }
    }
    q.words.push_back(tokens[i]);
  }
  return q;
}

double score(const Part& p, const Query& q) {
  double total = 0;
  for (const auto& w : q.words) {
    const double s = wordScore(p, w);
    if (s == 0) return 0;
    total += s;
  }
  double least = 1;
  double figures = 0;
  for (const auto& f : q.figures) {
    const double s = figureScore(p, f);
    least = std::min(least, s);
    figures += kFigureWeight * std::max(s, 0.0);
    // A figure that stands in the part's own name is what people read off it.
    auto plain = displayText(f);
    std::erase(plain, ' ');
    if (lower(p.id).find(lower(plain)) != std::string::npos) figures += 1;
  }
  // Of two that have the word alike it is the plainer one: a USB port before a USB measuring unit of eight lines.
  if (!q.words.empty()) total += kPlain / static_cast<double>(1 + std::ranges::count(p.name, ' '));
  if (!q.figures.empty() && q.words.empty() && least < kNearEnough) return 0;
  return total + figures + (q.words.empty() && q.figures.empty() ? 1 : 0) + 0.5;
}

bool naturallyBefore(std::string_view a, std::string_view b) {
  std::size_t i = 0;
  std::size_t k = 0;
  while (i < a.size() && k < b.size()) {
    if (digit(a[i]) && digit(b[k])) {
      const auto number = [](std::string_view s, std::size_t& at) {
        double n = 0;
        while (at < s.size() && digit(s[at])) n = 10 * n + (s[at++] - '0');
        return n;
      };
      const double x = number(a, i);
      const double y = number(b, k);
      if (x != y) return x < y;
      continue;
    }
    if (a[i] != b[k]) return a[i] < b[k];
    ++i;
    ++k;
  }
  return a.size() - i < b.size() - k;
}

}  // namespace bold::parts
