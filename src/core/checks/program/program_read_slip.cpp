#include <fmt/core.h>

#include <algorithm>

#include "core/bench/sensed_pins.h"
#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"
#include "core/places/neighbours.h"

namespace bold::checks::program_read_slip {

// A button or sensor is wired to a pin that the program never reads, and the program reads one that has no wire.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  const auto sensed = bench::sensedPins(s);
  for (const auto& source : s.bench.sources) {
    if (source.told < source.asked) continue;  // it may read that one too
    const int d = s.bench.deviceIndex(source.controller);
    std::vector<const UsedPin*> loose;
    for (const auto& u : program.used())
      if (u.source == &source && u.pin >= 0 && reads(*u.use) && !writes(*u.use) && !program.wired(u.pin)) loose.push_back(&u);
    std::vector<const bench::SensedPin*> unread;
    for (const auto& x : sensed) {
      const auto* u = program.at(x.pin);
      const bool used = u && (reads(*u->use) || u->use->does.contains("bus") || u->use->does.contains("serial"));
      if (s.bench.deviceOf(x.pin) == d && !used && !program.openAt(x.pin) &&
          std::ranges::none_of(unread, [&](const auto* y) { return y->pin == x.pin; }))
        unread.push_back(&x);
    }
    for (const auto* x : unread) {
      const auto& part = *s.bench.devices[d].part;
      const int first = s.bench.devices[d].first;
      // The only two that are left, or neighbours.
      const auto meant = std::ranges::find_if(loose, [&](const UsedPin* u) {
        return (loose.size() == 1 && unread.size() == 1) || places::slip(part, x->pin - first, u->pin - first).has_value();
      });
      if (meant == loose.end()) continue;
      const auto& u = **meant;
      const auto wired = s.bench.called(x->pin);
      auto f = programFinding(Severity::Stop, fmt::format("The program reads {} where {} is wired", said(*u.use), wired),
                              fmt::format("{} is wired to {}, which the program never reads; it reads {}, where nothing is wired.",
                                          s.bench.called(x->end), wired, said(*u.use)),
                              {s.bench.address(x->pin), s.bench.address(u.pin), idOf(s.bench, x->device)}, *u.use);
      f.formula = fmt::format("program {}, wires {}", said(*u.use), inWordsOf(s, *u.use, x->pin));
      f.ways = {{changeTo(s, u, x->pin) + "."}};
      out.push_back(std::move(f));
      loose.erase(meant);
    }
  }
  return out;
}

Check check() {
  return {"program-read-slip", "program", "A pin that is read where another is wired", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_read_slip
