#pragma once

#include <compare>
#include <string>
#include <string_view>

#include "core/base/result.h"

namespace bold {

/// Ids of devices, connections, terminals: [A-Za-z0-9_-]+
bool isId(std::string_view text);

/// One end of a connection: "s1.IN1". Also "uno.USB", where the second half names a whole connector of a plug.
struct Address {
  std::string device;
  std::string terminal;

  auto operator<=>(const Address&) const = default;
  bool operator==(const Address&) const = default;
  std::string text() const { return device + "." + terminal; }
};

/// Splits at the first dot. Errors: the text is not two ids.
[[nodiscard]] Result<Address> parseAddress(std::string_view text);

}  // namespace bold
