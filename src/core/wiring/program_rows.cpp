#include "core/wiring/program_rows.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "core/bench/sensed_pins.h"
#include "core/checks/program/on_bench.h"

namespace bold::wiring {
namespace {

// What else is at the far end of the wires: sensors by name, else the devices that the copper joins.
std::string othersAt(const bench::SolvedBench& s, bench::TerminalIndex pin) {
  std::string out;
  const auto add = [&](const std::string& text) {
    if (out.find(text) == std::string::npos) out += (out.empty() ? "" : ", ") + text;
  };
  for (const auto& x : bench::sensedPins(s))
    if (x.pin == pin) add(s.bench.called(x.end));
  if (!out.empty()) return out;
  const int own = s.bench.deviceOf(pin);
  for (const auto t : s.nets.members(s.nets.of(pin)))
    if (s.bench.deviceOf(t) != own && out.size() < 60) add(s.bench.called(t));
  return out.empty() ? "its wire leads nowhere" : out;
}

std::string wiresOf(const bench::SolvedBench& s, const checks::ProgramOnBench& program, bench::TerminalIndex pin, bool onBoard) {
  if (pin < 0) return onBoard ? "a pin of the board's own" : "there is no such pin";
  if (!program.wired(pin)) return "not wired";
  std::string out;
  for (const auto* r : program.rolesAt(pin))
    out += fmt::format("{}{}: {} of {}", out.empty() ? "" : ", ", s.bench.called(r->input), r->role, checks::called(s, s.motors[r->motor]));
  return out.empty() ? othersAt(s, pin) : out;
}

}  // namespace

std::string doingWords(const harness::PinUse& u) {
  const auto& d = u.does;
  std::string out;
  const auto add = [&](const std::string& text) { out += (out.empty() ? "" : ", ") + text; };
  const auto has = [&](const char* what) { return d.contains(what); };
  if (has("servo")) add("servo pulses");
  if (has("tone")) add("tones");
  if (has("pwm")) {
    std::string text = has("soft") ? "PWM by software" : "PWM";
    if (u.duty) text += fmt::format(" up to {:.0f} %", 100 * *u.duty);
    if (u.frequency) text += " at " + displayText(*u.frequency);
    add(text);
  } else if (has("write") && !has("servo") && !has("tone")) {
    add(has("high") && has("low") ? "high and low" : has("high") ? "only high" : has("low") ? "only low" : "written");
  }
  if (has("read")) add(has("pull-up") ? "read with pull-up" : has("pull-down") ? "read with pull-down" : "read");
  if (has("analog")) add("read as a voltage");
  if (has("serial")) add("serial line");
  if (has("bus")) add("bus line");
  if (out.empty()) add(has("output") ? "an output, never written and so low" : has("input") ? "an input, never read" : "named");
  if (!u.last.empty() && u.last != "low" && u.last != "released") add(u.last == "unsure" ? "may be left on" : "left " + u.last);
  return u.sure ? out : "perhaps " + out;
}

std::string toldWords(const harness::SourceRead& s) {
  auto out =
      fmt::format("{} of {} place{} that name{} a pin could be told", s.told, s.asked, s.asked == 1 ? "" : "s", s.asked == 1 ? "s" : "");
  if (s.told < s.asked) out += fmt::format(", {:.0f} % unknown", 100.0 * (s.asked - s.told) / s.asked);
  return out;
}

std::string agreementWords(const Analysis& a, const harness::SourceRead& source) {
  if (source.pins.empty() && source.untold.empty()) return "No pin of the board was found in the program.";
  if (!a.solved) return "The program was not held against the wires.";
  const auto& s = *a.solved;
  const checks::ProgramOnBench program(s);
  const int device = s.bench.deviceIndex(source.controller);
  enum Standing { Agrees, Open, Disagrees };
  std::array<std::string, 3> names;
  bool elsewhere = false;  // something is said that is about no motor
  for (const auto& f : a.findings) elsewhere = elsewhere || (f.check.starts_with("program-") && f.severity <= checks::Severity::Caution);
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto roles = program.rolesOf(static_cast<int>(m));
    if (std::ranges::none_of(roles, [&](const checks::WiredRole* r) { return s.bench.deviceOf(r->pin) == device; })) continue;
    const auto& id = checks::idOf(s.bench, s.motors[m].device);
    auto now = Agrees;
    for (const auto& f : a.findings) {
      if (!f.check.starts_with("program-") || f.severity > checks::Severity::Caution) continue;
      const bool about = std::ranges::any_of(f.subjects, [&](const std::string& x) {
        return x == id || std::ranges::any_of(roles, [&](const checks::WiredRole* r) {
                 return x == s.bench.address(r->pin) || x == s.bench.address(r->input);
               });
      });
      if (about) now = std::max(now, f.check == "program-open-effect" ? Open : Disagrees);
    }
    names[now] += (names[now].empty() ? "" : ", ") + checks::called(s, s.motors[m]);
  }
  if (names[Open].empty() && names[Disagrees].empty())
    return elsewhere ? "The program and the wires agree for every motor; something else is said of the program."
                     : "The program and the wires agree, as far as it could be told.";
  std::string out;
  const auto add = [&](Standing which, std::string_view first, std::string_view then) {
    if (!names[which].empty()) out += (out.empty() ? std::string(first) : "; " + std::string(then)) + " " + names[which];
  };
  add(Agrees, "The program and the wires agree for", "they agree for");
  add(Disagrees, "The program and the wires disagree for", "they disagree for");
  add(Open, "Whether the program fits the wires could not be told for", "it could not be told for");
  return out + ".";
}

std::vector<ProgramRow> programRows(const Analysis& a, const harness::SourceRead& source) {
  std::vector<ProgramRow> out;
  if (!a.solved) return out;
  const auto& s = *a.solved;
  const int device = s.bench.deviceIndex(source.controller);
  if (device < 0) return out;
  const checks::ProgramOnBench program(s);
  std::vector<bench::TerminalIndex> pins;
  const auto row = [&](bench::TerminalIndex pin, const checks::UsedPin* u) {
    ProgramRow r;
    if (pin >= 0) {
      r.pin = s.bench.place(pin);
      r.name = s.bench.facts(pin).label;
    } else
      r.name = u->use->word;
    const auto* open = u ? nullptr : program.openAt(pin);
    r.program = u ? (u->use->name.empty() && u->use->word == r.name ? std::string() : checks::said(*u->use) + ": ") + doingWords(*u->use)
                : open && open->reach != harness::Untold::Reach::Unnamed ? "not told"
                                                                         : "never named";
    r.wires = wiresOf(s, program, pin, u && u->use->onBoard);
    if (u) r.spots = checks::spotsOf(*u->use);
    const auto address = pin >= 0 ? s.bench.address(pin) : std::string();
    for (const auto& f : a.findings) {
      if (!f.check.starts_with("program-")) continue;
      const bool here = !address.empty() && std::ranges::count(f.subjects, address) > 0;
      const bool none = pin < 0 && f.check == "program-no-such-pin" &&
                        std::ranges::any_of(f.spots, [&](const auto& x) { return std::ranges::count(r.spots, x) > 0; });
      if (!here && !none) continue;
      if (r.findings.empty()) r.gravest = f.severity;
      r.findings.push_back(f.identity());
      if (r.spots.empty()) r.spots = f.spots;
    }
    pins.push_back(pin);
    out.push_back(std::move(r));
  };
  for (const auto& u : program.used())
    if (u.source->id == source.id) row(u.pin, &u);
  for (const auto& r : program.roles())
    if (s.bench.deviceOf(r.pin) == device && std::ranges::count(pins, r.pin) == 0) row(r.pin, nullptr);
  const auto rank = [&](const ProgramRow& r) {
    const int at = r.pin.device.empty() ? 1000 : s.bench.devices[device].part->indexOf(r.pin.terminal);
    return std::pair(r.disagrees() ? static_cast<int>(r.gravest) : 10, at);
  };
  std::ranges::stable_sort(out, {}, rank);
  return out;
}

}  // namespace bold::wiring
