#include "support/random_bench.h"

#include <fmt/core.h>

#include <random>

#include "support/benches.h"

namespace bold::test {

harness::Harness randomBench(unsigned seed) {
  static const auto all = library().search({});
  std::mt19937 random(seed);
  const auto below = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
  harness::Harness h;
  std::vector<Address> ends;
  for (auto n = 3 + below(5); n > 0; --n) {
    const auto& part = all[below(all.size())];
    if (part->terminals.empty() || part->terminals.size() > 120) continue;
    harness::Device d;
    d.id = fmt::format("d{}", h.devices.size());
    d.part = part->id;
    for (const auto& s : part->settings)
      if (!s.values.empty()) d.settings[s.id] = {s.values[below(s.values.size())], {}};
    for (const auto& t : part->terminals) ends.push_back({d.id, t.id});
    h.devices.push_back(std::move(d));
  }
  if (ends.empty()) return h;
  // Supplies and loads have few terminals, boards many: half of the ends are taken by device first.
  const auto end = [&]() -> Address {
    if (below(2) == 0) return ends[below(ends.size())];
    const auto& d = h.devices[below(h.devices.size())];
    const auto part = library().find(d.part);
    return {d.id, part->terminals[below(part->terminals.size())].id};
  };
  for (auto n = 4 + below(14); n > 0; --n) {
    harness::Connection c;
    c.id = fmt::format("w{}", h.connections.size());
    c.a = end();
    c.b = end();
    h.connections.push_back(std::move(c));
  }
  return h;
}

}  // namespace bold::test
