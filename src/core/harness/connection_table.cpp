#include "core/harness/connection_table.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include "core/harness/names.h"

namespace bold::harness {

std::vector<ConnectionRow> connectionTable(const Harness& h, const parts::Library& library) {
  std::vector<ConnectionRow> rows;
  rows.reserve(h.connections.size());
  const EndNames names(h, library);
  for (const auto& c : h.connections) {
    std::vector<std::string> size;
    if (c.gauge) size.push_back(fmt::format("{} AWG", *c.gauge));
    if (c.length) size.push_back(displayText(*c.length));
    rows.push_back({.id = c.id,
                    .kind = c.kind,
                    .colour = c.kind == ConnectionKind::Wire ? c.colour : std::string(),
                    .from = names.end(c.a),
                    .to = names.end(c.b),
                    .gauge = c.gauge ? std::to_string(*c.gauge) : std::string(),
                    .size = fmt::format("{}", fmt::join(size, ", ")),
                    .state = c.state});
  }
  return rows;
}

std::string_view word(State state) {
  return state == State::OnBench ? "made" : state == State::Planned ? "to make" : "to take away";
}

}  // namespace bold::harness
