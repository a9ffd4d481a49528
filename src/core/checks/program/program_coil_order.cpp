#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/coil_group.h"

namespace bold::checks::program_coil_order {
namespace {

// The order of the four words after which the field goes round, with as few of them moved as will do; empty: none.
std::vector<std::string> rightOrder(const CoilGroup& c) {
  std::array<int, 4> at{0, 1, 2, 3};
  std::vector<std::string> best;
  int fewest = 5;
  do {
    CoilInputs does;
    int moved = 0;
    for (int k = 0; k < 4; ++k) {
      does[k] = c.does[at[k]];
      if (does[k].gate >= 0) does[k].gate = static_cast<int>(std::ranges::find(at, does[k].gate) - at.begin());
      moved += at[k] != k;
    }
    if (moved >= fewest || !goesRound(fieldOf(c.group->states, does))) continue;
    fewest = moved;
    best.clear();
    for (std::size_t k = 0; k < 4; ++k) best.push_back(c.group->words[at[k]]);
  } while (std::ranges::next_permutation(at).found);
  return best;
}

std::string joined(const std::vector<std::string>& words) {
  std::string out;
  for (const auto& w : words) out += (out.empty() ? "" : ", ") + w;
  return out;
}

}  // namespace

// The states in which the program switches a stepper's coils, through the wires as they are: the field has to go round.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& c : coilGroups(program)) {
    if (c.group->states.size() < 4 || goesRound(fieldOf(c.group->states, c.does))) continue;
    const auto& motor = called(s, s.motors[c.motor]);
    const auto right = rightOrder(c);
    auto f = programFinding(
        Severity::Stop, fmt::format("The coils of {} are switched out of order", motor),
        fmt::format("The program switches {} in an order in which the field of {} does not go round: it trembles and does not turn.",
                    joined(c.group->words), motor),
        {idOf(s.bench, s.motors[c.motor].device), s.bench.address(c.inputs.front())}, *c.any->use);
    if (c.group->place.line > 0) f.spots = {c.group->place};
    std::string field;
    for (const int e : fieldOf(c.group->states, c.does))
      field += (field.empty() ? "" : ", ") + (e < 0 ? std::string("none") : fmt::format("{}°", e * 45));
    f.formula = "field: " + field;
    f.ways = {{right.empty() ? std::string("Compare the states in the program with the coils.")
                             : fmt::format("Name the pins in the order {}{}.", joined(right),
                                           f.spots.empty() ? "" : " in " + where(f.spots.front()))}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-coil-order", "program", "Coils switched out of order", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_coil_order
