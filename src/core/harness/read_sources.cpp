#include "core/harness/entry_reader.h"

namespace bold::harness {
namespace {

constexpr int kMostLines = 10'000'000;

int count(ObjectReader& r, const std::string& key) {
  const double n = r.number(key);
  if (n >= 0 && n <= kMostLines && n == static_cast<int>(n)) return static_cast<int>(n);
  r.report(key, "is no whole number that could be meant");
  return 0;
}

Spot spot(const Json* json, const std::string& at, std::vector<Problem>& problems) {
  if (!json) return {};
  ObjectReader r(*json, "", at, problems);
  Spot out;
  out.file = reference(r, "file");
  out.line = count(r, "line");
  out.column = count(r, "column");
  out.length = count(r, "length");
  nameUnknown(r);
  return out;
}

std::optional<double> real(ObjectReader& r, const std::string& key, double least, double most) {
  if (!r.has(key)) return std::nullopt;
  const double v = r.number(key);
  if (!r.get(key)->is_number()) return std::nullopt;  // said already
  if (v >= least && v <= most) return v;
  r.report(key, fmt::format("is not from {:g} to {:g}", least, most), "It was taken as not given.");
  return std::nullopt;
}

// One of a few words, or nothing.
std::string oneWord(ObjectReader& r, const std::string& key, const std::vector<std::string>& words) {
  if (!r.has(key)) return {};
  const auto known = r.problems().size();
  const auto k = oneOf(r, key, words, "It was taken as not given.");
  return r.problems().size() == known ? words[k] : std::string();
}

constexpr double kMostWritten = 1e12;   // of a duty, and of what counts as all of the time: 32 bits and more
constexpr double kLeastWritten = -1e6;  // of a duty that went below zero

PinUse use(const Json& json, const std::string& at, std::vector<Problem>& problems) {
  ObjectReader r(json, "", at, problems);
  PinUse u;
  u.word = required(r, "word");
  u.numbering = oneWord(r, "numbering", {"program", "chip", "position", "printed"});
  u.name = words(r, "name");
  u.terminal = reference(r, "terminal");
  u.number = spot(r.get("number"), at + "/number", problems);
  r.each("also", [&](const Json& j, const std::string& where) {
    ObjectReader other(j, "", where, problems);
    auto name = required(other, "name");
    u.also.emplace_back(std::move(name), spot(other.get("number"), where + "/number", problems));
    nameUnknown(other);
  });
  r.each("places", [&](const Json& j, const std::string& where) { u.places.push_back(spot(&j, where, problems)); });
  for (const auto& d : r.texts("does")) {
    if (kPinDoings.contains(d))
      u.does.insert(d);
    else
      r.report("does", fmt::format("has \"{}\", which is nothing that a pin does", shownText(d)));
  }
  u.duty = real(r, "duty", 0, 1);
  u.written = real(r, "written", kLeastWritten, kMostWritten);
  u.scale = real(r, "scale", 0, kMostWritten);
  if (u.scale && *u.scale == 0) {
    r.report("scale", "is no scale of a duty");
    u.scale = u.written = std::nullopt;
  }
  if (!u.scale) u.written = std::nullopt;
  u.frequency = quantity<Hertz>(r, "frequency", kPwmFrequency);
  u.pulse = quantity<Seconds>(r, "pulse", kPulseLength);
  u.rate = quantity<Hertz>(r, "rate", kStepRate);
  u.first = oneWord(r, "first", {"high", "low"});
  u.off = oneWord(r, "off", {"high", "low"});
  u.last = oneWord(r, "last", {"high", "low", "pwm", "unsure", "released"});
  u.sure = r.flag("sure", true);
  u.onBoard = r.flag("onBoard");
  nameUnknown(r);
  return u;
}

PinGroup group(const Json& json, const std::string& at, const std::vector<PinUse>& known, std::vector<Problem>& problems) {
  ObjectReader r(json, "", at, problems);
  PinGroup g;
  if (!r.has("kind")) r.report("kind", "is missing", kNotUsed);
  g.kind = oneWord(r, "kind", {"coils", "step", "bridge", "servo", "channel", "together"});
  g.name = words(r, "name");
  if (const auto* pins = r.get("pins"); pins && pins->is_object()) {
    for (const auto& [role, word] : pins->items())
      if (const auto shown = word.is_string() ? shownText(word.get_ref<const std::string&>()) : std::string();
          std::ranges::count(known, shown, &PinUse::word) > 0) {
        g.roles.push_back(role);
        g.words.push_back(shown);
      } else if (word.is_string())
        r.report("pins/" + pointerKey(role),
                 fmt::format("is \"{}\", which is none of the pins", shown.size() > kLongestText ? std::string("…") : shown));
      else
        r.report("pins", fmt::format("has no word at \"{}\"", shownText(role)));
  } else if (pins)
    r.report("pins", "is not an object of words");
  for (const auto& s : r.texts("states")) {
    if (s.size() == g.words.size() && s.find_first_not_of("01") == std::string::npos)
      g.states.push_back(s);
    else
      r.report("states", fmt::format("has \"{}\", which is no level of each pin", shownText(s)));
  }
  if (r.has("turn"))
    if (const int n = count(r, "turn"); n > 0) g.turn = n;
  g.rate = quantity<Hertz>(r, "rate", kStepRate);
  g.place = spot(r.get("place"), at + "/place", problems);
  nameUnknown(r);
  return g;
}

}  // namespace

ReadEntry<SourceRead> readSourceRead(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  SourceRead s;
  if (!json.is_object() || !takeId(r, s.id, "What was read of a program was left out."))
    return leftOut<SourceRead>(std::move(problems), "program that was read");
  s.controller = required(r, "controller");
  if (!problems.empty()) {
    problems.front().kept.clear();
    return leftOut<SourceRead>(std::move(problems), "program that was read");
  }
  r.each("files", [&](const Json& j, const std::string& where) {
    ObjectReader f(j, "", where, problems);
    auto file = required(f, "file");
    s.files.push_back({std::move(file), digestIn(f)});
    nameUnknown(f);
  });
  r.each("pins", [&](const Json& j, const std::string& where) { s.pins.push_back(use(j, where, problems)); });
  r.each("groups", [&](const Json& j, const std::string& where) { s.groups.push_back(group(j, where, s.pins, problems)); });
  r.each("untold", [&](const Json& j, const std::string& where) {
    ObjectReader u(j, "", where, problems);
    auto what = required(u, "what");
    s.untold.push_back({std::move(what), spot(u.get("place"), where + "/place", problems)});
    if (const auto* reach = u.get("reach"); reach && reach->is_array()) {
      s.untold.back().reach = harness::Untold::Reach::Listed;
      s.untold.back().pins = u.texts("reach");
    } else if (oneWord(u, "reach", {"every", "unnamed"}) == "unnamed")
      s.untold.back().reach = harness::Untold::Reach::Unnamed;
    nameUnknown(u);
  });
  s.told = count(r, "told");
  s.asked = count(r, "asked");
  if (const auto* c = r.get("console")) s.console = spot(c, at + "/console", problems);
  if (const auto* c = r.get("counted")) s.counted = spot(c, at + "/counted", problems);
  nameUnknown(r);
  return done(std::move(s), std::move(problems));
}

}  // namespace bold::harness
