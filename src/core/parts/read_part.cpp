#include "core/parts/read_part.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/address.h"
#include "core/base/reader.h"
#include "core/parts/read_element.h"
#include "core/parts/resolve.h"
#include "core/parts/verify_part.h"

namespace bold::parts {
namespace {

const std::map<std::string, Unit> kUnitNames{{"V", Unit::Volt},      {"A", Unit::Amp},    {"ohm", Unit::Ohm},
                                             {"W", Unit::Watt},      {"F", Unit::Farad},  {"H", Unit::Henry},
                                             {"Hz", Unit::Hertz},    {"s", Unit::Second}, {"m", Unit::Metre},
                                             {"Ah", Unit::AmpHour},  {"", Unit::One},     {"K/W", Unit::KelvinPerWatt},
                                             {"degC", Unit::Celsius}};

class PartReader {
 public:
  PartReader(const Json& json, std::string file, std::vector<Problem>& problems, const std::map<std::string, std::string>& overrides)
      : m_root(json, std::move(file), "", problems), m_overrides(overrides), m_problems(problems) {}

  Part read() {
    Part p;
    if (const int format = static_cast<int>(m_root.number("format", 0)); format != 1)
      m_root.report("format", fmt::format("is {}: this program reads part format 1", format));
    p.id = m_root.requiredText("id");
    if (!p.id.empty() && !isId(p.id)) m_root.report("id", "may hold only letters, digits, - and _");
    p.name = m_root.requiredText("name");
    p.kind = m_root.requiredText("kind");
    p.summary = m_root.text("summary");
    p.source = m_root.text("source", "recalled, not re-read");
    p.words = m_root.texts("words");
    p.hold = m_root.text("hold");
    p.layoutKnown = m_root.flag("layoutKnown");
    p.pitfalls = m_root.texts("pitfalls");
    m_root.texts("needs");  // for the card, like the notes
    m_root.texts("notes");
    m_root.text("basedOn");
    m_source = p.source;
    figures(p);
    levels(p);
    settings(p);
    conditions();
    m_root.each("terminals", [&](const Json& j, const std::string& at) {
      expand(j, at, "terminals", [&](const Json& one, const std::string& where) { terminal(p, one, where); });
    });
    packages(p);
    microsteps(p);
    m_root.each("elements", [&](const Json& j, const std::string& at) {
      expand(j, at, "elements", [&](const Json& one, const std::string& where) {
        ObjectReader r(one, m_root.file(), where, m_problems);
        ElementContext context{m_conditions, [this](ObjectReader& o, const std::string& k, Unit u) { return figure(o, k, u); }};
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
  const std::map<std::string, std::string>& m_overrides;
  std::vector<Problem>& m_problems;
  std::string m_source;
  std::map<std::string, NamedFigure> m_figures;
  std::map<std::string, Condition> m_conditions;

  // "@name" takes a named figure of the part; anything else is a figure written in place.
  Figure figure(ObjectReader& o, const std::string& key, Unit unit) {
    Figure none;
    none.unit = unit;
    const auto* v = o.get(key);
    if (!v) return none;
    if (v->is_string() && v->get<std::string>().starts_with('@')) {
      const auto name = v->get<std::string>().substr(1);
      const auto it = m_figures.find(name);
      if (it == m_figures.end()) {
        o.report(key, fmt::format("names a figure \"{}\" that the part does not have", name));
        return none;
      }
      if (it->second.figure.unit != unit) o.report(key, fmt::format("needs {}, but \"{}\" has another unit", unitSign(unit), name));
      return it->second.figure;
    }
    return readFigure(*v, unit, o, key);
  }

  Figure readFigure(const Json& v, Unit unit, ObjectReader& o, const std::string& key) {
    Figure f;
    f.unit = unit;
    if (v.is_string()) {
      auto parsed = parseFigure(v.get<std::string>(), unit);
      if (parsed)
        f = *parsed;
      else
        o.report(key, "cannot be used: " + parsed.error().what);
    } else if (v.is_object()) {
      ObjectReader r(v, o.file(), o.pointer() + "/" + key, m_problems);
      const auto one = [&](const char* name, std::optional<double>& slot) {
        if (!r.has(name)) return;
        auto q = parseQuantity(r.text(name), unit);
        if (q)
          slot = q->value;
        else
          r.report(name, "cannot be used: " + q.error().what);
      };
      one("min", f.min);
      one("typ", f.typ);
      one("max", f.max);
      if (r.has("spread")) {
        auto s = parseFigure(r.text("spread"), unit);
        if (s && s->min && s->max) {
          f.spreadMin = s->min;
          f.spreadMax = s->max;
        } else {
          r.report("spread", "is not a range such as \"2 A .. 3 A\"");
        }
      }
      f.condition = r.text("condition");
      f.source = r.text("source");
      f.confidence = r.text("confidence");
      if (const auto second = r.text("secondReading"); !second.empty())
        if (auto q = parseFigure(second, unit); !q) r.report("secondReading", "cannot be used: " + q.error().what);
      for (const auto& k : r.unknown()) r.report(k, "is not a field of a figure");
    } else {
      o.report(key, "is not a figure: write it with its unit, as text");
    }
    if (f.source.empty()) f.source = m_source;
    // Nothing that a part file states may be negative, but a temperature.
    for (const auto& x : {f.min, f.typ, f.max})
      if (x && *x < 0 && unit != Unit::Celsius) o.report(key, "is negative");
    return f;
  }

  void figures(Part& p) {
    const auto* all = m_root.get("figures");
    if (!all) return;
    if (!all->is_object()) {
      m_root.report("figures", "is not an object");
      return;
    }
    for (const auto& [id, j] : all->items()) {
      ObjectReader r(j, m_root.file(), "/figures/" + id, m_problems);
      NamedFigure n;
      n.id = id;
      n.label = r.text("label", id);
      const auto unit = kUnitNames.find(r.text("unit"));
      if (unit == kUnitNames.end()) {
        r.report("unit", "is not one of V, A, ohm, W, F, H, Hz, s, m, Ah, K/W, degC");
        continue;
      }
      n.figure.unit = unit->second;
      n.figure.source = m_source;
      if (const auto* v = r.get("value")) n.figure = readFigure(*v, unit->second, r, "value");
      if (const auto from = r.text("derived"); !from.empty()) {
        const auto slash = from.find(" / ");
        if (slash == std::string::npos) r.report("derived", "is not of the form \"a / b\"");
        n.derivedFrom = from.substr(0, slash);
        n.derivedOver = slash == std::string::npos ? "" : from.substr(slash + 3);
      }
      for (const auto& k : r.unknown()) r.report(k, "is not a field of a figure");
      m_figures.emplace(id, n);
      p.figures.push_back(n);
    }
    replaceFigures(p);
    derive(p);
    for (const auto& f : p.figures) m_figures[f.id] = f;
  }

  void replaceFigures(Part& p) {
    for (const auto& [id, value] : m_overrides) {
      const auto it = std::ranges::find(p.figures, id, &NamedFigure::id);
      if (it == p.figures.end()) continue;  // the bench reports overrides of figures that do not exist
      if (auto f = parseFigure(value, it->figure.unit)) {
        // A measured value keeps the relative cold-to-hot spread of what it replaces.
        Figure measured = *f;
        if (measured.typ && !measured.min && it->figure.min && it->figure.max && it->figure.typical() && *it->figure.typical() > 0) {
          measured.min = *measured.typ * *it->figure.min / *it->figure.typical();
          measured.max = *measured.typ * *it->figure.max / *it->figure.typical();
        }
        measured.source = "given for this bench";
        measured.overridden = true;
        it->figure = measured;
      }
    }
  }

  // c = a / b. Overriding c recomputes b; otherwise c follows from a and b.
  static void derive(Part& p) {
    for (auto& c : p.figures) {
      if (c.derivedFrom.empty()) continue;
      const auto a = std::ranges::find(p.figures, c.derivedFrom, &NamedFigure::id);
      const auto b = std::ranges::find(p.figures, c.derivedOver, &NamedFigure::id);
      if (a == p.figures.end() || b == p.figures.end() || !a->figure.typical()) continue;
      NamedFigure& target = c.figure.overridden && !b->figure.overridden ? *b : c;
      const NamedFigure& divisor = &target == &c ? *b : c;
      if (&target == &c && c.figure.overridden) continue;
      if (!divisor.figure.typical() || *divisor.figure.typical() <= 0) continue;
      Figure f;
      f.unit = target.figure.unit;
      f.typ = *a->figure.typical() / *divisor.figure.typical();
      f.source = "follows from " + a->label + " and " + divisor.label;
      f.overridden = divisor.figure.overridden;
      target.figure = f;
    }
  }

  void levels(Part& p) {
    const auto* all = m_root.get("levels");
    if (!all || !all->is_object()) return;
    for (const auto& [id, j] : all->items()) {
      ObjectReader r(j, m_root.file(), "/levels/" + id, m_problems);
      LevelSet set;
      set.rail = r.text("of");
      if (set.rail.empty()) {
        set.low = figure(r, "low", Unit::Volt);
        set.high = figure(r, "high", Unit::Volt);
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
      if (s.values.size() < 2) r.report("values", "needs at least two values");
      if (!s.standard.empty() && std::ranges::count(s.values, s.standard) == 0) r.report("default", "is not one of the values");
      for (const auto& k : r.unknown()) r.report(k, "is not a field of a setting");
      p.settings.push_back(s);
    });
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

  // {"for": "1..3", "as": ["n"], key: [...]} stands for its list once for each row, with $n replaced.
  template <class F>
  void expand(const Json& j, const std::string& at, const std::string& key, F f) {
    if (!j.is_object() || !j.contains("for")) {
      f(j, at);
      return;
    }
    std::vector<std::vector<std::string>> rows;
    const auto& source = j["for"];
    if (source.is_string()) {
      const auto s = source.get<std::string>();
      const auto dots = s.find("..");
      const int from = std::atoi(s.c_str());
      const int to = dots == std::string::npos ? from : std::atoi(s.c_str() + dots + 2);
      for (int i = from; i <= std::min(to, from + 999); ++i) rows.push_back({std::to_string(i)});
    } else if (source.is_array()) {
      for (const auto& row : source) {
        if (row.is_string())
          rows.push_back({row.get<std::string>()});
        else if (row.is_array() && std::ranges::all_of(row, [](const Json& x) { return x.is_string(); }))
          rows.push_back(row.get<std::vector<std::string>>());
      }
    }
    const auto names = j.contains("as") && j["as"].is_array() ? j["as"] : Json::array({"n"});
    if (rows.empty() || !j.contains(key) || !j[key].is_array()) {
      m_problems.push_back({"This repetition has no rows or nothing to repeat.", m_root.file() + "#" + at, {}});
      return;
    }
    for (const auto& row : rows) {
      std::string text = j[key].dump();
      for (std::size_t i = 0; i < names.size() && i < row.size(); ++i) {
        const std::string mark = "$" + names[i].get<std::string>();
        for (auto k = text.find(mark); k != std::string::npos; k = text.find(mark, k + row[i].size())) text.replace(k, mark.size(), row[i]);
      }
      const Json list = Json::parse(text, nullptr, false);
      if (list.is_array())
        for (const auto& one : list) f(one, at);
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
    t.place.connector = r.text("connector");
    t.place.position = static_cast<int>(r.number("position"));
    t.place.contact = r.text("contact", "pin");
    if (const auto* in = r.get("input")) {
      ObjectReader i(*in, m_root.file(), at + "/input", m_problems);
      InputFacts facts{i.text("levels"), i.requiredText("ground"), figure(i, "absolute", Unit::Volt)};
      if (!facts.levels.empty() && !p.levels.contains(facts.levels)) i.report("levels", "names no level set of the part");
      for (const auto& k : i.unknown()) i.report(k, "is not a field of an input");
      t.input = facts;
    }
    if (const auto* su = r.get("supply")) {
      ObjectReader s(*su, m_root.file(), at + "/supply", m_problems);
      t.supply = SupplyFacts{s.requiredText("for"),
                             s.requiredText("return"),
                             figure(s, "recommended", Unit::Volt),
                             figure(s, "absolute", Unit::Volt),
                             figure(s, "bulk", Unit::Farad),
                             s.flag("ceramicOnly"),
                             s.flag("afterLogic"),
                             figure(s, "feeds", Unit::Amp)};
      if (t.supply->purpose != "motor" && t.supply->purpose != "logic" && t.supply->purpose != "board")
        s.report("for", "is not motor, logic or board");
      for (const auto& k : s.unknown()) s.report(k, "is not a field of a supply");
    }
    if (const auto* pi = r.get("pin")) {
      ObjectReader s(*pi, m_root.file(), at + "/pin", m_problems);
      PinFacts facts;
      facts.code = s.text("code");
      facts.chip = s.text("chip");
      facts.output = s.flag("output", true);
      facts.pwm = s.text("pwm");
      facts.softPwm = s.flag("softPwm");
      facts.reserved = s.text("reserved");
      facts.boot = s.text("boot", "float");
      facts.strap = s.text("strap");
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
    c.continuous = figure(r, "continuous", Unit::Amp);
    c.continuousSink = figure(r, "continuousHeatSink", Unit::Amp);
    c.peak = figure(r, "peak", Unit::Amp);
    c.trip = figure(r, "trip", Unit::Amp);
    const auto protection = r.text("protection", "none");
    c.protection = protection == "thermal"         ? Protection::Thermal
                   : protection == "over-current"  ? Protection::OverCurrent
                   : protection == "current-limit" ? Protection::CurrentLimit
                                                   : Protection::None;
    c.returnTerminal = r.text("return");
    c.lowSide = r.flag("lowSide");
    c.pwmMost = figure(r, "pwmMost", Unit::Hertz);
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
      p.packages.push_back({id, figure(r, "rth", Unit::KelvinPerWatt), figure(r, "rthHeatSink", Unit::KelvinPerWatt),
                            figure(r, "hottest", Unit::Celsius), figure(r, "settles", Unit::Second)});
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

std::optional<Part> readPart(const Json& json, const std::string& file, std::vector<Problem>& problems,
                             const std::map<std::string, std::string>& overrides) {
  const auto before = problems.size();
  Part part = PartReader(json, file, problems, overrides).read();
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
