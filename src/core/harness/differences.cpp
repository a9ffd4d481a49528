#include "core/harness/differences.h"

#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/base/by_id.h"
#include "core/harness/write_entry.h"

namespace bold::harness {
namespace {

std::string called(const Harness&, const Device& d) {
  return fmt::format("{} ({})", d.called(), d.part);
}
std::string called(const Harness&, const Connection& c) {
  const auto* kind = c.kind == ConnectionKind::Wire ? "wire" : c.kind == ConnectionKind::Plug ? "plug" : "jumper";
  return fmt::format("the {} {} – {}", kind, c.a.text(), c.b.text());
}
std::string motorOf(const Harness& h, const std::string& id) {
  const auto* motor = h.device(id);
  return motor ? motor->called() : id;
}
std::string called(const Harness& h, const Goal& g) {
  return fmt::format("what {} is meant to do", motorOf(h, g.motor));
}
std::string called(const Harness& h, const Assignment& a) {
  return fmt::format("the pin for {} of {}", a.role, motorOf(h, a.motor));
}
std::string called(const Harness& h, const ProgramFacts& p) {
  return fmt::format("what the program does with {}", motorOf(h, p.motor));
}

// By what would be written: the one form in which no field can be forgotten.
template <class T>
std::map<std::string, Json> written(const std::vector<T>& entries) {
  std::map<std::string, Json> out;
  for (const auto& e : entries) out.emplace(e.id, Json::parse(entryText(e, 0)));
  return out;
}

// How often each text stands among what could not be read.
std::map<std::string, int> unread(const Harness& h) {
  std::map<std::string, int> out;
  for (const auto& u : h.unread) ++out[u.raw->text];
  return out;
}

class Comparing {
 public:
  Comparing(const Harness& from, const Harness& to) : m_from(from), m_to(to) {}

  std::vector<std::string> run() {
    if (m_from.title != m_to.title) m_out.push_back(fmt::format("the title is \"{}\"", m_to.title));
    if (m_from.names != m_to.names) m_out.emplace_back("pins are shown in another numbering");
    if (m_from.ambient != m_to.ambient) m_out.emplace_back("the ambient temperature is changed");
    compare(m_from.devices, m_to.devices);
    compare(m_from.connections, m_to.connections);
    compare(m_from.goals, m_to.goals);
    compare(m_from.assignments, m_to.assignments);
    compare(m_from.program, m_to.program);
    if (unread(m_from) != unread(m_to)) m_out.emplace_back("what could not be read is changed");
    return std::move(m_out);
  }

 private:
  const Harness &m_from, &m_to;
  std::vector<std::string> m_out;

  template <class T>
  void compare(const std::vector<T>& from, const std::vector<T>& to) {
    const auto before = written(from);
    const auto after = written(to);
    for (const auto& x : to) {
      const auto old = before.find(x.id);
      if (old == before.end())
        m_out.push_back(called(m_to, x) + " is new");
      else if (old->second != after.at(x.id))
        m_out.push_back(called(m_to, x) + " is changed");
    }
    for (const auto& x : from)
      if (!byId(to, x.id)) m_out.push_back(called(m_from, x) + " is gone");
  }
};

}  // namespace

std::vector<std::string> differences(const Harness& from, const Harness& to) {
  return Comparing(from, to).run();
}

}  // namespace bold::harness
