#include "core/harness/mark_done.h"

#include <fmt/core.h>

#include <algorithm>

namespace bold::harness {

namespace {
void done(const Harness& h, const std::string& id, Edit& e) {
  if (const auto* d = h.device(id)) {
    if (d->state == State::ToBeRemoved) {
      e.changes.emplace_back(Drop<Device>{id});
      return;
    }
    auto changed = *d;
    changed.state = State::OnBench;
    for (auto& [name, s] : changed.settings)
      if (!s.planned.empty()) s = {s.planned, {}};
    e.changes.emplace_back(Put<Device>{changed, {}});
  } else if (const auto* c = h.connection(id)) {
    if (c->state == State::ToBeRemoved) {
      e.changes.emplace_back(Drop<Connection>{id});
      return;
    }
    auto changed = *c;
    changed.state = State::OnBench;
    e.changes.emplace_back(Put<Connection>{changed, {}});
  }
}
}  // namespace

Edit markDone(const Harness& h, const std::string& id) {
  Edit e{fmt::format("Mark {} as done", id), {}};
  done(h, id, e);
  return e;
}

Edit markAllDone(const Harness& h) {
  Edit e{"Mark all planned changes as done", {}};
  for (const auto& d : h.devices) {
    const bool open = d.state != State::OnBench || std::ranges::any_of(d.settings, [](const auto& s) { return !s.second.planned.empty(); });
    if (open) done(h, d.id, e);
  }
  for (const auto& c : h.connections)
    if (c.state != State::OnBench) done(h, c.id, e);
  return e;
}

}  // namespace bold::harness
