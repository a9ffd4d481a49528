#include "core/parts/read_element.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/base/reader.h"

namespace bold::parts {
namespace {

using Rows = std::vector<std::pair<double, double>>;

class Form {
 public:
  Form(ObjectReader& r, const ElementContext& c) : m_r(r), m_c(c) {}

  std::vector<Node> nodes(const char* key, std::size_t count) {
    const auto texts = m_r.texts(key);
    std::vector<Node> n(texts.begin(), texts.end());
    if (count != 0 && n.size() != count) {
      m_r.report(key, fmt::format("needs {} terminals", count));
      n.resize(count);
    }
    return n;
  }
  Figure figure(const char* key, Unit unit, bool required = false) {
    if (required && !m_r.has(key)) m_r.report("", fmt::format("has no \"{}\"", key));
    return m_c.figure(m_r, key, unit);
  }
  Condition condition(const char* key = "on") {
    auto c = Condition::parse(m_r.text(key), m_c.conditions);
    if (!c) {
      m_r.report(key, "cannot be used: " + c.error().what);
      return {};
    }
    return *c;
  }
  Rows rows(const char* key, Unit first, Unit second) {
    Rows out;
    m_r.each(key, [&](const Json& row, const std::string&) {
      const bool pair = row.is_array() && row.size() == 2 && row[0].is_string() && row[1].is_string();
      auto a = pair ? parseQuantity(row[0].get<std::string>(), first) : fail(std::string("it is not a pair of texts"));
      auto b = pair ? parseQuantity(row[1].get<std::string>(), second) : fail(std::string("it is not a pair of texts"));
      if (a && b && a->value >= 0 && b->value >= 0)
        out.emplace_back(a->value, b->value);
      else
        m_r.report(key, "has a row that cannot be used: " + (!a ? a.error().what : !b ? b.error().what : "it is negative"));
    });
    std::ranges::sort(out);
    return out;
  }
  bool has(const char* key) const { return m_r.has(key); }
  bool flag(const char* key) { return m_r.flag(key); }
  std::string text(const char* key) { return m_r.text(key); }
  /// One of these, the first where it is not stated.
  std::string choice(const char* key, const std::vector<std::string>& among) {
    auto chosen = m_r.text(key, among.front());
    if (std::ranges::count(among, chosen) == 0) m_r.report(key, fmt::format("is not one of {}", fmt::join(among, ", ")));
    return chosen;
  }
  double number(const char* key, double fallback) { return m_r.number(key, fallback); }

  // [[["D0", "D1"], "200 mA"], ...]
  std::vector<std::pair<std::vector<Node>, double>> groups(const char* key) {
    std::vector<std::pair<std::vector<Node>, double>> out;
    m_r.each(key, [&](const Json& g, const std::string&) {
      const bool fits = g.is_array() && g.size() == 2 && g[0].is_array() && g[1].is_string() &&
                        std::ranges::all_of(g[0], [](const Json& x) { return x.is_string(); });
      const auto amps = fits ? parseQuantity(g[1].get<std::string>(), Unit::Amp) : fail(std::string("it is not a pair"));
      if (amps && amps->value > 0)
        out.emplace_back(nodeList(g[0]), amps->value);
      else
        m_r.report(key, "is not a list of pin lists with their greatest current");
    });
    return out;
  }

  static std::vector<Node> nodeList(const Json& names) {
    std::vector<Node> out;
    for (const auto& n : names) out.emplace_back(n.get<std::string>());
    return out;
  }

  std::vector<std::pair<Node, Node>> pairs(const char* key) {
    std::vector<std::pair<Node, Node>> out;
    m_r.each(key, [&](const Json& p, const std::string&) {
      if (p.is_array() && p.size() == 2 && p[0].is_string() && p[1].is_string())
        out.emplace_back(p[0].get<std::string>(), p[1].get<std::string>());
      else
        m_r.report(key, "is not a list of terminal pairs");
    });
    return out;
  }

 private:
  ObjectReader& m_r;
  const ElementContext& m_c;
};

Moved moved(Form& f) {
  if (!f.has("moved")) return Moved::No;
  const auto how = f.choice("moved", {"pressed", "senses", "slides", "switched", "thrown"});
  return how == "slides"     ? Moved::Slides
         : how == "senses"   ? Moved::Senses
         : how == "switched" ? Moved::Switched
         : how == "thrown"   ? Moved::Thrown
                             : Moved::Pressed;
}

ElementBody winding(Form& f, const std::vector<Node>& n) {
  Winding w;
  w.a = n[0];
  w.b = n[1];
  w.name = f.text("name");
  w.brushed = f.flag("brushed");
  w.still = f.flag("still");
  w.resistance = f.figure("r", Unit::Ohm);
  w.inductance = f.figure("l", Unit::Henry);
  w.run = f.figure("run", Unit::Amp);
  w.nominal = f.figure("nominal", Unit::Volt);
  w.highest = f.figure("highest", Unit::Volt);
  w.phase = f.figure("phase", Unit::Amp);
  w.directional = f.flag("directional");
  w.bonded = f.text("bonded");
  w.thermal = f.figure("rth", Unit::KelvinPerWatt);
  w.hottest = f.figure("hottest", Unit::Celsius);
  w.settles = f.figure("settles", Unit::Second);
  return w;
}

ElementBody source(Form& f, const std::vector<Node>& n) {
  Source s;
  s.positive = n[0];
  s.negative = n[1];
  s.full = f.figure("full", Unit::Volt);
  s.nominal = f.figure("nominal", Unit::Volt);
  s.empty = f.figure("empty", Unit::Volt);
  s.resistance = f.figure("r", Unit::Ohm);
  s.continuous = f.figure("continuous", Unit::Amp);
  s.limit = f.figure("limit", Unit::Amp);
  s.capacity = f.figure("capacity", Unit::AmpHour);
  s.capacitance = f.figure("c", Unit::Farad);
  s.sinks = f.flag("sinks");
  s.cutsOff = f.flag("cutsOff");
  s.lithium = f.flag("lithium");
  s.alternating = f.flag("alternating");
  s.lowLoad = f.figure("lowLoad", Unit::Amp);
  return s;
}

ElementBody bipolar(Form& f, const std::vector<Node>& n) {
  Bipolar b;
  b.collector = n[0];
  b.base = n[1];
  b.emitter = n[2];
  b.pnp = f.text("type") == "pnp";
  b.darlington = f.flag("darlington");
  b.vbe = f.figure("vbe", Unit::Volt, true);
  b.vce = f.figure("vce", Unit::Volt);
  b.hfeMin = f.rows("hfe", Unit::Amp, Unit::One);
  b.saturation = f.rows("saturation", Unit::Amp, Unit::Volt);
  b.inputFor = f.rows("inputFor", Unit::Amp, Unit::Volt);
  return b;
}

ElementBody pins(Form& f) {
  Pins p;
  p.pins = f.nodes("pins", 0);
  p.rail = f.text("rail");
  p.ground = f.text("ground");
  p.resistance = f.figure("r", Unit::Ohm, true);
  p.shortCircuit = f.figure("shortCircuit", Unit::Amp);
  p.recommended = f.figure("recommended", Unit::Amp);
  p.absolute = f.figure("absolute", Unit::Amp);
  p.pull = f.figure("pull", Unit::Ohm);
  p.total = f.figure("total", Unit::Amp);
  p.groups = f.groups("groups");
  p.tolerant = f.nodes("tolerant", 0);
  p.tolerated = f.figure("tolerated", Unit::Volt);
  p.servoTimer = f.text("servoTimer");
  if (f.has("pulls")) p.pulls = f.choice("pulls", {"up", "down", "both", "none"});
  if (f.has("analog")) p.analog = f.nodes("analog", 0);
  if (f.has("interrupts")) p.interrupts = f.nodes("interrupts", 0);
  p.bus = f.flag("bus");
  p.behind = f.flag("behind");
  if (f.has("on")) p.on = f.condition();
  return p;
}

ElementBody chopper(Form& f, const std::vector<Node>& n) {
  Chopper c;
  c.supply = n[0];
  c.ground = n[1];
  c.coils = f.pairs("coils");
  c.on = f.condition();
  c.rds = f.figure("rds", Unit::Ohm, true);
  c.quiescent = f.figure("quiescent", Unit::Amp);
  c.senseResistor = f.figure("sense", Unit::Ohm);
  c.reference = f.figure("reference", Unit::Volt);
  c.perVolt = f.number("perVolt", 8);
  c.holdShare = f.number("holdShare", 0.7071);
  c.referenceIsRms = f.flag("rms");
  c.stepHigh = f.figure("stepHigh", Unit::Second);
  c.stepLow = f.figure("stepLow", Unit::Second);
  c.setUp = f.figure("setUp", Unit::Second);
  return c;
}

ElementBody switchElement(Form& f, const std::vector<Node>& n) {
  Switch s;
  s.a = n[0];
  s.b = n[1];
  s.on = f.condition();
  s.oneWay = f.text("way") == "one";
  s.v0 = f.figure("v0", Unit::Volt);
  s.resistance = f.figure("r", Unit::Ohm, true);
  s.v0Max = f.figure("v0Max", Unit::Volt);
  s.resistanceMax = f.figure("rMax", Unit::Ohm);
  s.contact = f.flag("contact");
  s.rating = f.figure("rating", Unit::Amp);
  s.volts = f.figure("volts", Unit::Volt);
  return s;
}

ElementBody regulator(Form& f, const std::vector<Node>& n) {
  Regulator g;
  g.in = n[0];
  g.out = n[1];
  g.ground = n[2];
  g.set = f.figure("set", Unit::Volt, true);
  g.dropout = f.figure("dropout", Unit::Volt);
  g.limit = f.figure("limit", Unit::Amp);
  g.backDiode = f.flag("backDiode");
  g.absolute = f.figure("absolute", Unit::Volt);
  g.printed = f.figure("printed", Unit::Volt);
  g.switching = f.flag("switching");
  const auto steps = f.choice("steps", {"down", "up", "both"});
  g.steps = steps == "up" ? Steps::Up : steps == "both" ? Steps::Both : Steps::Down;
  g.efficiency = f.figure("efficiency", Unit::One);
  g.least = f.figure("least", Unit::Volt);
  g.inputLimit = f.figure("inputLimit", Unit::Amp);
  g.idle = f.figure("idle", Unit::Amp);
  g.charges = f.flag("charges");
  return g;
}

std::optional<ElementBody> body(Form& f) {
  if (f.has("joint")) return Joint{f.nodes("joint", 0)};
  if (f.has("resistor")) {
    const auto n = f.nodes("resistor", 2);
    Resistor r{n[0], n[1], f.figure("r", Unit::Ohm), f.figure("power", Unit::Watt), f.flag("conductor"), f.flag("fuse")};
    r.rating = f.figure("rating", Unit::Amp);
    r.volts = f.figure("volts", Unit::Volt);
    r.breaking = f.figure("breaking", Unit::Amp);
    r.resettable = f.flag("resettable");
    r.cutsOff = f.flag("cutsOff");
    if (f.has("closed")) r.closed = f.condition("closed");
    return r;
  }
  if (f.has("capacitor")) {
    const auto n = f.nodes("capacitor", 2);
    return Capacitor{n[0],
                     n[1],
                     f.figure("c", Unit::Farad),
                     f.figure("rated", Unit::Volt),
                     f.flag("polarised"),
                     f.flag("ceramic"),
                     f.flag("tantalum"),
                     f.figure("esr", Unit::Ohm)};
  }
  if (f.has("diode")) {
    const auto n = f.nodes("diode", 2);
    Diode d{n[0], n[1], f.figure("drop", Unit::Volt, true), f.figure("at", Unit::Amp, true), f.figure("reverse", Unit::Volt)};
    d.surge = f.figure("surge", Unit::Amp);
    d.recovery = f.figure("recovery", Unit::Second);
    d.schottky = f.flag("schottky");
    d.zener = f.figure("zener", Unit::Volt);
    d.led = f.flag("led");
    d.promised = f.figure("promised", Unit::Amp);
    d.most = f.figure("most", Unit::Amp);
    return d;
  }
  if (f.has("switch")) return switchElement(f, f.nodes("switch", 2));
  if (f.has("bipolar")) return bipolar(f, f.nodes("bipolar", 3));
  if (f.has("phototransistor")) {
    const auto n = f.nodes("phototransistor", 2);
    const auto lit = f.nodes("lit", 2);
    return Phototransistor{n[0],
                           n[1],
                           lit[0],
                           lit[1],
                           f.figure("ratio", Unit::One, true),
                           f.figure("vce", Unit::Volt),
                           f.figure("saturation", Unit::Volt, true)};
  }
  if (f.has("mosfet")) {
    const auto n = f.nodes("mosfet", 3);
    return Mosfet{n[0],
                  n[1],
                  n[2],
                  f.text("type") == "p",
                  f.figure("threshold", Unit::Volt, true),
                  f.figure("vds", Unit::Volt),
                  f.figure("vgs", Unit::Volt),
                  f.rows("rds", Unit::Volt, Unit::Ohm)};
  }
  if (f.has("winding")) return winding(f, f.nodes("winding", 2));
  if (f.has("source")) return source(f, f.nodes("source", 2));
  if (f.has("sink")) {
    const auto n = f.nodes("sink", 2);
    return Sink{n[0],
                n[1],
                f.figure("i", Unit::Amp),
                f.figure("start", Unit::Amp),
                f.figure("voltage", Unit::Volt),
                f.figure("resets", Unit::Volt)};
  }
  if (f.has("regulator")) return regulator(f, f.nodes("regulator", 3));
  if (f.has("pins")) return pins(f);
  if (f.has("chopper")) return chopper(f, f.nodes("chopper", 2));
  if (f.has("contact")) {
    const auto n = f.nodes("contact", 2);
    return Contact{n[0],
                   n[1],
                   f.flag("closed"),
                   f.figure("rating", Unit::Amp),
                   f.figure("volts", Unit::Volt),
                   f.flag("connector"),
                   f.figure("r", Unit::Ohm),
                   moved(f)};
  }
  return std::nullopt;
}

}  // namespace

std::optional<Element> readElement(ObjectReader& r, const ElementContext& context) {
  Element e;
  e.id = r.text("id");
  e.package = r.text("package");
  if (const auto* when = r.get("when")) {
    if (when->is_object()) {
      for (const auto& [k, v] : when->items())
        if (v.is_string()) e.when.emplace_back(k, v.get<std::string>());
    } else {
      r.report("when", "is not an object of settings");
    }
  }
  Form form(r, context);
  auto b = body(form);
  if (!b) {
    r.report("", "is no element this program knows");
    return std::nullopt;
  }
  for (const auto& k : r.unknown()) r.report(k, "is not a field of this element");
  e.body = std::move(*b);
  return e;
}

namespace {

struct NodeVisitor {
  const std::function<void(Node&)>& f;
  void operator()(Joint& j) const {
    for (auto& n : j.nodes) f(n);
  }
  void operator()(Resistor& r) const { all(r.a, r.b); }
  void operator()(Capacitor& c) const { all(c.a, c.b); }
  void operator()(Diode& d) const { all(d.anode, d.cathode); }
  void operator()(Switch& s) const { all(s.a, s.b); }
  void operator()(Bipolar& b) const { all(b.collector, b.base, b.emitter); }
  void operator()(Phototransistor& t) const { all(t.collector, t.emitter, t.anode, t.cathode); }
  void operator()(Mosfet& m) const { all(m.drain, m.gate, m.source); }
  void operator()(Winding& w) const { all(w.a, w.b); }
  void operator()(Source& s) const { all(s.positive, s.negative); }
  void operator()(Sink& s) const { all(s.positive, s.negative); }
  void operator()(Regulator& r) const { all(r.in, r.out, r.ground); }
  void operator()(Pins& p) const {
    for (auto& n : p.pins) f(n);
    for (auto& n : p.tolerant) f(n);
    all(p.rail, p.ground);
  }
  void operator()(Chopper& c) const {
    all(c.supply, c.ground);
    for (auto& [a, b] : c.coils) all(a, b);
  }
  void operator()(Contact& c) const { all(c.a, c.b); }

 private:
  template <class... Nodes>
  void all(Nodes&... nodes) const {
    (f(nodes), ...);
  }
};

}  // namespace

void eachNode(Element& element, const std::function<void(Node&)>& f) {
  std::visit(NodeVisitor{f}, element.body);
}

std::vector<Node> nodesOf(const Element& element) {
  std::vector<Node> out;
  eachNode(const_cast<Element&>(element), [&](Node& n) { out.push_back(n); });  // only read
  return out;
}

std::optional<double> ratedCurrent(const Winding& coil) {
  if (const auto phase = coil.phase.typical()) return phase;
  const auto volts = coil.nominal.typical();
  const auto ohms = coil.resistance.typical();
  return volts && ohms && *ohms > 0 ? std::optional(*volts / *ohms) : std::nullopt;
}

std::vector<Node> inputsOf(const Element& element) {
  const Condition* c = nullptr;
  if (const auto* s = std::get_if<Switch>(&element.body)) c = &s->on;
  if (const auto* h = std::get_if<Chopper>(&element.body)) c = &h->on;
  if (const auto* p = std::get_if<Pins>(&element.body); p && !p->on.empty()) c = &p->on;
  if (!c) return {};
  return {c->inputs().begin(), c->inputs().end()};
}

const Node& outside(const std::vector<Element>& elements, const Node& node) {
  if (!node.inner() && !node.starts_with('~')) return node;
  for (const auto& e : elements)
    if (const auto* r = std::get_if<Resistor>(&e.body); r && (r->a == node || r->b == node)) return r->a == node ? r->b : r->a;
  return node;
}

}  // namespace bold::parts
