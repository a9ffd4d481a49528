#include "core/checks/program/coil_group.h"

#include <algorithm>
#include <cmath>

namespace bold::checks {
namespace {

constexpr std::size_t kCoilPins = 4;

using Arrow = std::array<int, 2>;
constexpr std::array<Arrow, 4> kDirections{{{1, 0}, {0, 1}, {-1, 0}, {0, -1}}};

int signOf(double x) {
  return (x > 0) - (x < 0);
}

// Where the field points: the four windings of a unipolar motor are a quarter apart, the two of a bipolar one carry their current both
// ways.
Arrow arrowOf(const OperatingPoint& p, const Motor& m) {
  constexpr double kNothing = 0.01;  // A
  double most = kNothing;
  for (const int w : m.windings) most = std::max(most, std::abs(p.element(m.device, w).value));
  Arrow out{};
  for (std::size_t i = 0; i < m.windings.size() && i < 4; ++i) {
    const double amps = p.element(m.device, m.windings[i]).value;
    if (std::abs(amps) < most / 2) continue;
    if (m.kind == MotorKind::BipolarStepper) {
      out[i % 2] += signOf(amps);
    } else
      for (std::size_t c = 0; c < 2; ++c) out[c] += kDirections[i][c];
  }
  return {signOf(out[0]), signOf(out[1])};
}

// A base has no levels of its own: what the command writes counts.
bool high(const OperatingPoint& p, TerminalIndex input, TerminalIndex pin) {
  const auto& c = p.command();
  if (const auto it = c.pins.find(pin); it != c.pins.end()) return it->second == bench::PinState::High;
  if (const auto it = c.forced.find(input); it != c.forced.end()) return it->second == parts::Level::High;
  return p.level(input) == parts::Level::High;
}

// The quarter that each input stands for, so that every step which was solved gives the field its direction.
std::optional<CoilInputs> fromSteps(const SolvedBench& s, int motor, const std::vector<TerminalIndex>& inputs,
                                    const std::vector<TerminalIndex>& pins) {
  struct Seen {
    std::array<bool, 4> high;
    Arrow field;
  };
  std::vector<Seen> steps;
  for (int step = 0; step < 8; ++step) {
    const auto* p = s.point(motor, Action::Step, Moment::Running, Corner::Nominal, step);
    if (!p) continue;
    Seen x{{}, arrowOf(*p, s.motors[motor])};
    for (std::size_t k = 0; k < kCoilPins; ++k) x.high[k] = high(*p, inputs[k], pins[k]);
    steps.push_back(x);
  }
  if (steps.size() < kCoilPins) return std::nullopt;
  std::array<int, 4> q{0, 1, 2, 3};
  do {
    const bool fits = std::ranges::all_of(steps, [&](const Seen& x) {
      Arrow sum{};
      for (std::size_t k = 0; k < kCoilPins; ++k)
        if (x.high[k])
          for (std::size_t c = 0; c < 2; ++c) sum[c] += kDirections[q[k]][c];
      return signOf(sum[0]) == x.field[0] && signOf(sum[1]) == x.field[1];
    });
    if (fits) return CoilInputs{{{q[0]}, {q[1]}, {q[2]}, {q[3]}}};
  } while (std::ranges::next_permutation(q).found);
  return std::nullopt;
}

// Two bridges: each has a winding between its outputs, whose current follows the input of the one or of the other side, or a direction
// while its PWM input is high.
std::optional<CoilInputs> fromBridges(const SolvedBench& s, const Motor& m, const std::vector<TerminalIndex>& inputs) {
  CoilInputs out;
  std::size_t known = 0;
  for (const auto& channel : bench::meantChannels(s.bench, m)) {
    const auto& facts = bench::channelOf(s.bench, channel.ref);
    if (facts.out.size() != 2) return std::nullopt;
    const auto first = s.bench.terminal(channel.ref.device, facts.out[0]), second = s.bench.terminal(channel.ref.device, facts.out[1]);
    int quarter = -1;
    for (std::size_t w = 0; w < m.windings.size() && w < 2; ++w) {
      const auto& body = bench::windingOf(s.bench, m, w);
      const auto a = checks::at(s.bench, m.device, body.a), b = checks::at(s.bench, m.device, body.b);
      if (s.nets.same(a, first) && s.nets.same(b, second)) quarter = static_cast<int>(w);
      if (s.nets.same(a, second) && s.nets.same(b, first)) quarter = static_cast<int>(w) + 2;
    }
    if (quarter < 0) return std::nullopt;
    const auto other = (quarter + 2) % 4;
    const auto place = [&](const std::string& input) {
      const auto at = std::ranges::find(inputs, s.bench.terminal(channel.ref.device, input));
      return at == inputs.end() ? -1 : static_cast<int>(at - inputs.begin());
    };
    int side = 0;
    for (const auto& [role, input] : channel.inputs) {  // by role: the first input is the first output's
      const auto at = place(input);
      if (role.starts_with("in")) {
        if (at < 0 || side > 1) return std::nullopt;
        out[at].high = side++ == 0 ? quarter : other;
        ++known;
      } else if (role.starts_with("dir")) {
        const auto gate = std::ranges::find_if(channel.inputs, [](const auto& x) { return x.first.starts_with("speed"); });
        if (at < 0 || gate == channel.inputs.end() || place(gate->second) < 0) return std::nullopt;
        out[at] = {quarter, other, place(gate->second)};
        known += 2;
      }
    }
  }
  return known == kCoilPins ? std::optional(out) : std::nullopt;
}

}  // namespace

std::vector<CoilGroup> coilGroups(const ProgramOnBench& program) {
  const auto& s = program.solved();
  std::vector<CoilGroup> out;
  for (const auto& source : s.bench.sources)
    for (const auto& g : source.groups) {
      if (g.kind != "coils" || g.words.size() != kCoilPins) continue;
      CoilGroup c{nullptr, &g, -1, {}, {}};
      std::vector<TerminalIndex> pins;
      for (const auto& word : g.words) {
        const auto u = std::ranges::find_if(program.used(), [&](const UsedPin& x) { return x.source == &source && x.use->word == word; });
        if (u == program.used().end()) break;
        const auto roles = program.rolesAt(u->pin);
        if (roles.size() != 1 || (c.motor >= 0 && roles.front()->motor != c.motor)) break;
        c.motor = roles.front()->motor;
        c.any = &*u;
        c.inputs.push_back(roles.front()->input);
        pins.push_back(u->pin);
      }
      if (c.inputs.size() != kCoilPins) continue;
      auto does = fromSteps(s, c.motor, c.inputs, pins);
      if (!does && s.motors[c.motor].kind == MotorKind::BipolarStepper) does = fromBridges(s, s.motors[c.motor], c.inputs);
      if (!does) continue;
      c.does = *does;
      out.push_back(std::move(c));
    }
  return out;
}

std::vector<int> fieldOf(const std::vector<std::string>& states, const CoilInputs& does) {
  // By its two components: where the arrow points, in eighths.
  static constexpr std::array<std::array<int, 3>, 3> kEighths{{{5, 4, 3}, {6, -1, 2}, {7, 0, 1}}};
  std::vector<int> out;
  for (const auto& state : states) {
    int x = 0, y = 0;
    const auto high = [&](std::size_t k) { return state[k] == '1'; };
    for (std::size_t k = 0; k < state.size() && k < kCoilPins; ++k) {
      const auto& input = does[k];
      const int quarter = high(k) ? input.high : input.low;
      if (quarter < 0 || (input.gate >= 0 && !high(static_cast<std::size_t>(input.gate)))) continue;
      x += kDirections[quarter][0];
      y += kDirections[quarter][1];
    }
    out.push_back(kEighths[(x > 0) - (x < 0) + 1][(y > 0) - (y < 0) + 1]);
  }
  return out;
}

bool goesRound(const std::vector<int>& field) {
  int by = 0;
  for (std::size_t k = 0; k < field.size(); ++k) {
    const int from = field[k], to = field[(k + 1) % field.size()];
    if (from < 0 || to < 0) return false;
    const int step = (to - from + 8) % 8;
    if (step != 1 && step != 2 && step != 6 && step != 7) return false;
    if (by == 0) by = step;
    if (step != by) return false;
  }
  return by != 0;
}

}  // namespace bold::checks
