#include "core/parts/connector_id.h"

#include <cctype>

namespace bold::parts {

std::string connectorId(const std::string& connector) {
  std::string out;
  for (const char c : connector) {
    const bool plain = std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '-' || c == '_';
    if (plain)
      out += c;
    else if (!out.empty() && out.back() != '-')
      out += '-';
  }
  return out;
}

}  // namespace bold::parts
