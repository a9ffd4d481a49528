#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/harness/harness.h"
#include "core/parts/library.h"

/// What things are called: by the name that people gave them, and by ids only where two names clash.
namespace bold::harness {

/// "Wave paddle"; "Pump (m2)" where another device is called Pump as well.
std::string shownName(const Harness& harness, const Device& device);

/// The same of all devices, in their order, at once.
std::vector<std::string> shownNames(const Harness& harness);

/// "S1 IN1", "Uno USB": an end of a connection as it is shown, and as it may be typed. The address where there is no such end.
std::string shownEnd(const Harness& harness, const parts::Library& library, const Address& end);

/// The same of many ends: what each device is called is worked out once.
class EndNames {
 public:
  EndNames(const Harness& harness, const parts::Library& library);
  std::string end(const Address& end) const;
  std::string device(const std::string& id) const;

 private:
  struct Known {
    std::string name;
    std::shared_ptr<const parts::Part> part;
  };
  std::unordered_map<std::string, Known> m_known;
};

/// "Uno D9 – S1 IN1"
std::string shownEnds(const Harness& harness, const parts::Library& library, const Connection& connection);

/// "wire", "plug", "jumper"
std::string_view word(ConnectionKind kind);

}  // namespace bold::harness
