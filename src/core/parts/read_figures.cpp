#include "core/parts/read_figures.h"

#include <fmt/core.h>

#include "core/base/reader.h"
#include "core/parts/named_figures.h"

namespace bold::parts {
namespace {

const std::map<std::string, Unit> kUnitNames{{"V", Unit::Volt},      {"A", Unit::Amp},    {"ohm", Unit::Ohm},
                                             {"W", Unit::Watt},      {"F", Unit::Farad},  {"H", Unit::Henry},
                                             {"Hz", Unit::Hertz},    {"s", Unit::Second}, {"m", Unit::Metre},
                                             {"Ah", Unit::AmpHour},  {"", Unit::One},     {"K/W", Unit::KelvinPerWatt},
                                             {"degC", Unit::Celsius}};

}  // namespace

std::vector<NamedFigure> FigureReader::named(ObjectReader& part) {
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
  for (auto& f : out) f.stated = f.figure;
  workOut(out, {});
  for (std::size_t i = 0; i < out.size(); ++i) {
    m_named[out[i].id] = out[i].figure;
    m_named[out[i].id].named = static_cast<int>(i);
  }
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
