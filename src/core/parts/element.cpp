#include "core/parts/element.h"

namespace bold::parts {

ElementBody::ElementBody() = default;
ElementBody::ElementBody(const ElementBody&) = default;
ElementBody::ElementBody(ElementBody&&) noexcept = default;
ElementBody& ElementBody::operator=(const ElementBody&) = default;
ElementBody& ElementBody::operator=(ElementBody&&) noexcept = default;
ElementBody::~ElementBody() = default;

std::optional<Amps> tripCurrent(const Chopper& c) {
  const auto reference = c.reference.typical();
  const auto sense = c.senseResistor.typical();
  if (!reference || !sense || *sense <= 0 || c.perVolt <= 0) return std::nullopt;
  return Amps{*reference / (c.perVolt * *sense)};
}

}  // namespace bold::parts
