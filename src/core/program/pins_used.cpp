#include "core/program/pins_used.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/program/board_words.h"
#include "core/program/keep_readable.h"
#include "core/program/pin_names.h"
#include "core/program/pulses.h"
#include "core/program/standing_levels.h"

namespace bold::program {

using harness::PinGroup;
using harness::PinUse;
using harness::SourceRead;
using harness::Spot;

namespace {

constexpr std::size_t kMostPlaces = 12;
constexpr std::size_t kMostUntold = 100;
constexpr std::size_t kMostNamed = 5'000;  // words of what could not be read

class Collecting {
 public:
  Collecting(const ReadProgram& program, const std::string& controller, const parts::Part& part, const PublicCalls& calls,
             const std::string& prefix)
      : m_program(program), m_part(part), m_calls(calls), m_prefix(prefix) {
    m_out.controller = controller;
  }

  SourceRead run() {
    for (const auto& f : m_program.sources.files) m_out.files.push_back({m_prefix + f.file, f.digest});
    const auto& followed = m_program.followed;
    if (followed.counted.file >= 0) m_out.counted = spot(followed.counted);
    for (const auto& e : followed.events)
      if (e.reached) event(e);
    // What nobody calls drives nothing: it only tells of pins that are named nowhere else.
    m_reached = m_out.pins.size();
    for (const auto& e : followed.events)
      if (!e.reached) event(e);
    outputsNeverWritten();
    openEffects();
    pullsByLevel();
    shares();
    channels();
    together();
    timings();
    firstLevels(followed, m_out);
    offLevels(
        followed, [this](const PinWord& p) { return use(p, false); }, m_out);
    lastLevels(followed, m_out);
    return std::move(m_out);
  }

 private:
  const ReadProgram& m_program;
  const parts::Part& m_part;
  const PublicCalls& m_calls;
  const std::string& m_prefix;
  SourceRead m_out;
  std::set<std::size_t> m_unknownDuty;                        // uses that get a duty which is not known
  std::size_t m_reached = 0;                                  // pins that are named where the program comes to
  std::map<std::string, std::size_t> m_byWord;                // PinWord::word and numbering -> use
  std::set<std::pair<std::uint64_t, std::string>> m_counted;  // places that name a pin
  std::map<std::size_t, std::set<std::string>> m_placed;      // what of a use has a place already
  std::map<int, std::size_t> m_groupOf;                       // object -> group

  static std::string list(const std::vector<PinWord>& pins) {
    std::string out;
    for (const auto& p : pins) out += (out.empty() ? "" : ", ") + (p.name.empty() ? p.word : p.name + " (" + p.word + ")");
    return out;
  }

  Spot spot(const Place& p) const {
    if (p.file < 0) return {};
    const auto& f = m_program.sources.files[p.file];
    Spot out{m_prefix + f.file, f.line(p.begin), f.column(p.begin), 0};
    const auto lineEnd = f.text.find('\n', p.begin);
    const auto end = std::min<std::size_t>(p.end, lineEnd == std::string::npos ? f.text.size() : lineEnd);
    out.length = end > p.begin ? f.column(static_cast<std::uint32_t>(end)) - out.column : 0;
    return out;
  }

  // ---- what is open

  void openEffects() {
    const auto& followed = m_program.followed;
    // What one thing does with pins is one effect.
    struct Effect {
      std::string name;
      Place place;
      std::vector<PinWord> handed;
      bool unnamed = false;
    };
    std::vector<Effect> effects;
    for (const auto& u : followed.unknown) {
      const auto root = u.name.substr(0, u.name.find_first_of(".:"));
      auto handed = u.pins;
      std::erase_if(handed, [&](const PinWord& p) { return terminalsOf({p}).empty(); });  // other numbers and texts
      auto it = std::ranges::find_if(effects, [&](const Effect& e) { return e.name.substr(0, e.name.find_first_of(".:")) == root; });
      if (it == effects.end()) it = effects.insert(effects.end(), {u.name, u.place, {}, false});
      it->unnamed = it->unnamed || handed.empty();
      for (const auto& p : handed)
        if (std::ranges::count(it->handed, p.word, &PinWord::word) == 0) it->handed.push_back(p);
    }
    for (const auto& e : effects) {
      if (!e.handed.empty()) {
        ++m_out.asked;
        untold(fmt::format("{} is nothing that is described: what it does with {} is not known", e.name, list(e.handed)), spot(e.place),
               harness::Untold::Reach::Listed, terminalsOf(e.handed));
      }
      if (e.unnamed)
        untold(fmt::format("{} is nothing that is described: it may drive pins that the source does not name", e.name), spot(e.place),
               harness::Untold::Reach::Unnamed);
    }
    for (const auto& u : followed.unread) {
      const auto& region = u.region.file >= 0 ? u.region : u.place;
      if (u.every || region.begin == region.end) {
        untold(u.why, spot(u.place), harness::Untold::Reach::Every);
        continue;
      }
      std::set<std::string> pins, seen;
      pinsNamedIn(region, pins, seen);
      untold(u.why, spot(u.place), harness::Untold::Reach::Listed, {pins.begin(), pins.end()});
    }
    if (followed.tooMuch) untold("there was too much to follow: not all of it was", {}, harness::Untold::Reach::Every);
  }

  std::vector<std::string> terminalsOf(const std::vector<PinWord>& words) const {
    std::set<std::string> out;
    for (const auto& p : words)
      if (const int t = terminalOf(m_part, p, false, m_calls); t >= 0 && m_part.terminals[t].pin) out.insert(m_part.terminals[t].id);
    return {out.begin(), out.end()};
  }

  // Pins whose names or numbers stand in a part of a source, or in the functions that it names.
  void pinsNamedIn(const Place& where, std::set<std::string>& pins, std::set<std::string>& seen) const {
    if (where.file < 0 || seen.size() > kMostNamed) return;
    const auto& text = m_program.sources.files[where.file].text;
    const auto letter = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_' || (c & 0x80); };
    for (std::size_t at = where.begin, end; at < std::min<std::size_t>(where.end, text.size()); at = end) {
      end = at + 1;
      if (!letter(text[at])) continue;
      while (end < text.size() && letter(text[end])) ++end;
      auto word = text.substr(at, end - at);
      if (!seen.insert(word).second || seen.size() > kMostNamed) continue;
      const auto& followed = m_program.followed;
      std::vector<PinWord> meant;
      if (const auto it = followed.names.find(word); it != followed.names.end()) meant = it->second;
      if (const auto it = followed.functions.find(word); it != followed.functions.end()) pinsNamedIn(it->second, pins, seen);
      const bool isNumber = std::isdigit(static_cast<unsigned char>(word[0]));
      meant.push_back({word, isNumber ? "program" : "name", "", "", {}, "", false});
      for (const auto& t : terminalsOf(meant)) pins.insert(t);
      for (const auto& u : m_out.pins)
        if (!u.terminal.empty() && (u.name == word || u.word == word)) pins.insert(u.terminal);
    }
  }

  // An output that nobody writes stands low.
  void outputsNeverWritten() {
    for (auto& u : m_out.pins) {
      const auto has = [&](const char* what) { return u.does.contains(what); };
      if (has("output") && !has("write") && !has("high") && !has("low") && !has("pwm") && !has("serial") && !has("bus") && !has("read"))
        u.does.insert("low");
    }
  }

  void untold(std::string what, Spot where, harness::Untold::Reach reach, std::vector<std::string> pins = {}) {
    std::ranges::replace_if(
        what, [](char c) { return c >= 0 && c < ' '; }, ' ');  // names of files may hold anything
    if (std::ranges::any_of(m_out.untold, [&](const auto& u) { return u.place == where && u.what == what; })) return;
    if (m_out.untold.size() < kMostUntold)
      m_out.untold.push_back({std::move(what), std::move(where), reach, std::move(pins)});
    else  // it is not listed any more, and counts all the same
      m_out.untold.back() = {"more could not be told than is listed", {}, harness::Untold::Reach::Every, {}};
  }

  // A pin of the chip that the board brings to nothing outside.
  bool inside(const std::string& word) const {
    const auto it = m_calls.boards.find(m_part.id);
    return it != m_calls.boards.end() && std::ranges::count(it->second.inside, word) > 0;
  }

  // One pin of a program, however often and by which words it is named.
  std::size_t use(const PinWord& p, bool analog) {
    const auto key = p.numbering + " " + p.word + (analog ? " a" : "");
    if (const auto it = m_byWord.find(key); it != m_byWord.end()) return it->second;
    const int t = terminalOf(m_part, p, analog, m_calls);
    const auto terminal = t < 0 ? std::string() : m_part.terminals[t].id;
    for (std::size_t k = 0; k < m_out.pins.size(); ++k)
      if (!terminal.empty() && m_out.pins[k].terminal == terminal) return m_byWord[key] = k;
    PinUse u;
    u.word = p.word;
    u.numbering = p.numbering == "name" || p.numbering == "register" ? "printed" : p.numbering;
    u.terminal = terminal;
    u.sure = false;
    u.onBoard = t < 0 && inside(p.word);
    m_out.pins.push_back(std::move(u));
    return m_byWord[key] = m_out.pins.size() - 1;
  }

  void does(std::size_t k, const std::string& what, const Event& e) {
    auto& u = m_out.pins[k];
    u.does.insert(what);
    if (m_placed[k].insert(what).second && u.places.size() < kMostPlaces) {
      const auto at = spot(e.place);
      if (at.line > 0 && std::ranges::count(u.places, at) == 0) u.places.push_back(at);
    }
  }

  static std::optional<double> num(const Event& e, const std::string& role) {
    const auto it = e.facts.find(role);
    return it != e.facts.end() && it->second.isNumber() ? std::optional(it->second.number) : std::nullopt;
  }
  static std::string text(const Event& e, const std::string& role) {
    const auto it = e.facts.find(role);
    return it != e.facts.end() && it->second.kind == Value::Kind::Text ? it->second.text : std::string();
  }

  void levels(std::size_t k, const Event& e, const std::string& role) {
    const auto it = e.facts.find(role);
    if (it == e.facts.end()) return;
    for (const auto& v : choices(it->second)) {
      const auto t = truth(v);
      if (!t || *t) does(k, "high", e);
      if (!t || !*t) does(k, "low", e);
      if (!t) does(k, "pulse", e);  // now this, now that
    }
  }

  void pwm(std::size_t k, const Event& e) {
    auto& u = m_out.pins[k];
    does(k, "pwm", e);
    if (e.call) does(k, "output", e);  // a compare register drives its pin only where its direction says so
    if (const auto f = num(e, "frequency"); f && *f > 0) u.frequency = Hertz{*f};
    const auto it = e.facts.find("duty");
    if (it == e.facts.end()) return;
    const auto scale = num(e, "scale");
    for (const auto& v : choices(it->second)) {
      if (!v.isNumber()) {
        does(k, "high", e);
        m_unknownDuty.insert(k);
        continue;
      }
      does(k, v.number == 0 ? "low" : "high", e);  // what is negative wraps round in the timer
      if (!scale || *scale <= 0) continue;
      const auto share = v.number / *scale;
      if (share < 0 || (u.written && *u.written < 0)) {
        u.written = std::min(v.number, u.written.value_or(0));
        u.scale = *scale;
        continue;
      }
      if (!u.written || share > *u.written / *u.scale) {
        u.written = v.number;
        u.scale = *scale;
      }
      u.duty = std::max(u.duty.value_or(0), std::clamp(share, 0.0, 1.0));
    }
  }

  void mode(std::size_t k, const Event& e) {
    const auto m = text(e, "mode");
    if (m.starts_with("output")) does(k, "output", e);
    if (m.starts_with("input")) does(k, "input", e);
    if (m.ends_with("pull-up")) does(k, "pull-up", e);
    if (m.ends_with("pull-down")) does(k, "pull-down", e);
    pulls(k, e);
    if (text(e, "soft") == "yes") does(k, "soft", e);
    if (e.facts.contains("level") && m.starts_with("output")) {
      does(k, "write", e);
      levels(k, e, "level");
    }
    if (const auto f = num(e, "frequency"); f && *f > 0) m_out.pins[k].frequency = Hertz{*f};
  }

  void pulls(std::size_t k, const Event& e) {
    const auto pull = text(e, "pull");
    if (pull == "up") does(k, "pull-up", e);
    if (pull == "down") does(k, "pull-down", e);
    const auto up = e.facts.find("up");
    if (up != e.facts.end())
      if (truth(up->second).value_or(false)) does(k, "pull-up", e);
  }

  void one(std::size_t k, const PinWord& p, const Event& e) {
    const auto& d = e.does;
    if (d == "mode") {
      mode(k, e);
    } else if (d == "write" || d == "pulse") {
      does(k, "write", e);
      if (d == "pulse") {
        for (const auto* w : {"output", "pulse", "high", "low"}) does(k, w, e);
      }
      levels(k, e, "level");
    } else if (d == "toggle") {
      for (const auto* w : {"write", "high", "low"}) does(k, w, e);
    } else if (d == "pwm") {
      pwm(k, e);
    } else if (d == "read" || d == "interrupt") {
      does(k, p.role == "trigger" ? "output" : "read", e);
      if (d == "interrupt") does(k, "interrupt", e);
      pulls(k, e);
    } else if (d == "analog-read") {
      does(k, "analog", e);
    } else if (d == "tone" || d == "servo") {
      for (const auto* w : {"output", "high", "low"}) does(k, w, e);
      does(k, d, e);
    } else if (d == "serial" || d == "bus") {
      does(k, d, e);
      if (p.role != "rx") does(k, "output", e);
    } else if (d == "coils" || d == "step") {
      for (const auto* w : {"output", "write", "high", "low"}) does(k, w, e);
      if (p.role == "step") does(k, "pulse", e);
    } else if (d == "motor") {
      does(k, p.role == "echo" ? "read" : "output", e);
      const bool chopped = p.role != "dir" && p.role != "echo" && p.role != "trigger" &&
                           truth(e.facts.contains("pwm") ? e.facts.at("pwm") : number(1)).value_or(true) &&
                           !(p.role == "speed" && e.facts.contains("pin.in1"));
      if (chopped) {
        does(k, "pwm", e);
        if (text(e, "soft") == "yes") does(k, "soft", e);
        if (const auto f = num(e, "frequency")) m_out.pins[k].frequency = Hertz{*f};
      }
    } else if (d == "motor-write") {
      does(k, "write", e);
      levels(k, e, "level." + p.role);
      const auto share = num(e, "level." + p.role);
      auto& u = m_out.pins[k];
      if (share && u.does.contains("pwm") && *share >= 0) {
        u.duty = std::max(u.duty.value_or(0), std::min(*share, 1.0));
        if (!u.written || *share > *u.written) {
          u.written = *share;
          u.scale = 1;
        }
      }
    } else if (d == "release") {
      does(k, "input", e);
    }
  }

  void event(const Event& e) {
    if (e.does == "serial" && e.pins.empty() && text(e, "port") == "console") m_out.console = spot(e.place);
    if (e.does == "bus" && e.pins.empty() && text(e, "bus") == "i2c") busByBoard(e);
    if (e.does == "delay" || e.does == "numbering") return;
    for (const auto& p : e.pins) {
      const bool fresh =
          m_counted.insert({static_cast<std::uint64_t>(e.place.file) << 32 | e.place.begin, p.role + (p.word.empty() ? "?" : "")}).second;
      if (fresh) ++m_out.asked;
      if (p.word.empty()) {
        const bool looks = e.does == "read" || e.does == "analog-read" || e.does == "interrupt";  // and drives nothing
        untold(fmt::format("which pin {} means is not known: {}", e.called, p.why), spot(e.place),
               looks ? harness::Untold::Reach::Listed : harness::Untold::Reach::Every);
        continue;
      }
      if (fresh) ++m_out.told;
      const bool analog = e.does == "analog-read";
      const auto k = use(p, analog);
      auto& u = m_out.pins[k];
      if (u.number.line > 0 && p.digits.file >= 0) {
        also(u, p);
      } else if (u.number.line == 0 && p.digits.file >= 0) {
        u.number = spot(p.digits);
        u.name = nameOfNumber(m_program.sources.files[p.digits.file], p.digits.begin, p.name);
      } else if (u.number.line == 0 && u.name.empty() && p.name != p.word && !tellsNothing(p.name))
        u.name = p.name;
      u.sure = u.sure || (e.reached && !p.choice);
      if (e.reached || k >= m_reached) one(k, p, e);
    }
    if (e.reached) group(e);
  }

  // A number that stands somewhere else too: another constant for the same pin.
  void also(PinUse& u, const PinWord& p) const {
    constexpr std::size_t kMostNames = 6;
    auto name = nameOfNumber(m_program.sources.files[p.digits.file], p.digits.begin, p.name);
    if (name.empty() || name == u.name || u.also.size() >= kMostNames) return;
    const auto at = spot(p.digits);
    if (u.name.empty()) {  // a bare number before; the constant is what has to be changed
      u.name = std::move(name);
      u.number = at;
      return;
    }
    if (at != u.number && std::ranges::none_of(u.also, [&](const auto& x) { return x.second == at; }))
      u.also.emplace_back(std::move(name), at);
  }

  // The pins of a bus that a program leaves to the board, where there is only one such.
  void busByBoard(const Event& e) {
    for (const auto* line : {"sda", "scl"}) {
      const auto is = [&](const parts::Terminal& t) { return t.pin && t.pin->bus == line; };
      if (std::ranges::count_if(m_part.terminals, is) != 1) continue;
      PinWord p;
      p.word = std::ranges::find_if(m_part.terminals, is)->label;
      p.numbering = "name";
      const auto k = use(p, false);
      m_out.pins[k].sure = true;
      does(k, "bus", e);
    }
  }

  // Pins that one channel of a timer drives together.
  void channels() {
    std::set<std::set<std::string>> known;
    for (const auto& e : m_program.followed.events) {
      if (e.does != "pwm" || !e.facts.contains("joined") || e.pins.size() < 2) continue;
      PinGroup g;
      g.kind = "channel";
      std::set<std::string> words;
      for (const auto& p : e.pins)
        if (!p.word.empty() && !p.choice && words.insert(p.word).second) {
          g.roles.push_back(fmt::format("pin{}", words.size()));
          g.words.push_back(p.word);
        }
      if (words.size() < 2 || !known.insert(words).second) continue;
      g.place = spot(e.place);
      m_out.groups.push_back(std::move(g));
    }
  }

  // Pins that are on at the same time: of two that belong to one bridge that is told by the wires.
  void together() {
    for (const auto& t : highTogether(m_program.followed)) {
      PinGroup g;
      g.kind = "together";
      for (const auto& word : t.pins) {
        g.roles.push_back(fmt::format("pin{:02}", g.roles.size() + 1));
        g.words.push_back(word);
      }
      if (t.event >= 0) g.place = spot(m_program.followed.events[t.event].place);
      m_out.groups.push_back(std::move(g));
    }
  }

  // ---- things of several pins

  void group(const Event& e) {
    if (e.does == "move") {
      const auto it = m_groupOf.find(e.object);
      if (it == m_groupOf.end()) return;
      auto& g = m_out.groups[it->second];
      const auto rate = num(e, "rate");
      if (rate && std::isfinite(*rate) && *rate > 0) g.rate = Hertz{std::max(*rate, g.rate ? g.rate->value : 0)};
      return;
    }
    const bool makes = e.does == "coils" || e.does == "step" || e.does == "motor" || e.does == "servo";
    if (!makes && !(e.does == "mode" && m_groupOf.contains(e.object))) return;
    const auto [it, fresh] =
        m_groupOf.try_emplace(e.object == 0 ? -static_cast<int>(m_out.groups.size()) - 1 : e.object, m_out.groups.size());
    if (fresh) m_out.groups.push_back({e.does == "motor" ? "bridge" : e.does, {}, {}, {}, {}, {}, {}, spot(e.place)});
    auto& g = m_out.groups[it->second];
    for (const auto& p : e.pins) {
      if (p.word.empty() || p.choice || std::ranges::count(g.roles, p.role) > 0) continue;
      g.roles.push_back(p.role);
      g.words.push_back(p.word);
    }
    if (const auto turn = num(e, "turn"); turn && *turn > 0 && *turn < 1e6) g.turn = static_cast<int>(*turn);
    auto order = text(e, "order");
    if (order == "by kind") order = num(e, "kind") == 8 ? "1000 1010 0010 0110 0100 0101 0001 1001" : "1010 0110 0101 1001";
    if (fresh && !order.empty() && order.find(' ') == g.words.size())
      for (std::size_t at = 0; at < order.size(); at = std::min(order.find(' ', at), order.size()) + 1)
        g.states.push_back(order.substr(at, std::min(order.find(' ', at), order.size()) - at));
  }

  // An input that is written high has its pull-up on; of an output a pull says nothing.
  void pullsByLevel() {
    for (auto& u : m_out.pins) {
      if (!u.does.contains("output") && u.does.contains("read") && u.does.contains("write")) {
        if (u.does.contains("high")) u.does.insert("pull-up");
        for (const auto* level : {"write", "high", "low"}) u.does.erase(level);
      }
      if (u.does.contains("output") && !u.does.contains("read"))
        for (const auto* pull : {"pull-up", "pull-down"}) u.does.erase(pull);
    }
    // Bits of a direction register that are left inputs name no pin.
    for (std::size_t k = 0; k < m_out.pins.size(); ++k)
      if (m_unknownDuty.contains(k)) m_out.pins[k].duty = std::nullopt;  // the greatest of those that are known is no bound
    std::erase_if(m_out.pins, [](const PinUse& u) {
      return u.numbering == "printed" && u.number.line == 0 && (u.does.empty() || u.does == std::set<std::string>{"input"});
    });
  }

  // Coils that the program switches by itself.
  void shares() {
    std::set<std::string> known;
    for (const auto& g : m_out.groups) known.insert(g.words.begin(), g.words.end());
    for (const auto& s : coilSequences(m_program.followed.moments, known)) {
      PinGroup g;
      g.kind = "coils";
      for (std::size_t k = 0; k < s.pins.size(); ++k) {
        g.roles.push_back(fmt::format("in{}", k + 1));
        g.words.push_back(s.pins[k]);
      }
      g.states = s.states;
      if (s.wait) g.rate = Hertz{1 / *s.wait};
      if (s.event >= 0) g.place = spot(m_program.followed.events[s.event].place);
      m_out.groups.push_back(std::move(g));
    }
  }

  void timings() {
    for (const auto& [word, p] : pulsesOf(m_program.followed.moments))
      for (auto& u : m_out.pins) {
        if (u.word != word) continue;
        if (p.falls) u.does.insert("pulse");
        if (p.shortest) u.pulse = Seconds{*p.shortest};
        if (p.period) u.rate = Hertz{1 / *p.period};
      }
  }
};

}  // namespace

SourceRead pinsUsed(const ReadProgram& program, const std::string& controller, const parts::Part& part, const PublicCalls& calls,
                    const std::string& prefix) {
  auto out = Collecting(program, controller, part, calls, prefix).run();
  keepReadable(out);
  return out;
}

}  // namespace bold::program
