#include "core/bench/isolated_enable.h"

#include "core/bench/signal_nets.h"

namespace bold::bench {
namespace {

constexpr double kLit = 5;           // V across an isolated input that current flows through
constexpr double kElsewhere = 1000;  // V across anything else a condition asks for: supplies that are there

struct Ends {
  TerminalIndex plus = -1, minus = -1;
};

}  // namespace

std::optional<parts::Level> runsAt(const Bench& bench, const Nets& nets, const Motor& motor, TerminalIndex input, TerminalIndex pin) {
  const auto* chopper = input < 0 || motor.meant.device < 0 ? nullptr : chopperOf(bench, motor.meant);
  if (!chopper || bench.deviceOf(input) != motor.meant.device) return std::nullopt;
  const auto& id = bench.facts(input).id;
  Ends ends;
  const auto runs = [&](double across) {
    const auto volts = [&](const parts::Node& a, const parts::Node& b) -> std::optional<double> {
      if (a != id && b != id) return kElsewhere;
      ends = {bench.terminal(motor.meant.device, a), bench.terminal(motor.meant.device, b)};
      return across;
    };
    return chopper->on.evaluate({[](const parts::Node&) { return parts::Level::Undefined; }, volts});
  };
  const auto lit = runs(kLit);
  const auto dark = runs(0);
  if (ends.plus < 0 || ends.minus < 0 || lit == dark) return std::nullopt;
  const auto reached = signalNets(bench, nets, pin, Along::Copper);
  const bool atPlus = reached.contains(nets.of(ends.plus));
  const bool atMinus = reached.contains(nets.of(ends.minus));
  if (atPlus == atMinus) return std::nullopt;
  return (lit == parts::Level::High) == atPlus ? parts::Level::High : parts::Level::Low;
}

}  // namespace bold::bench
