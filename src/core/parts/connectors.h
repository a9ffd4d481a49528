#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/parts/part.h"

namespace bold::parts {

/// What is plugged as a whole: a socket, a plug on leads, the header of a board that sits on another.
struct Connector {
  std::string id;                      ///< as an address holds it: "digital-7-0-right"
  std::string name;                    ///< as it is printed: "digital 7-0, right"
  std::string contact;                 ///< socket, pin or lead
  std::vector<std::string> terminals;  ///< ids, in order of position

  bool operator==(const Connector&) const = default;
};

/// Every group of two or more contacts in a known order that are sockets, pins or the contacts of a plug on leads. Screws, holes, pads
/// and legs are joined one by one.
std::vector<Connector> connectorsOf(const Part& part);

/// The one of this id, name or print, whatever the case of its letters; with no id or name: nothing.
std::vector<Connector> connectorsNamed(const Part& part, std::string_view word);

/// Whether one goes into the other: as many poles, and the same name (USB to USB: a cable joins them), a socket named after what is put
/// into it ("X socket, left row"), or a plug on leads and a socket that is no supply socket.
bool mates(const Connector& a, const Connector& b);

}  // namespace bold::parts
