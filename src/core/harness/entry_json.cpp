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
  put(j, "switched", kSwitchedWords[static_cast<std::size_t>(g.switched)]);
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

Json toJson(const Mark& m) {
  Json j = Json::object();
  j["id"] = m.id;
  j["wire"] = m.wire;
  j["mark"] = word(m.what);
  j["digest"] = m.digest;
  put(j, "by", m.by);
  put(j, "at", m.at);
  if (m.found) j["found"] = {(*m.found)[0].text(), (*m.found)[1].text()};
  put(j, "remark", m.remark);
  return j;
}

Json toJson(const Round& r) {
  Json j = Json::object();
  j["id"] = r.id;
  put(j, "reader", r.reader);
  put(j, "at", r.at);
  j["shuffle"] = r.shuffle;
  j["answers"] = Json::array();
  for (const auto& a : r.answers) {
    Json one{{"wire", a.wire}};
    put(one, "fromSecond", a.fromB);
    one["digest"] = a.digest;
    put(one, "said", a.said);
    if (a.means) one["means"] = a.means->text();
    put(one, "at", a.at);
    j["answers"].push_back(std::move(one));
  }
  for (const auto& [device, n] : r.counts) j["counts"][device] = n;
  return j;
}

namespace {

Json spotJson(const Spot& s) {
  Json j = Json::object();
  put(j, "file", s.file);
  if (s.line > 0) j["line"] = s.line;
  if (s.column > 0) j["column"] = s.column;
  if (s.length > 0) j["length"] = s.length;
  return j;
}

Json useJson(const PinUse& u) {
  Json j{{"word", u.word}};
  put(j, "numbering", u.numbering);
  put(j, "name", u.name);
  put(j, "terminal", u.terminal);
  if (u.number != Spot{}) j["number"] = spotJson(u.number);
  for (const auto& [name, spot] : u.also) j["also"].push_back({{"name", name}, {"number", spotJson(spot)}});
  for (const auto& p : u.places) j["places"].push_back(spotJson(p));
  for (const auto& d : u.does) j["does"].push_back(d);
  if (u.duty) j["duty"] = *u.duty;
  if (u.written) j["written"] = *u.written;
  if (u.scale) j["scale"] = *u.scale;
  put(j, "frequency", u.frequency);
  put(j, "pulse", u.pulse);
  put(j, "rate", u.rate);
  put(j, "first", u.first);
  put(j, "off", u.off);
  put(j, "last", u.last);
  if (!u.sure) j["sure"] = false;
  if (u.onBoard) j["onBoard"] = true;
  return j;
}

Json groupJson(const PinGroup& g) {
  Json j{{"kind", g.kind}};
  put(j, "name", g.name);
  for (std::size_t k = 0; k < g.roles.size(); ++k) j["pins"][g.roles[k]] = g.words[k];
  for (const auto& s : g.states) j["states"].push_back(s);
  if (g.turn) j["turn"] = *g.turn;
  put(j, "rate", g.rate);
  if (g.place != Spot{}) j["place"] = spotJson(g.place);
  return j;
}

}  // namespace

Json toJson(const SourceRead& s) {
  Json j{{"id", s.id}, {"controller", s.controller}};
  for (const auto& f : s.files) j["files"].push_back({{"file", f.file}, {"digest", f.digest}});
  for (const auto& u : s.pins) j["pins"].push_back(useJson(u));
  for (const auto& g : s.groups) j["groups"].push_back(groupJson(g));
  for (const auto& u : s.untold) {
    j["untold"].push_back({{"what", u.what}});
    if (u.place != Spot{}) j["untold"].back()["place"] = spotJson(u.place);
    if (u.reach == Untold::Reach::Unnamed) j["untold"].back()["reach"] = "unnamed";
    if (u.reach == Untold::Reach::Listed) j["untold"].back()["reach"] = u.pins;
  }
  if (s.told > 0) j["told"] = s.told;
  if (s.asked > 0) j["asked"] = s.asked;
  if (s.console) j["console"] = spotJson(*s.console);
  if (s.counted) j["counted"] = spotJson(*s.counted);
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
SourceRead asRead(const SourceRead& s) {
  return again(s, &readSourceRead);
}
Mark asRead(const Mark& m) {
  return again(m, &readMark);
}
Round asRead(const Round& r) {
  return again(r, &readRound);
}

}  // namespace bold::harness
