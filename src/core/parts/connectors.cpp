#include "core/parts/connectors.h"

#include <algorithm>
#include <cctype>

#include "core/base/lower.h"
#include "core/parts/connector_id.h"

namespace bold::parts {
namespace {

bool goesTogether(const std::string& contact) {
  return contact == "socket" || contact == "pin" || contact == "lead" || contact == "pad";
}

}  // namespace

std::vector<Connector> connectorsOf(const Part& part) {
  std::vector<Connector> out;
  std::vector<bool> whole;
  for (const auto& t : part.terminals) {
    const auto& p = t.place;
    if (p.connector.empty()) continue;
    auto it = std::ranges::find(out, p.connector, &Connector::name);
    if (it == out.end()) {
      out.push_back({connectorId(p.connector), p.connector, p.contact, {}});
      whole.push_back(true);
      it = out.end() - 1;
    }
    it->terminals.push_back(t.id);
    const auto k = static_cast<std::size_t>(it - out.begin());
    if (p.position <= 0 || !goesTogether(p.contact)) whole[k] = false;
  }
  std::vector<Connector> kept;
  for (std::size_t k = 0; k < out.size(); ++k) {
    if (!whole[k] || out[k].terminals.size() < 2) continue;
    std::ranges::stable_sort(out[k].terminals, {}, [&](const std::string& id) { return part.find(id)->place.position; });
    kept.push_back(std::move(out[k]));
  }
  return kept;
}

std::vector<Connector> connectorsNamed(const Part& part, std::string_view word) {
  auto all = connectorsOf(part);
  const auto wanted = lower(word);
  std::erase_if(all, [&](const Connector& c) { return lower(c.id) != wanted && lower(c.name) != wanted; });
  return all;
}

bool mates(const Connector& a, const Connector& b) {
  if (a.terminals.size() != b.terminals.size()) return false;
  if (a.id == b.id) return true;
  if ((a.contact == "socket") == (b.contact == "socket")) return false;
  const auto& socket = a.contact == "socket" ? a : b;
  const auto& other = a.contact == "socket" ? b : a;
  const bool supply = socket.id == "USB" || socket.id == "jack" || socket.id == "power";  // of a shape of their own
  return socket.id.find(other.id) != std::string::npos || (other.contact == "lead" && !supply);
}

}  // namespace bold::parts
