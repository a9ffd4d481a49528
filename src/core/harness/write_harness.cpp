#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/harness/read_harness.h"

namespace bold::harness {
namespace {

// Starts from what was read, so that unknown fields and the order of keys survive.
Json base(const Raw& raw) {
  return raw && raw->is_object() ? *raw : Json::object();
}

void put(Json& j, const char* key, const std::string& value) {
  if (value.empty())
    j.erase(key);
  else
    j[key] = value;
}
void put(Json& j, const char* key, bool value) {
  if (value)
    j[key] = true;
  else
    j.erase(key);
}
void putState(Json& j, State state) {
  put(j, "state", std::string(state == State::Planned ? "planned" : state == State::ToBeRemoved ? "to be removed" : ""));
}
template <class Q>
void put(Json& j, const char* key, const std::optional<Q>& q) {
  put(j, key, q ? fileText(*q) : std::string());
}

Json write(const Device& d) {
  Json j = base(d.raw);
  j["id"] = d.id;
  j["part"] = d.part;
  put(j, "name", d.name);
  put(j, "group", d.group);
  putState(j, d.state);
  if (d.settings.empty()) {
    j.erase("settings");
  } else {
    Json s = Json::object();
    for (const auto& [id, v] : d.settings) {
      if (v.planned.empty())
        s[id] = v.value;
      else
        s[id] = Json{{"value", v.value}, {"planned", v.planned}};
    }
    j["settings"] = s;
  }
  if (d.overrides.empty()) {
    j.erase("overrides");
  } else {
    Json o = Json::object();
    for (const auto& [id, v] : d.overrides) o[id] = v;
    j["overrides"] = o;
  }
  return j;
}

Json write(const Connection& c) {
  Json j = base(c.raw);
  j["id"] = c.id;
  const char* kind = c.kind == ConnectionKind::Wire ? "wire" : c.kind == ConnectionKind::Plug ? "plug" : "jumper";
  for (const auto* other : {"wire", "plug", "jumper"})
    if (std::string_view(other) != kind) j.erase(other);
  j[kind] = Json::array({c.a.text(), c.b.text()});
  put(j, "mirrored", c.mirrored);
  put(j, "colour", c.colour);
  put(j, "gauge", c.gauge ? fmt::format("{} AWG", *c.gauge) : std::string());
  put(j, "length", c.length);
  putState(j, c.state);
  return j;
}

Json write(const Intent& i) {
  Json j = base(i.raw);
  j["id"] = i.id;
  j["motor"] = i.motor;
  j["directions"] = i.bothDirections ? "both" : "one";
  put(j, "speed", i.speedControl);
  put(j, "hold", i.hold);
  put(j, "pwm", i.pwm);
  if (i.dutyCap)
    j["dutyCap"] = *i.dutyCap;
  else
    j.erase("dutyCap");
  put(j, "ramp", i.ramp);
  put(j, "together", i.together);
  put(j, "rate", i.rate);
  if (i.stepsPerTurn)
    j["stepsPerTurn"] = *i.stepsPerTurn;
  else
    j.erase("stepsPerTurn");
  put(j, "pulse", i.pulse);
  put(j, "forward", i.forwardLead);
  put(j, "sequence", i.sequence);
  put(j, "stage", i.stage);
  put(j, "channel", i.channel);
  Json signals = Json::array();
  for (const auto& s : i.signals) {
    Json one{{"role", s.role}, {"pin", s.pin.text()}};
    put(one, "numbering", s.numbering);
    if (s.activeLow) one["active"] = "low";
    signals.push_back(one);
  }
  j["signals"] = signals;
  return j;
}

template <class T>
Json list(const std::vector<T>& items) {
  Json out = Json::array();
  for (const auto& i : items) out.push_back(write(i));
  return out;
}

}  // namespace

std::string writeHarness(const Harness& h) {
  Json j = base(h.raw);
  j["format"] = kFormat;
  put(j, "title", h.title);
  Json settings = j.contains("settings") && j["settings"].is_object() ? j["settings"] : Json::object();
  put(settings, "ambient", h.ambient);
  if (settings.empty())
    j.erase("settings");
  else
    j["settings"] = settings;
  j["devices"] = list(h.devices);
  j["connections"] = list(h.connections);
  j["intents"] = list(h.intents);
  Json parts = Json::array();
  for (const auto& p : h.parts) parts.push_back(*p);
  if (parts.empty())
    j.erase("parts");
  else
    j["parts"] = parts;
  return jsonText(j);
}

}  // namespace bold::harness
