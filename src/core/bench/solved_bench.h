#pragma once

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <tuple>
#include <vector>

#include "core/bench/operating_point.h"

namespace bold::bench {

/// A bench with its nets, motors, commands and their operating points: all that a check may look at.
struct SolvedBench {
  Bench bench;
  Nets nets;
  std::vector<Motor> motors;
  std::vector<Command> commands;
  std::vector<std::unique_ptr<OperatingPoint>> points;  ///< in command order, then corner

  explicit SolvedBench(Bench b);
  SolvedBench(Bench b, std::vector<Command> asked);
  SolvedBench(const SolvedBench&) = delete;  // motors and points refer into this object
  SolvedBench& operator=(const SolvedBench&) = delete;

  /// The point of a motor's action, or nullptr when there is none or it could not be solved.
  const OperatingPoint* point(int motor, Action action, Moment moment, Corner corner, int variant = 0) const;
  /// The point of a bench-wide command.
  const OperatingPoint* point(Action action, Corner corner) const;
  /// The first action of a motor (forward, hold, first step, move), running.
  const OperatingPoint* running(int motor, Corner corner) const;

  std::string tooLarge;  ///< why nothing was solved, in words; empty: it was

  /// How much there is to work out: operating points times what each of them holds. The demo bench has 8e3, sixty motors on
  /// one supply 1.6e6.
  std::size_t effort() const;
  std::size_t pointSize() const;  ///< what one operating point holds

  /// To be called once the points are there: makes them known to point().
  void index();

 private:
  std::map<std::tuple<int, Action, Moment, Corner, int>, const OperatingPoint*> m_byWhat;  // solved ones only
};

/// Solves every command, on as many threads as the machine has; the result does not depend on how many those are.
/// A bench with more to work out than can be done in seconds is not solved: `tooLarge` says why.
/// @param cancelled asked between commands, from any of those threads; when it answers true the result is null
/// @param only ids of the commands to solve alone, with those that they begin from; empty: all. Ids that the bench does not have are
/// passed over.
std::unique_ptr<SolvedBench> solveBench(Bench bench, const std::function<bool()>& cancelled, const std::vector<std::string>& only = {});

}  // namespace bold::bench
