#include "core/harness/read_harness.h"

#include <fmt/core.h>

#include <functional>
#include <set>

#include "core/base/reader.h"
#include "core/harness/migrate.h"

namespace bold::harness {
namespace {

// Far beyond any bench, and still worked out in seconds.
constexpr std::size_t kMostDevices = 2000;
constexpr std::size_t kMostConnections = 20000;

State stateFrom(ObjectReader& r) {
  const auto s = r.text("state", "on the bench");
  if (s == "planned") return State::Planned;
  if (s == "to be removed") return State::ToBeRemoved;
  if (s != "on the bench")
    r.report("state", fmt::format("is \"{}\": it can be \"on the bench\", \"planned\" or \"to be removed\"", s),
             "It was taken as on the bench.");
  return State::OnBench;
}

class HarnessReader {
 public:
  HarnessReader(const Json& json, const std::string& file, std::vector<Problem>& problems)
      : m_json(json), m_root(json, file, "", problems), m_file(file), m_problems(problems) {}

  Harness read() {
    Harness h;
    h.raw = std::make_shared<const Json>(withoutLists());
    m_root.number("format");
    h.title = m_root.text("title");
    if (const auto* s = m_root.get("settings")) {
      ObjectReader r(*s, m_file, "/settings", m_problems);
      if (r.has("ambient")) h.ambient = quantity<Celsius>(r, "ambient");
    }
    m_root.each("devices", [&](const Json& j, const std::string& at) { device(h, j, at); });
    m_root.each("connections", [&](const Json& j, const std::string& at) { connection(h, j, at); });
    m_root.each("intents", [&](const Json& j, const std::string& at) { intent(h, j, at); });
    m_root.each("parts", [&](const Json& j, const std::string&) { h.parts.push_back(std::make_shared<const Json>(j)); });
    for (const auto& key : {"devices", "connections", "intents"})
      if (!m_root.has(key)) m_root.report("", fmt::format("has no \"{}\"", key), "It was taken as empty.");
    return h;
  }

 private:
  const Json& m_json;
  ObjectReader m_root;
  std::string m_file;
  std::vector<Problem>& m_problems;
  std::set<std::string> m_ids;

  Json withoutLists() const {
    Json j = m_json;
    for (const auto* key : {"devices", "connections", "intents", "parts"})
      if (j.contains(key)) j[key] = Json::array();
    return j;
  }
  template <class Q>
  std::optional<Q> quantity(ObjectReader& r, const std::string& key) {
    if (!r.has(key)) return std::nullopt;
    auto q = parse<Q>(r.text(key));
    if (q && q->value >= (Q::kUnit == Unit::Celsius ? -60.0 : 0.0) && q->value < 1e9) return *q;
    r.report(key, "cannot be used: " + (q ? std::string("no bench has such a value") : q.error().what), "It was taken as not given.");
    return std::nullopt;
  }
  bool takeId(ObjectReader& r, std::string& id, const char* kept) {
    id = r.requiredText("id");
    if (!isId(id)) {
      r.report("id", "is not made of letters, digits, - and _", kept);
      return false;
    }
    if (!m_ids.insert(id).second) {
      r.report("id", fmt::format("\"{}\" is used twice", id), "The first one was kept.");
      return false;
    }
    return true;
  }

  void device(Harness& h, const Json& j, const std::string& at) {
    ObjectReader r(j, m_file, at, m_problems);
    Device d;
    if (!takeId(r, d.id, "The device was left out.")) return;
    d.part = r.requiredText("part");
    d.name = r.text("name");
    d.group = r.text("group");
    d.state = stateFrom(r);
    if (const auto* s = r.get("settings"); s && s->is_object()) {
      for (const auto& [id, v] : s->items()) {
        if (v.is_string()) {
          d.settings[id] = {v.get<std::string>(), {}};
        } else if (v.is_object()) {
          ObjectReader o(v, m_file, at + "/settings/" + id, m_problems);
          d.settings[id] = {o.text("value"), o.text("planned")};
        } else {
          r.report("settings/" + id, "is not a text", "It was left out.");
        }
      }
    }
    if (const auto* o = r.get("overrides"); o && o->is_object())
      for (const auto& [id, v] : o->items()) {
        if (v.is_string())
          d.overrides[id] = v.get<std::string>();
        else
          r.report("overrides/" + id, "is not a figure with its unit, as text", "It was left out.");
      }
    d.unknownFields = !r.unknown().empty();
    d.raw = std::make_shared<const Json>(j);
    h.devices.push_back(std::move(d));
  }

  void connection(Harness& h, const Json& j, const std::string& at) {
    ObjectReader r(j, m_file, at, m_problems);
    Connection c;
    if (!takeId(r, c.id, "The connection was left out.")) return;
    bool found = false;
    for (const auto& [key, kind] :
         {std::pair{"wire", ConnectionKind::Wire}, {"plug", ConnectionKind::Plug}, {"jumper", ConnectionKind::Jumper}}) {
      if (!r.has(key)) continue;
      const auto ends = r.texts(key);
      c.kind = kind;
      found = true;
      if (ends.size() != 2) {
        r.report(key, "needs exactly two ends", "The connection was left out.");
        return;
      }
      const auto a = parseAddress(ends[0]);
      const auto b = parseAddress(ends[1]);
      if (!a || !b) {
        r.report(key, "cannot be used: " + (!a ? a.error().what : b.error().what), "The connection was left out.");
        return;
      }
      c.a = *a;
      c.b = *b;
    }
    if (!found) {
      r.report("", "is neither a wire nor a plug nor a jumper", "The connection was left out.");
      return;
    }
    c.mirrored = r.flag("mirrored");
    c.colour = r.text("colour");
    if (r.has("gauge")) {
      const auto g = parseQuantity(r.text("gauge"), Unit::Awg);
      if (g && g->value >= 8 && g->value <= 40)
        c.gauge = static_cast<int>(g->value);
      else
        r.report("gauge", "is not a gauge from 8 AWG to 40 AWG", "It was taken as not given.");
    }
    c.length = quantity<Metres>(r, "length");
    c.state = stateFrom(r);
    c.unknownFields = !r.unknown().empty();
    c.raw = std::make_shared<const Json>(j);
    h.connections.push_back(std::move(c));
  }

  void intent(Harness& h, const Json& j, const std::string& at) {
    ObjectReader r(j, m_file, at, m_problems);
    Intent i;
    if (!takeId(r, i.id, "The intent was left out.")) return;
    i.motor = r.requiredText("motor");
    i.bothDirections = r.text("directions", "one") == "both";
    i.speedControl = r.flag("speed");
    i.hold = r.flag("hold");
    i.pwm = quantity<Hertz>(r, "pwm");
    if (r.has("dutyCap")) {
      const double cap = r.number("dutyCap", 1);
      if (cap > 0 && cap <= 1)
        i.dutyCap = cap;
      else
        r.report("dutyCap", "is not between 0 and 1", "It was taken as not given.");
    }
    i.ramp = r.flag("ramp");
    i.together = r.flag("together");
    i.rate = quantity<Hertz>(r, "rate");
    if (r.has("stepsPerTurn")) {
      const double steps = r.number("stepsPerTurn", 0);
      if (steps >= 1 && steps <= 1e6)
        i.stepsPerTurn = static_cast<int>(steps);
      else
        r.report("stepsPerTurn", "is not between 1 and 1000000", "It was taken as not given.");
    }
    i.pulse = quantity<Seconds>(r, "pulse");
    i.forwardLead = r.text("forward");
    i.sequence = r.text("sequence");
    i.stage = r.text("stage");
    i.channel = r.text("channel");
    r.each("signals", [&](const Json& sj, const std::string& sat) {
      ObjectReader s(sj, m_file, sat, m_problems);
      Signal sig;
      sig.role = s.requiredText("role");
      const auto pin = parseAddress(s.requiredText("pin"));
      if (!pin) {
        s.report("pin", "cannot be used: " + pin.error().what, "The signal was left out.");
        return;
      }
      sig.pin = *pin;
      sig.numbering = s.text("numbering");
      sig.activeLow = s.text("active", "high") == "low";
      i.signals.push_back(sig);
    });
    i.raw = std::make_shared<const Json>(j);
    h.intents.push_back(std::move(i));
  }
};

}  // namespace

Result<Reading> readHarness(std::string_view text, const std::string& file) {
  Reading reading;
  auto json = parseJson(text, file, reading.problems);
  if (!json) return fail(json.error());
  if (!json->is_object() || !json->contains("format") || !(*json)["format"].is_number_integer())
    return fail({"The file is JSON, but not a bench: it has no whole number \"format\".", file, {}});
  for (const auto& [key, most] :
       {std::pair{"devices", kMostDevices}, {"connections", kMostConnections}, {"intents", kMostDevices}, {"parts", kMostDevices}})
    if (json->contains(key) && (*json)[key].size() > most)
      return fail({fmt::format("The file holds {} {}; at most {} can be judged.", (*json)[key].size(), key, most), file, {}});
  const auto format = (*json)["format"].get<long long>();
  if (format < 1) return fail({fmt::format("The file says bench format {}, which never existed.", format), file + "#/format", {}});
  if (format > kFormat) {
    reading.problems.push_back({fmt::format("The file has bench format {}; this program knows formats up to {}.", format, kFormat),
                                file + "#/format", "It was opened read-only and is not judged."});
  } else {
    *json = migrate(std::move(*json));
  }
  reading.harness = HarnessReader(*json, file, reading.problems).read();
  reading.harness.newerFormat = format > kFormat;
  return reading;
}

}  // namespace bold::harness
