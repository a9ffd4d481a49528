#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/bench/nets.h"
#include "core/draw/shapes.h"
#include "core/harness/harness.h"
#include "core/parts/library.h"

/// Where everything of the loom picture goes. Plain functions over values: no window, no fonts, no clock.
/// Units are logical pixels. Adding a wire moves no part: room for threads is kept from the number of terminals.
namespace bold::picture {

using draw::Point;
using draw::Rect;

enum class BoxKind { Controller, Stage, Loose, Motor, Source };

struct TerminalMark {
  Address address;
  std::string label;
  std::string contact;
  Point at;
  bool labelLeft = false;   ///< the label ends at the mark instead of beginning there
  bool labelAbove = false;  ///< poles of sources
  bool outside = false;     ///< motors: the label stands beside the lead, not inside the box
  bool pwm = false;
  bool bare = false;   ///< its label is not drawn: the connector's or the column's name stands for it
  bool small = false;  ///< one of hundreds
  double exitY = 0;    ///< where its thread leaves horizontally (inner columns of two-row headers jog past the outer one)
  bool operator==(const TerminalMark&) const = default;
};

/// A socket, plug or header as a whole: a plug's thread begins at it.
struct ConnectorMark {
  Address address;  ///< device and connector id
  std::string label;
  Rect rect;  ///< what is pressed
  Point at;
  bool operator==(const ConnectorMark&) const = default;
};

struct Caption {
  std::string text;
  Point at;  ///< baseline, left
  bool operator==(const Caption&) const = default;
};

struct Box {
  std::string device;
  BoxKind kind = BoxKind::Stage;
  std::string title, subtitle;
  std::string symbol;  ///< resistor, diode, capacitor, fuse, npn, nmos; empty for plain boxes
  Rect rect;
  harness::State state = harness::State::OnBench;
  std::vector<TerminalMark> terminals;
  std::vector<ConnectorMark> connectors;
  std::vector<Caption> captions;
  bool operator==(const Box&) const = default;
};

struct Thread {
  std::string connection;
  harness::ConnectionKind kind = harness::ConnectionKind::Wire;
  harness::State state = harness::State::OnBench;
  std::string colour;
  Address a, b;
  std::vector<Point> path;
  bool whole = false;  ///< joins connectors, not single terminals
  int looked = 0;      ///< 0 .. 3: fitted, tugged at, seen
  bool wrong = false;  ///< found otherwise
  bool operator==(const Thread&) const = default;
};

/// A net that several threads share on their way: a supply or a ground, one segment for each island.
struct Bar {
  bool ground = false;
  std::string label;
  double x1 = 0, x2 = 0, y = 0;
  bool operator==(const Bar&) const = default;
};

/// What is joined by copper on the bench that was laid out, planned things absent.
struct Copper {
  bench::Bench bench;
  bench::Nets nets;
  Copper(const harness::Harness& harness, const parts::Library& library) : bench(bench::makeBench(harness, library)), nets(bench) {}
};

struct Layout {
  double width = 0, height = 0;
  std::vector<Box> boxes;
  std::vector<Thread> threads;
  std::vector<Bar> bars;
  std::shared_ptr<const Copper> copper;

  const Box* box(const std::string& device) const;
  const TerminalMark* terminal(const Address& address) const;
  const ConnectorMark* connector(const Address& address) const;
  const Thread* thread(const std::string& connection) const;
};

/// Every place that a wire or plug can end on, terminals and connectors.
std::vector<std::pair<Address, Point>> places(const Layout& layout);

enum class Direction { Left, Right, Up, Down };
/// The place next to `from` that way, by arrow keys; nothing where there is none. From every place every other can be reached.
std::optional<Address> nextPlace(const Layout& layout, const Address& from, Direction way);

/// How far each wire has been looked at, on a layout of this bench whose connections are still the same.
void takeMarks(Layout& layout, const harness::Harness& harness, const parts::Library& library);

Layout layOut(const harness::Harness& harness, const parts::Library& library);

}  // namespace bold::picture
