#include "core/harness/harness.h"

#include <algorithm>

#include "core/base/by_id.h"
#include "core/base/json_text.h"

namespace bold::harness {
namespace {

// Entries that could not be read stay in the file with the ids they have.
std::set<std::string> idsOf(const std::vector<Unread>& unread) {
  std::set<std::string> out;
  for (const auto& u : unread)
    for (const auto& m : membersOf(u.raw->text))
      if (m.key == "id" && m.value.size() > 2) out.emplace(m.value.substr(1, m.value.size() - 2));
  return out;
}

}  // namespace

Harness::Harness() = default;
Harness::Harness(const Harness&) = default;
Harness::Harness(Harness&&) noexcept = default;
Harness& Harness::operator=(const Harness&) = default;
Harness& Harness::operator=(Harness&&) noexcept = default;
Harness::~Harness() = default;

const Device* Harness::device(const std::string& id) const {
  return byId(devices, id);
}
const Connection* Harness::connection(const std::string& id) const {
  return byId(connections, id);
}
std::set<std::string> Harness::ids() const {
  std::set<std::string> out;
  for (const auto& d : devices) out.insert(d.id);
  for (const auto& c : connections) out.insert(c.id);
  for (const auto& g : goals) out.insert(g.id);
  for (const auto& a : assignments) out.insert(a.id);
  for (const auto& p : program) out.insert(p.id);
  for (const auto& s : sources) out.insert(s.id);
  for (const auto& m : marks) out.insert(m.wire);
  out.merge(idsOf(unread));
  return out;
}

std::string Harness::freeId(const std::string& stem) const {
  const auto taken = ids();
  for (int n = 1;; ++n)
    if (auto id = stem + std::to_string(n); !taken.contains(id)) return id;
}

int Harness::openChanges() const {
  int n = 0;
  for (const auto& d : devices) {
    n += d.state != State::OnBench;
    for (const auto& [id, s] : d.settings) n += !s.planned.empty();
  }
  for (const auto& c : connections) n += c.state != State::OnBench;
  return n;
}

Harness judgedPart(const Harness& harness) {
  Harness h;
  h.ambient = harness.ambient;
  h.names = harness.names;  // findings name terminals
  h.devices = harness.devices;
  h.connections = harness.connections;
  h.goals = harness.goals;
  h.assignments = harness.assignments;
  h.program = harness.program;
  h.sources = harness.sources;
  for (auto& d : h.devices) d.raw = nullptr;
  for (auto& c : h.connections) c.raw = nullptr;
  for (auto& g : h.goals) g.raw = nullptr;
  for (auto& a : h.assignments) a.raw = nullptr;
  for (auto& p : h.program) p.raw = nullptr;
  for (auto& s : h.sources) s.raw = nullptr;
  return h;
}

Harness asItStands(const Harness& harness) {
  Harness h = harness;
  std::erase_if(h.devices, [](const Device& d) { return d.state == State::Planned; });
  std::erase_if(h.connections, [](const Connection& c) { return c.state == State::Planned; });
  for (auto& d : h.devices) {
    d.state = State::OnBench;
    for (auto& [id, s] : d.settings) s.planned.clear();
  }
  for (auto& c : h.connections) c.state = State::OnBench;
  return h;
}

Harness asPlanned(const Harness& harness) {
  Harness h = harness;
  std::erase_if(h.devices, [](const Device& d) { return d.state == State::ToBeRemoved; });
  std::erase_if(h.connections, [](const Connection& c) { return c.state == State::ToBeRemoved; });
  for (auto& d : h.devices) {
    d.state = State::OnBench;
    for (auto& [id, s] : d.settings)
      if (!s.planned.empty()) s = {s.planned, {}};
  }
  for (auto& c : h.connections) c.state = State::OnBench;
  return h;
}

}  // namespace bold::harness
