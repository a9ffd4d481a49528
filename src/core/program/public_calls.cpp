#include "core/program/public_calls.h"

#include <fmt/core.h>

#include <algorithm>
#include <cassert>
#include <nlohmann/json.hpp>

#include "core/base/embedded.h"
#include "core/base/reader.h"
#include "core/program/lower.h"

namespace bold::program {

const std::vector<std::string> kDoings{"",      "mode",   "write", "toggle",  "read",        "analog-read", "pwm",
                                       "tone",  "servo",  "coils", "step",    "motor",       "move",        "stop",
                                       "delay", "serial", "bus",   "release", "release-all", "interrupt",   "numbering",
                                       "set",   "join",   "runs",  "end",     "pulse",       "motor-write", "awaits"};

namespace {

// "keyword=role?"
Taken taken(std::string text) {
  Taken out;
  if (text.ends_with('?')) {
    out.optional = true;
    text.pop_back();
  }
  const auto sign = text.find('=');
  if (sign != std::string::npos) out.keyword = text.substr(0, sign);
  out.role = sign == std::string::npos ? text : text.substr(sign + 1);
  return out;
}

std::map<std::string, std::string> textMap(ObjectReader& r, const std::string& key) {
  std::map<std::string, std::string> out;
  if (const auto* j = r.get(key)) {
    if (!j->is_object()) r.report(key, "is not an object");
    for (const auto& [name, value] : j->items()) {
      if (value.is_string())
        out[name] = value.get<std::string>();
      else if (value.is_number())
        out[name] = fmt::format("{:g}", value.get<double>());
      else
        r.report(key, fmt::format("has something at \"{}\" that is neither text nor number", name));
    }
  }
  return out;
}

class ReadingInterface {
 public:
  ReadingInterface(const std::string& file, std::vector<Problem>& problems) : m_file(file), m_problems(problems) {}

  std::optional<Interface> run(const Json& json, PublicCalls& calls) {
    ObjectReader r(json, m_file, "", m_problems);
    if (r.number("format") != 1) r.report("format", "is not 1");
    Interface out;
    out.id = r.text("id");
    out.title = r.text("title");
    out.languages = r.texts("languages");
    out.numbering = r.text("numbering", "program");
    out.releases = r.flag("releases");
    out.stays = r.flag("stays");
    if (const auto* c = r.get("constants"))
      for (const auto& [name, value] : c->items()) {
        if (value.is_number())
          out.constants[name] = value.get<double>();
        else if (value.is_string())
          out.named[name] = value.get<std::string>();
        else
          r.report("constants", fmt::format("\"{}\" is neither number nor text", name));
      }
    out.macros = textMap(r, "macros");
    out.headers = r.texts("headers");
    out.only = r.texts("only");
    out.harmless = r.texts("harmless");
    out.callsBack = r.texts("callsBack");
    out.numbers = textMap(r, "numbers");
    r.each("calls", [&](const Json& j, const std::string& at) { out.calls.push_back(call(j, at)); });
    r.each("registers", [&](const Json& j, const std::string& at) { out.registers.push_back(readRegister(j, at)); });
    r.each("compareRegisters", [&](const Json& j, const std::string& at) { out.compares.push_back(compare(j, at)); });
    r.each("chips", [&](const Json& j, const std::string& at) { chips(j, at, calls); });
    r.each("boards", [&](const Json& j, const std::string& at) { board(j, at, calls); });
    for (const auto& key : r.unknown()) r.report(key, "is nothing that is known here");
    return m_problems.empty() ? std::optional(std::move(out)) : std::nullopt;
  }

 private:
  const std::string& m_file;
  std::vector<Problem>& m_problems;

  PublicCall call(const Json& json, const std::string& at) {
    ObjectReader r(json, m_file, at, m_problems);
    PublicCall out;
    out.name = r.text("name");
    for (const auto& t : r.texts("takes")) out.takes.push_back(taken(t));
    out.does = r.text("does", "");
    if (std::ranges::count(kDoings, out.does) == 0) r.report("does", fmt::format("is \"{}\", which nothing does", out.does));
    out.makes = r.text("makes", "");
    out.unit = r.text("unit", "");
    out.shares = r.text("shares", "");
    out.fields = textMap(r, "fields");
    out.modes = textMap(r, "modes");
    out.pulls = textMap(r, "pulls");
    for (const auto* key : {"facts", "defaults"})
      for (const auto& [role, formula] : textMap(r, key)) {
        auto code = lowerFormula(formula);
        if (code.kind == Code::Kind::None || code.kind == Code::Kind::Unread) r.report(key, fmt::format("has no formula for \"{}\"", role));
        (key == std::string_view("facts") ? out.facts : out.defaults)[role] = std::move(code);
      }
    out.said = textMap(r, "says");
    if (r.has("returns")) out.returns = lowerFormula(r.text("returns"));
    for (const auto& key : r.unknown())
      if (key != "note") r.report(key, "is nothing that is known here");
    return out;
  }

  Register readRegister(const Json& json, const std::string& at) {
    ObjectReader r(json, m_file, at, m_problems);
    Register out;
    out.pattern = r.text("name");
    out.is = r.text("is");
    out.pin = r.text("pin");
    if (r.has("output")) out.output = static_cast<int>(r.number("output"));
    out.reads = r.flag("reads");
    if (r.has("bits")) out.bits = static_cast<int>(r.number("bits"));
    for (const auto& key : r.unknown()) r.report(key, "is nothing that is known here");
    return out;
  }

  CompareRegister compare(const Json& json, const std::string& at) {
    ObjectReader r(json, m_file, at, m_problems);
    CompareRegister out;
    out.name = r.text("name");
    out.pins = textMap(r, "pins");
    if (r.has("scale")) out.scale = r.number("scale");
    out.control = r.text("control", "");
    if (r.has("bits")) out.bits = static_cast<std::uint64_t>(std::max(0.0, r.number("bits")));
    return out;
  }

  void chips(const Json& json, const std::string& at, PublicCalls& calls) {
    ObjectReader r(json, m_file, at, m_problems);
    const auto unless = r.texts("unless");
    for (auto& n : r.texts("names")) calls.chips.push_back({std::move(n), unless});
    for (const auto& key : r.unknown()) r.report(key, "is nothing that is known here");
  }

  void board(const Json& json, const std::string& at, PublicCalls& calls) {
    ObjectReader r(json, m_file, at, m_problems);
    BoardWords out;
    out.defines = r.texts("defines");
    out.pins = textMap(r, "pins");
    out.languages = r.texts("languages");
    out.inside = r.texts("inside");
    if (r.has("intBits")) out.intBits = static_cast<int>(r.number("intBits"));
    if (out.intBits != 16 && out.intBits != 32) r.report("intBits", "is neither 16 nor 32");
    for (const auto& part : r.texts("parts")) calls.boards[part] = out;
  }
};

}  // namespace

namespace {

bool toolchainWord(std::string_view name) {
  for (const auto* start : {"ARDUINO", "__", "ESP", "PICO", "STM32", "TEENSY", "CONFIG_", "F_CPU", "RASPBERRY", "USE_HAL", "CORE_"})
    if (name.starts_with(start)) return true;
  return false;
}

bool fits(const ChipWords& chip, std::string_view name) {
  const std::string_view pattern = chip.names;
  return pattern.ends_with('*') ? name.starts_with(pattern.substr(0, pattern.size() - 1)) : name == pattern;
}

}  // namespace

std::optional<bool> PublicCalls::defines(const BoardWords* board, std::string_view name) const {
  if (name == "__cplusplus" || constant(std::string(name))) return true;
  if (board && std::ranges::count(board->defines, name) > 0) return true;
  if (!toolchainWord(name)) return false;
  if (!board) return std::nullopt;  // what the compiler may define is known only with the board
  const auto among = [&](const std::string& d) { return std::ranges::count(board->defines, d) > 0; };
  const bool otherChip =
      std::ranges::any_of(chips, [&](const ChipWords& c) { return fits(c, name) && std::ranges::none_of(c.unless, among); });
  const bool otherBoard = std::ranges::any_of(boards, [&](const auto& b) { return std::ranges::count(b.second.defines, name) > 0; });
  return otherChip || otherBoard ? std::optional(false) : std::nullopt;
}

Result<PublicCalls> readPublicCalls(std::span<const std::pair<std::string, std::string>> files) {
  PublicCalls out;
  for (const auto& [file, text] : files) {
    std::vector<Problem> twice;
    auto json = parseJson(text, file, twice);
    if (!json) return fail(json.error());
    std::vector<Problem> problems;
    auto one = ReadingInterface(file, problems).run(*json, out);
    if (!one) return fail(problems.front());
    out.interfaces.push_back(std::move(*one));
  }
  for (auto& i : out.interfaces) {
    out.m_constants.insert(i.constants.begin(), i.constants.end());
    out.m_named.insert(i.named.begin(), i.named.end());
    for (auto& c : i.calls) {
      c.of = &i;
      out.m_byName[c.name].push_back(&c);
      if (!c.makes.empty()) out.m_classes[c.makes] = 1;
      if (const auto dot = c.name.rfind('.'); dot != std::string::npos) out.m_classes[c.name.substr(0, dot)] = 1;
    }
  }
  return out;
}

const PublicCall* PublicCalls::find(const std::string& name, std::size_t given, const std::vector<std::string>& keywords,
                                    const std::set<std::string>& headers) const {
  const auto it = m_byName.find(name);
  if (it == m_byName.end()) return nullptr;
  const auto fits = [&](const PublicCall* c) {
    if (given > c->takes.size()) return false;
    for (const auto& k : keywords)
      if (std::ranges::none_of(c->takes, [&](const Taken& t) { return t.keyword == k; })) return false;
    for (std::size_t k = given; k < c->takes.size(); ++k)
      if (!c->takes[k].optional && (c->takes[k].keyword.empty() || std::ranges::count(keywords, c->takes[k].keyword) == 0)) return false;
    return true;
  };
  const auto included = [&](const Interface& i) { return std::ranges::any_of(i.only, [&](const auto& h) { return headers.contains(h); }); };
  std::vector<const PublicCall*> all;  // those that count here, the first first
  for (const bool own : {true, false})
    for (const auto* c : it->second)
      if (own ? !c->of->only.empty() && included(*c->of) : c->of->only.empty()) all.push_back(c);
  if (all.empty()) return nullptr;
  const auto best = std::ranges::find_if(all, fits);
  return best != all.end() ? *best : all.back();
}

bool PublicCalls::isClass(const std::string& name) const {
  return m_classes.contains(name);
}
bool PublicCalls::knows(const std::string& name) const {
  return m_byName.contains(name) || m_classes.contains(name) || constant(name) || named(name);
}

const double* PublicCalls::constant(const std::string& name) const {
  const auto it = m_constants.find(name);
  return it == m_constants.end() ? nullptr : &it->second;
}
const std::string* PublicCalls::named(const std::string& name) const {
  const auto it = m_named.find(name);
  return it == m_named.end() ? nullptr : &it->second;
}
bool PublicCalls::knowsHeader(const std::string& name) const {
  return std::ranges::any_of(interfaces, [&](const Interface& i) {
    return std::ranges::any_of(
        i.headers, [&](const std::string& h) { return h == name || (h.ends_with('*') && name.starts_with(h.substr(0, h.size() - 1))); });
  });
}

PublicCalls::Effect PublicCalls::effectOf(std::string_view name) const {
  const auto among = [&](const std::vector<std::string>& words) {
    return std::ranges::any_of(words, [&](const std::string& w) {
      return w.ends_with('*') ? name.starts_with(std::string_view(w).substr(0, w.size() - 1)) : name == w;
    });
  };
  if (std::ranges::any_of(interfaces, [&](const Interface& i) { return among(i.callsBack); })) return Effect::CallsBack;
  return std::ranges::any_of(interfaces, [&](const Interface& i) { return among(i.harmless); }) ? Effect::None : Effect::Open;
}

bool PublicCalls::choosesNumbering(const Interface& interface) {
  return std::ranges::any_of(interface.calls, [](const PublicCall& c) { return c.does == "numbering"; });
}

const PublicCalls& shippedCalls() {
  static const PublicCalls calls = [] {
    std::vector<std::pair<std::string, std::string>> files;
    for (const auto& f : embedded::programCalls()) files.emplace_back(f.path, f.text);
    auto read = readPublicCalls(files);
    assert(read && "data/program is tested");
    return std::move(*read);
  }();
  return calls;
}

}  // namespace bold::program
