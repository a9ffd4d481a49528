#include "core/bench/solved_bench.h"

#include <fmt/core.h>

#include <array>
#include <atomic>
#include <set>

#include "core/base/parallel.h"

namespace bold::bench {
namespace {

// What two cores work out in some two seconds and 400 MB.
constexpr std::size_t kMostEffort = 1'200'000;
constexpr std::size_t kMostTerminals = 200'000;
constexpr std::size_t kLeastPoints = 3;  // of a motor

// A command at one of its supply states, and where its point goes.
struct Job {
  const Command* command;
  Corner corner;
  std::size_t slot;
};

// Asked to move or to hold, and nothing in its way.
bool runs(const Command& c) {
  const bool asked = c.action == Action::Forward || c.action == Action::Reverse || c.action == Action::Hold || c.action == Action::Step ||
                     c.action == Action::Move;
  return asked && c.moment == Moment::Running;
}

bool needsRunning(const Command& c) {
  return c.moment == Moment::JustOpened || c.moment == Moment::Reversing || c.action == Action::Brake || c.action == Action::Coast;
}

// What one motor is asked to do, or the whole bench: one after the other, each beginning where the last one ended. That
// the first begins at "all off" keeps the result the same whatever other chains run beside it.
using Chain = std::vector<Job>;

std::vector<Chain> chainsOf(const std::vector<Command>& commands) {
  std::map<int, Chain> byMotor;
  std::size_t slot = 0;
  for (const auto& c : commands)
    for (const auto corner : c.corners) byMotor[c.motor].push_back({&c, corner, slot++});
  std::vector<Chain> out;
  for (auto& [motor, chain] : byMotor) out.push_back(std::move(chain));
  return out;
}

class Solving {
 public:
  Solving(SolvedBench& solved, const std::function<bool()>& cancelled) : m_solved(solved), m_cancelled(cancelled) {}

  bool run() {
    const auto chains = chainsOf(m_solved.commands);
    for (const auto& c : chains) m_solved.points.resize(m_solved.points.size() + c.size());
    if (chains.empty()) return true;
    inParallel(2, [&](std::size_t k) {
      if (k == 0)
        beginWith(chains.front(), Action::AllOff, m_atRest, m_unasked[0]);
      else
        beginWith(chains.front(), Action::AllRunning, m_running, m_unasked[1]);
    });
    inParallel(chains.size(), [&](std::size_t k) { chain(chains[k]); });
    return !m_gaveUp;
  }

 private:
  // By supply state: a point to begin from. The next one at that state differs from it in one lane only.
  using Starts = std::map<Corner, const OperatingPoint*>;

  SolvedBench& m_solved;
  const std::function<bool()>& m_cancelled;
  Starts m_atRest, m_running;  // everything off, everything running: where chains begin
  using Points = std::vector<std::unique_ptr<OperatingPoint>>;
  std::array<Points, 2> m_unasked;  // those of them that nobody asked for
  std::atomic<bool> m_gaveUp{false};

  static void remember(Starts& starts, const OperatingPoint* p) {
    if (p->solved()) starts[p->corner()] = p;
  }
  static const OperatingPoint* startFor(const Starts& starts, Corner corner) {
    const auto it = starts.find(corner);
    if (it != starts.end()) return it->second;
    return starts.empty() ? nullptr : starts.begin()->second;
  }

  // One command at every supply state.
  void beginWith(const Chain& benchWide, Action action, Starts& starts, Points& unasked) {
    const auto first = std::ranges::find(benchWide, action, [](const Job& j) { return j.command->action; });
    if (first == benchWide.end()) return;
    for (const auto corner : {Corner::Full, Corner::Nominal, Corner::Empty, Corner::Strong}) {
      const auto asked = std::ranges::find_if(benchWide, [&](const Job& j) { return j.command == first->command && j.corner == corner; });
      const auto* start = startFor(starts, corner);
      if (asked != benchWide.end()) {
        remember(starts, one(*asked, nullptr, start));
      } else {
        unasked.push_back(solve(m_solved.bench, m_solved.nets, m_solved.motors, *first->command, corner, nullptr, start));
        remember(starts, unasked.back().get());
      }
    }
  }

  void chain(const Chain& jobs) {
    auto atRest = m_atRest;
    auto allRunning = m_running;
    // Running at full charge, the first one first: what JustOpened and the like begin from.
    std::vector<const OperatingPoint*> running;
    const auto before = [&](const Command& c) -> const OperatingPoint* {
      if (!needsRunning(c) || running.empty()) return nullptr;
      if (c.moment != Moment::JustOpened) return running.front();
      const auto it = std::ranges::find_if(
          running, [&](const OperatingPoint* p) { return p->command().action == c.action && p->command().variant == c.variant; });
      return it == running.end() ? nullptr : *it;
    };
    for (const auto& job : jobs) {
      if (m_gaveUp || (m_cancelled && m_cancelled())) {
        m_gaveUp = true;
        return;
      }
      const auto& c = *job.command;
      auto& starts =
          c.moment == Moment::Stalled || c.moment == Moment::StalledAtMost || c.action == Action::AllRunning ? allRunning : atRest;
      // With supplies off everything stands elsewhere: better from nothing.
      const auto* start = c.action == Action::OneSupply ? nullptr : startFor(starts, job.corner);
      const auto& done = m_solved.points[job.slot];
      const auto* p = done ? done.get() : one(job, before(c), start);
      if (!p->solved()) continue;
      if (c.action != Action::OneSupply) remember(starts, p);
      if (runs(c) && job.corner == Corner::Full) running.push_back(p);
    }
  }

  const OperatingPoint* one(const Job& job, const OperatingPoint* running, const OperatingPoint* start) {
    auto& slot = m_solved.points[job.slot];
    slot = solve(m_solved.bench, m_solved.nets, m_solved.motors, *job.command, job.corner, running, start);
    // A start from another command saves passes; where it leads astray, start from nothing.
    if (!slot->solved() && start) slot = solve(m_solved.bench, m_solved.nets, m_solved.motors, *job.command, job.corner, running, nullptr);
    return slot.get();
  }
};

// The chosen ones, and of their motors those that a brake, a reversal or an opened switch begins from: what makes them run.
std::vector<Command> chosen(std::vector<Command> all, const std::vector<std::string>& only) {
  if (only.empty()) return all;
  const auto wanted = [&](const Command& c) { return std::ranges::count(only, c.id) > 0; };
  std::set<int> motors;
  for (const auto& c : all)
    if (wanted(c) && needsRunning(c)) motors.insert(c.motor);
  std::erase_if(all, [&](const Command& c) { return !wanted(c) && !(runs(c) && motors.contains(c.motor)); });
  return all;
}

std::string whyTooLarge(const SolvedBench& solved, std::size_t effort) {
  if (const auto terminals = solved.bench.terminalCount(); terminals > kMostTerminals)
    return fmt::format("its parts have {} terminals, and at most {} can be judged at once", terminals, kMostTerminals);
  if (effort > kMostEffort)
    return fmt::format("{} motors on common supplies would take {} times what can be worked out at once", solved.motors.size(),
                       effort / kMostEffort + 1);
  return {};
}

}  // namespace

SolvedBench::SolvedBench(Bench b) : SolvedBench(std::move(b), {}) {
  commands = commandsOf(bench, nets, motors);
}
SolvedBench::SolvedBench(Bench b, std::vector<Command> asked)
    : bench(std::move(b)), nets(bench), motors(motorsOf(bench, nets)), commands(std::move(asked)) {}

std::size_t SolvedBench::pointSize() const {
  return bench.links.size() + bench.elementCount() + static_cast<std::size_t>(nets.nodeCount());
}

std::size_t SolvedBench::effort() const {
  std::size_t asked = 0;
  for (const auto& c : commands) asked += c.corners.size();
  return asked * pointSize();
}

void SolvedBench::index() {
  for (const auto& p : points) {
    const auto& c = p->command();
    if (p->solved()) m_byWhat.try_emplace({c.motor, c.action, c.moment, p->corner(), c.variant}, p.get());
  }
}

const OperatingPoint* SolvedBench::point(int motor, Action action, Moment moment, Corner corner, int variant) const {
  const auto it = m_byWhat.find({motor, action, moment, corner, variant});
  return it == m_byWhat.end() ? nullptr : it->second;
}

const OperatingPoint* SolvedBench::point(Action action, Corner corner) const {
  return point(-1, action, Moment::Running, corner);
}

const OperatingPoint* SolvedBench::running(int motor, Corner corner) const {
  for (const auto a : {Action::Forward, Action::Hold, Action::Step, Action::Move})
    if (const auto* p = point(motor, a, Moment::Running, corner)) return p;
  return nullptr;
}

std::unique_ptr<SolvedBench> solveBench(Bench bench, const std::function<bool()>& cancelled, const std::vector<std::string>& only) {
  auto solved = std::make_unique<SolvedBench>(std::move(bench), std::vector<Command>{});
  // Even to find out what could be asked of very many motors takes long: each is asked a few things at least.
  solved->tooLarge = whyTooLarge(*solved, solved->motors.size() * kLeastPoints * solved->pointSize());
  if (solved->tooLarge.empty()) {
    solved->commands = chosen(commandsOf(solved->bench, solved->nets, solved->motors), only);
    solved->tooLarge = whyTooLarge(*solved, solved->effort());
  }
  if (!solved->tooLarge.empty()) {
    solved->commands.clear();
    return solved;
  }
  if (!Solving(*solved, cancelled).run()) return nullptr;
  solved->index();
  return solved;
}

}  // namespace bold::bench
