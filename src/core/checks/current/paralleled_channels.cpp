#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::paralleled_channels {
namespace {

// Whether the inputs of two channels are steered together: by copper, or by the same pin.
bool inputsJoined(const SolvedBench& s, int device, const parts::Channel& a, const parts::Channel& b) {
  return std::ranges::all_of(a.signals, [&](const auto& in) {
    const auto t = s.bench.terminal(device, in.second);
    return std::ranges::any_of(b.signals, [&](const auto& other) {
      const auto u = s.bench.terminal(device, other.second);
      if (s.nets.same(t, u)) return true;
      const auto pin = drivenBy(s, t);
      return pin >= 0 && pin == drivenBy(s, u);
    });
  });
}

}  // namespace

// Outputs of two channels joined: only with their inputs joined, and only where the part allows it.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const int device = static_cast<int>(d);
    const auto& channels = s.bench.devices[d].part->channels;
    for (std::size_t i = 0; i < channels.size(); ++i)
      for (std::size_t k = i + 1; k < channels.size(); ++k) {
        const auto& a = channels[i];
        const auto& b = channels[k];
        if (a.lowSide || bench::isContact(s.bench, {device, static_cast<int>(i)})) continue;
        TerminalIndex joined = -1;
        TerminalIndex alone = -1;
        for (const auto& x : a.out) {
          const auto t = s.bench.terminal(device, x);
          const bool here = std::ranges::any_of(b.out, [&](const std::string& y) { return s.nets.same(t, s.bench.terminal(device, y)); });
          (here ? joined : alone) = t;
        }
        if (joined < 0) continue;
        if (alone >= 0 && inputsJoined(s, device, a, b)) {
          auto f =
              finding(Severity::Caution, fmt::format("Channels {} and {} of {} are joined by half", a.id, b.id, called(s.bench, device)),
                      fmt::format("{} is joined to the other channel and {} is not: that one carries the whole current.",
                                  s.bench.called(joined), s.bench.called(alone)),
                      {s.bench.address(alone), s.bench.address(joined)});
          f.ways = {{fmt::format("Join {} to its partner of the other channel as well.", s.bench.called(alone))}};
          f.formula = "one output joined, one not";
          out.push_back(std::move(f));
          continue;
        }
        const bool together = inputsJoined(s, device, a, b);
        const bool allowed = std::ranges::count(a.parallel, b.id) > 0;
        if (together && allowed) continue;
        auto f = finding(
            Severity::Stop, fmt::format("Channels {} and {} of {} are joined", a.id, b.id, called(s.bench, device)),
            !together ? fmt::format("An output of channel {} and one of channel {} are joined, but their inputs are not: one high against "
                                    "the other low is a short.",
                                    a.id, b.id)
                      : fmt::format("The channels {} and {} of {} must not share a load: nothing makes them share the current evenly.",
                                    a.id, b.id, called(s.bench, device)),
            {s.bench.address(joined), idOf(s.bench, device)});
        f.ways = {{!together && allowed
                       ? fmt::format("Join the inputs of channels {} and {} one by one as well, or take the outputs apart.", a.id, b.id)
                       : fmt::format("Take the outputs of channels {} and {} apart.", a.id, b.id)}};
        f.formula = together ? "the part does not allow it" : "outputs joined, inputs not";
        out.push_back(std::move(f));
      }
  }
  return out;
}

Check check() {
  return {"paralleled-channels", "current", "Channels joined at their outputs", Harm::Damage, judge};
}

}  // namespace bold::checks::paralleled_channels
