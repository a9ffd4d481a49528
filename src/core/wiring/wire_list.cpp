#include "core/wiring/wire_list.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/base/groups.h"
#include "core/base/lower.h"
#include "core/bench/motors.h"
#include "core/harness/connection_table.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"
#include "core/parts/roles.h"
#include "core/wiring/read_back.h"

namespace bold::wiring {
namespace {

using bench::Bench;
using bench::TerminalIndex;

// Of which motor a net or a device is.
class Lanes {
 public:
  explicit Lanes(const harness::Harness& asPlanned, const parts::Library& library)
      : m_bench(bench::makeBench(asPlanned, library)), m_nets(m_bench), m_ofNet(m_nets.count()), m_leads(m_nets.count()) {
    for (const auto& m : bench::motorsOf(m_bench, m_nets)) take(m);
  }

  Carries carries(TerminalIndex t) const {
    if (t < 0) return Carries::Signal;
    const int net = m_nets.of(t);
    if (m_nets.grounded(net)) return Carries::Ground;
    if (m_nets.rail(net)) return Carries::Supply;
    return m_leads[net] ? Carries::Motor : Carries::Signal;
  }

  // What is joined to no other motor's signals belongs to one; a rail belongs to those whose boards it ends on.
  std::set<int> motors(const harness::Connection& c) const {
    std::set<int> out;
    for (const auto* end : {&c.a, &c.b}) {
      const auto t = m_bench.terminal(*end);
      if (t >= 0 && !m_nets.rail(m_nets.of(t))) out.insert(m_ofNet[m_nets.of(t)].begin(), m_ofNet[m_nets.of(t)].end());
    }
    if (!out.empty()) return out;
    for (const auto* end : {&c.a, &c.b})
      if (const auto device = m_ofDevice.find(m_bench.deviceIndex(end->device)); device != m_ofDevice.end())
        out.insert(device->second.begin(), device->second.end());
    return out;
  }

  TerminalIndex terminal(const Address& a) const { return m_bench.terminal(a); }
  const std::string& id(int device) const { return m_bench.devices[device].doc.id; }

 private:
  Bench m_bench;
  bench::Nets m_nets;
  std::vector<std::set<int>> m_ofNet;  // per net: motors (device)
  std::vector<bool> m_leads;           // per net: a motor's own
  std::map<int, std::set<int>> m_ofDevice;

  void at(TerminalIndex t, int motor, bool lead) {
    if (t < 0) return;
    m_ofNet[m_nets.of(t)].insert(motor);
    if (lead) m_leads[m_nets.of(t)] = true;
  }

  void take(const bench::Motor& m) {
    m_ofDevice[m.device].insert(m.device);
    const auto& d = m_bench.devices[m.device];
    for (int k = 0; k < static_cast<int>(d.part->terminals.size()); ++k)
      at(d.first + k, m.device, m.kind != bench::MotorKind::Servo || d.part->terminals[k].output);
    std::vector<bench::ChannelRef> channels = m.reached;
    channels.insert(channels.end(), m.further.begin(), m.further.end());
    if (m.meant.device >= 0) channels.push_back(m.meant);
    for (const auto& ref : channels) {
      if (ref.device < 0 || ref.channel < 0) continue;
      m_ofDevice[ref.device].insert(m.device);
      const auto& channel = bench::channelOf(m_bench, ref);
      for (const auto& [role, input] : channel.signals) at(m_bench.terminal(ref.device, input), m.device, false);
      for (const auto& output : channel.out) at(m_bench.terminal(ref.device, output), m.device, true);
    }
    if (!m.intent) return;
    for (const auto& s : m.intent->signals) at(m_bench.terminal(s.pin), m.device, false);
  }
};

std::string otherwise(const harness::Harness& h, const parts::Library& library, const harness::Mark& wrong) {
  if (!wrong.found) return wrong.remark;
  const auto& [a, b] = *wrong.found;
  return shownEnd(h, library, a) + " – " + shownEnd(h, library, b);
}

}  // namespace

std::string_view word(Carries carries) {
  switch (carries) {
    case Carries::Supply:
      return "supply";
    case Carries::Ground:
      return "ground";
    case Carries::Motor:
      return "motor";
    case Carries::Signal:
      return "signal";
  }
  return {};
}

std::vector<ListedWire> wireList(const harness::Harness& h, const parts::Library& library) {
  const Lanes lanes(asPlanned(h), library);
  const auto rows = connectionTable(h, library);
  const harness::EndNames names(h, library);
  std::vector<ListedWire> out;
  out.reserve(rows.size());
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const auto& c = h.connections[i];
    ListedWire w{.id = c.id,
                 .kind = c.kind,
                 .state = c.state,
                 .colour = rows[i].colour,
                 .gauge = rows[i].gauge,
                 .size = rows[i].size,
                 .ends = {c.a, c.b}};
    w.names = {rows[i].from, rows[i].to};
    w.devices = {names.device(c.a.device), names.device(c.b.device)};
    const auto a = lanes.carries(lanes.terminal(c.a));
    w.carries = lanes.terminal(c.a) >= 0 ? a : lanes.carries(lanes.terminal(c.b));
    for (const int m : lanes.motors(c)) w.motors.push_back(lanes.id(m));
    out.push_back(std::move(w));
  }
  takeMarks(out, h, library);
  return out;
}

void takeMarks(std::vector<ListedWire>& list, const harness::Harness& h, const parts::Library& library) {
  const auto marks = allMarks(h, library);
  const auto read = readRight(h, library);
  for (std::size_t i = 0; i < std::min(list.size(), marks.size()); ++i) {
    auto& w = list[i];
    w.fitted = marks[i].fitted;
    w.tugged = marks[i].tugged;
    w.seen = marks[i].seen;
    w.wrong = marks[i].wrong;
    const auto readers = read.find(w.id);
    w.readBy = readers == read.end() ? std::vector<std::string>{} : readers->second;
    w.otherwise = w.wrong ? otherwise(h, library, *marks[i].wrong) : std::string();
  }
}

int left(const std::vector<ListedWire>& list) {
  return static_cast<int>(std::ranges::count_if(list, [](const ListedWire& w) { return !w.complete(); }));
}

std::string standing(const ListedWire& w) {
  if (w.wrong) return w.otherwise.empty() ? "wrong" : "wrong: " + w.otherwise;
  std::string out;
  const auto say = [&](bool on, std::string_view what) {
    if (on) out += (out.empty() ? "" : ", ") + std::string(what);
  };
  say(w.state != harness::State::OnBench, word(w.state));
  say(w.fitted, "fitted");
  say(w.tugged, "tugged");
  say(w.seen, "seen");
  std::string readers;
  for (const auto& r : w.readBy) readers += (readers.empty() ? "read back by " : " and ") + r;
  say(!readers.empty(), readers);
  return out;
}

std::vector<WireGroup> grouped(const std::vector<ListedWire>& list, const harness::Harness& h, const parts::Library& library, By by) {
  std::map<std::string, std::pair<bool, bool>> kinds;  // device -> is a stage, is a controller
  for (const auto& d : h.devices)
    if (const auto part = library.find(d.part)) kinds[d.id] = {!part->channels.empty(), parts::isController(*part)};
  const auto titleOf = [&](const ListedWire& w) -> std::string {
    if (by == By::Motor) {
      std::string out;
      for (const auto& m : w.motors) out += (out.empty() ? "" : ", ") + shownName(h, *h.device(m));
      return out;
    }
    for (int k = 0; k < 2; ++k) {
      const auto kind = kinds.find(w.ends[k].device);
      if (kind != kinds.end() && (by == By::Stage ? kind->second.first : kind->second.second)) return w.devices[k];
    }
    return {};
  };
  std::vector<WireGroup> out;
  WireGroup rest{by == By::Stage ? "No stage" : by == By::Motor ? "No motor" : "No controller", {}};
  std::map<std::string, std::size_t> known;
  for (int i = 0; i < static_cast<int>(list.size()); ++i) {
    const auto title = titleOf(list[i]);
    if (title.empty()) {
      rest.wires.push_back(i);
      continue;
    }
    const auto [it, fresh] = known.emplace(title, out.size());
    if (fresh) out.push_back({title, {}});
    out[it->second].wires.push_back(i);
  }
  if (!rest.wires.empty()) out.push_back(std::move(rest));
  return out;
}

WireFilter::WireFilter(std::string_view words, const harness::Harness& h, const parts::Library& library)
    : m_words(harness::typedWords(words)) {
  for (const auto& d : h.devices) m_motors.emplace_back(d.id, lower(d.called()));
  // The longest beginning of the line that is a motor's name.
  int number = 0;
  std::size_t longest = 0;
  for (const auto& d : h.devices) {
    const auto part = library.find(d.part);
    if (!part || !parts::isMotor(*part)) continue;
    ++number;
    for (const auto& name : {lower(d.called()), lower(d.id), "motor " + std::to_string(number)}) {
      const auto own = harness::typedWords(name);
      if (own.size() <= longest || own.size() > m_words.size() || !std::equal(own.begin(), own.end(), m_words.begin())) continue;
      longest = own.size();
      m_motor = d.id;
    }
  }
  m_words.erase(m_words.begin(), m_words.begin() + static_cast<std::ptrdiff_t>(longest));
}

namespace {

bool fitsWord(const ListedWire& w, const std::string& word, const std::string& text) {
  if (word == "open") return !w.complete();
  if (word == "wrong") return w.wrong;
  if (word == "unseen") return !w.seen;
  if (word == "planned") return w.state != harness::State::OnBench;
  for (const auto carries : {Carries::Supply, Carries::Ground, Carries::Motor, Carries::Signal})
    if (word == wiring::word(carries) && w.carries == carries) return true;
  return lower(w.colour) == word || text.find(word) != std::string::npos;
}

}  // namespace

bool WireFilter::fits(const ListedWire& w) const {
  if (!m_motor.empty() && std::ranges::count(w.motors, m_motor) == 0) return false;
  if (m_words.empty()) return true;
  std::string text = lower(w.id) + " " + std::string(harness::word(w.kind)) + " " + lower(w.names[0]) + " " + lower(w.names[1]);
  for (const auto& [id, name] : m_motors)
    if (std::ranges::count(w.motors, id) > 0) text += " " + lower(id) + " " + name;
  return std::ranges::all_of(m_words, [&](const auto& word) { return fitsWord(w, word, text); });
}

ExpectedVoltages::ExpectedVoltages(const bench::SolvedBench& solved, std::size_t ends)
    : m_solved(solved), m_poles(solved.bench.devices.size()) {
  const auto& bench = solved.bench;
  for (const auto& p : solved.points) {
    if (!p->solved() || !bench::expected(p->corner()) || p->command().supply >= 0) continue;
    if (p->command().moment == bench::Moment::JustOpened) continue;  // for less than a meter sees
    m_points.push_back(p.get());
  }
  m_tooMany = ends * m_points.size() > kMostReadings;
  // Only a source that wires lead to can hold a terminal anywhere.
  Groups wired(bench.devices.size());
  for (const auto& l : bench.links) wired.join(bench.deviceOf(l.a), bench.deviceOf(l.b));
  std::map<int, std::vector<TerminalIndex>> negatives;
  for (const auto& pole : solved.nets.sources()) negatives[wired.find(pole.device)].push_back(pole.negative);
  for (std::size_t d = 0; d < m_poles.size(); ++d)
    if (const auto it = negatives.find(wired.find(static_cast<int>(d))); it != negatives.end()) m_poles[d] = it->second;
}

std::string ExpectedVoltages::at(const Address& end) const {
  const auto t = m_tooMany ? -1 : m_solved.bench.terminal(end);
  if (t < 0) return {};
  const auto& poles = m_poles[m_solved.bench.deviceOf(t)];
  std::optional<Volts> least, most;
  for (const auto* p : m_points) {
    std::optional<Volts> v;
    for (std::size_t k = 0; k < poles.size() && !v; ++k) v = p->across(t, poles[k]);
    if (!v) continue;  // nothing holds it there: a meter shows nothing
    least = least ? std::min(*least, *v) : *v;
    most = most ? std::max(*most, *v) : *v;
  }
  if (!least) return {};
  constexpr double kSame = 0.1;  // V: what a meter's last digit leaves open
  const auto rounded = [](Volts v) { return fmt::format("{:.3g} V", std::abs(v.value) < 0.05 ? 0.0 : std::round(10 * v.value) / 10); };
  if (most->value - least->value < kSame) return rounded(*most);
  return rounded(*least) + " to " + rounded(*most);
}

std::string expectedVoltage(const bench::SolvedBench& s, const Address& end) {
  return ExpectedVoltages(s, 1).at(end);
}

}  // namespace bold::wiring
