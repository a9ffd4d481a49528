#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/parts/part.h"

/// The names that one terminal has: by print, by place, by chip, by program, by what it is for.
namespace bold::places {

enum class Numbering { Printed, Position, Chip, Program, Function };

/// "printed", "position", "chip", "program", "function": as documents and the command line say it.
std::string_view word(Numbering n);
std::optional<Numbering> numberingNamed(std::string_view word);

/// The number of a terminal where positions are counted through: a header's position, a chip's leg. 0: they are not.
int positionOf(const parts::Part& part, const parts::Terminal& terminal);

/// What a terminal is called in a system; empty where it has no name in it.
std::string nameIn(const parts::Part& part, const parts::Terminal& terminal, Numbering n);

/// Its name in that system as it is shown and may be typed, a bare number with its system ("pos 11", "code 9"); else what is printed.
std::string shownIn(const parts::Part& part, const parts::Terminal& terminal, Numbering n);

/// The systems in which the part has names of its own, Printed first.
std::vector<Numbering> numberingsOf(const parts::Part& part);

/// A terminal that a word means, and in which system.
struct Meaning {
  int terminal;  ///< in Part::terminals
  Numbering in;
  bool operator==(const Meaning&) const = default;
};

/// Everything that a number, or a number behind its system ("pos 12", "pin12", "gpio12", "chip 12"), may mean on a part; each terminal
/// once, by the first system that has it so. Empty for what holds no number in one of these forms.
std::vector<Meaning> numbersMeant(const parts::Part& part, std::string_view word);

/// The one terminal that a file means by a word: its id, a number that counts only one, or a name; its index. -1: none, or several.
int terminalMeant(const parts::Part& part, const std::string& word);

}  // namespace bold::places
