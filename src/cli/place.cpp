#include <fmt/core.h>

#include "core/base/number.h"
#include "core/parts/library.h"
#include "core/parts/named_terminal.h"
#include "core/places/neighbours.h"
#include "core/places/svg.h"
#include "core/places/words.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::place {
namespace {

struct Taken {
  std::string part;
  std::vector<std::string> terminals;
  std::string names = "printed", turned = "0", format = "text";
  bool below = false;
};

// By number in any system, else by any of its names.
std::vector<int> meant(const parts::Part& part, const std::string& typed) {
  std::vector<int> out;
  for (const auto& m : places::numbersMeant(part, typed)) out.push_back(m.terminal);
  if (out.empty())
    for (const auto& id : parts::terminalsNamed(part, typed)) out.push_back(part.indexOf(id));
  return out;
}

void sayPlace(const parts::Part& part, int t, places::Lie lie) {
  const auto& facts = part.terminals[t];
  say(fmt::format("{}: {}\n", facts.label, places::fullPlace(part, facts, lie)));
  if (const auto beside = places::besideIt(part, t); !beside.empty()) say(fmt::format("  {}\n", beside));
}

int print(const Taken& a) {
  Disk disk;
  const auto library = ownLibrary(disk);
  const auto part = library.find(a.part);
  if (!part) {
    complain(fmt::format("There is no part \"{}\". \"boldh parts WORD\" finds them.", a.part));
    return 2;
  }
  places::Wish wish;
  wish.lie = {static_cast<int>(wholeOf(a.turned).value_or(0)) / 90, a.below};
  wish.names = *places::numberingNamed(a.names);
  for (const auto& typed : a.terminals) {
    const auto found = meant(*part, typed);
    if (found.empty()) {
      complain(fmt::format("{} has no terminal \"{}\".", part->name, typed));
      return 2;
    }
    wish.wanted.insert(wish.wanted.end(), found.begin(), found.end());
  }
  if (a.format == "svg") {
    const auto drawing = places::drawingOf(*part, wish);
    if (drawing.shapes.empty()) {
      complain(fmt::format("The order of the terminals of {} is not known: look at the print.", part->name));
      return 2;
    }
    say(places::svgOf(drawing, part->name));
    return 0;
  }
  if (const auto hold = places::holdWords(*part, wish.lie); !hold.empty()) say(fmt::format("{}: {}\n", part->name, hold));
  if (!part->layoutKnown) say("Its order is not known for sure: look at the print.\n");
  if (wish.wanted.empty())
    for (std::size_t t = 0; t < part->terminals.size(); ++t) sayPlace(*part, static_cast<int>(t), wish.lie);
  for (const auto t : wish.wanted) sayPlace(*part, t, wish.lie);
  return 0;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("PART", a->part, "its id, such as board-uno-atmega328p");
  takes.positionals("TERMINAL", a->terminals, "by any of its names or numbers, such as D9 or gpio17", false);
  takes.option("--names", a->names, "what its terminals are called in the drawing", {"printed", "position", "chip", "program", "function"});
  takes.option("--turned", a->turned, "clockwise by so many degrees", {"0", "90", "180", "270"});
  takes.flag("--below", a->below, "as seen from the solder side");
  takes.option("--format", a->format, "text or svg", {"text", "svg"});
  return [a] { return print(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"place", "Say or draw where the terminals of a part are, by any of their names.", declare};
}

}  // namespace bold::cli::place
