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
bool isSource(const Part& p) {
  return has<Source>(p);
}
bool isController(const Part& p) {
  return std::ranges::any_of(p.elements, [](const Element& e) {
    const auto* pins = std::get_if<Pins>(&e.body);
    return pins && !pins->behind;
  });
}

}  // namespace bold::parts
