#pragma once

#include <map>
#include <memory>
#include <set>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/harness/intent.h"
#include "core/parts/library.h"

/// The document and the library joined, and what follows from the wires.
namespace bold::bench {

/// Index of a terminal over the whole bench; -1 is none.
using TerminalIndex = int;

struct BenchDevice {
  harness::Device doc;
  std::string shown;                            ///< as people call it; with its id where two names clash
  std::shared_ptr<const parts::Part> part;      // shared with the library
  std::map<std::string, std::string> settings;  ///< every setting of the part, as it stands
  TerminalIndex first = 0;
  int firstElement = 0;  ///< of the part's elements, counted over the whole bench

  std::unordered_map<std::string_view, int> byId{};  ///< terminals by id, counted from `first`; the part holds the text
  std::vector<bool> present{};                       ///< per element of the part: exists with these settings

  const std::string& called() const { return shown; }

  bool unknown = false;  ///< no library knows its part: its terminals are those that connections name, and nothing is known inside

  /// Whether an element of the part exists with these settings.
  bool has(const parts::Element& element) const { return present[&element - part->elements.data()]; }
};

/// Of a connection: its copper and its two contacts, with the best, the usual and the worst contacts of their kind.
struct LinkResistance {
  Ohms least{}, expected{}, greatest{};
};

/// One pole of a connection: copper between two terminals.
struct Link {
  int connection = 0;
  TerminalIndex a = -1, b = -1;
  LinkResistance resistance{};
};

/// What a wire gauge carries.
struct Gauge {
  Figure freeAir, bundled;  ///< A
};

/// The bench as it stands: planned things absent, things to be removed present.
struct Bench {
  std::vector<BenchDevice> devices;
  std::vector<harness::Connection> connections;
  std::vector<Link> links;
  std::vector<harness::Intent> intents;      ///< of motors
  std::vector<harness::Intent> reads;        ///< of sensors: roles are their terminals, pins those that the program reads them at
  std::vector<harness::SourceRead> sources;  ///< what the controllers' programs say of their pins
  std::vector<Problem> problems;  ///< what keeps it from being judged: unknown parts, wires to nowhere, intents for what is not there
  std::vector<Problem> remarks;   ///< replaced figures that contradict each other
  std::optional<Celsius> ambient;
  int unknownParts = 0;
  std::map<int, Gauge> gauges;                       ///< what the library says of wire gauges, by AWG
  std::shared_ptr<const std::set<std::string>> ids;  ///< of the document, planned things included: repairs need free ones

  // In bench.cpp, so that copying all of this is compiled once.
  Bench();
  Bench(const Bench&);
  Bench(Bench&&) noexcept;
  Bench& operator=(const Bench&);
  Bench& operator=(Bench&&) noexcept;
  ~Bench();

  int deviceIndex(const std::string& id) const;          ///< -1 when not on the bench
  TerminalIndex terminal(const Address& address) const;  ///< -1 when there is none
  TerminalIndex terminal(int device, const std::string& id) const;
  TerminalIndex terminal(int device, const parts::Node& node) const {
    return node.at >= 0 ? devices[device].first + node.at : terminal(device, static_cast<const std::string&>(node));
  }
  /// Elements counted over the whole bench, whether they exist with the present settings or not.
  std::size_t elementIndex(int device, int element) const { return devices[device].firstElement + element; }
  std::size_t elementCount() const;
  int deviceOf(TerminalIndex t) const { return m_owner[t]; }
  const parts::Terminal& facts(TerminalIndex t) const;
  std::string address(TerminalIndex t) const;  ///< "s1.IN1"
  Address place(TerminalIndex t) const;        ///< the same, in two parts
  std::string called(TerminalIndex t) const;   ///< for sentences: "S1 IN1"
  std::size_t terminalCount() const { return m_owner.size(); }
  /// Poles of connections that end here and go elsewhere.
  int linksAt(TerminalIndex t) const { return m_links[t]; }
  bool connected(TerminalIndex t) const { return m_links[t] > 0; }
  const std::vector<TerminalIndex>& inputs() const { return m_inputs; }  ///< every terminal that reads a level

 private:
  friend class BenchMaker;
  std::unordered_map<std::string, int> m_deviceById;
  std::vector<int> m_owner;  // per terminal: its device
  std::vector<int> m_links;  // per terminal
  std::vector<TerminalIndex> m_inputs;
};

Bench makeBench(const harness::Harness& harness, const parts::Library& library);

/// What stands in for a part that no library knows: as far as the connections tell of it. Its terminals are those that they name.
std::shared_ptr<const parts::Part> opaquePart(const harness::Harness& harness, const harness::Device& device);

}  // namespace bold::bench
