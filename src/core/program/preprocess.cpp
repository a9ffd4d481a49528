#include "core/program/preprocess.h"

#include <fmt/core.h>

#include <algorithm>
#include <set>
#include <utility>

#include "core/program/condition_value.h"
#include "core/program/words.h"

namespace bold::program {

void ExpandedText::append(std::string_view word, Place spelled, Place use) {
  const auto at = static_cast<std::uint32_t>(text.size());
  text += word;
  m_segments.push_back({at, static_cast<std::uint32_t>(word.size()), spelled, use});
}

Place ExpandedText::place(std::uint32_t begin, std::uint32_t end, bool use) const {
  const auto after = std::ranges::upper_bound(m_segments, begin, {}, &Segment::begin);
  if (after == m_segments.begin()) return {};
  const auto first = after - 1;
  const auto of = [&](const Segment& s) { return use ? s.use : s.spelled; };
  auto out = of(*first);
  // As far as it goes on in the same file: an expression ends with its last word.
  auto last = std::ranges::lower_bound(m_segments, end, {}, &Segment::begin);
  while (last != m_segments.begin() && (last - 1)->begin >= end) --last;
  if (last - 1 > first && of(*(last - 1)).file == out.file && of(*(last - 1)).end > out.begin) out.end = of(*(last - 1)).end;
  return out;
}

namespace {

constexpr std::size_t kMostSaid = 200;         // of an #error
constexpr int kDeepest = 32;                   // includes within includes, macros within macros
constexpr std::size_t kMostGrown = 1'000'000;  // words out of macros
constexpr std::size_t kMostText = 3'000'000;   // bytes of all that comes out: some 60,000 lines
constexpr std::size_t kMostOpen = 200;         // conditions within conditions
constexpr std::size_t kMostKept = 2'000'000;   // macros that are kept aside for conditions nobody can know
constexpr int kMostIncluded = 2000;            // files, the same one each time it comes

struct Macro {
  bool takes = false;  // parameters, maybe none
  std::vector<std::string> parameters;
  Words body;
  bool operator==(const Macro& other) const {
    return takes == other.takes && parameters == other.parameters && std::ranges::equal(body, other.body, {}, &Word::text, &Word::text);
  }
};
// More than one: which of them holds depends on what is not known.
using Macros = std::map<std::string, std::vector<Macro>, std::less<>>;

class Preprocessor {
 public:
  Preprocessor(const std::vector<SourceText>& files, const Toolchain& toolchain, std::vector<Unread>& unread,
               std::vector<std::pair<Place, std::string>>& missing)
      : m_files(files), m_toolchain(toolchain), m_unread(unread), m_missing(missing) {
    for (const auto& [name, body] : toolchain.macros) define(wordsOf(fmt::format("{} {}", name, body), -1, 0));
  }

  ExpandedText run(int file, const std::vector<int>& tabs) {
    include(file, 0);
    for (const int t : tabs) {
      m_out.append("\n");
      include(t, 0);
    }
    if (m_full || m_grown > kMostGrown || m_kept > kMostKept)
      m_unread.push_back({Place{file, 0, 0}, "its macros and includes make more than can be read: not all of it was"});
    return std::move(m_out);
  }

 private:
  const std::vector<SourceText>& m_files;
  const Toolchain& m_toolchain;
  std::vector<Unread>& m_unread;
  std::vector<std::pair<Place, std::string>>& m_missing;
  Macros m_macros;
  std::set<int> m_once;
  ExpandedText m_out;
  bool m_full = false;
  std::size_t m_grown = 0;    // words out of macros, those within others each time
  std::size_t m_kept = 0;     // macros that were kept aside
  std::size_t m_ignored = 0;  // conditions that are open and too deep to be read
  std::size_t m_off = 0;      // of the open ones: those whose branch is not read
  int m_included = 0;

  // A condition that is open, the innermost last.
  struct Open {
    bool taken = false;    // a branch of it was certain
    bool now = true;       // this branch is read
    bool unknown = false;  // its branches stand in the text as alternatives
    Macros before;         // of an unknown one
    std::vector<Macros> after;
  };
  std::vector<Open> m_open;

  void include(int file, int depth) {
    if (m_once.contains(file) || depth > kDeepest) return;
    if (++m_included > kMostIncluded) {
      m_full = true;
      return;
    }
    const auto words = wordsOf(m_files[file].text, file, 0);
    const auto opened = m_open.size();
    for (std::size_t at = 0; at < words.size() && !m_full;) {
      m_full = m_kept > kMostKept || (m_toolchain.cancelled && m_toolchain.cancelled());
      auto end = at;
      while (end < words.size() && words[end].kind != Word::Kind::LineEnd) ++end;
      if (at < end && words[at].text == "#") {
        directive(Words(words.begin() + static_cast<long>(at) + 1, words.begin() + static_cast<long>(end)), words[at].spelled, depth);
        at = end + 1;
        m_out.append("\n");
        continue;
      }
      if (reading())
        at = line(words, at, end);
      else
        at = end;
      if (at < words.size()) m_out.append("\n");
      ++at;
    }
    while (m_open.size() > opened) {
      m_unread.push_back({words.empty() ? Place{file, 0, 0} : words.back().spelled, "an #if is never ended"});
      close();
    }
  }

  bool reading() const { return m_off == 0 && m_ignored == 0; }

  // Whether the branch of the innermost condition is read from here on.
  void read(bool now) {
    auto& o = m_open.back();
    m_off += o.now ? 0 : -1;
    o.now = now;
    m_off += now ? 0 : 1;
  }

  // One line, and those that a macro's arguments go on over; returns where it ended.
  std::size_t line(const Words& words, std::size_t at, std::size_t end) {
    Words own(words.begin() + static_cast<long>(at), words.begin() + static_cast<long>(end));
    while (end < words.size() && callLeftOpen(own)) {
      auto next = end + 1;
      if (next < words.size() && words[next].text == "#") break;
      while (next < words.size() && words[next].kind != Word::Kind::LineEnd) ++next;
      own.insert(own.end(), words.begin() + static_cast<long>(end) + 1, words.begin() + static_cast<long>(next));
      m_out.append("\n");
      end = next;
    }
    std::vector<std::string_view> active;
    emit(expanded(own, active, 0));
    return end;
  }

  // The arguments of a macro are not ended on this line.
  bool callLeftOpen(const Words& own) const {
    for (std::size_t k = 0; k < own.size(); ++k) {
      const auto* m = macro(own[k]);
      if (!m || !m->front().takes || k + 1 >= own.size() || own[k + 1].text != "(") continue;
      int depth = 0;
      for (std::size_t n = k + 1; n < own.size(); ++n) {
        depth += own[n].text == "(" ? 1 : own[n].text == ")" ? -1 : 0;
        if (depth == 0) break;
      }
      if (depth > 0 && own.size() < 4000) return true;
    }
    return false;
  }

  const std::vector<Macro>* macro(const Word& w) const {
    if (w.kind != Word::Kind::Name) return nullptr;
    const auto it = m_macros.find(w.text);
    return it == m_macros.end() ? nullptr : &it->second;
  }

  void emit(const Words& words) {
    for (const auto& w : words) {
      if (w.space) m_out.append(" ");
      m_out.append(w.text, w.spelled, w.use);
    }
    m_full = m_out.text.size() > kMostText;
  }

  // ---- macros

  Words expanded(const Words& in, std::vector<std::string_view>& active, int depth) {
    Words out;
    for (std::size_t k = 0; k < in.size(); ++k) {
      const auto* m = macro(in[k]);
      if (!m || depth > kDeepest || std::ranges::count(active, in[k].text) > 0 || m_grown > kMostGrown) {
        out.push_back(in[k]);
        continue;
      }
      const auto& w = in[k];
      if (!m->front().takes) {
        active.push_back(w.text);
        put(out, either(*m, w, active, depth), w);
        active.pop_back();
        continue;
      }
      if (k + 1 >= in.size() || in[k + 1].text != "(") {
        out.push_back(w);
        continue;
      }
      std::size_t end = k + 1;
      const auto given = arguments(in, end);
      if (end >= in.size()) {  // never closed
        out.push_back(w);
        continue;
      }
      auto body = substituted(m->front(), given, active, depth);
      for (auto& b : body) b.use = Place{w.use.file, w.use.begin, std::max(w.use.end, in[end].use.end)};
      active.push_back(w.text);
      put(out, expanded(body, active, depth + 1), w);
      active.pop_back();
      k = end;
    }
    return out;
  }

  void put(Words& out, Words more, const Word& instead) {
    m_grown += more.size();
    if (!more.empty()) more.front().space = instead.space || more.front().space;
    for (auto& m : more) m.use = m.use.file < 0 || m.use == m.spelled ? instead.use : m.use;
    out.insert(out.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
  }

  // What may be one thing or another is called so: the reader of the tree knows the name.
  Words either(const std::vector<Macro>& of, const Word& w, std::vector<std::string_view>& active, int depth) {
    if (of.size() == 1) {
      auto body = of.front().body;
      for (auto& b : body) b.use = w.use;
      return expanded(body, active, depth + 1);
    }
    const auto sign = [&](const char* text) { return Word{Word::Kind::Sign, text, w.spelled, w.use, false}; };
    Words out{Word{Word::Kind::Name, "__either", w.spelled, w.use, false}, sign("(")};
    for (std::size_t i = 0; i < of.size(); ++i) {
      if (i > 0) out.push_back(sign(","));
      auto body = expanded(of[i].body, active, depth + 1);
      for (auto& b : body) b.use = w.use;
      out.insert(out.end(), body.begin(), body.end());
    }
    out.push_back(sign(")"));
    return out;
  }

  // From the bracket on; `end` becomes where it closes.
  static std::vector<Words> arguments(const Words& in, std::size_t& end) {
    std::vector<Words> out(1);
    int depth = 0;
    for (; end < in.size(); ++end) {
      const auto& t = in[end].text;
      if (t == "(" && depth++ == 0) continue;
      if (t == ")" && --depth == 0) break;
      if (t == "," && depth == 1)
        out.emplace_back();
      else
        out.back().push_back(in[end]);
    }
    return out;
  }

  Words substituted(const Macro& m, const std::vector<Words>& given, std::vector<std::string_view>& active, int depth) {
    const auto argument = [&](const Word& w) -> std::optional<Words> {
      if (w.kind != Word::Kind::Name) return std::nullopt;
      if (w.text == "__VA_ARGS__") {
        Words all;
        for (auto k = m.parameters.size() - (m.parameters.empty() ? 0 : 1); k < given.size(); ++k) {
          if (!all.empty()) all.push_back({Word::Kind::Sign, ",", w.spelled, w.use, false});
          all.insert(all.end(), given[k].begin(), given[k].end());
        }
        return all;
      }
      const auto it = std::ranges::find(m.parameters, w.text);
      if (it == m.parameters.end()) return std::nullopt;
      const auto k = static_cast<std::size_t>(it - m.parameters.begin());
      return k < given.size() ? given[k] : Words{};
    };
    Words out;
    for (std::size_t k = 0; k < m.body.size(); ++k) {
      const auto& w = m.body[k];
      if (w.text == "#" && k + 1 < m.body.size())
        if (const auto a = argument(m.body[k + 1])) {
          std::string text;
          for (const auto& t : *a) text += (t.space && !text.empty() ? " " : "") + t.text;
          out.push_back({Word::Kind::Text, "\"" + text + "\"", w.spelled, w.use, w.space});
          ++k;
          continue;
        }
      if (w.text == "##" && !out.empty() && k + 1 < m.body.size()) {
        const auto a = argument(m.body[k + 1]);
        const Words right = a ? *a : Words{m.body[k + 1]};
        if (!right.empty()) {
          out.back().text += right.front().text;
          if (out.back().kind == Word::Kind::Sign) out.back().kind = right.front().kind;
          out.insert(out.end(), right.begin() + 1, right.end());
        }
        ++k;
        continue;
      }
      if (auto a = argument(w)) {
        const bool joined = k + 1 < m.body.size() && m.body[k + 1].text == "##";
        Words own = joined ? *a : expanded(*a, active, depth + 1);
        if (!own.empty()) own.front().space = w.space;
        out.insert(out.end(), own.begin(), own.end());
      } else
        out.push_back(w);
      if (out.size() > kMostText / 8) break;
    }
    return out;
  }

  void define(const Words& words) {
    if (words.empty() || words.front().kind != Word::Kind::Name) return;
    Macro m;
    const auto name = words.front().text;
    std::size_t at = 1;
    if (words.size() > 1 && words[1].text == "(" && !words[1].space) {
      m.takes = true;
      for (at = 2; at < words.size() && words[at].text != ")"; ++at)
        if (words[at].kind == Word::Kind::Name || words[at].text == "...")
          m.parameters.push_back(words[at].text == "..." ? "__VA_ARGS__" : words[at].text);
      at = std::min(at + 1, words.size());
    }
    m.body.assign(words.begin() + static_cast<long>(at), words.end());
    if (!m.body.empty()) m.body.front().space = false;
    m_macros[name] = {std::move(m)};
  }

  // ---- directives

  void directive(const Words& words, Place at, int depth) {
    const auto name = words.empty() ? std::string() : words.front().text;
    const Words rest(words.begin() + (words.empty() ? 0 : 1), words.end());
    if (name == "if" || name == "ifdef" || name == "ifndef") return open(name, rest, at);
    if (m_ignored > 0 && (name == "elif" || name == "else")) return;
    if (m_ignored > 0 && name == "endif") return void(--m_ignored);
    if (name == "elif" || name == "else") return next(name, rest, at);
    if (name == "endif") return m_open.empty() ? m_unread.push_back({at, "an #endif without its #if"}) : close();
    if (!reading()) return;
    if (name == "define")
      define(rest);
    else if (name == "undef" && !rest.empty())
      m_macros.erase(rest.front().text);
    else if (name == "pragma" && !rest.empty() && rest.front().text == "once")
      m_once.insert(at.file);
    else if (name == "include" || name == "import")
      includes(rest, at, depth);
    else if (name == "error" && std::ranges::none_of(m_open, &Open::unknown))
      m_unread.push_back(
          {at, fmt::format("the program says of itself that it is not for this board, or not set up: {}", plainText(rest)), {}, true});
    // #warning, #line and others say nothing of pins.
  }

  static std::string plainText(const Words& words) {
    std::string out;
    for (const auto& w : words) {
      if (w.space && !out.empty()) out += ' ';
      for (const char c : w.text)  // one line, however it is written
        if (static_cast<unsigned char>(c) >= ' ' && c != '\\') out += c;
      if (out.size() > kMostSaid) break;
    }
    if (out.size() >= 2 && out.front() == '"' && out.back() == '"') out = out.substr(1, out.size() - 2);
    return out.empty() ? "#error" : "\"" + out + "\"";
  }

  void includes(Words rest, Place at, int depth) {
    std::vector<std::string_view> active;
    if (!rest.empty() && rest.front().kind == Word::Kind::Name) rest = expanded(rest, active, 0);
    if (rest.empty()) return;
    std::string file;
    const bool quoted = rest.front().kind == Word::Kind::Text;
    if (quoted && rest.front().text.size() >= 2)
      file = rest.front().text.substr(1, rest.front().text.size() - 2);
    else
      for (std::size_t k = 1; k < rest.size() && rest[k].text != ">"; ++k) file += rest[k].text;
    const int found = m_toolchain.include(at.file, file);
    if (found >= 0) {
      // A file that says so of itself comes once: its own #pragma is read with it, so that it is asked for here.
      const bool once = m_files[found].text.find("#pragma once") != std::string::npos;
      include(found, depth + 1);
      if (once) m_once.insert(found);
    } else if (quoted)
      m_missing.emplace_back(Place{at.file, at.begin, rest.back().spelled.end}, file);
  }

  std::optional<long long> value(const std::string& directive, const Words& condition) {
    const auto isDefined = [&](const std::string& name) -> std::optional<long long> {
      if (m_macros.contains(name)) return 1;
      const auto known = m_toolchain.defines(name);
      return known ? std::optional<long long>(*known) : std::nullopt;
    };
    if (directive == "ifdef" || directive == "ifndef") {
      if (condition.empty()) return 0;
      const auto d = isDefined(condition.front().text);
      return d && directive == "ifndef" ? std::optional<long long>(*d == 0) : d;
    }
    // What stands behind "defined" is a name, not what it stands for.
    Words plain;
    for (std::size_t k = 0; k < condition.size(); ++k) {
      if (condition[k].text != "defined") {
        plain.push_back(condition[k]);
        continue;
      }
      const bool bracket = k + 1 < condition.size() && condition[k + 1].text == "(";
      const auto at = k + (bracket ? 2 : 1);
      if (at >= condition.size()) return std::nullopt;
      const auto d = isDefined(condition[at].text);
      plain.push_back({d ? Word::Kind::Number : Word::Kind::Name, d ? std::to_string(*d) : "__unknown", {}, {}, true});
      k = at + (bracket ? 1 : 0);
    }
    std::vector<std::string_view> active;
    return conditionValue(expanded(plain, active, 0), [&](const std::string& name) -> std::optional<long long> {
      if (name == "__unknown") return std::nullopt;
      const auto known = m_toolchain.defines(name);  // a name that nobody defined counts as 0
      return known && !*known ? std::optional<long long>(0) : std::nullopt;
    });
  }

  void open(const std::string& name, const Words& condition, Place at) {
    if (m_open.size() >= kMostOpen) {
      if (m_ignored++ == 0) m_unread.push_back({at, "its conditions lie too deep within each other: what stands in them was not read"});
      return;
    }
    const bool outer = reading();
    m_open.emplace_back();
    auto& o = m_open.back();
    if (!outer) {
      o.taken = true;
      read(false);
      return;
    }
    const auto v = value(name, condition);
    o.unknown = !v;
    o.taken = v && *v != 0;
    read(!v || *v != 0);
    if (o.unknown) {
      keep(o.before);
      m_out.append("\n#if X\n");
    }
  }

  // What was defined before a condition that nobody can know.
  void keep(Macros& aside) {
    m_kept += m_macros.size();
    if (m_kept <= kMostKept) aside = m_macros;
  }

  void next(const std::string& name, const Words& condition, Place at) {
    if (m_open.empty()) return m_unread.push_back({at, fmt::format("an #{} without its #if", name)});
    auto& o = m_open.back();
    if (o.taken) return read(false);  // the branches after a certain one are never compiled
    read(true);
    const auto v = name == "else" ? std::optional<long long>(1) : value("if", condition);
    if (!o.unknown) {
      if (v) {
        o.taken = *v != 0;
        return read(o.taken);
      }
      o.unknown = true;
      keep(o.before);
      m_out.append("\n#if X\n");
      return;
    }
    if (v && *v == 0) return read(false);
    m_kept += o.before.size();
    if (m_kept > kMostKept) return;
    o.after.push_back(std::exchange(m_macros, o.before));
    m_out.append(v ? "\n#else\n" : "\n#elif X\n");
    o.taken = v.has_value();  // nothing comes after it that is compiled
  }

  void close() {
    read(true);
    auto o = std::move(m_open.back());
    m_open.pop_back();
    if (!o.unknown) return;
    m_out.append("\n#endif\n");
    o.after.push_back(std::move(m_macros));
    m_macros = std::move(o.before);
    for (const auto& branch : o.after)
      for (const auto& [name, what] : branch) {
        const auto was = m_macros.find(name);
        if (was != m_macros.end() && was->second == what) continue;
        auto& all = merged(name, o.after);
        m_macros[name] = all;
      }
  }

  std::vector<Macro> m_merging;
  std::vector<Macro>& merged(const std::string& name, const std::vector<Macros>& branches) {
    m_merging.clear();
    for (const auto& branch : branches)
      if (const auto it = branch.find(name); it != branch.end())
        for (const auto& m : it->second)
          if (std::ranges::count(m_merging, m) == 0 && m_merging.size() < 8) m_merging.push_back(m);
    return m_merging;
  }
};

}  // namespace

ExpandedText preprocess(const std::vector<SourceText>& files, int file, const std::vector<int>& tabs, const Toolchain& toolchain,
                        std::vector<Unread>& unread, std::vector<std::pair<Place, std::string>>& missing) {
  return Preprocessor(files, toolchain, unread, missing).run(file, tabs);
}

}  // namespace bold::program
