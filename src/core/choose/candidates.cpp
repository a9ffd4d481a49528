#include "core/choose/candidates.h"

#include <algorithm>
#include <tuple>

#include "core/choose/channel_use.h"
#include "core/choose/old_stage.h"
#include "core/choose/pin_demands.h"
#include "core/choose/stage_wiring.h"
#include "core/parts/roles.h"

namespace bold::choose {
namespace {

// Channels of a stage of which no output is wired.
int freeChannels(const harness::Harness& h, const parts::Part& part, const std::string& device, const std::set<std::string>& gone) {
  return static_cast<int>(std::ranges::count_if(part.channels, [&](const parts::Channel& c) {
    return std::ranges::none_of(h.connections, [&](const auto& x) {
      const auto at = [&](const Address& end) { return end.device == device && std::ranges::count(c.out, end.terminal) > 0; };
      return !gone.contains(x.id) && (at(x.a) || at(x.b));
    });
  }));
}

// K/W that keep a package as cool as it should be, of the margin that says it is not.
std::optional<double> sinkNeeded(const checks::Margins& margins, const std::string& device, const parts::Part& part) {
  for (const auto& m : margins) {
    if (m.check != "heat-sink-needed" || m.subjects.front() != device || !m.passed() || !m.passed()->most || part.packages.empty())
      continue;
    const auto bare = part.packages.front().thermal.typical();
    if (bare && m.from && *m.value > *m.from) return *bare * (*m.passed()->most - *m.from) / (*m.value - *m.from);
  }
  return std::nullopt;
}

}  // namespace

std::vector<Offer> stagesFor(const harness::Harness& bench, const parts::Library& library, const std::string& motor) {
  const auto stage = [](const parts::Part& p) {
    return !p.channels.empty() && !parts::isMotor(p) && !parts::isController(p) && !parts::isSource(p) && !parts::isPeripheral(p);
  };
  std::vector<Offer> out;
  const auto* device = bench.device(motor);
  const auto driven = device ? library.find(device->part) : nullptr;
  const bool twoLeads = driven && windingsOf(*driven).size() == 1;
  const auto offer = [&](const std::string& which, const parts::Part& p) {
    out.push_back({which});
    if (twoLeads && std::ranges::any_of(p.channels, [](const parts::Channel& c) { return !c.parallel.empty(); }))
      out.push_back({which, true});
  };
  const auto old = oldStageOf(bench, library, motor);
  for (const auto& d : bench.devices) {
    const auto p = library.find(d.part);
    if (!p || !stage(*p) || old.devices.contains(d.id) || d.state == harness::State::ToBeRemoved) continue;
    if (freeChannels(bench, *p, d.id, old.connections) > 0) offer(d.id, *p);
  }
  auto all = library.search("");
  std::erase_if(all, [&](const auto& p) { return !stage(*p); });
  std::ranges::stable_sort(all, {}, [](const auto& p) { return p->name; });
  for (const auto& p : all) offer(p->id, *p);
  return out;
}

std::optional<Before> beforeStages(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                   const Options& options, std::optional<JudgedBench> now) {
  if (!now) now = judge(bench, library, options);
  if (!now) return std::nullopt;
  Before out{std::move(*now), {}};
  for (const auto& f : out.now.findings()) out.said.insert(f.identity());
  const auto old = oldStageOf(bench, library, motor);
  if (old.connections.empty()) return out;
  auto bare = bench;
  std::erase_if(bare.connections, [&](const auto& c) { return old.connections.contains(c.id); });
  std::erase_if(bare.devices, [&](const auto& d) { return old.devices.contains(d.id); });
  const auto without = tryOut(bare, {}, library, options, out.now);
  if (!without) return std::nullopt;
  for (const auto& f : without->findings) out.said.insert(f.identity());
  return out;
}

checks::Findings blamed(const Before& before, const Trial& trial, const parts::Library& library, const std::string& motor,
                        const std::string& stage, const harness::Edit& edit) {
  std::set<std::string> own{motor, stage};
  for (const auto& change : edit.changes) {
    if (const auto* d = change.as<harness::Put<harness::Device>>()) own.insert(d->value.id);
    if (const auto* c = change.as<harness::Put<harness::Connection>>()) own.insert(c->value.id);
  }
  std::set<std::string> pins;
  for (const auto& a : trial.harness.assignments)
    if (a.motor == motor) pins.insert(a.pin.text());
  const auto mine = [&](const std::string& subject) {
    const auto dot = subject.find('.');
    const auto* d = trial.harness.device(subject.substr(0, dot));
    if (own.contains(subject) || own.contains(subject.substr(0, dot)) || pins.contains(subject)) return true;
    const auto part = d ? library.find(d->part) : nullptr;
    if (!part || !(parts::isSource(*part) || parts::isController(*part))) return false;
    const auto* t = dot == std::string::npos ? nullptr : part->find(subject.substr(dot + 1));
    return !t || !t->pin;
  };
  checks::Findings out;
  for (const auto& f : trial.findings) {
    if (f.check.starts_with("program-")) continue;  // what the program does not drive yet is not the stage's fault
    if (f.severity != checks::Severity::Note && !before.said.contains(f.identity()) && std::ranges::any_of(f.subjects, mine))
      out.push_back(f);
  }
  return out;
}

std::optional<Candidate> candidate(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                   const Offer& offer, const std::string& supply, const Options& options, const Before& before) {
  const auto& stage = offer.stage;
  Candidate out{.stage = stage, .parallel = offer.parallel};
  auto edit = wireStage(bench, library, {motor, stage, supply, offer.parallel});
  if (!edit) {
    out.excluded = edit.error().what;
    return out;
  }
  out.edit = std::move(*edit);
  if (bench.device(stage)) out.device = stage;
  out.present = std::ranges::any_of(bench.connections, [&](const auto& c) {
    return c.state != harness::State::ToBeRemoved &&
           ((c.a.device == motor && c.b.device == stage) || (c.b.device == motor && c.a.device == stage));
  });
  for (const auto& change : out.edit.changes)
    if (const auto* d = change.as<harness::Put<harness::Device>>()) {
      if (d->value.state != harness::State::Planned) continue;  // what goes
      if (out.device.empty()) out.device = d->value.id;
      out.parts += d->value.id != out.device;
    }
  const auto trial = tryOut(bench, out.edit, library, options, before.now);
  if (!trial) return std::nullopt;
  out.against = blamed(before, *trial, library, motor, out.device, out.edit);
  out.verdict = Verdict::Clear;
  for (const auto& f : out.against)
    out.verdict = f.severity == checks::Severity::Stop ? Verdict::DoNotSwitchOn
                  : out.verdict == Verdict::Clear      ? Verdict::LookAgain
                                                       : out.verdict;
  for (const auto& cell : trial->judged.cells) {
    const auto& s = *cell->solved;
    if (s.bench.deviceIndex(motor) < 0) continue;
    if (!s.tooLarge.empty()) out.unjudged = s.tooLarge;
    if (!s.bench.problems.empty()) out.unjudged = s.bench.problems.front().what;
  }
  for (const auto& f : out.against)
    if (f.severity == checks::Severity::NotJudged) out.unjudged = f.text;
  if (!out.unjudged.empty() && out.verdict != Verdict::DoNotSwitchOn) out.verdict = Verdict::NotJudged;
  const auto margins = trial->judged.margins();
  for (const auto& m : margins) {
    const bool mine = std::ranges::any_of(
        m.subjects, [&](const std::string& s) { return s == out.device || s == motor || s.starts_with(out.device + "."); });
    if (mine && m.value && !m.limits.empty()) {
      out.tightest = m;
      break;
    }
  }
  out.margins = inRows(margins, {out.device, motor});
  for (const auto& cell : trial->judged.cells)
    if (cell->solved->bench.deviceIndex(motor) >= 0) {
      for (const auto& d : pinDemands(*cell->solved, motor)) {
        ++out.pins;
        out.pwmPins += d.pwm;
      }
      out.gets = motorGets(*cell->solved, motor);
      out.area = charts::operatingArea(*cell->solved, motor);
      out.whiskers = charts::whiskers(*cell->solved, motor);
    }
  if (const auto* d = trial->harness.device(out.device))
    if (const auto part = library.find(d->part)) {
      out.contacts = std::ranges::any_of(part->elements, [](const parts::Element& e) {
        const auto* sw = std::get_if<parts::Switch>(&e.body);
        return sw && sw->contact;
      });
      out.sink = sinkNeeded(margins, out.device, *part);
      out.channelsLeft = freeChannels(trial->harness, *part, out.device, {});
    }
  // The points that margins refer to go with the trial.
  for (auto& row : out.margins) row.second.at = nullptr;
  if (out.tightest) out.tightest->at = nullptr;
  return out;
}

std::string_view standing(const Candidate& c) {
  return !c.excluded.empty()                   ? "cannot be put there"
         : c.verdict == Verdict::DoNotSwitchOn ? "does not fit"
         : c.verdict == Verdict::NotJudged     ? "not judged"
         : c.verdict == Verdict::Clear         ? "fits"
                                               : "fits, with cautions";
}

bool better(const Candidate& a, const Candidate& b) {
  const auto rank = [](const Candidate& c) {
    const auto stops = std::ranges::count(c.against, checks::Severity::Stop, &checks::Finding::severity);
    return std::tuple(!c.excluded.empty(), c.verdict == Verdict::DoNotSwitchOn, c.verdict == Verdict::NotJudged,
                      c.verdict != Verdict::Clear, stops, c.against.size(), c.contacts, c.parts, c.pins);
  };
  const auto ra = rank(a);
  const auto rb = rank(b);
  return ra != rb ? ra < rb : std::tie(a.stage, a.parallel) < std::tie(b.stage, b.parallel);
}

}  // namespace bold::choose
