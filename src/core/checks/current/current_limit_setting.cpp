#include <fmt/core.h>

#include "core/checks/queries.h"
#include "core/circuit/coils.h"

namespace bold::checks {
namespace {
constexpr double kStopShare = 1.5;  // times the motor's phase current
constexpr double kWeakShare = 0.4;
constexpr double kCrest = 1.4142135623731;  // crest over RMS of a sine
}  // namespace

// I_trip from the trimmed reference and the sense resistor, as the RMS current a coil sees, against motor and driver.
Findings currentLimitSetting(const SolvedBench& s) {
  Findings out;
  for (const auto& ref : loadedChannels(s)) {
    const auto* chopper = circuit::chopperOf(s.bench, ref);
    if (!chopper) continue;
    const auto& name = called(s.bench, ref.device);
    const auto* motor = loadsOf(s, ref).front();
    const auto& w = circuit::windingOf(s.bench, *motor, 0);
    const auto phase = circuit::ratedCurrent(s.bench, *motor);
    const std::vector<std::string> subjects{idOf(s.bench, ref.device)};
    const auto trip = parts::tripCurrent(*chopper);
    if (!trip) {
      std::string missing = !chopper->reference.known() ? "its reference voltage" : "";
      if (!chopper->senseResistor.known()) missing += missing.empty() ? "its sense resistor" : " and its sense resistor";
      missing += missing.find(" and ") == std::string::npos ? " is" : " are";
      auto f = finding(Severity::Caution, fmt::format("The current of {} was never set", name),
                       fmt::format("{} unknown, so nobody knows what current {} will force through {}. Trim it with motor supply off "
                                   "and enter what you measured.",
                                   missing, name, called(s, *motor)),
                       subjects);
      f.text[0] = 'I';
      f.formula = fmt::format("I_trip = V_ref / ({:g} x R_sense)", chopper->perVolt);
      if (phase && chopper->senseResistor.typical())
        f.formula += fmt::format("; for {} set V_ref = {}", show(Amps{*phase}),
                                 show(Volts{*phase * kCrest * chopper->perVolt * *chopper->senseResistor.typical()}));
      out.push_back(std::move(f));
      continue;
    }
    const Amps rms = *trip / kCrest;
    const auto& channel = circuit::channelOf(s.bench, ref);
    const auto& rating = continuousOf(s.bench, ref);
    const auto peak = channel.peak.typical();
    const auto say = [&](Severity severity, const std::string& headline, const std::string& text, Amps value, Amps limit,
                         const std::string& limitName) {
      auto f = finding(severity, headline, text, subjects);
      f.formula = fmt::format("I_trip = {} / ({:g} x {}) = {}; RMS {}", displayText(chopper->reference), chopper->perVolt,
                              displayText(chopper->senseResistor), show(*trip), show(rms));
      f.args = {{"trip", *trip}, {"rms", rms}, {"limit", limit}};
      f.bar = Bar{"coil current", value, {}, limit, limitName};
      f.sources = sourcesOf({&chopper->reference, &chopper->senseResistor, &w.phase});
      out.push_back(std::move(f));
    };
    if (peak && trip->value > *peak)
      say(Severity::Stop, fmt::format("{} is set to {}", name, show(*trip)),
          fmt::format("{} would force {} through each coil at the crest; it takes {} at most.", name, show(*trip), show(Amps{*peak})),
          *trip, Amps{*peak}, "greatest of the driver");
    else if (phase && rms.value > *phase)
      say(rms.value > kStopShare * *phase ? Severity::Stop : Severity::Caution, fmt::format("{} is set above its motor", name),
          fmt::format("{} is set to {} a coil; {} takes {}.", name, show(rms), called(s, *motor), show(Amps{*phase})), rms, Amps{*phase},
          "phase current");
    else if (rating.typical() && rms.value > *rating.typical())
      say(Severity::Caution, fmt::format("{} is set above what it stands as it is cooled", name),
          fmt::format("{} is set to {} a coil; as it is cooled it stands {}.", name, show(rms), show(Amps{*rating.typical()})), rms,
          Amps{*rating.typical()}, "as cooled");
    else if (phase && rms.value < kWeakShare * *phase)
      say(Severity::Note, fmt::format("{} is set low", name),
          fmt::format("{} is set to {} a coil, far below the {} of {}: it will be weak.", name, show(rms), show(Amps{*phase}),
                      called(s, *motor)),
          rms, Amps{*phase}, "phase current");
  }
  return out;
}

}  // namespace bold::checks
