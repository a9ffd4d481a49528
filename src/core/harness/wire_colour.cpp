#include "core/harness/wire_colour.h"

#include <array>

#include "core/harness/end_facts.h"

namespace bold::harness {

std::string colourOf(const Harness& h, const parts::Library& library, const Address& a, const Address& b) {
  static constexpr std::array kRow{"YE", "GN", "BU", "OG", "VT", "GY", "WH", "PK", "BN"};
  const auto has = [&](auto test) { return test(a) || test(b); };
  const auto* fa = factsOf(h, library, a);
  const auto* fb = factsOf(h, library, b);
  if ((fa && fa->ground) || (fb && fb->ground) || has([&](const Address& x) { return isPole(h, library, x, false); })) return "BK";
  if ((fa && fa->supply) || (fb && fb->supply) || has([&](const Address& x) { return isPole(h, library, x, true); })) return "RD";
  return kRow[h.connections.size() % kRow.size()];
}

}  // namespace bold::harness
