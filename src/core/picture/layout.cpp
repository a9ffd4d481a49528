#include "core/picture/layout.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

#include "core/harness/marks.h"
#include "core/parts/connector_id.h"
#include "core/picture/place.h"

namespace bold::picture {
namespace {

using bench::Bench;
using bench::Nets;

// Vertical tracks of a channel: the free one nearest to where a thread would like to be. Threads keep theirs when later
// ones come.
class Tracks {
 public:
  Tracks(double x, double width)
      : m_x(x), m_count(std::max(1, static_cast<int>((width - 16) / kTrack))), m_used(static_cast<std::size_t>(m_count)) {}

  double take(double wish, double y1, double y2) {
    if (y1 > y2) std::swap(y1, y2);
    const int want = std::clamp(static_cast<int>(wish * m_count), 0, m_count - 1);
    for (int d = 0; d < m_count; ++d)
      for (const int t : {want + d, want - d})
        if (t >= 0 && t < m_count && free(t, y1, y2)) return use(t, y1, y2);
    return use(want, y1, y2);  // full: share
  }

 private:
  double m_x;
  int m_count;
  std::vector<std::vector<std::pair<double, double>>> m_used;

  bool free(int t, double y1, double y2) const {
    return std::ranges::none_of(m_used[t], [&](const auto& u) { return y1 < u.second + 6 && u.first < y2 + 6; });
  }
  double use(int t, double y1, double y2) {
    m_used[t].emplace_back(y1, y2);
    return m_x + 12 + t * kTrack;
  }
};

class Router {
 public:
  Router(const harness::Harness& h, const parts::Library& library)
      : m_h(h),
        m_p(place(h, library)),
        m_copper(std::make_shared<const Copper>(h, library)),
        m_bench(m_copper->bench),
        m_nets(m_copper->nets),
        m_trunk(m_p.trunk, m_p.trunkWidth),
        m_leads(m_p.leads, m_p.leadsWidth) {}

  Layout run() {
    powerNets();
    Layout out;
    for (const auto& c : m_h.connections)
      if (auto t = thread(c)) out.threads.push_back(std::move(*t));
    for (auto& [net, bar] : m_bars)
      if (bar.x2 > bar.x1) out.bars.push_back(bar);
    out.boxes = std::move(m_p.boxes);
    out.copper = std::move(m_copper);
    out.width = m_p.width;
    out.height = m_p.height;
    return out;
  }

 private:
  const harness::Harness& m_h;
  Placement m_p;
  std::shared_ptr<const Copper> m_copper;
  const Bench& m_bench;
  const Nets& m_nets;
  Tracks m_trunk, m_leads;
  std::map<int, Bar> m_bars;        // by net
  std::map<int, double> m_marginX;  // grounds of sources: their way down
  std::map<int, double> m_topY;

  // One bar for each net that has a source's pole or a ground in it: supplies above, grounds below.
  void powerNets() {
    // In the order of the sources, then of the boards: what is wired elsewhere moves no bar.
    std::vector<int> plus;
    std::vector<int> minus;
    const auto once = [](std::vector<int>& nets, int net) {
      if (std::ranges::count(nets, net) == 0) nets.push_back(net);
    };
    for (const auto& s : m_nets.sources()) {
      once(plus, m_nets.of(s.positive));
      once(minus, m_nets.of(s.negative));
    }
    for (std::size_t t = 0; t < m_bench.terminalCount(); ++t)
      if (m_bench.facts(static_cast<int>(t)).ground && m_bench.connected(static_cast<int>(t))) once(minus, m_nets.of(static_cast<int>(t)));
    double y = m_p.top + 8;
    for (const int net : plus) {
      if (std::ranges::count(minus, net) > 0) continue;
      m_bars[net] = {false, labelOf(net, false), 1e9, -1e9, y};
      y += 14;
    }
    double x = m_p.margin;
    double low = m_p.bottom + 8;
    int island = 0;
    for (const int net : minus) {
      m_topY[net] = y;
      y += 14;
      m_marginX[net] = x;
      x += kTrack;
      m_bars[net] = {true, "ground " + std::to_string(++island) + ": " + labelOf(net, true), 1e9, -1e9, low};
      low += kBarGap;
    }
  }

  std::string labelOf(int net, bool ground) const {
    std::vector<std::string> names;
    for (const auto t : m_nets.members(net)) {
      bool source = false;
      for (const auto& s : m_nets.sources()) source = source || (ground ? s.negative : s.positive) == t;
      const bool here = source || (ground && m_bench.facts(t).ground);
      const auto& name = m_bench.devices[m_bench.deviceOf(t)].called();
      if (here && std::ranges::count(names, name) == 0) names.push_back(name);
    }
    std::string out;
    for (std::size_t i = 0; i < names.size() && i < 5; ++i) out += (i == 0 ? "" : ", ") + names[i];
    return names.size() > 5 ? out + " and " + std::to_string(names.size() - 5) + " more" : out;
  }

  std::optional<Port> port(const Address& a) const {
    if (const auto it = m_p.ports.find(a); it != m_p.ports.end()) return it->second;
    if (const auto it = m_p.connectors.find({a.device, parts::connectorId(a.terminal)}); it != m_p.connectors.end()) return it->second;
    return std::nullopt;
  }
  int netOf(const Address& a) const {
    const auto t = m_bench.terminal(a);
    return t < 0 ? -1 : m_nets.of(t);
  }

  std::optional<Thread> thread(const harness::Connection& c) {
    auto a = port(c.a);
    auto b = port(c.b);
    if (!a || !b) return std::nullopt;  // a wire to nowhere is listed, not drawn
    Thread t{c.id, c.kind, c.state, c.colour, c.a, c.b, {}, !m_p.ports.contains(c.a)};
    // A planned wire has no net of its own yet: it goes by the bar of whichever end has one.
    int net = netOf(c.a);
    if (!m_bars.contains(net)) net = netOf(c.b);
    if (c.kind == harness::ConnectionKind::Jumper && c.a.device == c.b.device) {
      const double x = a->at.x + (a->zone == Zone::Leads ? 10 : -10);
      t.path = {a->at, {x, a->at.y}, {x, b->at.y}, b->at};
      return t;
    }
    const bool barred = m_bars.contains(net) && c.kind != harness::ConnectionKind::Plug;
    t.path = route(c, *a, *b, barred ? &m_bars[net] : nullptr, net);
    return t;
  }

  static void append(std::vector<Point>& path, Point p) {
    if (path.empty() || !(path.back() == p)) path.push_back(p);
  }

  double track(const Port& p, double toY) {
    // Threads that go down start outside, those that go up inside: fewer crossings.
    const double share = std::clamp(p.exitY / std::max(m_p.height, 1.0), 0.0, 1.0);
    const double wish = toY > p.exitY ? 1 - share : share;
    return (p.zone == Zone::Trunk ? m_trunk : m_leads).take(wish, p.exitY, toY);
  }

  // Of the thread itself, so that none moves when another comes or goes.
  static int ownPlace(const harness::Connection& c) {
    int sum = 0;
    for (const char ch : c.id) sum = 31 * sum % 1009 + ch;
    return sum;
  }

  std::vector<Point> route(const harness::Connection& c, const Port& a, const Port& b, Bar* bar, int net) {
    std::vector<Point> path;
    append(path, a.at);
    if (a.zone == b.zone && a.zone != Zone::Top) {
      append(path, {a.at.x, a.exitY});
      const double x = track(a, b.exitY);
      append(path, {x, a.exitY});
      append(path, {x, b.exitY});
      append(path, {b.at.x, b.exitY});
      append(path, b.at);
      return path;
    }
    const double firstBoards = m_p.top + m_p.topHeight + kTabs + kFeedAbove;
    if (!bar && a.zone == Zone::Top && b.zone == Zone::Top && std::max(a.at.y, b.at.y) > firstBoards) return feed(c, a, b);
    double y = 0;
    if (bar) {
      y = bar->y;
    } else if (a.zone == Zone::Top && b.zone == Zone::Top) {
      y = (a.at.y + b.at.y) / 2;
    } else {
      y = m_p.top + m_p.topHeight - 6 - 6.0 * (ownPlace(c) % 4);
    }
    const double ax = down(path, a, y, bar, net);
    std::vector<Point> back;
    append(back, b.at);
    const double bx = down(back, b, y, bar, net);
    if (bar) {
      bar->x1 = std::min({bar->x1, ax, bx});
      bar->x2 = std::max({bar->x2, ax, bx});
    }
    for (auto it = back.rbegin(); it != back.rend(); ++it) append(path, *it);
    return path;
  }

  // To a controller that stands below others: down on their left, and in above it.
  std::vector<Point> feed(const harness::Connection& c, const Port& a, const Port& b) {
    const auto& from = a.at.y < b.at.y ? a : b;
    const auto& to = a.at.y < b.at.y ? b : a;
    const double over = m_p.top + m_p.topHeight - 26 - 8.0 * (ownPlace(c) % 3);  // over the captions of the first one's sockets
    const double x = m_p.feeds + kTrack * feedTrack(to);
    const double in = to.at.y - kFeedAbove;
    std::vector<Point> path;
    for (const auto& p : {from.at, Point{from.at.x, over}, Point{x, over}, Point{x, in}, Point{to.at.x, in}, to.at}) append(path, p);
    if (&from == &b) std::ranges::reverse(path);
    return path;
  }

  // A track for each board below the first.
  int feedTrack(const Port& to) const {
    int track = -1;
    for (const auto& box : m_p.boxes) track += box.kind == BoxKind::Controller && box.rect.y <= to.at.y + kTabs;
    return std::max(0, track - 1);
  }

  // From a terminal to height y; returns the x it arrives at.
  double down(std::vector<Point>& path, const Port& p, double y, const Bar* bar, int net) {
    if (p.zone == Zone::Top) {
      double x = p.at.x;
      if (bar && bar->ground) {  // round the left of the controllers
        const double over = m_topY[net];
        append(path, {x, over});
        x = m_marginX[net];
        append(path, {x, over});
      }
      append(path, {x, y});
      return x;
    }
    append(path, {p.at.x, p.exitY});
    const double x = track(p, y);
    append(path, {x, p.exitY});
    append(path, {x, y});
    return x;
  }
};

}  // namespace

const Box* Layout::box(const std::string& device) const {
  const auto it = std::ranges::find(boxes, device, &Box::device);
  return it == boxes.end() ? nullptr : &*it;
}
const TerminalMark* Layout::terminal(const Address& a) const {
  const auto* b = box(a.device);
  if (!b) return nullptr;
  const auto it = std::ranges::find(b->terminals, a, &TerminalMark::address);
  return it == b->terminals.end() ? nullptr : &*it;
}
const ConnectorMark* Layout::connector(const Address& a) const {
  const auto* b = box(a.device);
  if (!b) return nullptr;
  const auto it = std::ranges::find(b->connectors, a, &ConnectorMark::address);
  return it == b->connectors.end() ? nullptr : &*it;
}
const Thread* Layout::thread(const std::string& connection) const {
  const auto it = std::ranges::find(threads, connection, &Thread::connection);
  return it == threads.end() ? nullptr : &*it;
}

std::vector<std::pair<Address, Point>> places(const Layout& layout) {
  std::vector<std::pair<Address, Point>> out;
  for (const auto& b : layout.boxes) {
    for (const auto& t : b.terminals) out.emplace_back(t.address, t.at);
    for (const auto& c : b.connectors) out.emplace_back(c.address, Point{c.rect.x + c.rect.w / 2, c.rect.y + c.rect.h / 2});
  }
  return out;
}

std::optional<Address> nextPlace(const Layout& layout, const Address& from, Direction way) {
  const auto all = places(layout);
  const auto it = std::ranges::find(all, from, &std::pair<Address, Point>::first);
  if (it == all.end()) return all.empty() ? std::nullopt : std::optional(all.front().first);
  const bool level = way == Direction::Left || way == Direction::Right;
  const double sign = way == Direction::Right || way == Direction::Down ? 1 : -1;
  // Sideways counts four times as far; within a column or row the next one is always the nearest.
  std::optional<Address> best;
  double least = 1e18;
  for (const auto& [address, at] : all) {
    const double dx = at.x - it->second.x;
    const double dy = at.y - it->second.y;
    const double along = sign * (level ? dx : dy);
    const double aside = std::abs(level ? dy : dx);
    if (along < 0.5) continue;
    if (const double cost = along + 4 * aside; cost < least) {
      least = cost;
      best = address;
    }
  }
  return best;
}

void takeMarks(Layout& layout, const harness::Harness& harness, const parts::Library& library) {
  if (harness.marks.empty()) {
    for (auto& t : layout.threads) {
      t.looked = 0;
      t.wrong = false;
    }
    return;
  }
  std::map<std::string_view, harness::Marks> known;
  const auto marks = allMarks(harness, library);
  for (std::size_t i = 0; i < marks.size(); ++i) known[harness.connections[i].id] = marks[i];
  for (auto& t : layout.threads) {
    const auto it = known.find(t.connection);
    const auto m = it == known.end() ? harness::Marks{} : it->second;
    t.looked = (m.fitted != nullptr) + (m.tugged != nullptr) + (m.seen != nullptr);
    t.wrong = m.wrong != nullptr;
  }
}

Layout layOut(const harness::Harness& harness, const parts::Library& library) {
  auto out = Router(harness, library).run();
  takeMarks(out, harness, library);
  return out;
}

}  // namespace bold::picture
