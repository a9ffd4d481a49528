#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/mismatch.h"

namespace bold::checks::program_no_such_pin {

// Words for pins that the controller does not have; one finding a program.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  const auto& slips = program.mismatch().slips;
  const auto& counted = program.numberings();
  const auto otherwise = [&](const harness::PinUse* use) {
    return std::ranges::any_of(
        counted, [&](const OtherNumbering& o) { return std::ranges::any_of(o.pins, [&](const auto& x) { return x.first->use == use; }); });
  };
  for (const auto& source : s.bench.sources) {
    std::vector<const harness::PinUse*> none;
    for (const auto& u : program.used())
      if (u.source == &source && u.pin < 0 && !u.use->onBoard && !otherwise(u.use) &&
          std::ranges::none_of(slips, [&](const Slip& x) { return x.used->use == u.use; }))
        none.push_back(u.use);
    if (none.empty()) continue;
    const auto& board = called(s.bench, s.bench.deviceIndex(source.controller));
    const auto* as = none.front()->numbering == "position" ? ", counted on the header"
                     : none.front()->numbering == "chip"   ? ", by the chip"
                                                           : "";
    std::string words;
    for (const auto* u : none) words += (words.empty() ? "" : ", ") + said(*u);
    const bool sure = std::ranges::any_of(none, &harness::PinUse::sure);
    auto f = programFinding(sure ? Severity::Stop : Severity::Caution, fmt::format("{} has no pin {}", board, words),
                            fmt::format("The program uses {}{}; {} brings no pin of that name out.", words, as, board), {source.controller},
                            *none.front());
    for (std::size_t k = 1; k < none.size(); ++k)
      for (const auto& spot : spotsOf(*none[k]))
        if (std::ranges::count(f.spots, spot) == 0) f.spots.push_back(spot);
    f.formula = fmt::format("{} among the pins of {}: none", words, board);
    f.ways = {{fmt::format("Name a pin that {} has.", board)}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-no-such-pin", "program", "A pin that the controller does not have", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_no_such_pin
