#include "core/parts/read_figures.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/base/reader.h"

namespace bold::parts {
namespace {

const std::map<std::string, Unit> kUnitNames{{"V", Unit::Volt},      {"A", Unit::Amp},    {"ohm", Unit::Ohm},
                                             {"W", Unit::Watt},      {"F", Unit::Farad},  {"H", Unit::Henry},
                                             {"Hz", Unit::Hertz},    {"s", Unit::Second}, {"m", Unit::Metre},
                                             {"Ah", Unit::AmpHour},  {"", Unit::One},     {"K/W", Unit::KelvinPerWatt},
                                             {"degC", Unit::Celsius}};

void replace(std::vector<NamedFigure>& figures, const std::map<std::string, std::string>& overrides) {
  for (const auto& [id, value] : overrides) {
    const auto it = std::ranges::find(figures, id, &NamedFigure::id);
    if (it == figures.end()) continue;  // the bench reports overrides of figures that do not exist
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
void derive(std::vector<NamedFigure>& figures) {
  for (auto& c : figures) {
    if (c.derivedFrom.empty()) continue;
    const auto a = std::ranges::find(figures, c.derivedFrom, &NamedFigure::id);
    const auto b = std::ranges::find(figures, c.derivedOver, &NamedFigure::id);
    if (a == figures.end() || b == figures.end() || !a->figure.typical()) continue;
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

}  // namespace

std::vector<NamedFigure> FigureReader::named(ObjectReader& part, const std::map<std::string, std::string>& overrides) {
  std::vector<NamedFigure> out;
  const auto* all = part.get("figures");
  if (!all) return out;
  if (!all->is_object()) {
    part.report("figures", "is not an object");
    return out;
  }
  for (const auto& [id, j] : all->items()) {
    ObjectReader r(j, part.file(), "/figures/" + id, part.problems());
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
    if (const auto* v = r.get("value")) n.figure = read(*v, unit->second, r, "value");
    if (const auto from = r.text("derived"); !from.empty()) {
      const auto slash = from.find(" / ");
      if (slash == std::string::npos) r.report("derived", "is not of the form \"a / b\"");
      n.derivedFrom = from.substr(0, slash);
      n.derivedOver = slash == std::string::npos ? "" : from.substr(slash + 3);
    }
    for (const auto& k : r.unknown()) r.report(k, "is not a field of a figure");
    out.push_back(n);
  }
  replace(out, overrides);
  derive(out);
  for (const auto& f : out) m_named[f.id] = f.figure;
  return out;
}

// "@name" takes a named figure of the part; anything else is a figure written in place.
Figure FigureReader::at(ObjectReader& o, const std::string& key, Unit unit) const {
  Figure none;
  none.unit = unit;
  const auto* v = o.get(key);
  if (!v) return none;
  if (v->is_string() && v->get<std::string>().starts_with('@')) {
    const auto name = v->get<std::string>().substr(1);
    const auto it = m_named.find(name);
    if (it == m_named.end()) {
      o.report(key, fmt::format("names a figure \"{}\" that the part does not have", name));
      return none;
    }
    if (it->second.unit != unit) o.report(key, fmt::format("needs {}, but \"{}\" has another unit", unitSign(unit), name));
    return it->second;
  }
  return read(*v, unit, o, key);
}

Figure FigureReader::read(const Json& v, Unit unit, ObjectReader& o, const std::string& key) const {
  Figure f;
  f.unit = unit;
  if (v.is_string()) {
    auto parsed = parseFigure(v.get<std::string>(), unit);
    if (parsed)
      f = *parsed;
    else
      o.report(key, "cannot be used: " + parsed.error().what);
  } else if (v.is_object()) {
    ObjectReader r(v, o.file(), o.pointer() + "/" + key, o.problems());
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

}  // namespace bold::parts
