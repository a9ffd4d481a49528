#include "core/choose/candidates.h"

#include <algorithm>
#include <tuple>

#include "core/choose/stage_wiring.h"
#include "core/parts/roles.h"

namespace bold::choose {

std::vector<std::shared_ptr<const parts::Part>> stagesOf(const parts::Library& library) {
  auto out = library.search("");
  std::erase_if(out, [](const auto& p) {
    return p->channels.empty() || parts::isMotor(*p) || parts::isController(*p) || parts::isSource(*p) || parts::isPeripheral(*p);
  });
  std::ranges::stable_sort(out, {}, [](const auto& p) { return p->name; });
  return out;
}

std::optional<Candidate> candidate(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                   const std::string& part, const std::string& supply, const Options& options, const JudgedBench& now) {
  Candidate out{.part = part};
  const auto edit = wireStage(bench, library, {motor, part, supply});
  if (!edit) {
    out.excluded = edit.error().what;
    return out;
  }
  std::string stage;
  for (const auto& change : edit->changes)
    if (const auto* d = std::get_if<harness::Put<harness::Device>>(&change)) {
      if (stage.empty()) stage = d->value.id;
      out.parts += d->value.id != stage;
    } else if (std::holds_alternative<harness::Put<harness::Assignment>>(change)) {
      ++out.pins;
    }
  const auto said = now.findings();
  const auto trial = tryOut(bench, *edit, library, options, now);
  if (!trial) return std::nullopt;
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
        std::ranges::any_of(m.subjects, [&](const std::string& s) { return s == stage || s == motor || s.starts_with(stage + "."); });
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
  return ra != rb ? ra < rb : a.part < b.part;
}

}  // namespace bold::choose
