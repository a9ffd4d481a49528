#include "core/report/named_faults.h"

#include <algorithm>
#include <array>
#include <map>
#include <set>

#include "core/harness/typed_end.h"

namespace bold::report {
namespace {

constexpr std::size_t kLongestName = 3;  // words of a device or terminal
constexpr int kTerminal = 4, kDevice = 2, kWord = 1;
constexpr int kEnough = 3;  // a terminal; a device and a word
constexpr int kEnoughWords = 2;

bool letterOrDigit(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '+' || c == '-' || c == '.' || static_cast<unsigned char>(c) >= 0x80U;
}

std::vector<std::string> wordsOf(std::string text) {
  std::ranges::replace_if(
      text, [](char c) { return !letterOrDigit(c); }, ' ');
  return harness::typedWords(text);
}

// What people say for one thing.
std::string stem(const std::string& word) {
  static const std::map<std::string, std::string> kSame{
      {"gnd", "ground"},     {"grounds", "ground"},   {"earth", "ground"},       {"backwards", "reversed"},
      {"wrong", "reversed"}, {"swapped", "reversed"}, {"exchanged", "reversed"}, {"crossed", "reversed"},
      {"floating", "open"},  {"floats", "open"},      {"unconnected", "open"},   {"loose", "open"},
      {"nothing", "open"},   {"missing", "no"},       {"without", "no"},         {"not", "no"},
      {"none", "no"},        {"forgotten", "no"},     {"supply", "power"},       {"volts", "voltage"},
      {"amps", "current"},   {"driven", "drive"},     {"drives", "drive"},       {"driving", "drive"},
      {"cannot", "no"}};
  const auto it = kSame.find(word);
  if (it != kSame.end()) return it->second;
  if (word.size() > 4 && word.ends_with('s') && !word.ends_with("ss")) return word.substr(0, word.size() - 1);
  return word;
}

bool says(const std::string& word) {
  static const std::set<std::string> kEmpty{"the", "a",   "an",   "is",   "are",  "it",  "its",  "of",   "on",   "in", "at",
                                            "to",  "and", "or",   "that", "this", "for", "by",   "with", "from", "be", "has",
                                            "so",  "as",  "than", "too",  "will", "can", "does", "do",   "wire"};
  return word.size() > 1 && !kEmpty.contains(word);
}

std::set<std::string> sayings(const std::string& text) {
  std::set<std::string> out;
  for (const auto& w : wordsOf(text))
    if (says(w)) out.insert(stem(w));
  return out;
}

// Devices and terminals that a line speaks of, and its other words.
struct Line {
  std::set<std::string> devices, terminals, words;
};

class Reader {
 public:
  Reader(const harness::Harness& h, const parts::Library& library) : m_h(h), m_library(library) {}

  Line read(const std::string& text) const {
    Line out;
    out.words = sayings(text);
    const auto words = wordsOf(text);
    for (std::size_t from = 0; from < words.size(); ++from) {
      std::string name;
      for (std::size_t n = 0; n < kLongestName && from + n < words.size(); ++n) {
        name += (n == 0 ? "" : " ") + words[from + n];
        if (const auto end = harness::parseTypedEnd(m_h, m_library, name)) {
          out.terminals.insert(end->text());
          out.devices.insert(end->device);
        }
        for (const auto& d : m_h.devices) {
          const auto called = harness::typedWords(d.called());
          std::string lower;
          for (const auto& w : called) lower += (lower.empty() ? "" : " ") + w;
          if (lower == name || harness::typedWords(d.id).front() == name) out.devices.insert(d.id);
        }
      }
    }
    return out;
  }

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
};

// The devices and terminals that a finding is about; of a connection both ends.
Line about(const harness::Harness& h, const checks::Finding& f) {
  Line out;
  const auto add = [&](const Address& a) {
    out.terminals.insert(a.text());
    out.devices.insert(a.device);
  };
  for (const auto& s : f.subjects) {
    if (const auto* c = h.connection(s)) {
      add(c->a);
      add(c->b);
    } else if (h.device(s)) {
      out.devices.insert(s);
    } else if (const auto a = parseAddress(s)) {
      add(*a);
    }
  }
  out.words = sayings(f.headline);
  out.words.merge(sayings(f.text));
  auto id = f.check;
  std::ranges::replace(id, '-', ' ');
  out.words.merge(sayings(id));
  if (const auto* check = checks::findCheck(f.check)) out.words.merge(sayings(std::string(check->title)));
  return out;
}

int common(const std::set<std::string>& a, const std::set<std::string>& b) {
  return static_cast<int>(std::ranges::count_if(a, [&](const auto& x) { return b.contains(x); }));
}

// 0: it does not name it.
int fits(const Line& line, const Line& finding) {
  const int terminals = common(line.terminals, finding.terminals);
  const int devices = common(line.devices, finding.devices);
  const int words = common(line.words, finding.words);
  const int score = kTerminal * terminals + kDevice * std::min(devices, 2) + kWord * words;
  const bool placed = terminals + devices > 0;
  if (!placed && !line.devices.empty()) return 0;  // it speaks of another part
  return (placed && score >= kEnough) || (!placed && words >= kEnoughWords) ? score : 0;
}

}  // namespace

NamedFaults compareNamed(const harness::Harness& h, const parts::Library& library, const Analysis& a,
                         const std::vector<std::string>& lines) {
  const Reader reader(h, library);
  std::vector<std::pair<const checks::Finding*, Line>> findings;
  for (const auto& f : a.findings)
    if (f.severity != checks::Severity::Note) findings.emplace_back(&f, about(h, f));
  const auto cause = [&](const checks::Finding& f) { return f.explainedBy.empty() ? f.identity() : f.explainedBy; };
  NamedFaults out;
  std::set<std::string> hit;
  for (const auto& text : lines) {
    if (wordsOf(text).empty()) continue;
    const auto line = reader.read(text);
    int best = 0;
    for (const auto& [f, what] : findings) best = std::max(best, fits(line, what));
    NamedFault named{text, {}};
    for (const auto& [f, what] : findings)
      if (best > 0 && fits(line, what) == best && std::ranges::count(named.means, cause(*f)) == 0) named.means.push_back(cause(*f));
    hit.insert(named.means.begin(), named.means.end());
    out.named.push_back(std::move(named));
  }
  for (const auto& [f, what] : findings)
    if (f->explainedBy.empty() && !hit.contains(f->identity())) out.missed.push_back(f->identity());
  return out;
}

}  // namespace bold::report
