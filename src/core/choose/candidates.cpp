#include "core/choose/candidates.h"

#include <algorithm>
#include <tuple>

#include "core/choose/old_stage.h"
#include "core/choose/pin_demands.h"
#include "core/choose/stage_wiring.h"
#include "core/parts/roles.h"

namespace bold::choose {

std::vector<std::string> stagesFor(const harness::Harness& bench, const parts::Library& library, const std::string& motor) {
  const auto stage = [](const parts::Part& p) {
    return !p.channels.empty() && !parts::isMotor(p) && !parts::isController(p) && !parts::isSource(p) && !parts::isPeripheral(p);
  };
  std::vector<std::string> out;
  const auto old = oldStageOf(bench, library, motor);
  for (const auto& d : bench.devices) {
    const auto p = library.find(d.part);
    if (!p || !stage(*p) || old.devices.contains(d.id) || d.state == harness::State::ToBeRemoved) continue;
    const bool free = std::ranges::any_of(p->channels, [&](const parts::Channel& c) {
      return std::ranges::none_of(bench.connections, [&](const auto& x) {
        const auto at = [&](const Address& end) { return end.device == d.id && std::ranges::count(c.out, end.terminal) > 0; };
        return !old.connections.contains(x.id) && (at(x.a) || at(x.b));
      });
    });
    if (free) out.push_back(d.id);
  }
  auto all = library.search("");
  std::erase_if(all, [&](const auto& p) { return !stage(*p); });
  std::ranges::stable_sort(all, {}, [](const auto& p) { return p->name; });
  for (const auto& p : all) out.push_back(p->id);
  return out;
}

std::optional<Candidate> candidate(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                   const std::string& stage, const std::string& supply, const Options& options, const JudgedBench& now) {
  Candidate out{.stage = stage};
  const auto edit = wireStage(bench, library, {motor, stage, supply});
  if (!edit) {
    out.excluded = edit.error().what;
    return out;
  }
  std::string id = bench.device(stage) ? stage : std::string();
  for (const auto& change : edit->changes)
    if (const auto* d = std::get_if<harness::Put<harness::Device>>(&change)) {
      if (d->value.state != harness::State::Planned) continue;  // what goes
      if (id.empty()) id = d->value.id;
      out.parts += d->value.id != id;
    }
  const auto said = now.findings();
  const auto trial = tryOut(bench, *edit, library, options, now);
  if (!trial) return std::nullopt;
  for (const auto& d : pinDemands(trial->harness, library, motor)) {
    ++out.pins;
    out.pwmPins += d.pwm;
  }
  for (const auto& f : trial->findings) {
    const bool known = std::ranges::any_of(said, [&](const checks::Finding& x) { return x.identity() == f.identity(); });
    if (f.severity != checks::Severity::Note && !known) out.against.push_back(f);
  }
  out.verdict = Verdict::Clear;
  for (const auto& f : out.against)
    out.verdict = f.severity == checks::Severity::Stop ? Verdict::DoNotSwitchOn
                  : out.verdict == Verdict::Clear      ? Verdict::LookAgain
                                                       : out.verdict;
  for (const auto& m : trial->judged.margins()) {
    const bool mine =
        std::ranges::any_of(m.subjects, [&](const std::string& s) { return s == id || s == motor || s.starts_with(id + "."); });
    if (mine && m.value && !m.limits.empty()) {
      out.tightest = m;
      break;
    }
  }
  return out;
}

bool better(const Candidate& a, const Candidate& b) {
  const auto rank = [](const Candidate& c) {
    const auto stops = std::ranges::count(c.against, checks::Severity::Stop, &checks::Finding::severity);
    return std::tuple(!c.excluded.empty(), c.verdict == Verdict::DoNotSwitchOn, c.verdict != Verdict::Clear, stops, c.against.size(),
                      c.parts, c.pins);
  };
  const auto ra = rank(a);
  const auto rb = rank(b);
  return ra != rb ? ra < rb : a.stage < b.stage;
}

}  // namespace bold::choose
