#include "core/report/lists.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/base/csv.h"
#include "core/harness/colour_codes.h"

namespace bold::report {

std::string cutList(const harness::Harness& h) {
  struct Cut {
    std::string colour, gauge;
    double metres;  // 0: not given
    auto operator<=>(const Cut&) const = default;
  };
  std::map<Cut, std::vector<std::string>> cuts;
  for (const auto& c : h.connections)
    if (c.kind == harness::ConnectionKind::Wire && c.state != harness::State::ToBeRemoved)
      cuts[{c.colour, c.gauge ? std::to_string(*c.gauge) : "", c.length ? c.length->value : 0}].push_back(c.id);
  std::vector<std::pair<Cut, std::vector<std::string>>> rows(cuts.begin(), cuts.end());
  std::ranges::stable_sort(rows, std::greater<>(), [](const auto& r) { return r.first.metres; });
  auto out = csvLine({"count", "colour", "colour, in words", "gauge", "length", "together", "wires"});
  for (const auto& [cut, wires] : rows) {
    std::string ids;
    for (const auto& id : wires) ids += (ids.empty() ? "" : " ") + id;
    const bool known = cut.metres > 0;
    out += csvLine({std::to_string(wires.size()), cut.colour, cut.colour.empty() ? "" : harness::colourName(cut.colour), cut.gauge,
                    known ? fileText(Metres{cut.metres}) : "",
                    known ? fileText(Metres{cut.metres * static_cast<double>(wires.size())}) : "", ids});
  }
  return out;
}

std::string partsList(const harness::Harness& h, const parts::Library& library) {
  std::vector<std::pair<std::string, std::vector<std::string>>> rows;
  for (const auto& d : h.devices) {
    if (d.state == harness::State::ToBeRemoved) continue;
    auto it = std::ranges::find(rows, d.part, [](const auto& r) { return r.first; });
    if (it == rows.end()) it = rows.insert(it, {d.part, {}});
    it->second.push_back(d.called());
  }
  auto out = csvLine({"count", "part", "name", "what it is", "on the bench"});
  for (const auto& [id, names] : rows) {
    const auto part = library.find(id);
    std::string called;
    for (const auto& n : names) called += (called.empty() ? "" : ", ") + n;
    out += csvLine({std::to_string(names.size()), id, part ? part->name : "", part ? part->summary : "not in the library", called});
  }
  return out;
}

}  // namespace bold::report
