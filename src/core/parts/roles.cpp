#include "core/parts/roles.h"

#include <algorithm>

namespace bold::parts {
namespace {
template <class T>
bool has(const Part& p) {
  return std::ranges::any_of(p.elements, [](const Element& e) { return std::holds_alternative<T>(e.body); });
}
}  // namespace

bool isMotor(const Part& p) {
  return has<Winding>(p) || std::ranges::any_of(p.elements, [](const Element& e) {
           const auto* s = std::get_if<Sink>(&e.body);
           return s && s->start.known();
         });
}
bool isStill(const Part& p) {
  return std::ranges::any_of(p.elements, [](const Element& e) {
    const auto* w = std::get_if<Winding>(&e.body);
    return w && w->still;
  });
}
bool isSource(const Part& p) {
  return has<Source>(p);
}
bool isPeripheral(const Part& p) {
  return !isMotor(p) && std::ranges::any_of(p.elements, [](const Element& e) {
    const auto* c = std::get_if<Contact>(&e.body);
    const auto* pins = std::get_if<Pins>(&e.body);
    return (c && c->moved != Moved::No && !c->staysPut()) || (pins && pins->bus);
  });
}
std::vector<std::string> peripheralLines(const Part& p) {
  std::vector<std::string> out;
  for (const auto& t : p.terminals) {
    const bool end = std::ranges::any_of(p.elements, [&](const Element& e) {
      const auto* c = std::get_if<Contact>(&e.body);
      return c && c->moved != Moved::No && !c->staysPut() && (c->a == t.id || c->b == t.id);
    });
    if ((end || t.input) && !t.ground && !t.supply) out.push_back(t.id);
  }
  return isPeripheral(p) ? out : std::vector<std::string>();
}
bool isController(const Part& p) {
  return std::ranges::any_of(p.elements, [](const Element& e) {
    const auto* pins = std::get_if<Pins>(&e.body);
    return pins && !pins->behind && !pins->bus;
  });
}

}  // namespace bold::parts
