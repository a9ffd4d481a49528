#include "core/choose/fitting_parts.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/figure.h"

namespace bold::choose {
namespace {

constexpr double kToSpare = 4.0 / 3;
constexpr int kThinnest = 26;      // AWG, of what carries power on a bench
constexpr double kSlowest = 1e-6;  // s of recovery above which a diode is no clamp for a chopped motor

// The only element of a part with two terminals, of this kind.
template <class Element>
const Element* alone(const parts::Part& p) {
  return p.terminals.size() == 2 && p.elements.size() == 1 ? std::get_if<Element>(&p.elements.front().body) : nullptr;
}

// The figure of the part that this element's value is, by its unit: what a bench can give.
std::string figureOf(const parts::Part& p, Unit unit) {
  for (const auto& f : p.figures)
    if (f.figure.unit == unit) return f.id;
  return {};
}

}  // namespace

std::optional<Fitting> resistor(const parts::Library& library, Ohms value) {
  std::optional<Fitting> open;
  for (const auto& p : library.search("")) {
    const auto* r = alone<parts::Resistor>(*p);
    if (!r || r->conductor || p->own) continue;
    const auto v = r->resistance.typical();
    if (v && std::abs(*v - value.value) < 1e-3 * value.value) return Fitting{p->id, {}};
    const auto figure = figureOf(*p, Unit::Ohm);
    if (!v && !figure.empty() && !open) open = Fitting{p->id, {{figure, displayText(value)}}};
  }
  return open;
}

std::optional<Fitting> capacitor(const parts::Library& library, Farads value, Volts voltage) {
  std::optional<Fitting> best;
  std::optional<Fitting> open;
  double least = 1e9;
  const double rated = voltage.value * kToSpare;
  for (const auto& p : library.search("")) {
    const auto* c = alone<parts::Capacitor>(*p);
    if (!c || !c->polarised || p->own) continue;
    const auto has = c->capacitance.typical();
    const auto stands = c->rated.typical();
    if (has && stands && *has >= value.value && *stands >= rated && *has < least) {
      least = *has;
      best = Fitting{p->id, {}};
    }
    const auto farads = figureOf(*p, Unit::Farad);
    const auto volts = figureOf(*p, Unit::Volt);
    if (has || farads.empty() || volts.empty() || open) continue;
    static constexpr std::array kRated{6.3, 10.0, 16.0, 25.0, 35.0, 50.0, 63.0, 100.0};
    const auto enough = std::ranges::find_if(kRated, [&](double v) { return v >= rated; });
    if (enough != kRated.end()) open = Fitting{p->id, {{farads, displayText(value)}, {volts, displayText(Volts{*enough})}}};
  }
  return best ? best : open;
}

std::optional<Fitting> clampDiode(const parts::Library& library, Amps current, Volts voltage) {
  std::optional<Fitting> best;
  double least = 1e9;
  for (const auto& p : library.search("")) {
    const auto* d = alone<parts::Diode>(*p);
    if (!d || p->own || d->zener.known()) continue;
    const auto* average = p->figure("average");
    const auto carries = average ? average->figure.typical() : std::nullopt;
    const auto stands = d->reverseVoltage.typical();
    const auto recovery = d->recovery.typical();
    const bool fast = d->schottky || (recovery && *recovery <= kSlowest);
    if (!carries || !stands || !fast || *carries < current.value || *stands < voltage.value * kToSpare || *carries >= least) continue;
    least = *carries;
    best = Fitting{p->id, {}};
  }
  return best;
}

int gaugeFor(const parts::Library& library, Amps current) {
  int thickest = kThinnest;
  for (int awg = kThinnest; awg >= 0; awg -= 2) {
    const auto wire = library.find("wire-" + std::to_string(awg) + "awg");
    const auto* bundled = wire ? wire->figure("bundled") : nullptr;
    if (!bundled) continue;
    thickest = awg;
    if (bundled->figure.typical().value_or(0) >= current.value) break;
  }
  return thickest;
}

}  // namespace bold::choose
