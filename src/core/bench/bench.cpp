#include "core/bench/bench.h"

#include <fmt/core.h>

#include <algorithm>
#include <cctype>

#include "core/bench/intent_problems.h"
#include "core/bench/wire_size.h"
#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/parts/connector_id.h"
#include "core/parts/named_terminal.h"
#include "core/parts/roles.h"
#include "core/places/numbering.h"
#include "core/places/words.h"

namespace bold::bench {
namespace {

using harness::State;

bool existsWith(const parts::Element& element, const std::map<std::string, std::string>& settings) {
  return std::ranges::all_of(element.when, [&](const auto& w) {
    const auto it = settings.find(w.first);
    return it != settings.end() && it->second == w.second;
  });
}

// The poles of a plug's end: one terminal, or the terminals of a connector in order of position.
std::vector<TerminalIndex> poles(const Bench& bench, const Address& end) {
  std::vector<TerminalIndex> out;
  const int d = bench.deviceIndex(end.device);
  if (d < 0) return out;
  const auto& device = bench.devices[d];
  if (const int i = device.part->indexOf(end.terminal); i >= 0) return {device.first + i};
  for (std::size_t i = 0; i < device.part->terminals.size(); ++i)
    if (const auto& c = device.part->terminals[i].place.connector; c == end.terminal || parts::connectorId(c) == end.terminal)
      out.push_back(device.first + static_cast<int>(i));
  if (out.empty())
    if (const auto t = bench.terminal(end); t >= 0) return {t};  // by what is printed there
  std::ranges::stable_sort(out, {}, [&](TerminalIndex t) { return bench.facts(t).place.position; });
  return out;
}

// What a name that fits nothing, or several, may mean: "; it has IN1, IN2, …".
std::string instead(const Bench& bench, const Address& end) {
  const int d = bench.deviceIndex(end.device);
  if (d < 0) return {};
  constexpr std::size_t kMost = 8;
  const auto& part = *bench.devices[d].part;
  if (const auto counted = places::numbersMeant(part, end.terminal); counted.size() > 1) {
    std::string out;
    for (const auto& m : counted) {
      const auto& t = part.terminals[m.terminal];
      out +=
          fmt::format("{}{} by {} ({})", out.empty() ? ": it can be " : ", or ", t.label, places::word(m.in), places::fullPlace(part, t));
    }
    return out;
  }
  auto names = parts::terminalsNamed(part, end.terminal);
  const bool several = !names.empty();
  if (!several)
    for (const auto& t : part.terminals) names.push_back(t.id);
  std::string out = several ? ": it could be " : "; it has ";
  for (std::size_t k = 0; k < std::min(names.size(), kMost); ++k) out += (k == 0 ? "" : ", ") + names[k];
  return out + (names.size() > kMost ? ", …" : "");
}

}  // namespace

Bench::Bench() = default;
Bench::Bench(const Bench&) = default;
Bench::Bench(Bench&&) noexcept = default;
Bench& Bench::operator=(const Bench&) = default;
Bench& Bench::operator=(Bench&&) noexcept = default;
Bench::~Bench() = default;

// What is wired to it is not open, and nothing more is known.
std::shared_ptr<const parts::Part> opaquePart(const harness::Harness& h, const harness::Device& d) {
  auto part = std::make_shared<parts::Part>();
  part->id = d.part;
  part->name = d.part;
  part->kind = "unknown";
  for (const auto& c : h.connections)
    for (const auto* end : {&c.a, &c.b}) {
      if (end->device != d.id || part->find(end->terminal)) continue;
      parts::Terminal t;
      t.id = t.label = end->terminal;
      t.optional = true;
      part->terminals.push_back(std::move(t));
    }
  return part;
}

int Bench::deviceIndex(const std::string& id) const {
  const auto it = m_deviceById.find(id);
  return it == m_deviceById.end() ? -1 : it->second;
}

TerminalIndex Bench::terminal(const Address& a) const {
  const int d = deviceIndex(a.device);
  return d < 0 ? -1 : terminal(d, a.terminal);
}

TerminalIndex Bench::terminal(int device, const std::string& id) const {
  const auto& d = devices[device];
  if (const auto it = d.byId.find(id); it != d.byId.end()) return d.first + it->second;
  if (id.empty() || id.front() == '~') return -1;  // a point inside a part, asked for often: nobody calls it anything
  const int i = places::terminalMeant(*d.part, id);
  return i < 0 ? -1 : d.first + i;
}

std::size_t Bench::elementCount() const {
  return devices.empty() ? 0 : static_cast<std::size_t>(devices.back().firstElement) + devices.back().part->elements.size();
}

const parts::Terminal& Bench::facts(TerminalIndex t) const {
  const auto& d = devices[deviceOf(t)];
  return d.part->terminals[t - d.first];
}

Address Bench::place(TerminalIndex t) const {
  return {devices[deviceOf(t)].doc.id, facts(t).id};
}

std::string Bench::address(TerminalIndex t) const {
  return devices[deviceOf(t)].doc.id + "." + facts(t).id;
}

std::string Bench::called(TerminalIndex t) const {
  return devices[deviceOf(t)].called() + " " + facts(t).label;
}

namespace {

constexpr int kThinnestKnown = 30;  // AWG, in the library

// Of the wires on the bench, and of those whose gauge is taken for granted. A gauge that the library lacks is held to the next
// thinner one.
void findGauges(Bench& bench, const harness::Harness& h, const parts::Library& library) {
  std::set<int> used{kThinGauge, kThickGauge};
  for (const auto& c : h.connections)
    if (c.gauge) used.insert(*c.gauge);
  for (const int awg : used) {
    std::shared_ptr<const parts::Part> wire;
    for (int thinner = awg; !wire && thinner <= kThinnestKnown; ++thinner) wire = library.find(fmt::format("wire-{}awg", thinner));
    const auto* free = wire ? wire->figure("freeAir") : nullptr;
    const auto* bundled = wire ? wire->figure("bundled") : nullptr;
    if (free && bundled)
      bench.gauges[awg] = {free->figure, bundled->figure};
    else
      bench.remarks.push_back(
          {fmt::format("What a wire of {} AWG may carry is not known.", awg), {}, "It is not held against its current."});
  }
}

}  // namespace

/// Joins document and library, step by step.
class BenchMaker {
 public:
  BenchMaker(const harness::Harness& h, const parts::Library& library) : m_h(h), m_library(library) {}

  Bench make() {
    m_bench.ambient = m_h.ambient;
    findGauges(m_bench, m_h, m_library);
    m_bench.ids = std::make_shared<const std::set<std::string>>(m_h.ids());
    const auto shown = harness::shownNames(m_h);
    for (std::size_t i = 0; i < m_h.devices.size(); ++i)
      if (m_h.devices[i].state != State::Planned) put(m_h.devices[i], shown[i]);
    m_bench.m_links.assign(m_bench.terminalCount(), 0);
    for (const auto& c : m_h.connections)
      if (c.state != State::Planned) connect(c);
    for (auto& l : m_bench.links) l.resistance = resistanceOf(m_bench, l);
    for (TerminalIndex t = 0; t < static_cast<int>(m_bench.terminalCount()); ++t)
      if (m_bench.facts(t).input) m_bench.m_inputs.push_back(t);
    for (auto& i : harness::intentsOf(m_h))
      if (const int d = m_bench.deviceIndex(i.motor); d >= 0) {
        const auto& part = *m_bench.devices[d].part;
        const bool read = parts::isPeripheral(part) && !parts::isMotor(part);
        (read ? m_bench.reads : m_bench.intents).push_back(std::move(i));
      }
    for (const auto& s : m_h.sources)
      if (m_bench.deviceIndex(s.controller) >= 0)
        m_bench.sources.push_back(s);
      else
        m_bench.problems.push_back({fmt::format("The program \"{}\" runs on {}, which is not on the bench.", s.id, s.controller),
                                    "#" + s.id, "It was kept but is not judged."});
    for (auto& p : problemsOfIntents(m_h, m_library)) m_bench.problems.push_back(std::move(p));
    return std::move(m_bench);
  }

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
  Bench m_bench;

  // The part with the figures given for this bench; nullptr when the library does not know it.
  std::shared_ptr<const parts::Part> partOf(const harness::Device& d) {
    std::vector<Problem> unusable;
    auto part = harness::seenPart(m_library.withOverrides(d.part, d.overrides, unusable), d, m_h);
    for (auto& p : unusable) p.what += " " + p.kept;
    auto contradictions = m_library.contradictions(d.part, d.overrides);
    for (const auto& [said, list] : {std::pair{&unusable, &m_bench.problems}, {&contradictions, &m_bench.remarks}})
      for (auto& p : *said) {
        p.where = "#" + d.id;
        list->push_back(p);
      }
    return part;
  }

  void put(const harness::Device& d, const std::string& shown) {
    auto part = partOf(d);
    const bool unknown = !part;
    if (unknown) {
      m_bench.problems.push_back(
          {fmt::format("The part \"{}\" of {} is not in the library.", d.part, d.id), "#" + d.id, "It was kept but is not judged."});
      ++m_bench.unknownParts;
      part = opaquePart(m_h, d);
    }
    BenchDevice device{d, shown, part, {}, static_cast<TerminalIndex>(m_bench.terminalCount()), static_cast<int>(m_bench.elementCount())};
    device.unknown = unknown;
    if (!unknown) setUp(device);
    for (std::size_t i = 0; i < part->terminals.size(); ++i) device.byId.emplace(part->terminals[i].id, static_cast<int>(i));
    for (const auto& e : part->elements) device.present.push_back(existsWith(e, device.settings));
    const int index = static_cast<int>(m_bench.devices.size());
    m_bench.m_deviceById.emplace(d.id, index);
    m_bench.m_owner.resize(m_bench.terminalCount() + part->terminals.size(), index);
    m_bench.devices.push_back(std::move(device));
  }

  // Every setting of its part as it stands: the document's, else the part's standard.
  void setUp(BenchDevice& device) {
    const auto& d = device.doc;
    for (const auto& s : device.part->settings) device.settings[s.id] = s.standard;
    for (const auto& [id, v] : d.settings) {
      const auto* s = device.part->setting(id);
      if (s && v.value.empty()) continue;  // only a change is planned
      if (!s || std::ranges::count(s->values, v.value) == 0)
        m_bench.problems.push_back({fmt::format("The setting \"{}\" = \"{}\" of {} is not one its part has.", id, v.value, d.id),
                                    "#" + d.id, "The part's standard setting was used."});
      else
        device.settings[id] = v.value;
    }
  }

  void connect(const harness::Connection& c) {
    const int connection = static_cast<int>(m_bench.connections.size());
    m_bench.connections.push_back(c);
    auto a = poles(m_bench, c.a);
    auto b = poles(m_bench, c.b);
    for (const auto& [end, found] : {std::pair{&c.a, &a}, {&c.b, &b}}) {
      if (!found->empty()) continue;
      const bool device = m_bench.deviceIndex(end->device) >= 0;
      m_bench.problems.push_back({device ? fmt::format("The connection {} ends at {}, which {} does not have{}.", c.id, end->text(),
                                                       end->device, instead(m_bench, *end))
                                         : fmt::format("The connection {} ends at {}, which is not on the bench.", c.id, end->text()),
                                  "#" + c.id, "It was kept but is not judged."});
    }
    if (a.empty() || b.empty()) return;
    const auto unknown = [&](const std::vector<TerminalIndex>& end) { return m_bench.devices[m_bench.deviceOf(end.front())].unknown; };
    if (a.size() != b.size() && (unknown(a) || unknown(b))) return;  // how many poles its plug has is not known either
    if (a.size() != b.size()) {
      m_bench.problems.push_back(
          {fmt::format("The plug {} joins {} poles to {}.", c.id, a.size(), b.size()), "#" + c.id, "It was kept but is not judged."});
      return;
    }
    if (c.mirrored) std::ranges::reverse(b);
    for (std::size_t i = 0; i < a.size(); ++i) {
      m_bench.links.push_back({connection, a[i], b[i], {}});
      if (a[i] == b[i]) continue;
      ++m_bench.m_links[a[i]];
      ++m_bench.m_links[b[i]];
    }
  }
};

Bench makeBench(const harness::Harness& h, const parts::Library& library) {
  return BenchMaker(h, library).make();
}

}  // namespace bold::bench
