#include <fmt/core.h>

#include "core/bench/coils.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::current_limit_setting {
namespace {

constexpr double kStopShare = 1.5;  // times the motor's phase current
constexpr double kWeakShare = 0.4;
constexpr double kCrest = 1.4142135623731;  // crest over RMS of a sine
constexpr double kBelow = 0.98;             // share of the greatest crest that is advised: no trimmer is exact

// A stage that regulates coil current, and the motor on it.
struct Setting {
  Margins margins;  // crest against the driver, RMS against the motor and the cooling, RMS against what the motor wants
  ChannelRef ref;
  const parts::Chopper* chopper;
  const Motor* motor;
  std::optional<double> phase, cooled, peak;  // A
  Amps trip{}, rms{};
  std::optional<Severity> besides{};  // nobody knows what it is set to
};

std::optional<double> times(double k, std::optional<double> amps) {
  return amps ? std::optional(k * *amps) : std::nullopt;
}

Setting measure(const SolvedBench& s, ChannelRef ref, const parts::Chopper& chopper) {
  const auto& channel = bench::channelOf(s.bench, ref);
  const auto& rating = continuousOf(s.bench, ref);
  const auto* motor = loadsOf(s, ref).front();
  Setting m{{}, ref, &chopper, motor, bench::ratedCurrent(s.bench, *motor), rating.typical(), channel.peak.typical()};
  const auto trip = parts::tripCurrent(chopper);
  if (trip) m.trip = *trip;
  if (!trip) m.besides = Severity::Caution;
  m.rms = m.trip / kCrest;
  const auto value = [&](Amps amps) { return trip ? std::optional(amps.value) : std::nullopt; };
  const std::vector subjects{idOf(s.bench, ref.device)};
  const auto& phase = bench::windingOf(s.bench, *motor, 0).phase.source;
  m.margins = {
      {.quantity = "coil current at the crest",
       .subjects = subjects,
       .unit = Unit::Amp,
       .value = value(m.trip),
       .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, m.peak, "greatest of the driver", channel.peak.source))},
      {.quantity = "coil current",
       .subjects = subjects,
       .unit = Unit::Amp,
       .value = value(m.rms),
       .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, m.phase, "phase current", phase),
                        atMost(LimitKind::Recommended, Severity::Stop, times(kStopShare, m.phase), "1.5 x phase current", phase))},
      {.quantity = "coil current as cooled",
       .subjects = subjects,
       .unit = Unit::Amp,
       .value = value(m.rms),
       .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, m.cooled, "as cooled", rating.source))},
      {.quantity = "coil current to be strong",
       .subjects = subjects,
       .unit = Unit::Amp,
       .value = value(m.rms),
       .limits = rising(atLeast(LimitKind::Recommended, Severity::Note, times(kWeakShare, m.phase), "0.4 x phase current", phase))}};
  return m;
}

Finding neverSet(const SolvedBench& s, const Setting& m) {
  const auto& chopper = *m.chopper;
  const auto& name = called(s.bench, m.ref.device);
  std::string missing = !chopper.reference.known() ? "its reference voltage" : "";
  if (!chopper.senseResistor.known()) missing += missing.empty() ? "its sense resistor" : " and its sense resistor";
  missing += missing.find(" and ") == std::string::npos ? " is" : " are";
  auto f = finding(fmt::format("The current of {} was never set", name),
                   fmt::format("{} unknown, so nobody knows what current {} will force through {}. Trim it with motor supply off "
                               "and enter what you measured.",
                               missing, name, called(s, *m.motor)),
                   m.margins[0].subjects);
  f.text[0] = 'I';
  if (!chopper.reference.known())
    f.ways.push_back(
        {"Measure the reference at the trimmer with the motor supply off, and enter it.", figureOf(s.bench, m.ref.device, "reference")});
  if (!chopper.senseResistor.known())
    f.ways.push_back({"Read the sense resistor off the board (R100 is 0.1 Ω), and enter it.", figureOf(s.bench, m.ref.device, "sense")});
  f.formula = fmt::format("I_trip = V_ref / ({:g} x R_sense)", chopper.perVolt);
  if (m.phase && chopper.senseResistor.typical())
    f.formula += fmt::format("; for {} set V_ref = {}", show(Amps{*m.phase}),
                             show(Volts{*m.phase * kCrest * chopper.perVolt * *chopper.senseResistor.typical()}));
  return f;
}

// What is worst of all is said first: too much for the driver, for the motor, for its cooling; too little for the motor.
Finding words(const SolvedBench& s, const Setting& m) {
  const auto& name = called(s.bench, m.ref.device);
  const auto one = [&](const Margin& margin, const std::string& headline, const std::string& text, Amps limit,
                       const std::string& limitName) {
    auto f = finding(headline, text, margin.subjects);
    // What the motor, the cooling and the driver's crest take, whichever is least.
    const auto wanted = std::min({m.phase.value_or(1e9), m.cooled.value_or(1e9), kBelow * m.peak.value_or(1e9) / kCrest});
    if (m.chopper->senseResistor.typical() && wanted < 1e9) {
      const Volts reference{wanted * kCrest * m.chopper->perVolt * *m.chopper->senseResistor.typical()};
      f.ways = {{fmt::format("Trim its reference to {}: {} a coil.", show(reference), show(Amps{wanted})),
                 figureOf(s.bench, m.ref.device, "reference"), fmt::format("{:.4g} V", reference.value)}};
    }
    f.formula = fmt::format("I_trip = {} / ({:g} x {}) = {}; RMS {}", displayText(m.chopper->reference), m.chopper->perVolt,
                            displayText(m.chopper->senseResistor), show(m.trip), show(m.rms));
    f.args = {{"trip", m.trip}, {"rms", m.rms}, {"limit", limit}};
    f.bar = Bar{"coil current", {*margin.value, margin.unit}, {}, limit, limitName};
    f.sources = sourcesOf({&m.chopper->reference, &m.chopper->senseResistor, &bench::windingOf(s.bench, *m.motor, 0).phase});
    return f;
  };
  if (m.margins[0].passed())
    return one(
        m.margins[0], fmt::format("{} is set to {}", name, show(m.trip)),
        fmt::format("{} would force {} through each coil at the crest; it takes {} at most.", name, show(m.trip), show(Amps{*m.peak})),
        Amps{*m.peak}, "greatest of the driver");
  if (m.margins[1].passed())
    return one(m.margins[1], fmt::format("{} is set above its motor", name),
               fmt::format("{} is set to {} a coil; {} takes {}.", name, show(m.rms), called(s, *m.motor), show(Amps{*m.phase})),
               Amps{*m.phase}, "phase current");
  if (m.margins[2].passed())
    return one(m.margins[2], fmt::format("{} is set above what it stands as it is cooled", name),
               fmt::format("{} is set to {} a coil; as it is cooled it stands {}.", name, show(m.rms), show(Amps{*m.cooled})),
               Amps{*m.cooled}, "as cooled");
  return one(m.margins[3], fmt::format("{} is set low", name),
             fmt::format("{} is set to {} a coil, far below the {} of {}: it will be weak.", name, show(m.rms), show(Amps{*m.phase}),
                         called(s, *m.motor)),
             Amps{*m.phase}, "phase current");
}

}  // namespace

// I_trip from the trimmed reference and the sense resistor, as the RMS current a coil sees, against motor and driver.
Said judge(const SolvedBench& s) {
  std::vector<Setting> all;
  for (const auto& ref : loadedChannels(s))
    if (const auto* chopper = bench::chopperOf(s.bench, ref)) all.push_back(measure(s, ref, *chopper));
  return say(std::move(all), [&](const Setting& m) { return m.besides ? neverSet(s, m) : words(s, m); });
}

Check check() {
  return {"current-limit-setting", "current", "The current limit of a step/dir stage", Harm::Damage, judge};
}

}  // namespace bold::checks::current_limit_setting
