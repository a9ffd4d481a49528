#include "core/checks/program/on_bench.h"

#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/base/lower.h"
#include "core/bench/signal_nets.h"
#include "core/checks/program/mismatch.h"
#include "core/checks/wired_signals.h"
#include "core/places/numbering.h"

namespace bold::checks {

bool writes(const harness::PinUse& u) {
  for (const auto* d : {"write", "pwm", "servo", "tone", "pulse"})
    if (u.does.contains(d)) return true;
  return false;
}
bool drives(const harness::PinUse& u) {
  return writes(u) || (u.does.contains("output") && !reads(u) && !u.does.contains("serial") && !u.does.contains("bus"));
}
bool reads(const harness::PinUse& u) {
  return u.does.contains("read") || u.does.contains("analog");
}

ProgramOnBench::ProgramOnBench(const SolvedBench& s) : m_solved(s) {
  for (const auto& source : s.bench.sources) {
    const int d = s.bench.deviceIndex(source.controller);
    for (const auto& u : source.pins) m_used.push_back({&source, &u, u.terminal.empty() ? -1 : s.bench.terminal(d, u.terminal)});
  }
  for (std::size_t m = 0; m < s.motors.size() && !s.bench.sources.empty(); ++m)
    for (const auto& w : wiredSignals(s, s.motors[m])) {
      if (w.pin.device.empty() || w.input < 0) continue;
      const auto pin = s.bench.terminal(w.pin);
      if (pin >= 0 && hasProgram(s.bench.deviceOf(pin))) m_roles.push_back({static_cast<int>(m), w.role, w.input, pin});
    }
  m_numberings = std::make_shared<const std::vector<OtherNumbering>>(otherNumberings(*this));
  m_mismatch = std::make_shared<const Mismatch>(mismatchOf(*this));
}

bool ProgramOnBench::hasProgram(int device) const {
  const auto& id = idOf(m_solved.bench, device);
  return std::ranges::any_of(m_solved.bench.sources, [&](const harness::SourceRead& s) { return s.controller == id; });
}

const UsedPin* ProgramOnBench::at(TerminalIndex pin) const {
  const auto it = std::ranges::find(m_used, pin, &UsedPin::pin);
  return pin < 0 || it == m_used.end() ? nullptr : &*it;
}

std::vector<const WiredRole*> ProgramOnBench::rolesAt(TerminalIndex pin) const {
  std::vector<const WiredRole*> out;
  for (const auto& r : m_roles)
    if (r.pin == pin) out.push_back(&r);
  return out;
}

std::vector<const WiredRole*> ProgramOnBench::rolesOf(int motor) const {
  std::vector<const WiredRole*> out;
  for (const auto& r : m_roles)
    if (r.motor == motor) out.push_back(&r);
  return out;
}

bool ProgramOnBench::wired(TerminalIndex pin) const {
  return pin >= 0 && m_solved.bench.connected(pin);
}

bool ProgramOnBench::standsRight(const WiredRole& r) const {
  static const std::set<std::string> kReady{"enable", "enable2", "standby", "sleep", "reset"};
  if (!kReady.contains(r.role)) return false;
  const auto* boot = m_solved.point(Action::Boot, Corner::Nominal);
  const auto* running = m_solved.running(r.motor, Corner::Nominal);
  if (!boot || !running) return false;
  const auto floats = boot->level(r.input);
  return floats != parts::Level::Undefined && floats == running->level(r.input);
}

const harness::Untold* ProgramOnBench::openAt(TerminalIndex pin) const {
  using Reach = harness::Untold::Reach;
  if (pin < 0) return nullptr;
  const auto& controller = idOf(m_solved.bench, m_solved.bench.deviceOf(pin));
  const auto& terminal = m_solved.bench.facts(pin).id;
  const harness::Untold* out = nullptr;
  for (const auto& source : m_solved.bench.sources) {
    if (source.controller != controller) continue;
    const bool named = std::ranges::any_of(source.pins, [&](const harness::PinUse& u) { return u.terminal == terminal; });
    for (const auto& u : source.untold) {
      const bool reaches = u.reach == Reach::Every || (u.reach == Reach::Unnamed && !named) ||
                           (u.reach == Reach::Listed && std::ranges::count(u.pins, terminal) > 0);
      // What is handed the pin says more than what may do anything.
      if (reaches && (!out || (u.reach == Reach::Listed && out->reach != Reach::Listed))) out = &u;
    }
  }
  return out;
}

std::string where(const harness::Spot& spot) {
  return spot.line > 0 ? fmt::format("{}, line {}", spot.file, spot.line) : spot.file;
}

std::vector<harness::Spot> spotsOf(const harness::PinUse& u) {
  std::vector<harness::Spot> out;
  if (u.number.line > 0) out.push_back(u.number);
  for (const auto& p : u.places)
    if (std::ranges::count(out, p) == 0) out.push_back(p);
  return out;
}

std::string said(const harness::PinUse& u) {
  return u.name.empty() || u.name == u.word ? u.word : fmt::format("{} ({})", u.word, u.name);
}

std::string inWordsOf(const SolvedBench& s, const harness::PinUse& u, TerminalIndex pin) {
  const auto& part = *s.bench.devices[s.bench.deviceOf(pin)].part;
  const auto& t = s.bench.facts(pin);
  if (u.numbering == "position") return std::to_string(places::positionOf(part, t));
  if (t.pin && !t.pin->code.empty() && (u.numbering == "program" || u.numbering == "chip")) return t.pin->code;
  // By name: as the word itself is made, "PB5" by the chip and "D9" by print.
  if (t.pin && u.word.size() < 5 && (u.word.starts_with('P') || u.word.starts_with('R')) && !t.pin->chip.empty()) return t.pin->chip;
  return t.label;
}

std::string changeTo(const SolvedBench& s, const UsedPin& used, TerminalIndex other) {
  const auto spots = spotsOf(*used.use);
  return fmt::format("Change {} to {}{}", said(*used.use), inWordsOf(s, *used.use, other),
                     spots.empty() ? "" : " in " + where(spots.front()));
}

namespace {

// "PADDLE_IN1", "paddleIn1" as paddle, in1.
std::set<std::string> tokens(const std::string& name) {
  std::set<std::string> out;
  std::string now;
  const auto end = [&] {
    if (now.size() > 1) out.insert(lower(now));
    now.clear();
  };
  for (std::size_t k = 0; k < name.size(); ++k) {
    const auto c = static_cast<unsigned char>(name[k]);
    if (!std::isalnum(c)) {
      end();
      continue;
    }
    const bool capital = std::isupper(c) && k > 0 && std::islower(static_cast<unsigned char>(name[k - 1]));
    if (capital) end();
    now += static_cast<char>(c);
  }
  end();
  return out;
}

int common(const std::set<std::string>& a, const std::set<std::string>& b) {
  return static_cast<int>(std::ranges::count_if(a, [&](const std::string& x) {
    return std::ranges::any_of(b, [&](const std::string& y) {
      return x == y || (x.size() > 3 && y.size() > 3 && (x.starts_with(y) || y.starts_with(x)));  // "pump" and "pumps"
    });
  }));
}

std::set<std::string> roleTokens(const std::string& role, const std::string& label) {
  auto out = tokens(label);
  out.insert(role);
  const auto add = [&](std::initializer_list<const char*> more) { out.insert(more.begin(), more.end()); };
  if (role == "speed" || role == "speed2") add({"pwm", "en", "ena", "enable", "speed"});
  if (role == "enable") add({"en", "ena", "enable"});
  if (role == "dir") add({"dir", "direction", "phase"});
  if (role == "step") add({"step", "stp", "pul", "pulse"});
  if (role == "pulse") add({"servo"});
  return out;
}

}  // namespace

int fitsMotor(const SolvedBench& s, const std::string& name, int motor) {
  auto own = tokens(s.bench.devices[s.motors[motor].device].doc.name);
  own.merge(tokens(idOf(s.bench, s.motors[motor].device)));
  own.erase("motor");
  return common(tokens(name), own);
}

int fitsRole(const SolvedBench& s, const std::string& name, const WiredRole& role) {
  const auto given = tokens(name);
  return common(given, roleTokens(role.role, s.bench.facts(role.input).label));
}

int fits(const SolvedBench& s, const std::string& name, const WiredRole& role) {
  return 2 * fitsMotor(s, name, role.motor) + fitsRole(s, name, role);
}

bool stated(const SolvedBench& s, const WiredRole& role) {
  const auto* intent = s.motors[role.motor].intent;
  return intent && std::ranges::any_of(intent->signals, [&](const harness::Signal& x) {
           return x.role == role.role && s.bench.terminal(x.pin) == role.pin;
         });
}

Finding programFinding(Severity severity, std::string headline, std::string text, std::vector<std::string> subjects,
                       const harness::PinUse& use) {
  // What is only perhaps done stops nobody.
  if (!use.sure && severity == Severity::Stop) {
    severity = Severity::Caution;
    text += " Whether it does is not certain: which pin is meant depends on what is not known.";
  }
  auto f = finding(severity, std::move(headline), std::move(text), std::move(subjects));
  f.spots = spotsOf(use);
  return f;
}

}  // namespace bold::checks
