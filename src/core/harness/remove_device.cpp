#include "core/harness/remove_device.h"

#include <fmt/core.h>

#include "core/harness/names.h"

namespace bold::harness {

Edit removeDevice(const Harness& h, const std::string& id) {
  const auto* device = h.device(id);
  Edit e{fmt::format("Take {} off the bench", device ? shownName(h, *device) : id), {}};
  for (const auto& c : h.connections)
    if (c.a.device == id || c.b.device == id) e.changes.emplace_back(Drop<Connection>{c.id});
  const auto drop = [&]<class T>(const std::vector<T>& statements) {
    for (const auto& s : statements)
      if (s.motor == id) e.changes.emplace_back(Drop<T>{s.id});
  };
  drop(h.goals);
  drop(h.assignments);
  drop(h.program);
  for (const auto& s : h.sources)
    if (s.controller == id) e.changes.emplace_back(Drop<SourceRead>{s.id});
  e.changes.emplace_back(Drop<Device>{id});
  return e;
}

}  // namespace bold::harness
