#include "core/parts/read_part.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

#include "core/base/address.h"
#include "core/base/reader.h"
#include "core/parts/read_element.h"
#include "core/parts/read_figures.h"
#include "core/parts/read_layout.h"
#include "core/parts/repetition.h"
#include "core/parts/resolve.h"
#include "core/parts/verify_part.h"

namespace bold::parts {
namespace {

// The first word where nothing is said.
template <class Enum, std::size_t N>
Enum worded(ObjectReader& r, const char* key, const std::array<std::string_view, N>& words) {
  return static_cast<Enum>(r.oneOf(key, words, 0));
}

class PartReader {
 public:
  PartReader(const Json& json, std::string file, std::vector<Problem>& problems)
      : m_root(json, std::move(file), "", problems), m_problems(problems), m_figures(m_root.text("source", "recalled, not re-read")) {}

  Part read() {
    Part p;
    if (const int format = static_cast<int>(m_root.number("format", 0)); format != 1)
      m_root.report("format", fmt::format("is {}: this program reads part format 1", format));
    p.id = m_root.requiredText("id");
    if (!p.id.empty() && !isId(p.id)) m_root.report("id", "may hold only letters, digits, - and _");
    p.name = m_root.requiredText("name");
    p.kind = m_root.requiredText("kind");
    p.summary = m_root.text("summary");
    p.source = m_figures.source();
    p.words = m_root.texts("words");
    p.hold = m_root.text("hold");
    p.layoutKnown = m_root.flag("layoutKnown");
    p.pitfalls = m_root.texts("pitfalls");
    m_root.texts("needs");  // for the card, like the notes
    m_root.texts("notes");
    m_root.text("basedOn");
    p.figures = m_figures.named(m_root);
    levels(p);
    settings(p);
    conditions();
    m_root.each("terminals", [&](const Json& j, const std::string& at) {
      expand(j, "terminals", m_root.file(), at, m_problems, [&](const Json& one) { terminal(p, one, at); });
    });
    readLayout(m_root, p);
    m_root.each("requires", [&](const Json& j, const std::string& at) { requirement(p, j, at); });
    packages(p);
    microsteps(p);
    m_root.each("elements", [&](const Json& j, const std::string& at) {
      expand(j, "elements", m_root.file(), at, m_problems, [&](const Json& one) {
        ObjectReader r(one, m_root.file(), at, m_problems);
        ElementContext context{m_conditions, [this](ObjectReader& o, const std::string& k, Unit u) { return m_figures.at(o, k, u); }};
        if (auto e = readElement(r, context)) {
          if (e->id.empty()) e->id = fmt::format("e{}", p.elements.size() + 1);
          p.elements.push_back(std::move(*e));
        }
      });
    });
    m_root.each("channels", [&](const Json& j, const std::string& at) { channel(p, j, at); });
    m_root.each("fitted", [&](const Json& j, const std::string&) {
      if (j.is_array() && j.size() == 2 && j[0].is_string() && j[1].is_string())
        p.fitted.emplace_back(j[0].get<std::string>(), j[1].get<std::string>());
      else
        m_root.report("fitted", "is not a list of terminal pairs");
    });
    for (const auto& key : m_root.unknown()) m_root.report(key, "is not a field of a part file");
    verifyPart(p, m_root);
    return p;
  }

 private:
  ObjectReader m_root;
  std::vector<Problem>& m_problems;
  FigureReader m_figures;
  std::map<std::string, Condition> m_conditions;

  void levels(Part& p) {
    const auto* all = m_root.get("levels");
    if (!all || !all->is_object()) return;
    for (const auto& [id, j] : all->items()) {
      ObjectReader r(j, m_root.file(), "/levels/" + id, m_problems);
      LevelSet set;
      set.rail = r.text("of");
      if (set.rail.empty()) {
        set.low = m_figures.at(r, "low", Unit::Volt);
        set.high = m_figures.at(r, "high", Unit::Volt);
        if (!set.low.known() || !set.high.known()) r.report("", "needs low and high");
      } else {
        set.lowShare = r.number("low");
        set.highShare = r.number("high");
        if (!(set.lowShare > 0 && set.highShare < 1 && set.lowShare < set.highShare)) r.report("", "needs shares 0 < low < high < 1");
      }
      for (const auto& k : r.unknown()) r.report(k, "is not a field of a level set");
      p.levels.emplace(id, set);
    }
  }

  void settings(Part& p) {
    m_root.each("settings", [&](const Json& j, const std::string& at) {
      ObjectReader r(j, m_root.file(), at, m_problems);
      Setting s;
      s.id = r.requiredText("id");
      s.label = r.text("label", s.id);
      s.values = r.texts("values");
      s.standard = r.text("default");
      s.byHand = r.flag("byHand");
      if (s.values.size() < 2) r.report("values", "needs at least two values");
      if (!s.standard.empty() && std::ranges::count(s.values, s.standard) == 0) r.report("default", "is not one of the values");
      for (const auto& k : r.unknown()) r.report(k, "is not a field of a setting");
      p.settings.push_back(s);
    });
  }

  // {"capacitor": ["VM", "GND"], "c": "100 uF"}, {"clamp": true}, {"diodes": ["OUT1", "VS", "GND"]}, {"series": ["G"], "r": "220 ohm"},
  // {"pull": ["G", "S"], "r": "10 kohm"}, {"join": ["COM"]}
  void requirement(Part& p, const Json& j, const std::string& at) {
    ObjectReader r(j, m_root.file(), at, m_problems);
    using Kind = Requirement::Kind;
    static constexpr std::array kRequired{std::tuple{"capacitor", Kind::Capacitor, 2}, std::tuple{"diodes", Kind::RailDiodes, 3},
                                          std::tuple{"series", Kind::Series, 1}, std::tuple{"pull", Kind::Pull, 2},
                                          std::tuple{"join", Kind::Join, 1}};
    Requirement q;
    bool known = r.flag("clamp");
    for (const auto& [name, kind, count] : kRequired) {
      if (!r.has(name)) continue;
      auto ends = r.texts(name);
      if (static_cast<int>(ends.size()) != count) r.report(name, fmt::format("needs {} terminals", count));
      ends.resize(3);
      q.kind = kind;
      q.a = ends[0], q.b = ends[1], q.c = ends[2];
      for (const auto& end : ends)
        if (!end.empty() && !p.find(end)) r.report(name, fmt::format("names the terminal \"{}\", which the part does not have", end));
      known = true;
    }
    if (!known) r.report("", "is no requirement that anything knows");
    q.value = q.kind == Kind::Capacitor ? m_figures.at(r, "c", Unit::Farad) : m_figures.at(r, "r", Unit::Ohm);
    for (const auto& k : r.unknown()) r.report(k, "is not a field of a requirement");
    if (known) p.requirements.push_back(std::move(q));
  }

  void conditions() {
    const auto* all = m_root.get("conditions");
    if (!all || !all->is_object()) return;
    for (const auto& [id, j] : all->items()) {
      auto c = Condition::parse(j.is_string() ? j.get<std::string>() : "", m_conditions);
      if (c)
        m_conditions.emplace(id, *c);
      else
        m_root.report("conditions/" + id, "cannot be used: " + c.error().what);
    }
  }

  void terminal(Part& p, const Json& j, const std::string& at) {
    ObjectReader r(j, m_root.file(), at, m_problems);
    Terminal t;
    t.id = r.requiredText("id");
    if (!t.id.empty() && !isId(t.id)) r.report("id", "may hold only letters, digits, - and _");
    t.label = r.text("label", t.id);
    t.aliases = r.texts("aliases");
    t.formerly = r.texts("formerly");
    t.colour = r.text("colour");
    t.ground = r.flag("ground");
    t.output = r.flag("output");
    t.optional = r.flag("optional");
    t.openDrain = r.flag("openDrain");
    t.edges = r.flag("edges");
    t.bus = r.text("bus");
    t.phase = r.flag("phase");
    t.place.connector = r.text("connector");
    t.place.position = static_cast<int>(r.number("position"));
    t.place.contact = r.text("contact", "pin");
    if (const auto* in = r.get("input")) {
      ObjectReader i(*in, m_root.file(), at + "/input", m_problems);
      InputFacts facts{i.text("levels"), i.requiredText("ground"), m_figures.at(i, "absolute", Unit::Volt)};
      if (!facts.levels.empty() && !p.levels.contains(facts.levels)) i.report("levels", "names no level set of the part");
      for (const auto& k : i.unknown()) i.report(k, "is not a field of an input");
      t.input = facts;
    }
    if (const auto* li = r.get("limit")) {
      ObjectReader l(*li, m_root.file(), at + "/limit", m_problems);
      LimitFacts facts{l.requiredText("ground"),
                       m_figures.at(l, "absolute", Unit::Volt),
                       l.text("of"),
                       m_figures.at(l, "above", Unit::Volt),
                       m_figures.at(l, "below", Unit::Volt),
                       l.text("low"),
                       l.text("high")};
      if (facts.of.empty() == facts.above.known()) l.report("above", "goes with the supply that it is above of");
      for (const auto& k : l.unknown()) l.report(k, "is not a field of a limit");
      t.limit = facts;
    }
    if (const auto* su = r.get("supply")) {
      ObjectReader s(*su, m_root.file(), at + "/supply", m_problems);
      if (!s.has("for")) s.report("", "has no \"for\"");
      t.supply = SupplyFacts{worded<SupplyFor>(s, "for", kSupplyWords),
                             s.requiredText("return"),
                             m_figures.at(s, "recommended", Unit::Volt),
                             m_figures.at(s, "absolute", Unit::Volt),
                             m_figures.at(s, "bulk", Unit::Farad),
                             s.flag("ceramicOnly"),
                             s.flag("afterLogic"),
                             m_figures.at(s, "feeds", Unit::Amp)};
      if (const auto* by = s.get("feedsBy"); by && by->is_object()) {
        ObjectReader each(*by, m_root.file(), at + "/supply/feedsBy", m_problems);
        for (const auto& [element, figure] : by->items()) t.supply->feedsBy.emplace_back(element, m_figures.at(each, element, Unit::Amp));
      }
      for (const auto& k : s.unknown()) s.report(k, "is not a field of a supply");
    }
    if (const auto* pi = r.get("pin")) {
      ObjectReader s(*pi, m_root.file(), at + "/pin", m_problems);
      PinFacts facts;
      facts.code = s.text("code");
      facts.chip = s.text("chip");
      facts.output = s.flag("output", true);
      facts.digital = s.flag("digital", true);
      facts.pwm = s.text("pwm");
      facts.channel = s.text("pwmChannel");
      facts.softPwm = s.flag("softPwm");
      facts.reserved = s.text("reserved");
      facts.boot = worded<Boot>(s, "boot", kBootWords);
      facts.strap = s.text("strap");
      facts.pulls = s.text("pulls");
      facts.bus = s.text("bus");
      facts.serial = s.text("serial");
      for (const auto& k : s.unknown()) s.report(k, "is not a field of a pin");
      t.pin = facts;
    }
    t.side = t.ground ? Side::Bottom : t.output ? Side::Right : Side::Left;
    if (const auto side = r.text("side"); !side.empty())
      t.side = side == "right" ? Side::Right : side == "top" ? Side::Top : side == "bottom" ? Side::Bottom : Side::Left;
    for (const auto& k : r.unknown()) r.report(k, "is not a field of a terminal");
    p.terminals.push_back(t);
  }

  void channel(Part& p, const Json& j, const std::string& at) {
    ObjectReader r(j, m_root.file(), at, m_problems);
    Channel c;
    c.id = r.requiredText("id");
    c.out = r.texts("out");
    if (const auto* s = r.get("signals"); s && s->is_object())
      for (const auto& [role, t] : s->items())
        if (t.is_string()) c.signals[role] = t.get<std::string>();
    c.continuous = m_figures.at(r, "continuous", Unit::Amp);
    c.continuousSink = m_figures.at(r, "continuousHeatSink", Unit::Amp);
    c.peak = m_figures.at(r, "peak", Unit::Amp);
    r.each("peaks", [&](const Json& row, const std::string& place) {
      ObjectReader one(row, m_root.file(), place, m_problems);
      c.peaks.push_back(
          {m_figures.at(one, "current", Unit::Amp), m_figures.at(one, "time", Unit::Second), m_figures.at(one, "duty", Unit::One)});
      for (const auto& k : one.unknown()) one.report(k, "is not a field of a peak");
    });
    c.trip = m_figures.at(r, "trip", Unit::Amp);
    c.protection = worded<Protection>(r, "protection", kProtectionWords);
    c.returnTerminal = r.text("return");
    c.lowSide = r.flag("lowSide");
    c.pwmMost = m_figures.at(r, "pwmMost", Unit::Hertz);
    c.parallel = r.texts("parallel");
    c.clampsInside = r.flag("clampsInside", true);
    c.clampsDoubtful = r.text("clampsDoubtful");
    for (const auto& k : r.unknown()) r.report(k, "is not a field of a channel");
    p.channels.push_back(c);
  }

  void packages(Part& p) {
    const auto* all = m_root.get("packages");
    if (!all || !all->is_object()) return;
    for (const auto& [id, j] : all->items()) {
      ObjectReader r(j, m_root.file(), "/packages/" + id, m_problems);
      p.packages.push_back({id, m_figures.at(r, "rth", Unit::KelvinPerWatt), m_figures.at(r, "rthHeatSink", Unit::KelvinPerWatt),
                            m_figures.at(r, "hottest", Unit::Celsius), m_figures.at(r, "settles", Unit::Second)});
      for (const auto& k : r.unknown()) r.report(k, "is not a field of a package");
    }
  }

  void microsteps(Part& p) {
    const auto* j = m_root.get("microsteps");
    if (!j) return;
    ObjectReader r(*j, m_root.file(), "/microsteps", m_problems);
    p.microsteps.inputs = r.texts("inputs");
    r.each("rows", [&](const Json& row, const std::string&) {
      const bool fits = row.is_array() && row.size() == 2 && row[0].is_string() && row[1].is_number_integer() &&
                        row[0].get<std::string>().size() == p.microsteps.inputs.size();
      if (fits)
        p.microsteps.rows.emplace_back(row[0].get<std::string>(), row[1].get<int>());
      else
        r.report("rows", "is not a list of levels (\"010\") with the steps they make of one");
    });
    for (const auto& k : r.unknown()) r.report(k, "is not a field of microsteps");
  }
};

}  // namespace

std::optional<Part> readPart(const Json& json, const std::string& file, std::vector<Problem>& problems) {
  const auto before = problems.size();
  Part part = PartReader(json, file, problems).read();
  if (problems.size() > before) return std::nullopt;
  resolve(part);
  return part;
}

Json onTopOf(const Json& base, const Json& derived) {
  Json out = base;
  for (const auto& [key, value] : derived.items()) {
    if (key == "figures" && value.is_object() && out.contains(key) && out[key].is_object()) {
      for (const auto& [id, f] : value.items()) {
        if (f.is_object() && out[key].contains(id))
          for (const auto& [k, v] : f.items()) out[key][id][k] = v;
        else
          out[key][id] = f;
      }
    } else {
      out[key] = value;
    }
  }
  return out;
}

}  // namespace bold::parts
