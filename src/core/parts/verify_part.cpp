#include "core/parts/verify_part.h"

#include <fmt/core.h>

#include <set>

#include "core/base/reader.h"
#include "core/parts/read_element.h"

namespace bold::parts {

std::string contradiction(const Part& part) {
  for (const auto& c : part.channels) {
    const auto peak = c.peak.typical();
    const auto continuous = c.continuous.typical();
    if (peak && continuous && *peak < *continuous)
      return fmt::format("has the channel \"{}\" with a peak of {}, less than the {} it carries all the time", c.id, displayText(c.peak),
                         displayText(c.continuous));
  }
  return {};
}

void verifyPart(const Part& p, const ObjectReader& root) {
  std::set<std::string> ids;
  for (const auto& t : p.terminals)
    if (!ids.insert(t.id).second) root.report("terminals", fmt::format("has the id \"{}\" twice", t.id));
  if (p.terminals.empty()) root.report("terminals", "is empty: a part needs at least one terminal");
  const auto check = [&](const std::string& node, const char* field) {
    if (!node.empty() && !node.starts_with('~') && !ids.contains(node))
      root.report(field, fmt::format("names the terminal \"{}\", which the part does not have", node));
  };
  for (const auto& e : p.elements)
    for (const auto& n : nodesOf(e)) check(n, "elements");
  for (const auto& e : p.elements)
    for (const auto& n : inputsOf(e)) check(n, "elements");
  // Nets and supplies are traced from the poles, and its own resistance is a source's `r`.
  for (const auto& e : p.elements)
    if (const auto* s = std::get_if<Source>(&e.body))
      for (const auto& n : {s->positive, s->negative})
        if (n.empty() || n.starts_with('~'))
          root.report("elements", fmt::format("has a source at \"{}\", which is no terminal", std::string(n)));
  // A light that nothing lights, a load that both turns and turns nothing: neither could be worked out.
  for (const auto& e : p.elements) {
    if (const auto* t = std::get_if<Phototransistor>(&e.body)) {
      bool lit = false;
      for (const auto& other : p.elements)
        if (const auto* d = std::get_if<Diode>(&other.body)) lit = lit || (d->anode == t->anode && d->cathode == t->cathode);
      if (!lit)
        root.report("elements", fmt::format("has an optocoupler lit from \"{}\" to \"{}\", where no diode is", std::string(t->anode),
                                            std::string(t->cathode)));
    }
    if (const auto* g = std::get_if<Pins>(&e.body); g && g->analog)
      for (const auto& n : *g->analog)
        if (std::ranges::count(g->pins, n) == 0)
          root.report("elements", fmt::format("says that \"{}\" reads a voltage, which is no pin of the group", std::string(n)));
    if (const auto* g = std::get_if<Pins>(&e.body); g && g->interrupts)
      for (const auto& n : *g->interrupts)
        if (std::ranges::count(g->pins, n) == 0)
          root.report("elements", fmt::format("says that \"{}\" has an interrupt, which is no pin of the group", std::string(n)));
    if (const auto* w = std::get_if<Winding>(&e.body); w && w->still && w->brushed)
      root.report("elements", "has a winding that is both \"still\" and \"brushed\"");
  }
  const auto among = [&](const std::string& said, const std::set<std::string>& known, const char* what) {
    if (!said.empty() && !known.contains(said)) root.report("terminals", fmt::format("has the {} \"{}\", which nothing knows", what, said));
  };
  for (const auto& t : p.terminals) {
    among(t.bus, {"sda", "scl", "data", "clock", "latch"}, "bus");
    if (t.pin) among(t.pin->bus, {"sda", "scl"}, "bus");
    if (t.pin) among(t.pin->pulls, {"up", "down", "both", "none"}, "pulls");
    if (t.input) check(t.input->ground, "terminals");
    if (t.supply) check(t.supply->back, "terminals");
    if (t.limit) check(t.limit->ground, "terminals");
    if (t.limit) check(t.limit->of, "terminals");
  }
  for (const auto& [name, set] : p.levels) check(set.rail, "levels");
  for (const auto& in : p.microsteps.inputs) check(in, "microsteps");
  for (const auto& e : p.elements)
    if (!e.package.empty() && !p.package(e.package))
      root.report("elements", fmt::format("names the package \"{}\", which the part does not have", e.package));
  for (const auto& c : p.channels) {
    for (const auto& o : c.out) check(o, "channels");
    for (const auto& [role, t] : c.signals) check(t, "channels");
    check(c.returnTerminal, "channels");
  }
  if (const auto against = contradiction(p); !against.empty()) root.report("channels", against);
  for (const auto& [a, b] : p.fitted) {
    check(a, "fitted");
    check(b, "fitted");
  }
}

}  // namespace bold::parts
