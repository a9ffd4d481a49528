#include "core/parts/part_limits.h"

#include <fmt/core.h>

#include <algorithm>

namespace bold::parts {
namespace {

std::string text(double value, Unit unit) {
  return displayText(AnyQuantity{value, unit});
}

std::string_view word(Protection p) {
  switch (p) {
    case Protection::None:
      return "none";
    case Protection::Thermal:
      return "thermal";
    case Protection::OverCurrent:
      return "over-current and thermal";
    case Protection::CurrentLimit:
      return "regulates its current";
  }
  return {};
}

class Limits {
 public:
  explicit Limits(const Part& p) : m_part(p) {}

  std::vector<PartLimit> all() {
    for (const auto& t : m_part.terminals) terminal(t);
    for (const auto& [id, set] : m_part.levels) levels(id, set);
    for (const auto& c : m_part.channels) channel(c);
    for (const auto& p : m_part.packages) package(p);
    for (const auto& e : m_part.elements) std::visit([&](const auto& body) { element(e, body); }, e.body);
    return std::move(m_out);
  }

 private:
  const Part& m_part;
  std::vector<PartLimit> m_out;

  void add(std::string of, std::string what, std::string value, const Figure& f) {
    PartLimit l{std::move(of), std::move(what), std::move(value), f.condition, f.source, f.confidence};
    const bool known =
        std::ranges::any_of(m_out, [&](const PartLimit& o) { return o.of == l.of && o.what == l.what && o.value == l.value; });
    if (!known) m_out.push_back(std::move(l));
  }
  // An unknown limit is worth knowing where a check asks for it.
  void figure(const std::string& of, const std::string& what, const Figure& f, bool asked = false) {
    if (f.known() || asked) add(of, what, displayText(f), f);
  }
  void rows(const std::string& of, const std::string& what, const std::vector<std::pair<double, double>>& table, Unit at, Unit value) {
    for (const auto& [x, y] : table) add(of, fmt::format("{} at {}", what, text(x, at)), text(y, value), Figure{});
  }

  void terminal(const Terminal& t) {
    if (t.supply) {
      const auto supply = std::string(wordFor(kSupplyWords, t.supply->purpose));
      figure(t.id, supply + " supply", t.supply->recommended, true);
      figure(t.id, supply + " supply, absolute maximum", t.supply->absolute, true);
      figure(t.id, "asks for a capacitor", t.supply->bulk);
      figure(t.id, "gives", t.supply->feeds);
      for (const auto& [by, f] : t.supply->feedsBy) figure(t.id, "gives, fed by " + by, f);
    }
    if (t.input) figure("inputs", "absolute maximum", t.input->absolute);
    if (t.limit) {
      figure(t.id, "absolute maximum", t.limit->absolute);
      figure(t.id, "above " + std::string(t.limit->of) + " at most", t.limit->above);
      figure(t.id, "below its ground at most", t.limit->below);
    }
  }
  void levels(const std::string& id, const LevelSet& set) {
    const auto of = "levels " + id;
    if (!set.rail.empty()) {
      add(of, "low up to", fmt::format("{:g} x {}", set.lowShare, std::string(set.rail)), Figure{});
      add(of, "high from", fmt::format("{:g} x {}", set.highShare, std::string(set.rail)), Figure{});
    } else {
      figure(of, "low up to", set.low);
      figure(of, "high from", set.high);
    }
  }
  void channel(const Channel& c) {
    const auto of = "channel " + c.id;
    figure(of, "for long", c.continuous, true);
    figure(of, "for long, heat sink fitted", c.continuousSink);
    figure(of, "peak, repeated", c.peak);
    for (const auto& r : c.peaks)
      add(of, r.duty.known() ? fmt::format("peak at {:g} duty", *r.duty.typical()) : "peak, once",
          displayText(r.current) + (r.time.known() ? " for " + displayText(r.time) : ""), r.current);
    figure(of, "trips at", c.trip);
    add(of, "protection", std::string(word(c.protection)), Figure{});
    figure(of, "PWM up to", c.pwmMost);
    if (!c.lowSide && c.out.size() == 2) add(of, "clamp diodes", c.clampsInside ? "inside" : "none", Figure{});
  }
  void package(const Package& p) {
    const auto of = "package " + p.id;
    figure(of, "junction to air", p.thermal, true);
    figure(of, "junction to air, heat sink fitted", p.thermalSink);
    figure(of, "hottest junction", p.hottest, true);
    figure(of, "thermal time constant", p.settles);
  }

  static std::string named(const Element& e, const char* kind) { return e.id.empty() ? kind : fmt::format("{} {}", kind, e.id); }

  void element(const Element&, const Joint&) {}
  void element(const Element&, const Winding&) {}  // of its figures
  void element(const Element&, const Source&) {}
  void element(const Element&, const Contact&) {}
  void element(const Element& e, const Resistor& r) {
    if (r.fuse)
      figure(named(e, "fuse"), "rating", r.rating);
    else if (r.power.known())
      figure(named(e, "resistor"), "power", r.power);
  }
  void element(const Element& e, const Capacitor& c) {
    figure(named(e, "capacitor"), "capacitance", c.capacitance);
    figure(named(e, "capacitor"), "rated", c.rated);
  }
  void element(const Element& e, const Diode& d) {
    const auto of = named(e, d.led ? "LED of an input" : "diode");
    figure(of, fmt::format("drop at {}", displayText(d.ratedCurrent)), d.drop);
    figure(of, "backwards", d.reverseVoltage);
    figure(of, "once", d.surge);
    figure(of, "recovery", d.recovery);
    figure(of, "conducts backwards at", d.zener);
    figure(of, "surely on from", d.promised);
    figure(of, "at most", d.most);
  }
  void element(const Element&, const Switch& s) {
    figure("switches", s.oneWay ? "drop" : "resistance", s.oneWay ? s.v0 : s.resistance);
    if (s.oneWay) figure("switches", "and resistance", s.resistance);
    figure("switches", "greatest drop", s.v0Max);
    figure("switches", "greatest resistance", s.resistanceMax);
  }
  void element(const Element& e, const Bipolar& b) {
    const auto of = named(e, "transistor");
    figure(of, "VBE", b.vbe);
    figure(of, "VCE, absolute maximum", b.vce);
    rows(of, "least gain", b.hfeMin, Unit::Amp, Unit::One);
    rows(of, "greatest VCE(sat)", b.saturation, Unit::Amp, Unit::Volt);
    rows(of, "input voltage needed", b.inputFor, Unit::Amp, Unit::Volt);
  }
  void element(const Element& e, const Phototransistor& t) {
    const auto of = named(e, "optocoupler");
    figure(of, "transfer ratio", t.ratio);
    figure(of, "VCE, absolute maximum", t.vce);
    figure(of, "greatest VCE(sat)", t.saturation);
  }
  void element(const Element& e, const Mosfet& m) {
    const auto of = named(e, "transistor");
    figure(of, "VGS(th)", m.threshold);
    figure(of, "VDS, absolute maximum", m.vds);
    figure(of, "VGS, absolute maximum", m.vgs);
    rows(of, "greatest RDS(on)", m.rds, Unit::Volt, Unit::Ohm);
  }
  void element(const Element& e, const Sink& s) {
    figure(named(e, "draw"), "current", s.current, true);
    figure(named(e, "draw"), "needs", s.voltage);
    figure(named(e, "draw"), "starts anew below", s.resets);
  }
  void element(const Element& e, const Regulator& r) {
    const auto of = named(e, "regulator");
    figure(of, "gives", r.set);
    figure(of, "dropout", r.dropout);
    figure(of, "current limit", r.limit);
    figure(of, "input, absolute maximum", r.absolute);
    figure(of, "input, as printed", r.printed);
    figure(of, "input, least", r.least);
    figure(of, "switch current limit", r.inputLimit);
    figure(of, "efficiency", r.efficiency);
    figure(of, "own current", r.idle);
  }
  void element(const Element& e, const Pins& p) {
    const auto of = named(e, "pins");
    figure(of, "resistance", p.resistance);
    figure(of, "to plan with, each", p.recommended);
    figure(of, "absolute maximum, each", p.absolute);
    figure(of, "absolute maximum, all together", p.total);
    figure(of, "tolerate without a clamp", p.tolerated);
    for (const auto& [pins, amps] : p.groups)
      add(of, fmt::format("{} to {} together", std::string(pins.front()), std::string(pins.back())), text(amps, Unit::Amp), Figure{});
  }
  void element(const Element& e, const Chopper& c) {
    const auto of = named(e, "chopper");
    figure(of, "both switches of a path", c.rds);
    add(of, "current", fmt::format("reference / ({:g} x sense resistor){}", c.perVolt, c.referenceIsRms ? ", RMS" : ", peak"), Figure{});
    figure(of, "least high of a step", c.stepHigh);
    figure(of, "least low of a step", c.stepLow);
    figure(of, "direction before step", c.setUp);
  }
};

}  // namespace

std::vector<PartLimit> limitsOf(const Part& part) {
  return Limits(part).all();
}

}  // namespace bold::parts
