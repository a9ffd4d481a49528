#include "core/checks/levels/pin_pulls.h"

#include "core/checks/queries.h"

namespace bold::checks {

std::string pullsOf(const Bench& bench, TerminalIndex pin) {
  const auto& own = bench.facts(pin).pin;
  if (own && !own->pulls.empty()) return own->pulls;
  const auto group = pinGroup(bench, pin);
  return group ? group->pins->pulls : std::string();
}

bool canPull(const std::string& pulls, const std::string& which) {
  return pulls == which || pulls == "both";
}

std::string settingAt(const Bench& bench, int device, const char* id) {
  const auto& settings = bench.devices[static_cast<std::size_t>(device)].settings;
  const auto it = settings.find(id);
  return it == settings.end() ? std::string() : it->second;
}

std::string pullSaid(const ProgramOnBench& program, TerminalIndex pin, int device) {
  const auto* u = program.at(pin);
  if (u && reads(*u->use) && u->use->sure) {
    if (u->use->does.contains("pull-up")) return "up";
    if (u->use->does.contains("pull-down")) return "down";
  }
  return settingAt(program.solved().bench, device, "pull");
}

}  // namespace bold::checks
