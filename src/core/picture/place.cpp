#include "core/picture/place.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/base/number.h"
#include "core/bench/bench.h"
#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/parts/connector_id.h"
#include "core/parts/connectors.h"
#include "core/parts/roles.h"

namespace bold::picture {
namespace {

using harness::Device;

constexpr double kEdge = 16;
constexpr double kGap = 16;
constexpr double kBoardGap = 44;  // between controllers: a plug comes in there
constexpr double kHead = 40;      // title and subtitle of a box
constexpr double kControllerWidth = 152;
constexpr double kTwoRowWidth = 212;
constexpr double kStageWidth = 196;
constexpr double kMotorWidth = 164;
constexpr double kSourceHeight = 62;
constexpr double kSourceWidth = 176;
constexpr double kLetter = 6.6;         // of a connector's name
constexpr double kConnector = 16;       // high
constexpr double kHole = 10;            // between the holes of a breadboard, across
constexpr double kHoleDown = 12;        // and down
constexpr std::size_t kHundreds = 100;  // terminals of a board whose holes are drawn as a grid

// Room is kept in steps, so that one part more seldom moves anything.
int inSteps(int n, int step) {
  return (n + step - 1) / step * step;
}

BoxKind kindOf(const parts::Part& p) {
  if (parts::isController(p)) return BoxKind::Controller;
  if (parts::isSource(p)) return BoxKind::Source;
  if (parts::isMotor(p)) return BoxKind::Motor;
  return p.terminals.size() == 2 && p.channels.empty() ? BoxKind::Loose : BoxKind::Stage;
}

std::string symbolOf(const parts::Part& p) {
  for (const auto& e : p.elements) {
    if (std::holds_alternative<parts::Bipolar>(e.body) && p.terminals.size() == 3) return "npn";
    if (std::holds_alternative<parts::Mosfet>(e.body)) return "nmos";
    if (p.terminals.size() != 2) continue;
    if (std::holds_alternative<parts::Diode>(e.body)) return "diode";
    if (std::holds_alternative<parts::Capacitor>(e.body)) return "capacitor";
    if (const auto* r = std::get_if<parts::Resistor>(&e.body)) return r->conductor ? "fuse" : "resistor";
  }
  return {};
}

double snap(double y, double offset) {
  return std::ceil((y - offset) / kPitch) * kPitch + offset;
}

class Placer {
 public:
  Placer(const harness::Harness& h, const parts::Library& library) : m_h(h), m_library(library) {}

  Placement run() {
    // Copies: an overridden part has the same terminals, so the plain one serves.
    for (const auto& d : m_h.devices) {
      auto part = harness::seenPart(m_library.find(d.part), d, m_h);
      const auto kind = part ? kindOf(*part) : BoxKind::Stage;
      if (!part) part = bench::opaquePart(m_h, d);
      m_items.push_back({&d, std::move(part), kind});
    }
    measure();
    sources();
    const double y0 = m_p.top + m_p.topHeight + kTabs;
    double low = controllers(y0);
    low = std::max(low, stages(y0));
    low = std::max(low, motors(y0));
    m_p.bottom = low + 20;
    m_p.height = m_p.bottom + m_p.bottomHeight + 10;
    return std::move(m_p);
  }

 private:
  struct Item {
    const Device* device;
    std::shared_ptr<const parts::Part> part;  // shared with the library
    BoxKind kind;
  };
  const harness::Harness& m_h;
  const parts::Library& m_library;
  std::vector<Item> m_items;
  Placement m_p;
  double m_controllerWidth = kControllerWidth;

  // Widths that depend on what parts there are, never on how many wires.
  void measure() {
    int trunkEnds = 0;
    int leadEnds = 0;
    int nets = 2;
    for (const auto& i : m_items) {
      if (i.kind == BoxKind::Controller && twoRows(*i.part)) m_controllerWidth = kTwoRowWidth;
      if (i.kind == BoxKind::Source) ++nets;
      if (i.kind == BoxKind::Controller) ++nets;
      if (i.kind == BoxKind::Stage) trunkEnds += std::min<int>(8, static_cast<int>(i.part->terminals.size()));
      if (i.kind == BoxKind::Loose) ++trunkEnds;
      if (i.kind == BoxKind::Motor) leadEnds += static_cast<int>(i.part->terminals.size());
    }
    const int sourceCount = static_cast<int>(std::ranges::count(m_items, BoxKind::Source, &Item::kind));
    m_p.margin = kEdge;
    const int boards = static_cast<int>(std::ranges::count(m_items, BoxKind::Controller, &Item::kind));
    const int fed = inSteps(std::max(1, sourceCount), 3);
    m_p.feeds = kEdge + kTrack * (fed + 1);
    const double marginWidth = m_p.feeds - kEdge + kTrack * std::max(0, boards - 1) + 6;
    m_p.trunk = kEdge + marginWidth + m_controllerWidth;
    m_p.trunkWidth = 20 + kTrack * std::clamp(inSteps(trunkEnds, 12), 12, 18);
    m_p.leads = m_p.trunk + m_p.trunkWidth + kStageWidth;
    m_p.leadsWidth = 42 + kTrack * std::clamp(inSteps(leadEnds, 8), 8, 12);
    m_p.width = m_p.leads + m_p.leadsWidth + kMotorWidth + kEdge;
    m_p.top = kEdge + kSourceHeight + 8;
    m_p.topHeight = 14.0 * (fed * 2 + 2) + 8;
    m_p.bottomHeight = kBarGap * nets;
  }

  static std::vector<std::string> strips(const parts::Part& p) {
    std::vector<std::string> out;
    for (const auto& t : p.terminals)
      if (t.side != parts::Side::Top && std::ranges::count(out, t.place.connector) == 0) out.push_back(t.place.connector);
    return out;
  }
  static std::size_t length(const parts::Part& p, const std::string& strip) {
    return static_cast<std::size_t>(
        std::ranges::count_if(p.terminals, [&](const auto& t) { return t.place.connector == strip && t.side != parts::Side::Top; }));
  }
  // One long header counted across two rows, or two rows of the same length.
  static bool twoRows(const parts::Part& p) {
    const auto s = strips(p);
    if (s.size() == 1) return length(p, s[0]) >= 30;
    return s.size() == 2 && length(p, s[0]) == length(p, s[1]) && length(p, s[0]) >= 15;
  }

  Box start(const Item& i, Rect rect) const {
    Box b;
    b.device = i.device->id;
    b.kind = i.kind;
    b.title = harness::shownName(m_h, *i.device);
    b.subtitle = i.part->kind == "unknown" ? "unknown part: " + i.device->part : i.part->name;
    if (i.kind != BoxKind::Controller && i.kind != BoxKind::Source) b.symbol = parts::isStill(*i.part) ? "still" : symbolOf(*i.part);
    if ((i.kind == BoxKind::Loose || i.kind == BoxKind::Motor) && !i.part->summary.empty()) b.subtitle = valueOf(i);
    b.rect = rect;
    b.state = i.device->state;
    return b;
  }
  // What tells a part apart from its like: a loose part's value, a motor's figures, else its name.
  std::string valueOf(const Item& i) const {
    std::vector<Problem> ignored;  // the bench reports figures that cannot be replaced
    const auto part = m_library.withOverrides(i.device->part, i.device->overrides, ignored);
    const auto show = [&](const char* id) {
      const auto* f = part->figure(id);
      const auto v = f ? f->figure.typical() : std::nullopt;
      return v ? displayText(AnyQuantity{*v, f->figure.unit}) : f ? std::string("unknown") : std::string();
    };
    if (i.kind == BoxKind::Motor) {
      const auto volts = show("nominal");
      const auto* winding = part->figure("winding");
      const auto* nominal = part->figure("nominal");
      if (parts::isStill(*part) && nominal && winding && nominal->figure.typical() && winding->figure.typical())
        return volts + " · " + displayText(Amps{*nominal->figure.typical() / *winding->figure.typical()});
      if (part->figure("stall")) return volts + " · " + show("run") + " / " + show("stall");
      if (part->figure("start")) return show("run") + " / " + show("start");
      return "stepper · " + show("phase");
    }
    for (const auto* name : {"resistance", "capacitance", "rating"})
      if (part->figure(name)) return show(name);
    // "Schottky diode 1N5822": the number is what is printed on it.
    const auto& name = part->name;
    return name.find(' ') != std::string::npos ? name.substr(name.rfind(' ') + 1) : name;
  }

  void mark(Box& b, const parts::Terminal& t, Point at, bool labelLeft, Zone zone, double exitY, bool outside = false) {
    TerminalMark m;
    m.address = {b.device, t.id};
    m.label = t.label;
    m.contact = t.place.contact;
    m.at = at;
    m.labelLeft = labelLeft;
    m.outside = outside;
    m.pwm = t.pin && !t.pin->pwm.empty();
    m.exitY = exitY;
    b.terminals.push_back(m);
    m_p.ports[m.address] = {at, exitY, zone};
    if (!t.place.connector.empty()) m_p.connectors.try_emplace({b.device, parts::connectorId(t.place.connector)}, Port{at, exitY, zone});
  }

  // The whole of a connector, to be pressed and to begin a plug's thread at.
  void whole(Box& b, const parts::Connector& c, Point corner, Point at, Zone zone, double exitY) {
    const Address address{b.device, c.id};
    b.connectors.push_back({address, c.name, {corner.x, corner.y, kLetter * static_cast<double>(c.name.size()) + 14, kConnector}, at});
    m_p.connectors[address] = {at, exitY, zone};
  }

  // Whether another part on the bench has a connector of this name: a board that sits on another.
  bool hasMate(const Item& i, const parts::Connector& c) const {
    return std::ranges::any_of(m_items, [&](const Item& other) {
      return other.device != i.device &&
             std::ranges::any_of(parts::connectorsOf(*other.part), [&](const parts::Connector& o) { return parts::mates(c, o); });
    });
  }

  void sources() {
    double x = m_p.trunk - m_controllerWidth;
    // What is plugged into a controller stands over it.
    const auto plugs = [](const Item& i) {
      return std::ranges::any_of(parts::connectorsOf(*i.part), [](const parts::Connector& c) { return c.contact == "socket"; });
    };
    std::vector<const Item*> order;
    for (const bool first : {true, false})
      for (const auto& i : m_items)
        if (i.kind == BoxKind::Source && plugs(i) == first) order.push_back(&i);
    for (const auto* i : order) {
      const double w = kSourceWidth;
      auto b = start(*i, {x, kEdge, w, kSourceHeight});
      double tx = x + w - 22;
      for (const auto& t : i->part->terminals) {
        mark(b, t, {tx, kEdge + kSourceHeight}, true, Zone::Top, kEdge + kSourceHeight);
        b.terminals.back().labelAbove = true;
        tx -= 34;
      }
      for (const auto& c : parts::connectorsOf(*i->part)) {
        const double low = kEdge + kSourceHeight;
        whole(b, c, {x + 8, low - kConnector - 3}, {x + 24, low}, Zone::Top, low);
      }
      m_p.boxes.push_back(std::move(b));
      x += w + kGap;
    }
    m_p.width = std::max(m_p.width, x + kEdge);
  }

  double controllers(double y) {
    const double x = m_p.trunk - m_controllerWidth;
    for (const auto& i : m_items) {
      if (i.kind != BoxKind::Controller) continue;
      auto b = start(i, {x, y, m_controllerWidth, 0});
      b.subtitle = i.part->summary.empty() ? i.part->name : i.part->hold;
      double ty = snap(y + kHead + 16, 0);
      if (twoRows(*i.part))
        ty = twoRowHeader(b, *i.part, ty);
      else
        for (const auto& strip : strips(*i.part)) ty = oneRow(b, *i.part, strip, ty);
      sockets(b, *i.part);
      b.rect.h = ty - y + 4;
      y = b.rect.bottom() + kBoardGap;
      m_p.boxes.push_back(std::move(b));
    }
    return y;
  }

  // On the upper edge: the name of each, and its poles beside it.
  void sockets(Box& b, const parts::Part& part) {
    double x = b.rect.x + 8;
    const double y = b.rect.y;
    for (const auto& c : parts::connectorsOf(part)) {
      if (part.find(c.terminals.front())->side != parts::Side::Top) continue;
      whole(b, c, {x, y - kConnector}, {x + 14, y - kConnector}, Zone::Top, y - kConnector);
      x = b.connectors.back().rect.right() + 9;
      for (const auto& id : c.terminals) {
        mark(b, *part.find(id), {x, y - kConnector / 2}, true, Zone::Top, y - kConnector / 2);
        b.terminals.back().bare = true;
        x += 14;
      }
      x += 2;
    }
  }

  double oneRow(Box& b, const parts::Part& p, const std::string& strip, double y) {
    const auto connector = parts::connectorsNamed(p, strip);
    if (!connector.empty() && connector.front().contact == "socket")
      whole(b, connector.front(), {b.rect.x + 6, y - 14}, {b.rect.right() - 12, y + kPitch}, Zone::Trunk, y + kPitch);
    else
      b.captions.push_back({strip, {b.rect.x + 10, y - 2}});
    y += kPitch;
    for (const auto& t : p.terminals) {
      if (t.place.connector != strip || t.side == parts::Side::Top) continue;
      mark(b, t, {b.rect.right() - 12, y}, true, Zone::Trunk, y);
      y += kPitch;
    }
    return y + 4;
  }

  double twoRowHeader(Box& b, const parts::Part& p, double y) {
    const auto s = strips(p);
    b.captions.push_back({s.size() == 2 ? s[0] + " | " + s[1] : s[0], {b.rect.x + 10, y - 2}});
    y += kPitch;
    int index = 0;
    double low = y;
    for (const auto& t : p.terminals) {
      if (t.side == parts::Side::Top) continue;
      const bool inner = s.size() == 1 ? index % 2 == 0 : t.place.connector == s[0];
      const int row = s.size() == 1 ? index / 2 : t.place.position - 1;
      const double ty = y + row * kPitch;
      mark(b, t, {inner ? b.rect.right() - 104 : b.rect.right() - 12, ty}, true, Zone::Trunk, inner ? ty + 9 : ty);
      low = std::max(low, ty + kPitch);
      ++index;
    }
    return low + 4;
  }

  double stages(double y0) {
    const double x = m_p.trunk + m_p.trunkWidth;
    double left = y0;  // two-legged parts stand side by side: resistors left, the others right
    double right = y0;
    for (const auto& i : m_items) {
      if (i.kind == BoxKind::Loose) {
        loose(i, x, left, right);
      } else if (i.kind == BoxKind::Stage) {
        const double y = std::max(left, right);
        left = right = stage(i, x, y) + kGap;
      }
    }
    return std::max(left, right);
  }

  void loose(const Item& i, double x, double& left, double& right) {
    const auto symbol = symbolOf(*i.part);
    const bool onLeft = symbol == "resistor";
    double& y = onLeft ? left : right;
    const double w = kStageWidth / 2 - 5;
    auto b = start(i, {onLeft ? x : x + kStageWidth - w, y, w, 66});
    double ty = snap(y + 22, 10);
    for (const auto& t : i.part->terminals) {
      mark(b, t, {onLeft ? x : x + kStageWidth, ty}, !onLeft, onLeft ? Zone::Trunk : Zone::Leads, ty);
      ty += kPitch;
    }
    b.rect.h = ty - y + 2;
    y = b.rect.bottom() + 10;
    m_p.boxes.push_back(std::move(b));
  }

  double stage(const Item& i, double x, double y) {
    auto b = start(i, {x, y, kStageWidth, 0});
    double ly = snap(y + kHead + 8, 10);
    double ry = ly;
    if (i.part->terminals.size() > kHundreds) {
      ly = ry = grid(b, *i.part, ly);
    } else {
      // Motor supply and outputs right, everything else left; grounds last.
      for (const int pass : {0, 1, 2})
        for (const auto& t : i.part->terminals) {
          const bool motorSupply = t.supply && t.supply->purpose == parts::SupplyFor::Motor;
          const bool onRight = t.output || motorSupply || t.side == parts::Side::Right;
          const int rank = onRight ? (motorSupply ? 0 : 1) : t.ground || t.side == parts::Side::Bottom ? 2 : t.supply ? 1 : 0;
          if (rank != pass) continue;
          double& ty = onRight ? ry : ly;
          mark(b, t, {onRight ? b.rect.right() : x, ty}, onRight, onRight ? Zone::Leads : Zone::Trunk, ty);
          ty += kPitch;
        }
      double low = std::max(ly, ry);
      for (const auto& c : parts::connectorsOf(*i.part)) {
        if (c.contact != "socket" && !hasMate(i, c)) continue;
        const auto port = m_p.ports.at({b.device, c.terminals.front()});
        whole(b, c, {x + 12, low - 8}, port.at, port.zone, port.exitY);
        low += kPitch;
      }
      ly = ry = low;
    }
    b.rect.h = std::max({ly, ry, y + kHead + 24}) - y;
    m_p.boxes.push_back(b);
    return b.rect.bottom();
  }

  // A breadboard: its rows run down, its columns across, as its holes are named. What hangs on a hole leaves between two rows, to the
  // nearer side.
  double grid(Box& b, const parts::Part& p, double y) {
    std::vector<std::string> columns;
    for (const auto& t : p.terminals)
      if (std::ranges::count(columns, t.place.connector) == 0) columns.push_back(t.place.connector);
    std::ranges::stable_sort(columns, {}, columnRank);
    std::map<std::string, double> at;
    double x = b.rect.x + 12;
    int before = columnRank(columns.front());
    for (const auto& c : columns) {
      const int rank = columnRank(c);
      if (rank / 10 != before / 10) x += before < 10 ? 22 : 9;  // beside the first rails stand the numbers
      before = rank;
      at[c] = x;
      if (c.starts_with("row ")) b.captions.push_back({c.substr(4), {x - 3, y + 3}});
      x += kHole;
    }
    const double middle = (b.rect.x + x) / 2;
    double low = y;
    for (const auto& t : p.terminals) {
      const auto digits = t.id.find_first_of("0123456789");
      const int row = digits == std::string::npos ? 1 : static_cast<int>(wholeAtStart(std::string_view(t.id).substr(digits)).value_or(1));
      const Point place{at[t.place.connector], y + row * kHoleDown};
      const bool right = place.x > middle;
      mark(b, t, place, right, right ? Zone::Leads : Zone::Trunk, place.y + kHoleDown / 2);
      b.terminals.back().bare = true;
      b.terminals.back().small = true;
      low = std::max(low, place.y);
      if (t.place.connector == "row a" && (row == 1 || row % 5 == 0))
        b.captions.push_back({std::to_string(row), {place.x - 20, place.y + 4}});
    }
    return low + kHoleDown + 4;
  }
  // Rails outside, then the two fields with the gap between: tens are groups.
  static int columnRank(const std::string& column) {
    if (column.starts_with("top")) return column.ends_with("+") ? 0 : 1;
    if (column.starts_with("bottom")) return column.ends_with("+") ? 31 : 30;
    const int letter = column.back() - 'a';
    return letter < 5 ? 10 + letter : 20 + letter - 5;
  }

  double motors(double y) {
    const double x = m_p.leads + m_p.leadsWidth;
    for (const auto& i : m_items) {
      if (i.kind != BoxKind::Motor) continue;
      const auto n = static_cast<double>(i.part->terminals.size());
      const double h = std::max(104.0, n * kPitch + 48);
      auto b = start(i, {x, y, kMotorWidth, h});
      double ty = snap(y + 26, 0);
      for (const auto& t : i.part->terminals) {
        mark(b, t, {x + 6, ty}, false, Zone::Leads, ty, true);
        ty += kPitch;
      }
      for (const auto& c : parts::connectorsOf(*i.part)) {
        const auto port = m_p.ports.at({b.device, c.terminals.front()});
        whole(b, c, {x + 2, y + 2}, port.at, port.zone, port.exitY);
      }
      y += h + kGap;
      m_p.boxes.push_back(std::move(b));
    }
    return y;
  }
};

}  // namespace

Placement place(const harness::Harness& harness, const parts::Library& library) {
  return Placer(harness, library).run();
}

}  // namespace bold::picture
