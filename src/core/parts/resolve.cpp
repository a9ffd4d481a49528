#include "core/parts/resolve.h"

#include <map>

#include "core/parts/read_element.h"

namespace bold::parts {

void resolve(Part& part) {
  std::map<std::string, int, std::less<>> known;
  for (std::size_t i = 0; i < part.terminals.size(); ++i) known.emplace(part.terminals[i].id, static_cast<int>(i));
  int inner = 0;
  const auto find = [&](const std::string& name) {
    if (const auto it = known.find(name); it != known.end()) return it->second;
    const bool isInner = name.starts_with('~');
    return known.emplace(name, isInner ? -2 - inner++ : part.indexOf(name)).first->second;  // a former id, or nowhere
  };
  for (auto& e : part.elements) {
    eachNode(e, [&](Node& n) { n.at = find(n); });
    if (auto* s = std::get_if<Switch>(&e.body)) s->on = s->on.resolved(find);
    if (auto* c = std::get_if<Chopper>(&e.body)) c->on = c->on.resolved(find);
    if (auto* p = std::get_if<Pins>(&e.body)) p->on = p->on.resolved(find);
    if (auto* r = std::get_if<Resistor>(&e.body)) r->closed = r->closed.resolved(find);
  }
  for (auto& t : part.terminals) {
    if (t.input) t.input->ground.at = find(t.input->ground);
    if (t.limit) t.limit->ground.at = find(t.limit->ground);
    if (t.limit && !t.limit->of.empty()) t.limit->of.at = find(t.limit->of);
    if (t.supply) t.supply->back.at = find(t.supply->back);
  }
  for (auto& [name, set] : part.levels) set.rail.at = find(set.rail);
  part.innerNodes = inner;
}

}  // namespace bold::parts
