#include "gui/picture/place.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/parts/connector_id.h"
#include "core/parts/roles.h"

namespace bold::picture {
namespace {

using harness::Device;

constexpr double kEdge = 16;
constexpr double kGap = 16;
constexpr double kBoardGap = 28;  // between controllers: a plug comes in there
constexpr double kHead = 40;      // title and subtitle of a box
constexpr double kControllerWidth = 152;
constexpr double kTwoRowWidth = 212;
constexpr double kStageWidth = 196;
constexpr double kMotorWidth = 164;
constexpr double kSourceHeight = 62;
constexpr double kSourceWidth = 176;

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
      const auto part = m_library.find(d.part);
      Item item{&d, part, part ? kindOf(*part) : BoxKind::Stage};
      m_items.push_back(item);
    }
    measure();
    sources();
    const double y0 = m_p.top + m_p.topHeight;
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
      if (i.kind == BoxKind::Controller && i.part && twoRows(*i.part)) m_controllerWidth = kTwoRowWidth;
      if (i.kind == BoxKind::Source) ++nets;
      if (i.kind == BoxKind::Controller) ++nets;
      if (!i.part) continue;
      if (i.kind == BoxKind::Stage) trunkEnds += std::min<int>(8, static_cast<int>(i.part->terminals.size()));
      if (i.kind == BoxKind::Loose) ++trunkEnds;
      if (i.kind == BoxKind::Motor) leadEnds += static_cast<int>(i.part->terminals.size());
    }
    const int sourceCount = static_cast<int>(std::ranges::count(m_items, BoxKind::Source, &Item::kind));
    m_p.margin = kEdge;
    const int boards = static_cast<int>(std::ranges::count(m_items, BoxKind::Controller, &Item::kind));
    m_p.feeds = kEdge + kTrack * std::max(2, sourceCount + 1);
    const double marginWidth = m_p.feeds - kEdge + kTrack * std::max(0, boards - 1) + 6;
    m_p.trunk = kEdge + marginWidth + m_controllerWidth;
    m_p.trunkWidth = 24 + kTrack * std::clamp(trunkEnds, 6, 19);
    m_p.leads = m_p.trunk + m_p.trunkWidth + kStageWidth;
    m_p.leadsWidth = 46 + kTrack * std::clamp(leadEnds, 4, 12);
    m_p.width = m_p.leads + m_p.leadsWidth + kMotorWidth + kEdge;
    m_p.top = kEdge + (sourceCount > 0 ? kSourceHeight : 0) + 8;
    m_p.topHeight = 14.0 * (sourceCount * 2 + 2) + 8;
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
    b.title = i.device->called();
    b.subtitle = i.part ? i.part->name : "unknown part: " + i.device->part;
    if (i.part && i.kind != BoxKind::Controller && i.kind != BoxKind::Source) b.symbol = symbolOf(*i.part);
    if (i.part && (i.kind == BoxKind::Loose || i.kind == BoxKind::Motor) && !i.part->summary.empty()) b.subtitle = valueOf(i);
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
      if (part->figure("stall")) return volts + " · " + show("run") + " / " + show("stall");
      if (part->figure("start")) return "servo · " + show("run") + " / " + show("start");
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

  void sources() {
    double x = m_p.trunk - m_controllerWidth;
    std::set<std::string> plugged;  // over the controller they are plugged into
    for (const auto& c : m_h.connections)
      if (c.kind == harness::ConnectionKind::Plug) plugged.insert({c.a.device, c.b.device});
    std::vector<const Item*> order;
    for (const bool first : {true, false})
      for (const auto& i : m_items)
        if (i.kind == BoxKind::Source && plugged.contains(i.device->id) == first) order.push_back(&i);
    for (const auto* i : order) {
      const double w = kSourceWidth;
      auto b = start(*i, {x, kEdge, w, kSourceHeight});
      double tx = x + w - 22;
      for (const auto& t : i->part->terminals) {
        mark(b, t, {tx, kEdge + kSourceHeight}, true, Zone::Top, kEdge + kSourceHeight);
        b.terminals.back().labelAbove = true;
        tx -= 34;
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
      for (const auto& t : i.part->terminals)  // sockets for plugs: on the upper edge
        if (t.side == parts::Side::Top) {
          const Address whole{b.device, parts::connectorId(t.place.connector)};
          const double px = x + 24 + 60.0 * (t.place.connector == "jack" ? 1 : 0);
          m_p.connectors[whole] = {{px, y}, y, Zone::Top};
          m_p.ports[{b.device, t.id}] = {{px + (t.place.position == 2 ? 8.0 : 0.0), y}, y, Zone::Top};
          if (t.place.position == 1) b.captions.push_back({t.place.connector, {px + 7, y - 4}});
        }
      b.rect.h = ty - y + 4;
      y = b.rect.bottom() + kBoardGap;
      m_p.boxes.push_back(std::move(b));
    }
    return y;
  }

  double oneRow(Box& b, const parts::Part& p, const std::string& strip, double y) {
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
    const auto symbol = i.part ? symbolOf(*i.part) : std::string();
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
    if (i.part) {
      const auto used = usedOnly(i);
      // Motor supply and outputs right, everything else left; grounds last.
      for (const int pass : {0, 1, 2})
        for (const auto& t : i.part->terminals) {
          if (!used.empty() && !used.contains(t.id)) continue;
          const bool motorSupply = t.supply && t.supply->purpose == "motor";
          const bool onRight = t.output || motorSupply || t.side == parts::Side::Right;
          const int rank = onRight ? (motorSupply ? 0 : 1) : t.ground || t.side == parts::Side::Bottom ? 2 : t.supply ? 1 : 0;
          if (rank != pass) continue;
          double& ty = onRight ? ry : ly;
          mark(b, t, {onRight ? b.rect.right() : x, ty}, onRight, onRight ? Zone::Leads : Zone::Trunk, ty);
          ty += kPitch;
        }
    }
    b.rect.h = std::max({ly, ry, y + kHead + 24}) - y;
    m_p.boxes.push_back(b);
    return b.rect.bottom();
  }

  // Boards of hundreds of holes show the holes that something is in.
  std::set<std::string> usedOnly(const Item& i) const {
    std::set<std::string> out;
    if (i.part->terminals.size() <= 60) return out;
    for (const auto& c : m_h.connections)
      for (const auto* end : {&c.a, &c.b})
        if (end->device == i.device->id) {
          out.insert(end->terminal);
          // Of a header that is plugged as a whole its first pin stands for it.
          for (const auto& t : i.part->terminals)
            if (t.place.position == 1 && parts::connectorId(t.place.connector) == end->terminal) out.insert(t.id);
        }
    if (out.empty()) out.insert(i.part->terminals.front().id);
    return out;
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
