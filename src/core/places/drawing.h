#pragma once

#include <string>
#include <variant>
#include <vector>

#include "core/places/arrangement.h"
#include "core/places/numbering.h"

/// What is to be drawn of a part so that a finger finds its terminals: lines, rings and words, in points, from the top left. The window,
/// an SVG and paper draw the same list.
namespace bold::places {

/// What a line or word is, never what it looks like.
enum class Ink { Outline, Mark, Terminal, Tick, Wanted, Name, Quiet };

struct Line {
  double x1, y1, x2, y2;
  Ink ink;
  bool heavy = false;
};
struct Circle {
  double x, y, radius;
  Ink ink;
  bool filled = false;
  bool heavy = false;
};
struct Box {
  double x, y, width, height;
  Ink ink;
};
enum class Anchor { Start, Middle, End };
struct Words {
  double x, y;  ///< of its anchor, in the middle of its height
  std::string text;
  Anchor anchor;
  Ink ink;
  bool upwards = false;  ///< read from below
  double size = 0;       ///< points, of the letters
  bool strong = false;
};
using Shape = std::variant<Line, Circle, Box, Words>;

/// Where a terminal of the drawing is, for whoever points at it.
struct Target {
  int terminal;
  double x, y;
};

struct Drawing {
  double width = 0, height = 0;
  std::vector<Shape> shapes;
  std::vector<Target> targets;
};

struct Wish {
  Lie lie;
  Numbering names = Numbering::Printed;
  std::vector<int> wanted;  ///< terminals that are looked for; all others stand back
  double pitch = 16;        ///< points from terminal to terminal
  bool many = false;        ///< what is wanted lies side by side: it is filled, where one alone gets a ring that is seen from afar
};

/// Empty where the part has no order, not even a usual one: nothing is drawn that is not known.
Drawing drawingOf(const parts::Part& part, const Wish& wish);

}  // namespace bold::places
