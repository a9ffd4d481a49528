#include "core/harness/differences.h"

#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/base/by_id.h"
#include "core/harness/read_harness.h"

namespace bold::harness {
namespace {

std::string called(const Harness&, const Device& d) {
  return fmt::format("{} ({})", d.called(), d.part);
}
std::string called(const Harness&, const Connection& c) {
  const auto* kind = c.kind == ConnectionKind::Wire ? "wire" : c.kind == ConnectionKind::Plug ? "plug" : "jumper";
  return fmt::format("the {} {} – {}", kind, c.a.text(), c.b.text());
}
std::string called(const Harness& h, const Intent& i) {
  const auto* motor = h.device(i.motor);
  return fmt::format("what {} is meant to do", motor ? motor->called() : i.motor);
}

// By what would be written: the one form in which no field can be forgotten.
std::map<std::string, Json> written(const Json& document, const char* list) {
  std::map<std::string, Json> out;
  for (const auto& item : document.at(list)) out.emplace(item.at("id").get<std::string>(), item);
  return out;
}

class Comparing {
 public:
  Comparing(const Harness& from, const Harness& to)
      : m_from(from), m_to(to), m_before(Json::parse(writeHarness(from))), m_after(Json::parse(writeHarness(to))) {}

  std::vector<std::string> run() {
    if (m_from.title != m_to.title) m_out.push_back(fmt::format("the title is \"{}\"", m_to.title));
    if (m_from.ambient != m_to.ambient) m_out.emplace_back("the ambient temperature is changed");
    compare("devices", m_from.devices, m_to.devices);
    compare("connections", m_from.connections, m_to.connections);
    compare("intents", m_from.intents, m_to.intents);
    return std::move(m_out);
  }

 private:
  const Harness &m_from, &m_to;
  const Json m_before, m_after;
  std::vector<std::string> m_out;

  template <class T>
  void compare(const char* list, const std::vector<T>& from, const std::vector<T>& to) {
    const auto before = written(m_before, list);
    const auto after = written(m_after, list);
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
