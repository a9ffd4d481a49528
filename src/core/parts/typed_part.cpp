#include "core/parts/typed_part.h"

#include <fmt/core.h>

#include <algorithm>
#include <optional>

#include "core/base/number.h"
#include "core/parts/search.h"

namespace bold::parts {
namespace {

constexpr double kTolerance = 0.05;  // of a regulated adapter
constexpr double kPrinted = 7;       // V: above it a stepper's voltage is hardly its current times its resistance

// Four figures are as many as anybody typed.
template <class Q>
std::string written(Q q) {
  return fileText(Q{realOf(fmt::format("{:.4g}", q.value)).value_or(q.value)});
}

struct Typed {
  std::optional<Volts> volts;
  std::optional<Amps> amps, stall;
  std::optional<Ohms> ohms;
  std::optional<Henries> henries;
};

bool says(const Query& q, std::initializer_list<const char*> words) {
  return std::ranges::any_of(q.words,
                             [&](const std::string& w) { return std::ranges::any_of(words, [&](const char* x) { return w == x; }); });
}

Typed read(const Query& q) {
  Typed t;
  for (std::size_t i = 0; i < q.figures.size(); ++i) {
    const auto& f = q.figures[i];
    if (f.value <= 0) continue;
    const bool stalled = q.figureWords[i].starts_with("stall") || q.figureWords[i] == "start";
    if (f.unit == Unit::Volt && !t.volts) t.volts = Volts{f.value};
    if (f.unit == Unit::Amp) (stalled || t.amps ? t.stall : t.amps) = Amps{f.value};
    if (f.unit == Unit::Ohm && !t.ohms) t.ohms = Ohms{f.value};
    if (f.unit == Unit::Henry && !t.henries) t.henries = Henries{f.value};
  }
  // Of two currents the larger is the stall current, in whatever order they stand.
  if (t.amps && t.stall && t.amps->value > t.stall->value) std::swap(t.amps, t.stall);
  return t;
}

std::optional<TypedPart> motor(const Typed& t) {
  if (!t.volts) return std::nullopt;
  const double volts = t.volts->value;
  const double winding = t.ohms ? t.ohms->value : t.stall ? volts / t.stall->value : 0;  // 0: not said
  TypedPart p{"brushed-motor", {}, "Brushed motor " + displayText(*t.volts)};
  p.overrides = {{"nominal", written(*t.volts)}, {"highest", written(*t.volts)}};
  if (t.amps) {
    p.overrides["run"] = written(*t.amps);
    p.text += ", " + displayText(*t.amps) + " running";
  }
  if (winding > 0) {
    p.overrides["winding"] = written(Ohms{winding});
    p.text += ", " + displayText(Amps{volts / winding}) + " stalled";
  }
  if (t.henries) p.overrides["inductance"] = written(*t.henries);
  return p;
}

std::optional<TypedPart> stepper(const Typed& t) {
  if (!t.amps) return std::nullopt;
  TypedPart p{"stepper-bipolar", {{"phase", written(*t.amps)}}, "Bipolar stepper " + displayText(*t.amps)};
  // What is printed as a stepper's voltage is its current times its resistance.
  double winding = t.ohms ? t.ohms->value : 0;
  if (winding == 0 && t.volts && t.volts->value < kPrinted) winding = t.volts->value / t.amps->value;
  if (winding > 0) {
    p.overrides["winding"] = written(Ohms{winding});
    p.text += ", " + displayText(Ohms{winding}) + " a coil";
  }
  if (t.henries) p.overrides["inductance"] = written(*t.henries);
  return p;
}

std::optional<TypedPart> supply(const Typed& t, const std::string& part, const std::string& name) {
  if (!t.volts) return std::nullopt;
  TypedPart p{part, {}, name + " " + displayText(*t.volts)};
  p.overrides["nominal"] = written(*t.volts);
  if (part == "adapter") {
    p.overrides["full"] = written(Volts{t.volts->value * (1 + kTolerance)});
    p.overrides["empty"] = written(Volts{t.volts->value * (1 - kTolerance)});
  }
  if (t.amps) {
    p.overrides["continuous"] = written(*t.amps);
    p.text += " " + displayText(*t.amps);
  }
  if (t.ohms) p.overrides["resistance"] = written(*t.ohms);
  return p;
}

}  // namespace

std::vector<TypedPart> typedParts(std::string_view text) {
  const auto q = parseQuery(text);
  std::vector<TypedPart> out;
  if (q.figures.empty()) return out;
  const auto t = read(q);
  const auto add = [&](std::optional<TypedPart> p) {
    if (p) out.push_back(std::move(*p));
  };
  const bool wantsMotor = says(q, {"motor", "pump", "gearmotor", "stall", "stalled", "running", "run"});
  const bool wantsStepper = says(q, {"stepper", "nema"});
  const bool wantsSupply = says(q, {"adapter", "supply", "psu", "charger"});
  const bool wantsBattery = says(q, {"battery", "pack", "cell", "cells"});
  const bool any = !wantsMotor && !wantsStepper && !wantsSupply && !wantsBattery;
  // Any other word names something that is not made of figures alone.
  const bool known = std::ranges::all_of(q.words, [&](const std::string& w) {
    return says({{w}, {}, {}},
                {"motor",   "pump",    "gearmotor", "stall", "stalled", "running", "run", "stepper", "nema",    "adapter", "supply", "psu",
                 "charger", "battery", "pack",      "cell",  "cells",   "a",       "and", "start",   "brushed", "coil",    "phase"});
  });
  if (!known) return out;
  if (wantsMotor || (any && t.volts)) add(motor(t));
  if (wantsStepper) add(stepper(t));
  if (wantsSupply || (any && t.volts && t.amps && !t.stall)) add(supply(t, "adapter", "Adapter"));
  if (wantsBattery) add(supply(t, "battery", "Battery"));
  return out;
}

}  // namespace bold::parts
