#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/mismatch.h"

namespace bold::checks::program_numbering {
namespace {

std::string_view words(places::Numbering n) {
  return n == places::Numbering::Position ? "positions on the header"
         : n == places::Numbering::Chip   ? "numbers of the chip"
                                          : "the board's own numbers";
}

// What single-board computers' interfaces call a numbering that a program chooses in one line.
std::string_view chosenBy(places::Numbering n) {
  return n == places::Numbering::Position ? "GPIO.BOARD, wiringPiSetupPhys()" : "GPIO.BCM, wiringPiSetupGpio()";
}

}  // namespace

// Numbers of a program that fit the wires once they are counted otherwise: one cause, however many pins.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (auto o : program.numberings()) {
    // Single-board computers' own numbers are the chip's, and their interfaces let a program choose.
    const bool chooses = s.bench.devices[s.bench.deviceIndex(o.source->controller)].part->id.starts_with("sbc-");
    if (chooses && o.meant == places::Numbering::Program) o.meant = places::Numbering::Chip;
    const auto& board = called(s.bench, s.bench.deviceIndex(o.source->controller));
    std::string is, change;
    std::vector<std::string> subjects;
    bool sure = false;
    for (const auto& [used, at] : o.pins) {
      is += fmt::format("{}{} is {}", is.empty() ? "" : ", ", said(*used->use), s.bench.called(at));
      change += fmt::format("{}{} to {}", change.empty() ? "" : ", ", said(*used->use), inWordsOf(s, *used->use, at));
      subjects.push_back(s.bench.address(at));
      sure = sure || used->use->sure;
    }
    const auto& first = *o.pins.front().first->use;
    auto f =
        finding(sure ? Severity::Stop : Severity::Caution, fmt::format("The program's pin numbers fit as {}", words(o.meant)),
                fmt::format("Of {} the program names pins that the wires do not lead to. As {} they fit: {}.", board, words(o.meant), is),
                std::move(subjects));
    for (const auto& [used, at] : o.pins)
      for (const auto& spot : spotsOf(*used->use))
        if (std::ranges::count(f.spots, spot) == 0) f.spots.push_back(spot);
    f.formula = fmt::format("{} pins: {}", o.pins.size(), is);
    if (chooses)
      f.ways.push_back(
          {fmt::format("Choose {} in {} ({}).", words(o.meant),
                       o.source->counted ? where(*o.source->counted) : "the one line that says how pins are counted", chosenBy(o.meant))});
    if (chooses && o.source->counted) f.spots.insert(f.spots.begin(), *o.source->counted);
    const auto spots = spotsOf(first);
    f.ways.push_back({fmt::format("{}hange {}{}.", chooses ? "Or c" : "C", change, spots.empty() ? "" : " in " + where(spots.front()))});
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-numbering", "program", "Pin numbers of the program counted otherwise", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_numbering
