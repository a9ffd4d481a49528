#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

/// Lines, areas and words that a picture is made of, in logical pixels from its top left. The window, a file and paper draw the same list.
namespace bold::draw {

struct Point {
  double x = 0, y = 0;
  bool operator==(const Point&) const = default;
};
struct Rect {
  double x = 0, y = 0, w = 0, h = 0;
  double right() const { return x + w; }
  double bottom() const { return y + h; }
  bool operator==(const Rect&) const = default;
};

/// What a colour is for; what it looks like is said by the theme of a window, or by paper.
enum class Ink { Paper, Panel, Strip, Text, Soft, Line, Casing, Accent, Supply, Ground, Own };

struct Colour {
  Ink ink = Ink::Text;
  std::string own{};    ///< of Ink::Own: "#c62828"
  double strength = 1;  ///< less than 1: mixed with the paper
  bool operator==(const Colour&) const = default;
};

enum class Dash { None, Dots, Dashes, Stripes };
struct Stroke {
  Colour colour;
  double width = 1;
  Dash dash = Dash::None;
  bool operator==(const Stroke&) const = default;
};

struct Segment {
  Point from, to;
  bool operator==(const Segment&) const = default;
};
/// Single lines with flat ends: those are painted several times as fast as a path.
struct Lines {
  std::vector<Segment> segments;
  Stroke stroke;
};
struct Ellipse {
  Point centre;
  double rx = 0, ry = 0;
  std::optional<Stroke> stroke;
  std::optional<Colour> fill;
};
struct Box {
  Rect rect;
  double radius = 0;  ///< of its corners
  std::optional<Stroke> stroke;
  std::optional<Colour> fill;
};
struct Polygon {
  std::vector<Point> points;
  std::optional<Stroke> stroke;
  std::optional<Colour> fill;
};
enum class Side { Left, Middle, Right };
/// One line of words in the middle of a rectangle's height.
struct Words {
  Rect where;
  Side side = Side::Left;
  std::string text;
  double size = 13;  ///< pixels
  Colour colour{};
  bool bold = false, mono = false;
  bool cut = false;                ///< shortened with an ellipsis where it is wider than the rectangle
  std::optional<Colour> backed{};  ///< what lies behind the words, as wide as they are
  bool upwards = false;            ///< read from below: `where` is what it would be before it is turned by a quarter about its middle
};

using Shape = std::variant<Lines, Ellipse, Box, Polygon, Words>;
using Shapes = std::vector<Shape>;

struct Drawing {
  double width = 0, height = 0;
  Shapes shapes;
};

/// How wide words are in the fonts that drawings are made with, where no font is at hand to ask.
double textWidth(const std::string& text, double size, bool bold, bool mono);
/// As many letters of it as fit, and an ellipsis.
std::string shortened(const std::string& text, double size, bool bold, bool mono, double width);
/// In lines that fit; a word that is longer than a line is cut. At least one line.
std::vector<std::string> wrapped(const std::string& text, double size, bool bold, bool mono, double width);

/// All of it larger or smaller by a factor, then shifted.
Shapes moved(const Shapes& shapes, double by, double dx, double dy);

}  // namespace bold::draw
