#include "core/bench/joined_bench.h"

#include <algorithm>
#include <optional>
#include <set>

namespace bold::bench {
namespace {

using Cell = std::size_t;

// Where the things of the whole bench are in its cells.
struct Places {
  struct Device {
    Cell cell;
    int device;
  };
  struct Link {
    int cell, link;  // cell -1: one of the wires between them
  };
  // How a cell hangs on one before it; terminals of the whole bench.
  struct Anchor {
    int before = -1;  // -1: on nothing
    TerminalIndex outer = -1, inner = -1;
    Ohms wire{};
    int depth = 0;
  };
  std::vector<Device> devices;
  std::vector<Link> links;
  std::vector<int> motors;      // per motor of the whole: its index in its cell
  std::vector<Anchor> anchors;  // per cell
};

struct JoinedBench : SolvedBench {
  std::vector<std::shared_ptr<const SolvedBench>> cells;
  Places places;

  JoinedBench(Bench b, std::vector<std::shared_ptr<const SolvedBench>> parts) : SolvedBench(std::move(b), {}), cells(std::move(parts)) {}
};

// The points of all cells, read as one.
class JoinedPoint : public OperatingPoint {
 public:
  JoinedPoint(const JoinedBench& whole, const Command& command, Corner corner, std::vector<const OperatingPoint*> points)
      : m_whole(whole), m_places(whole.places), m_command(command), m_corner(corner), m_points(std::move(points)) {
    for (const auto* p : m_points)
      if (!p->solved()) {
        m_whyNot = p->whyNot();
        m_restless = p->restless();
      }
  }

  const Command& command() const override { return m_command; }
  Corner corner() const override { return m_corner; }
  const std::string& whyNot() const override { return m_whyNot; }
  bool restless() const override { return m_restless; }
  bool hunts() const override {
    return std::ranges::any_of(m_points, [](const OperatingPoint* p) { return p->hunts(); });
  }

  std::optional<Volts> across(TerminalIndex a, TerminalIndex b) const override {
    // No current flows through the wires between cells: both their ends have the same voltage.
    const auto up = [](const Places::Anchor&) { return Volts{0}; };
    const auto inside = [](const OperatingPoint& p, TerminalIndex x, TerminalIndex y) { return p.across(x, y); };
    return walk<Volts>(a, b, -1.0, up, inside);
  }
  Amps link(int l) const override {
    const auto& at = m_places.links[l];
    return at.cell < 0 ? Amps{} : m_points[at.cell]->link(at.link);
  }
  Amps element(int d, int e) const override { return point(d).element(local(d), e); }
  Amps base(int d, int e) const override { return point(d).base(local(d), e); }
  Amps pin(TerminalIndex t) const override { return pointAt(t).pin(localAt(t)); }
  Amps coil(int d, int e, int coil) const override { return point(d).coil(local(d), e, coil); }
  Watts power(int d, int e) const override { return point(d).power(local(d), e); }
  parts::Level level(TerminalIndex t) const override { return pointAt(t).level(localAt(t)); }
  std::optional<bool> on(int d, int e) const override { return point(d).on(local(d), e); }
  std::optional<Ohms> resistance(TerminalIndex a, TerminalIndex b) const override {
    const auto up = [](const Places::Anchor& s) { return s.wire; };
    const auto inside = [](const OperatingPoint& p, TerminalIndex x, TerminalIndex y) { return p.resistance(x, y); };
    return walk<Ohms>(a, b, 1.0, up, inside);
  }
  Doing doing(int motor) const override { return pointOf(motor).doing(m_places.motors[motor]); }
  double arcShare(int motor) const override { return pointOf(motor).arcShare(m_places.motors[motor]); }

 private:
  const JoinedBench& m_whole;
  const Places& m_places;
  const Command& m_command;
  Corner m_corner;
  std::vector<const OperatingPoint*> m_points;  // per cell
  std::string m_whyNot;
  bool m_restless = false;

  const Places::Device& place(int device) const { return m_places.devices[device]; }
  int local(int device) const { return place(device).device; }
  const OperatingPoint& point(int device) const { return *m_points[place(device).cell]; }
  const OperatingPoint& pointAt(TerminalIndex t) const { return point(m_whole.bench.deviceOf(t)); }
  const OperatingPoint& pointOf(int motor) const { return point(m_whole.motors[motor].device); }
  TerminalIndex localAt(TerminalIndex t) const {
    const int d = m_whole.bench.deviceOf(t);
    const auto& cell = m_whole.cells[place(d).cell]->bench;
    return t - m_whole.bench.devices[d].first + cell.devices[local(d)].first;
  }

  // From both ends over the wires between cells to the cell where they meet, adding up what lies on the way; what lies on
  // the way from b counts `back` times.
  template <class T, class Up, class Inside>
  std::optional<T> walk(TerminalIndex a, TerminalIndex b, double back, Up up, Inside inside) const {
    if (a < 0 || b < 0) return std::nullopt;
    T sum{};
    while (true) {
      const auto cellA = place(m_whole.bench.deviceOf(a)).cell;
      const auto cellB = place(m_whole.bench.deviceOf(b)).cell;
      if (cellA == cellB) {
        const auto last = inside(*m_points[cellA], localAt(a), localAt(b));
        return last ? std::optional(sum + *last) : std::nullopt;
      }
      const bool fromA = m_places.anchors[cellA].depth >= m_places.anchors[cellB].depth;
      auto& end = fromA ? a : b;
      const auto& anchor = m_places.anchors[fromA ? cellA : cellB];
      if (anchor.before < 0) return std::nullopt;
      const auto part = inside(pointAt(end), localAt(end), localAt(anchor.inner));
      if (!part) return std::nullopt;
      sum = sum + (*part + up(anchor)) * (fromA ? 1.0 : back);
      end = anchor.outer;
    }
  }
};

class Joining {
 public:
  Joining(JoinedBench& whole, const std::vector<std::string>& cuts)
      : m_whole(whole), m_places(whole.places), m_cuts(cuts.begin(), cuts.end()) {}

  void run() {
    placeDevices();
    placeLinks();
    placeMotors();
    benchWide(Action::AllOff);
    benchWide(Action::Boot);
    for (std::size_t m = 0; m < m_whole.motors.size(); ++m) commandsAt(cellOf(m), static_cast<int>(m));
    benchWide(Action::AllRunning);
    for (Cell c = 0; c < m_whole.cells.size(); ++c)
      for (const auto& command : m_whole.cells[c]->commands)
        if (command.action == Action::OneSupply || command.action == Action::Pressed || command.action == Action::SwitchedOff)
          add(whole(c, command), {c, &command});
    // Points refer to their commands, which stand still only now.
    for (std::size_t k = 0; k < m_whole.commands.size(); ++k) pointsOf(m_whole.commands[k], m_from[k]);
    m_whole.index();
  }

 private:
  // The cell's command that one of the whole bench is.
  struct From {
    Cell cell = 0;
    const Command* command = nullptr;  // nullptr: it is about all of them
  };

  JoinedBench& m_whole;
  Places& m_places;
  const std::set<std::string> m_cuts;
  std::vector<From> m_from;  // per command

  Cell cellOf(std::size_t motor) const { return m_places.devices[m_whole.motors[motor].device].cell; }

  void placeDevices() {
    m_places.devices.resize(m_whole.bench.devices.size());
    for (Cell c = 0; c < m_whole.cells.size(); ++c) {
      const auto& devices = m_whole.cells[c]->bench.devices;
      for (std::size_t d = 0; d < devices.size(); ++d)
        m_places.devices[m_whole.bench.deviceIndex(devices[d].doc.id)] = {c, static_cast<int>(d)};
    }
  }

  // Cells keep the order of the document, so their links come in the same order as here.
  void placeLinks() {
    std::vector<int> next(m_whole.cells.size(), 0);
    std::vector<const Link*> between;
    for (const auto& l : m_whole.bench.links) {
      if (m_cuts.contains(m_whole.bench.connections[l.connection].id)) {
        m_places.links.push_back({-1, -1});
        between.push_back(&l);
        continue;
      }
      const auto c = m_places.devices[m_whole.bench.deviceOf(l.a)].cell;
      m_places.links.push_back({static_cast<int>(c), next[c]++});
    }
    hang(between);
  }

  // Breadth first: each cell on the one it was reached from.
  void hang(const std::vector<const Link*>& between) {
    const auto cell = [&](TerminalIndex t) { return m_places.devices[m_whole.bench.deviceOf(t)].cell; };
    m_places.anchors.resize(m_whole.cells.size());
    std::vector<bool> reached(m_whole.cells.size(), false);
    for (Cell root = 0; root < reached.size(); ++root) {
      if (reached[root]) continue;
      reached[root] = true;
      std::vector<Cell> open{root};
      for (std::size_t k = 0; k < open.size(); ++k)
        for (const auto* l : between)
          for (const auto& [outer, inner] : {std::pair{l->a, l->b}, std::pair{l->b, l->a}}) {
            if (cell(outer) != open[k] || reached[cell(inner)]) continue;
            reached[cell(inner)] = true;
            m_places.anchors[cell(inner)] = {static_cast<int>(open[k]), outer, inner, l->resistance.expected,
                                             m_places.anchors[open[k]].depth + 1};
            open.push_back(cell(inner));
          }
    }
  }

  void placeMotors() {
    for (const auto& m : m_whole.motors) {
      const auto& place = m_places.devices[m.device];
      const auto& motors = m_whole.cells[place.cell]->motors;
      m_places.motors.push_back(static_cast<int>(std::ranges::find(motors, place.device, &Motor::device) - motors.begin()));
    }
  }

  // A cell's command, with its pins and motors as the whole bench counts them.
  Command whole(Cell c, const Command& command) const {
    auto out = command;
    const auto& cell = m_whole.cells[c]->bench;
    const auto at = [&](TerminalIndex t) {
      const auto& d = cell.devices[cell.deviceOf(t)];
      return t - d.first + m_whole.bench.devices[m_whole.bench.deviceIndex(d.doc.id)].first;
    };
    out.pins.clear();
    for (const auto& [t, state] : command.pins) out.pins[at(t)] = state;
    out.forced.clear();
    for (const auto& [t, level] : command.forced) out.forced[at(t)] = level;
    out.turning.assign(m_whole.motors.size(), false);
    for (std::size_t m = 0; m < m_whole.motors.size(); ++m)
      if (cellOf(m) == c) {
        const auto local = static_cast<std::size_t>(m_places.motors[m]);
        out.turning[m] = command.turning[local];
        if (static_cast<int>(local) == command.motor) out.motor = static_cast<int>(m);
      }
    for (auto& [device, element] : out.moved) device = m_whole.bench.deviceIndex(cell.devices[device].doc.id);
    if (command.supply >= 0) out.supply = m_whole.bench.deviceIndex(cell.devices[command.supply].doc.id);
    return out;
  }

  void add(Command command, From from) {
    m_whole.commands.push_back(std::move(command));
    m_from.push_back(from);
  }

  // A command that is the same for all: whatever any cell has of it.
  void benchWide(Action action) {
    std::vector<Command> merged;  // by Command::step
    for (Cell c = 0; c < m_whole.cells.size(); ++c)
      for (const auto& command : m_whole.cells[c]->commands) {
        if (command.action != action || command.motor >= 0) continue;
        auto mine = whole(c, command);
        const auto it = std::ranges::find(merged, mine.variant, &Command::variant);
        if (it == merged.end()) {
          merged.push_back(std::move(mine));
          continue;
        }
        it->pins.merge(mine.pins);
        it->forced.merge(mine.forced);
        for (std::size_t m = 0; m < mine.turning.size(); ++m) it->turning[m] = it->turning[m] || mine.turning[m];
      }
    for (auto& m : merged) add(std::move(m), {});
  }

  void commandsAt(Cell c, int motor) {
    const int local = m_places.motors[motor];
    for (const auto& command : m_whole.cells[c]->commands)
      if (command.motor == local) add(whole(c, command), {c, &command});
  }

  void pointsOf(const Command& command, From from) {
    for (const auto corner : command.corners) {
      std::vector<const OperatingPoint*> points;
      for (Cell c = 0; c < m_whole.cells.size(); ++c)
        points.push_back(from.command && c == from.cell ? own(from, corner) : meanwhile(c, command, corner));
      m_whole.points.push_back(std::make_unique<JoinedPoint>(m_whole, command, corner, std::move(points)));
    }
  }

  const OperatingPoint* own(From from, Corner corner) const {
    const auto& points = m_whole.cells[from.cell]->points;
    return std::ranges::find_if(points, [&](const auto& p) { return p->corner() == corner && &p->command() == from.command; })->get();
  }

  // What a cell does while another one is asked for something; each has at least "all off".
  const OperatingPoint* meanwhile(Cell c, const Command& command, Corner corner) const {
    const auto& cell = *m_whole.cells[c];
    const bool running = command.action == Action::AllRunning || command.action == Action::OneSupply || command.action == Action::Pressed ||
                         command.action == Action::SwitchedOff || command.moment == Moment::Stalled;
    const auto at = [&](Corner state) -> const OperatingPoint* {
      if (command.action == Action::Boot) {
        if (const auto* p = cell.point(-1, Action::Boot, Moment::Running, state, command.variant)) return p;
        return cell.point(Action::Boot, state);
      }
      if (!running) return cell.point(Action::AllOff, state);
      if (const auto* p = cell.point(Action::AllRunning, state)) return p;
      return cell.motors.empty() ? cell.point(Action::AllOff, state) : cell.running(0, state);
    };
    if (const auto* p = at(corner)) return p;
    if (const auto* p = at(Corner::Full)) return p;
    return cell.points.front().get();
  }
};

}  // namespace

std::shared_ptr<const SolvedBench> join(Bench bench, std::vector<std::shared_ptr<const SolvedBench>> cells,
                                        const std::vector<std::string>& cuts) {
  auto whole = std::make_shared<JoinedBench>(std::move(bench), std::move(cells));
  Joining(*whole, cuts).run();
  return whole;
}

}  // namespace bold::bench
