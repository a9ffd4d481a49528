#include "core/choose/change_rows.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>

#include "core/bench/motors.h"
#include "core/choose/level_shift.h"
#include "core/choose/stage_questions.h"
#include "core/harness/edit_maker.h"
#include "core/harness/intent.h"

namespace bold::choose {
namespace {

using harness::Harness;

constexpr int kDutyStep = 5, kLeastDuty = 30;                      // %
constexpr int kCoarseFrom = 200, kCoarse = 5;                      // tenths of a volt
constexpr double kFarDown = 0.3, kFarUp = 2.5, kMostTenths = 601;  // times the supply that there is
constexpr double kTripStep = 0.05;                                 // A

harness::Edit say(const Harness& h, const std::string& motor, auto change) {
  auto intent = harness::intentFor(h, motor);
  change(intent);
  return harness::stating(h, intent, "Change what the program does");
}

ChangeRow gentleStart(const std::string& motor) {
  return {{"with a gentle start", [motor](const Harness& h) { return say(h, motor, [](harness::Intent& i) { i.ramp = true; }); }}};
}

ChangeRow dutyCaps(const std::string& motor, double from) {
  ChangeRow out;
  for (int percent = 100 - kDutyStep; percent >= kLeastDuty; percent -= kDutyStep)
    if (percent < 100 * from)
      out.push_back({fmt::format("with a duty cap of {} %", percent), [motor, percent](const Harness& h) {
                       return say(h, motor, [percent](harness::Intent& i) { i.dutyCap = percent / 100.0; });
                     }});
  return out;
}

ChangeRow frequencies(const std::string& motor, Hertz now) {
  static constexpr std::array kUsual{40e3, 31.25e3, 25e3, 20e3, 16e3, 10e3, 8e3, 5e3, 4e3, 2e3, 1e3, 490.0, 200.0, 100.0};
  ChangeRow out;
  for (const double f : kUsual)
    if (f < now.value)
      out.push_back({fmt::format("with its PWM at {} or less", displayText(Hertz{f})),
                     [motor, f](const Harness& h) { return say(h, motor, [f](harness::Intent& i) { i.pwm = Hertz{f}; }); }});
  return out;
}

// A heat sink is a setting too, and comes after all others.
std::vector<ChangeRow> settings(const harness::Device& device, const parts::Part& part) {
  std::vector<ChangeRow> out, sinks;
  for (const auto& s : part.settings) {
    const auto set = device.settings.find(s.id);
    const auto now = set == device.settings.end() ? s.standard : set->second.planned.empty() ? set->second.value : set->second.planned;
    const bool sink = s.id == "heatSink";
    ChangeRow row;
    // Of quantities the nearest to what is set comes first.
    auto values = s.values;
    const auto far = [standing = parseAnyQuantity(now)](const std::string& v) {
      const auto q = parseAnyQuantity(v);
      return q && standing ? std::abs(q->value - standing->value) : 0;
    };
    std::ranges::stable_sort(values, {}, far);
    for (const auto& value : values) {
      if (value == now || (sink && value != "fitted")) continue;
      std::string text = fmt::format("with its {} at {}", s.label, value);
      if (sink) {
        text = "with a heat sink";
        for (const auto& p : part.packages)
          if (const auto k = p.thermalSink.typical()) text = fmt::format("with a heat sink ({:.3g} K/W from the junction to the air)", *k);
      }
      row.push_back({text, [id = device.id, setting = s.id, now, value](const Harness& h) {
                       harness::EditMaker maker(h.ids(), harness::State::Planned);
                       maker.setting(*h.device(id), setting, now, value);
                       return maker.take("Set it");
                     }});
    }
    if (!row.empty()) (sink ? sinks : out).push_back(std::move(row));
  }
  out.insert(out.end(), std::make_move_iterator(sinks.begin()), std::make_move_iterator(sinks.end()));
  return out;
}

harness::Edit figures(const Harness& h, const std::string& device, const std::vector<std::pair<std::string, AnyQuantity>>& all) {
  auto d = *h.device(device);
  for (const auto& [id, value] : all) d.overrides[id] = fileText(value);
  harness::Edit out;
  out.changes.push_back(harness::Put<harness::Device>{std::move(d), {}});
  return out;
}

ChangeRow trips(const std::string& device, const parts::Part& part, double most) {
  ChangeRow out;
  for (const auto& e : part.elements) {
    const auto* c = std::get_if<parts::Chopper>(&e.body);
    const auto sense = c ? c->senseResistor.typical() : std::nullopt;
    if (!sense || !part.figure("reference") || c->perVolt <= 0) continue;
    for (int k = static_cast<int>(most / kTripStep + 1e-9); k > 0; --k) {
      const double trip = k * kTripStep;
      const Volts reference{trip * c->perVolt * *sense};
      out.push_back(
          {fmt::format("with its current trimmed to {} (reference {}, measured)", displayText(Amps{trip}), displayText(reference)),
           [device, reference](const Harness& h) {
             return figures(h, device, {{"reference", reference}});
           },
           false});
    }
    break;
  }
  return out;
}

// The device that feeds the stage or the motor.
std::string feeding(const bench::Bench& b, const bench::Nets& nets, const std::string& stage, const std::string& motor) {
  for (const auto& pole : nets.sources())
    for (const auto t : nets.members(nets.of(pole.positive))) {
      const auto& id = b.devices[b.deviceOf(t)].doc.id;
      if (id == motor || (id == stage && b.facts(t).supply && b.facts(t).supply->purpose == parts::SupplyFor::Motor))
        return b.devices[pole.device].doc.id;
    }
  return {};
}

// A supply whose voltages are all so many times what they are.
std::vector<ChangeRow> supplies(const std::string& device, const parts::Part& part) {
  const auto value = [&](const char* id) {
    const auto* f = part.figure(id);
    return f && f->figure.typical() ? *f->figure.typical() : 0.0;
  };
  const double full = value("full"), nominal = value("nominal"), empty = value("empty");
  if (full <= 0 || nominal <= 0 || empty <= 0) return {};
  const auto change = [&](const std::string& text, double times) {
    return Change{
        text,
        [=](const Harness& h) {
          return figures(h, device, {{"full", Volts{full * times}}, {"nominal", Volts{nominal * times}}, {"empty", Volts{empty * times}}});
        },
        false, device, nominal * times};
  };
  // What is printed on a supply is its nominal voltage; what counts is what it gives when it is full, or nearly empty.
  ChangeRow lower, higher;
  const auto text = [&](double v, const char* end, double at) {
    return fmt::format("with a supply of {} ({} {}) or {}", displayText(Volts{v}), displayText(Volts{at * v / nominal}), end,
                       at > nominal ? "less" : "more");
  };
  // In tenths of a volt, in halves where a tenth is no difference.
  const auto usual = [](int tenths) { return tenths <= kCoarseFrom || tenths % kCoarse == 0; };
  const int now = static_cast<int>(std::lround(nominal * 10));
  for (int v = now - 1; v > kFarDown * now; --v)
    if (usual(v)) lower.push_back(change(text(v / 10.0, "full", full), v / 10.0 / nominal));
  for (int v = now + 1; v < std::min(kFarUp * now, kMostTenths); ++v)
    if (usual(v)) higher.push_back(change(text(v / 10.0, "nearly empty", empty), v / 10.0 / nominal));
  return {lower, higher};
}

}  // namespace

std::vector<ChangeRow> changeRows(const Harness& h, const parts::Library& library, const std::string& motor, const std::string& stage) {
  std::vector<ChangeRow> out;
  const auto* device = h.device(stage);
  const auto part = device ? partOf(library, *device) : nullptr;
  if (!part) return out;
  const auto intent = harness::intentFor(h, motor);
  if (!intent.ramp) out.push_back(gentleStart(motor));
  if (intent.speedControl) out.push_back(dutyCaps(motor, intent.dutyCap.value_or(1)));
  if (intent.speedControl && intent.pwm) out.push_back(frequencies(motor, *intent.pwm));
  if (const auto shift = shiftLevels(h, library, stage))
    out.push_back(
        {{"with level shifters before its inputs", [own = std::make_shared<const parts::Library>(library), stage](const Harness& on) {
            return shiftLevels(on, *own, stage).value_or(harness::Edit{});
          }}});
  for (auto& row : settings(*device, *part)) out.push_back(std::move(row));
  double most = 0;
  for (const auto& c : part->channels) most = std::max(most, c.peak.typical().value_or(c.continuous.typical().value_or(0)));
  out.push_back(trips(stage, *part, most));
  const auto b = bench::makeBench(harness::asPlanned(h), library);
  const bench::Nets nets(b);
  const auto supply = feeding(b, nets, stage, motor);
  if (const int d = b.deviceIndex(supply); d >= 0)
    for (auto& row : supplies(supply, *b.devices[d].part)) out.push_back(std::move(row));
  std::erase_if(out, [](const ChangeRow& row) { return row.empty(); });
  return out;
}

}  // namespace bold::choose
