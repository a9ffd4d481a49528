#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/shown_text.h"
#include "core/harness/colour_codes.h"
#include "core/harness/entry_reader.h"
#include "core/places/numbering.h"

namespace bold::harness {
namespace {

State stateOf(ObjectReader& r) {
  static constexpr std::array kStates{State::OnBench, State::Planned, State::ToBeRemoved};
  return kStates[oneOf(r, "state", {"on the bench", "planned", "to be removed"})];
}

std::map<std::string, SettingValue> settings(ObjectReader& r, const std::string& at) {
  std::map<std::string, SettingValue> out;
  const auto* s = r.get("settings");
  if (!s) return out;
  if (!s->is_object()) {
    r.report("settings", "is not an object of settings", "It was left out.");
    return out;
  }
  for (const auto& [id, v] : s->items()) {
    if (v.is_string()) {
      out[id] = {shownText(v.get_ref<const std::string&>()), {}};
      if (blank(out[id].value)) r.report("settings/" + pointerKey(id), "is empty", "It was taken as not given.");
    } else if (v.is_object()) {
      ObjectReader o(v, r.file(), at + "/settings/" + pointerKey(id), r.problems());
      out[id] = {o.text("value"), o.text("planned")};
      if (blank(out[id].value) && blank(out[id].planned)) o.report("", "says nothing", "It was taken as not given.");
      if (o.has("planned") && blank(out[id].planned)) o.report("planned", "is empty", "It was taken as not given.");
      nameUnknown(o);
    } else {
      r.report("settings/" + pointerKey(id), "is not a text", "It was left out.");
    }
  }
  return out;
}

std::map<std::string, std::string> overrides(ObjectReader& r) {
  std::map<std::string, std::string> out;
  const auto* o = r.get("overrides");
  if (!o) return out;
  if (!o->is_object()) {
    r.report("overrides", "is not an object of figures", "It was left out.");
    return out;
  }
  for (const auto& [id, v] : o->items()) {
    if (v.is_string())
      out[id] = shownText(v.get_ref<const std::string&>());
    else
      r.report("overrides/" + pointerKey(id), "is not a figure with its unit, as text", "It was left out.");
  }
  return out;
}

places::Lie lie(ObjectReader& r) {
  const auto turned = r.number("turned");
  if (turned != 0 && turned != 90 && turned != 180 && turned != 270)
    r.report("turned", "is not 0, 90, 180 or 270", "It is shown as it is held.");
  return {turned == 90 || turned == 180 || turned == 270 ? static_cast<int>(turned) / 90 : 0, r.flag("below")};
}

}  // namespace

ReadEntry<Device> readDevice(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  Device d;
  if (!json.is_object() || !takeId(r, d.id, "The device was left out.")) return leftOut<Device>(std::move(problems), "device");
  d.part = required(r, "part");
  d.name = words(r, "name");
  d.group = words(r, "group");
  d.state = stateOf(r);
  d.settings = settings(r, at);
  d.overrides = overrides(r);
  d.lie = lie(r);
  d.orderSeen = r.flag("orderSeen");
  nameUnknown(r);
  return done(std::move(d), std::move(problems));
}

ReadEntry<Connection> readConnection(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  Connection c;
  const auto unusable = [&] { return leftOut<Connection>(std::move(problems), "connection"); };
  if (!json.is_object() || !takeId(r, c.id, "The connection was left out.")) return unusable();
  bool found = false;
  for (const auto& [key, kind] :
       {std::pair{"wire", ConnectionKind::Wire}, {"plug", ConnectionKind::Plug}, {"jumper", ConnectionKind::Jumper}}) {
    if (!r.has(key)) continue;
    if (found) {
      r.report(key, "stands beside another kind of connection: it can be one only", "The connection was left out.");
      return unusable();
    }
    const auto before = problems.size();
    const auto ends = r.texts(key);
    c.kind = kind;
    found = true;
    if (problems.size() > before) {
      problems.front().kept = "The connection was left out.";
      return unusable();
    }
    if (ends.size() != 2) {
      r.report(key, "needs exactly two ends", "The connection was left out.");
      return unusable();
    }
    const auto a = parseAddress(ends[0]);
    const auto b = parseAddress(ends[1]);
    if (!a || !b) {
      r.report(key, "cannot be used: " + (!a ? a.error().what : b.error().what), "The connection was left out.");
      return unusable();
    }
    c.a = *a;
    c.b = *b;
  }
  if (!found) {
    r.report("", "is neither a wire nor a plug nor a jumper", "The connection was left out.");
    return unusable();
  }
  c.mirrored = r.flag("mirrored");
  c.colour = r.text("colour");
  if (const auto* said = r.get("colour"); said && said->is_string() && !isColour(c.colour)) {
    r.report("colour", fmt::format("is \"{}\", which is no IEC 60757 code such as RD or GNYE", c.colour), "It was taken as not given.");
    c.colour.clear();
  }
  if (r.has("gauge")) {
    const auto g = parseQuantity(r.text("gauge"), Unit::Awg);
    if (g && g->value >= 8 && g->value <= 40 && g->value == std::floor(g->value))
      c.gauge = static_cast<int>(g->value);
    else
      r.report("gauge", "is not a gauge from 8 AWG to 40 AWG, in whole numbers", "It was taken as not given.");
  }
  c.length = quantity<Metres>(r, "length", kWireLength);
  c.state = stateOf(r);
  nameUnknown(r);
  return done(std::move(c), std::move(problems));
}

namespace {

std::optional<bool> said(ObjectReader& r, const std::string& key) {
  if (!r.has(key)) return std::nullopt;
  if (r.get(key)->is_boolean()) return r.flag(key);
  r.report(key, "is neither true nor false", "It was taken as not given.");
  return std::nullopt;
}

std::optional<int> wholeNumber(ObjectReader& r, const std::string& key, int most) {
  if (!r.has(key)) return std::nullopt;
  const double n = r.get(key)->is_number_integer() ? r.number(key) : 0;
  if (n >= 1 && n <= most) return static_cast<int>(n);
  r.report(key, fmt::format("is not a whole number between 1 and {}", most), "It was taken as not given.");
  return std::nullopt;
}

constexpr int kMostSteps = 1'000'000;
constexpr int kMostLines = 10'000'000;

// "typed", or a place in the program.
Origin originOf(ObjectReader& r, const std::string& at) {
  const auto* json = r.get("source");
  if (!json || *json == "typed") return {};
  if (!json->is_object()) {
    r.report("source", "is neither \"typed\" nor a file and line", "It was taken as typed.");
    return {};
  }
  ObjectReader o(*json, r.file(), at + "/source", r.problems());
  Origin out{required(o, "file"), 0};
  if (!out.typed()) out.line = wholeNumber(o, "line", kMostLines).value_or(0);
  nameUnknown(o);
  return out;
}

// What every statement has: its id, the motor it is about, who says it.
template <class T>
bool begin(ObjectReader& r, const Json& json, T& entry, const char* kept) {
  if (!json.is_object() || !takeId(r, entry.id, kept)) return false;
  entry.motor = required(r, "motor");
  return true;
}
template <class T>
ReadEntry<T> end(ObjectReader& r, T entry, const std::string& at, std::vector<Problem>& problems) {
  entry.source = originOf(r, at);
  nameUnknown(r);
  return done(std::move(entry), std::move(problems));
}

}  // namespace

ReadEntry<Goal> readGoal(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  Goal g;
  if (!begin(r, json, g, "The goal was left out.")) return leftOut<Goal>(std::move(problems), "goal");
  if (r.has("directions")) {
    const auto before = problems.size();
    const auto word = oneOf(r, "directions", {"one", "both"}, "It was taken as not given.");
    if (problems.size() == before) g.bothDirections = word == 1;
  }
  g.speedControl = said(r, "speed");
  g.hold = said(r, "hold");
  g.together = said(r, "together");
  g.rate = quantity<Hertz>(r, "rate", kStepRate);
  g.forwardLead = reference(r, "forward");
  if (r.has("switched")) {
    const auto before = problems.size();
    const auto word = oneOf(r, "switched", {kSwitchedWords.begin() + 1, kSwitchedWords.end()}, "It was taken as not given.");
    if (problems.size() == before) g.switched = static_cast<Switched>(word + 1);
  }
  g.stage = reference(r, "stage");
  g.channel = reference(r, "channel");
  return end(r, std::move(g), at, problems);
}

ReadEntry<Assignment> readAssignment(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  Assignment a;
  if (!begin(r, json, a, "The assignment was left out.")) return leftOut<Assignment>(std::move(problems), "assignment");
  const auto before = problems.size();
  a.role = required(r, "role");
  const auto address = required(r, "pin");
  const auto pin = parseAddress(address);
  if (!pin && problems.size() == before) r.report("pin", "cannot be used: " + pin.error().what);
  if (problems.size() > before) {  // as a whole: half an assignment says nothing
    problems.front().kept.clear();
    problems.front().where = "#" + at;
    return leftOut<Assignment>(std::move(problems), "assignment");
  }
  a.pin = *pin;
  if (r.has("numbering")) {
    const auto known = problems.size();
    const auto word = oneOf(r, "numbering", kNumberings, "It was taken as not given.");
    if (problems.size() == known) a.numbering = kNumberings[word];
  }
  if (r.has("active")) {
    const auto known = problems.size();
    const auto word = oneOf(r, "active", {"high", "low"}, "It was taken as not given.");
    if (problems.size() == known) a.active = word == 1 ? Active::Low : Active::High;
  }
  return end(r, std::move(a), at, problems);
}

ReadEntry<ProgramFacts> readProgramFacts(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  ProgramFacts p;
  if (!begin(r, json, p, "The program facts were left out.")) return leftOut<ProgramFacts>(std::move(problems), "entry");
  p.pwm = quantity<Hertz>(r, "pwm", kPwmFrequency);
  if (r.has("dutyCap")) {
    const double cap = r.get("dutyCap")->is_number() ? r.number("dutyCap") : 0;
    if (cap > 0 && cap <= 1)
      p.dutyCap = cap;
    else
      r.report("dutyCap", "is not between 0 and 1", "It was taken as not given.");
  }
  p.ramp = said(r, "ramp");
  p.stepsPerTurn = wholeNumber(r, "stepsPerTurn", kMostSteps);
  p.pulse = quantity<Seconds>(r, "pulse", kPulseLength);
  if (r.has("sequence")) {
    const auto before = problems.size();
    const auto word = oneOf(r, "sequence", {"full", "half", "wave"}, "It was taken as not given.");
    if (problems.size() == before) p.sequence = std::array{"full", "half", "wave"}[word];
  }
  return end(r, std::move(p), at, problems);
}

ReadEntry<Harness> readHead(const Json& json) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", "", problems);
  Harness h;
  r.get("format");
  h.title = words(r, "title");
  if (const auto* s = r.get("settings")) {
    ObjectReader o(*s, "", "/settings", problems);
    h.ambient = quantity<Celsius>(o, "ambient", kAmbient);
    h.names = o.text("names");
    if (const auto* said = o.get("names"); said && said->is_string() && !places::numberingNamed(h.names)) {
      o.report("names", "is not printed, position, chip, program or function", "Pins are shown as printed.");
      h.names.clear();
    }
    nameUnknown(o);
  }
  for (const auto section : kSections) r.get(word(section));
  nameUnknown(r);
  return done(std::move(h), std::move(problems));
}

std::vector<std::string> pointerKeys(std::string_view where) {
  std::vector<std::string> out;
  const auto hash = where.find('#');
  for (auto at = hash == std::string_view::npos ? where.size() : hash + 1; at < where.size() && where[at] == '/';) {
    std::string key;
    for (++at; at < where.size() && where[at] != '/'; ++at) {
      const bool escaped = where[at] == '~' && at + 1 < where.size();
      key += !escaped ? where[at] : where[++at] == '1' ? '/' : '~';
    }
    out.push_back(std::move(key));
  }
  return out;
}

Raw sourceOf(std::string text, std::size_t index, std::ptrdiff_t depth, std::vector<Problem> problems, std::vector<Problem> repeats) {
  auto out = std::make_shared<Source>();
  out->text = std::move(text);
  out->index = index;
  for (auto* list : {&problems, &repeats})
    for (auto& p : *list) {
      auto field = pointerKeys(p.where);
      field.erase(field.begin(), field.begin() + std::min(depth, std::ssize(field)));
      out->doubts.push_back({std::move(field), list == &repeats, std::move(p)});
    }
  return out;
}

const char* word(Section section) {
  switch (section) {
    case Section::Devices:
      return "devices";
    case Section::Connections:
      return "connections";
    case Section::Goals:
      return "goals";
    case Section::Assignments:
      return "assignments";
    case Section::Program:
      return "program";
    case Section::Sources:
      return "sources";
    case Section::Marks:
      return "marks";
    case Section::Rounds:
      return "rounds";
    case Section::Parts:
      return "parts";
  }
  return "";
}

}  // namespace bold::harness
