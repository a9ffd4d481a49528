#include "core/harness/entry_json.h"

#include <fmt/core.h>

#include <cassert>

namespace bold::harness {
namespace {

void put(Json& j, const char* key, const std::string& value) {
  if (!value.empty()) j[key] = value;
}
void put(Json& j, const char* key, bool value) {
  if (value) j[key] = true;
}
void putState(Json& j, State state) {
  put(j, "state", std::string(state == State::Planned ? "planned" : state == State::ToBeRemoved ? "to be removed" : ""));
}
template <class Q>
void put(Json& j, const char* key, const std::optional<Q>& q) {
  if (q) j[key] = fileText(*q);
}

template <class T>
T again(const T& entry, ReadEntry<T> (*read)(const Json&, const std::string&)) {
  std::vector<Problem> ignored;  // named when the file was read
  const auto json = parseJson(entry.raw->text, "", ignored);
  assert(json);  // it was read once already
  auto out = read(*json, "");
  assert(out.value);
  return std::move(*out.value);
}

}  // namespace

Json toJson(const Device& d) {
  Json j = Json::object();
  j["id"] = d.id;
  j["part"] = d.part;
  put(j, "name", d.name);
  put(j, "group", d.group);
  putState(j, d.state);
  for (const auto& [id, v] : d.settings)
    j["settings"][id] = v.planned.empty() ? Json(v.value) : Json{{"value", v.value}, {"planned", v.planned}};
  for (const auto& [id, v] : d.overrides) j["overrides"][id] = v;
  return j;
}

Json toJson(const Connection& c) {
  Json j = Json::object();
  j["id"] = c.id;
  const char* kind = c.kind == ConnectionKind::Wire ? "wire" : c.kind == ConnectionKind::Plug ? "plug" : "jumper";
  j[kind] = Json::array({c.a.text(), c.b.text()});
  put(j, "mirrored", c.mirrored);
  put(j, "colour", c.colour);
  put(j, "gauge", c.gauge ? fmt::format("{} AWG", *c.gauge) : std::string());
  put(j, "length", c.length);
  putState(j, c.state);
  return j;
}

Json toJson(const Signal& s) {
  Json j{{"role", s.role}, {"pin", s.pin.text()}};
  put(j, "numbering", s.numbering);
  if (s.activeLow) j["active"] = "low";
  return j;
}

Json toJson(const Intent& i) {
  Json j = Json::object();
  j["id"] = i.id;
  j["motor"] = i.motor;
  j["directions"] = i.bothDirections ? "both" : "one";
  put(j, "speed", i.speedControl);
  put(j, "hold", i.hold);
  put(j, "pwm", i.pwm);
  if (i.dutyCap) j["dutyCap"] = *i.dutyCap;
  put(j, "ramp", i.ramp);
  put(j, "together", i.together);
  put(j, "rate", i.rate);
  if (i.stepsPerTurn) j["stepsPerTurn"] = *i.stepsPerTurn;
  put(j, "pulse", i.pulse);
  put(j, "forward", i.forwardLead);
  put(j, "sequence", i.sequence);
  put(j, "stage", i.stage);
  put(j, "channel", i.channel);
  j["signals"] = Json::array();
  for (const auto& s : i.signals) j["signals"].push_back(toJson(s));
  return j;
}

Json headJson(const Harness& h) {
  Json j{{"format", kFormat}};
  put(j, "title", h.title);
  if (h.ambient) j["settings"] = {{"ambient", fileText(*h.ambient)}};
  return j;
}

Device asRead(const Device& d) {
  return again(d, &readDevice);
}
Connection asRead(const Connection& c) {
  return again(c, &readConnection);
}
Intent asRead(const Intent& i) {
  return again(i, &readIntent);
}

}  // namespace bold::harness
