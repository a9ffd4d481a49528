#include <fmt/core.h>

#include <map>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pwm_frequency {
namespace {

constexpr double kHearsFrom = 200;  // Hz
constexpr double kHearsTo = 18000;  // Hz
constexpr double kFarAbove = 2;     // times what the stage switches up to

struct Chopped {
  Margin margin;
  const Motor* motor;
  Hertz frequency;
  const Figure* most;               // of the stage; nullptr: it has none
  std::optional<Severity> besides;  // it can be heard
};

std::vector<Chopped> measure(const SolvedBench& s) {
  std::vector<Chopped> out;
  for (const auto& m : s.motors) {
    if (!m.intent || !m.intent->pwm || !m.intent->speedControl) continue;
    const auto frequency = *m.intent->pwm;
    const auto* most = m.meant.device < 0 ? nullptr : &bench::channelOf(s.bench, m.meant).pwmMost;
    Margin margin{.quantity = "PWM frequency", .subjects = {idOf(s.bench, m.device)}, .unit = Unit::Hertz, .value = frequency.value};
    if (most)
      margin.limits =
          rising(atMost(LimitKind::Recommended, Severity::Caution, most->typical(), "greatest", most->source),
                 atMost(LimitKind::Recommended, Severity::Stop,
                        most->typical() ? std::optional(kFarAbove * *most->typical()) : std::nullopt, "2 x greatest", most->source));
    const bool silent = m.still && bench::windingOf(s.bench, m, 0).inductance.typical() == 0.0;
    const bool heard = !silent && frequency.value >= kHearsFrom && frequency.value <= kHearsTo;
    out.push_back({std::move(margin), &m, frequency, most, heard ? std::optional(Severity::Note) : std::nullopt});
  }
  return out;
}

Finding words(const SolvedBench& s, const Chopped& m) {
  const auto& name = called(s, *m.motor);
  const bool over = m.margin.passed();
  const Hertz most{over ? *m.most->typical() : 0};
  auto f = finding(
      over ? fmt::format("{} is chopped at {}", name, show(m.frequency)) : fmt::format("{} will whistle at {}", name, show(m.frequency)),
      over ? fmt::format("{} is planned at {}; {} switches up to {}: above that it heats up and the duty is lost.", name, show(m.frequency),
                         bench::called(s.bench, m.motor->meant), show(most))
           : fmt::format("{} is planned at {}, which can be heard.", name, show(m.frequency)),
      m.margin.subjects);
  f.ways = {{over ? fmt::format("Set the PWM of {} to {} or less.", name, show(most))
                  : fmt::format("Set the PWM of {} below {} or above {}.", name, show(Hertz{kHearsFrom}), show(Hertz{kHearsTo})),
             fieldOf(s, *m.motor, "pwm")}};
  f.formula = over ? against(m.frequency, ">", most)
                   : fmt::format("{} lies between {} and {}", show(m.frequency), show(Hertz{kHearsFrom}), show(Hertz{kHearsTo}));
  f.args = {{"frequency", m.frequency}};
  if (over) f.bar = barOf(m.margin, most.value, "greatest");
  if (over) f.sources = sourcesOf({m.most});
  return f;
}

// Two motors on pins of one timer, which has one frequency.
Findings sharedTimers(const SolvedBench& s) {
  struct User {
    const Motor* motor;
    TerminalIndex pin;
    Hertz frequency;
  };
  std::map<std::pair<int, std::string>, std::vector<User>> timers;
  for (const auto& m : s.motors) {
    if (!m.intent || !m.intent->pwm) continue;
    for (const auto* sig : harness::dutySignals(*m.intent)) {
      const auto t = s.bench.terminal(sig->pin);
      if (t >= 0 && s.bench.facts(t).pin && !s.bench.facts(t).pin->pwm.empty())
        timers[{s.bench.deviceOf(t), s.bench.facts(t).pin->pwm}].push_back({&m, t, *m.intent->pwm});
    }
  }
  Findings out;
  for (const auto& [timer, users] : timers)
    for (const auto& u : users) {
      const auto& first = users.front();
      if (u.frequency == first.frequency || u.motor == first.motor) continue;
      auto f = finding(Severity::Stop, fmt::format("{} and {} share a timer", s.bench.called(first.pin), s.bench.facts(u.pin).label),
                       fmt::format("{} is planned at {} on {} and {} at {} on {}; both pins are driven by {}, which has one frequency.",
                                   called(s, *first.motor), show(first.frequency), s.bench.called(first.pin), called(s, *u.motor),
                                   show(u.frequency), s.bench.called(u.pin), timer.second),
                       {s.bench.address(first.pin), s.bench.address(u.pin)});
      f.ways = {{fmt::format("Give both {}, or move one of them to a pin of another timer than {}.", show(first.frequency), timer.second),
                 fieldOf(s, *u.motor, "pwm")}};
      f.formula = fmt::format("{} against {} on {}", show(first.frequency), show(u.frequency), timer.second);
      out.push_back(std::move(f));
      break;
    }
  return out;
}

// What can only be heard is one note, however many motors whistle.
void foldHeard(Findings& findings) {
  std::vector<Finding> heard;
  std::erase_if(findings, [&](const Finding& f) {
    if (f.severity == Severity::Note) heard.push_back(f);
    return f.severity == Severity::Note;
  });
  if (heard.empty()) return;
  auto one = std::move(heard.front());
  if (heard.size() > 1) {
    one.headline = fmt::format("{} motors will whistle", heard.size());
    for (std::size_t k = 1; k < heard.size(); ++k) {
      one.text += " " + heard[k].text;
      one.subjects.insert(one.subjects.end(), heard[k].subjects.begin(), heard[k].subjects.end());
    }
    one.formula = fmt::format("all between {} and {}", show(Hertz{kHearsFrom}), show(Hertz{kHearsTo}));
    one.args.clear();
  }
  findings.push_back(std::move(one));
}

}  // namespace

// The PWM frequency of the intent against the stage, the ear, and the timer it shares with others.
Said judge(const SolvedBench& s) {
  auto said = say(measure(s), [&](const Chopped& m) { return words(s, m); });
  foldHeard(said.findings);
  return std::move(said) + Said{sharedTimers(s), {}};
}

Check check() {
  return {"pwm-frequency", "pins", "The PWM frequency", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pwm_frequency
