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
void put(Json& j, const char* key, const std::optional<bool>& said) {
  if (said) j[key] = *said;
}
void putSource(Json& j, const Origin& o) {
  if (o.typed()) return;
  j["source"] = {{"file", o.file}};
  if (o.line > 0) j["source"]["line"] = o.line;
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
  if (d.lie.quarters != 0) j["turned"] = 90 * d.lie.quarters;
  if (d.lie.fromBelow) j["below"] = true;
  if (d.orderSeen) j["orderSeen"] = true;
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

Json toJson(const Goal& g) {
  Json j = Json::object();
  j["id"] = g.id;
  j["motor"] = g.motor;
  if (g.bothDirections) j["directions"] = *g.bothDirections ? "both" : "one";
  put(j, "speed", g.speedControl);
  put(j, "hold", g.hold);
  put(j, "together", g.together);
  put(j, "rate", g.rate);
  put(j, "forward", g.forwardLead);
  put(j, "stage", g.stage);
  put(j, "channel", g.channel);
  putSource(j, g.source);
  return j;
}

Json toJson(const Assignment& a) {
  Json j = Json::object();
  j["id"] = a.id;
  j["motor"] = a.motor;
  j["role"] = a.role;
  j["pin"] = a.pin.text();
  put(j, "numbering", a.numbering);
  put(j, "active", std::string(a.active == Active::High ? "high" : a.active == Active::Low ? "low" : ""));
  putSource(j, a.source);
  return j;
}

Json toJson(const ProgramFacts& p) {
  Json j = Json::object();
  j["id"] = p.id;
  j["motor"] = p.motor;
  put(j, "pwm", p.pwm);
  if (p.dutyCap) j["dutyCap"] = *p.dutyCap;
  put(j, "ramp", p.ramp);
  if (p.stepsPerTurn) j["stepsPerTurn"] = *p.stepsPerTurn;
  put(j, "pulse", p.pulse);
  put(j, "sequence", p.sequence);
  putSource(j, p.source);
  return j;
}

Json headJson(const Harness& h) {
  Json j{{"format", kFormat}};
  put(j, "title", h.title);
  if (h.ambient) j["settings"]["ambient"] = fileText(*h.ambient);
  if (!h.names.empty()) j["settings"]["names"] = h.names;
  return j;
}

Device asRead(const Device& d) {
  return again(d, &readDevice);
}
Connection asRead(const Connection& c) {
  return again(c, &readConnection);
}
Goal asRead(const Goal& g) {
  return again(g, &readGoal);
}
Assignment asRead(const Assignment& a) {
  return again(a, &readAssignment);
}
ProgramFacts asRead(const ProgramFacts& p) {
  return again(p, &readProgramFacts);
}

}  // namespace bold::harness
