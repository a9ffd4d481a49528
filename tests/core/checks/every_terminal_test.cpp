#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <map>
#include <set>

#include "support/benches.h"
#include "support/expected.h"

// Every terminal of every part has a limit: brought to 60 V, and to -12 V, by something that gives way to nothing, it is named.
using namespace bold;
using namespace bold::test;

namespace {

constexpr const char* kBatches[]{"batch-1", "batch-2", "batch-3", "batch-4", "batch-5", "batch-6", "batch-7", "batch-8", "batch-9"};

bool ofContact(const parts::Part& part, const parts::Terminal& t) {
  return std::ranges::any_of(part.elements, [&](const parts::Element& e) {
    const auto* sw = std::get_if<parts::Switch>(&e.body);
    return sw && sw->contact && (sw->a == t.id || sw->b == t.id);
  });
}

// What a terminal may be without a word; a closed list, and each is counted.
const char* excuse(const parts::Part& part, const parts::Terminal& t, bool minus) {
  static const std::set<std::string> kApart{"opto-module-2", "stepdir-box-opto", "stepdir-box-tb6600"};
  if (t.ground) return "a ground: it is what is measured against";
  if (t.id.starts_with("NC")) return "not connected";
  if (t.phase) return "a phase of a brushless motor";
  if (ofContact(part, t)) return "a relay's contact: it stands apart, and its ratings are asked when it breaks a current";
  if (kApart.contains(part.id) && !t.supply) return "behind an opto-isolator: the ground is not its own";
  if (part.id == "stack-three-carriers" && t.id.find('-') != std::string::npos) return "a socket with no carrier in it";
  if (minus && t.limit && t.limit->below.typical().value_or(0) > 12) return "a diode stands before it";
  return nullptr;
}

std::string groundOf(const parts::Part& part, const parts::Terminal& t) {
  if (t.input) return t.input->ground;
  if (t.limit) return t.limit->ground;
  if (t.supply) return t.supply->back;
  for (const auto& other : part.terminals)
    if (other.ground) return other.id;
  return {};
}

std::string stiff(const std::string& volts, const Address& plus, const Address& minus) {
  return "part zz battery Stiff\nfigure zz.full " + volts + "\nfigure zz.nominal " + volts + "\nfigure zz.empty " + volts +
         "\nfigure zz.resistance 0.01 ohm\nfigure zz.continuous 100 A\nfigure zz.capacity 10 Ah\nwire zz.P " + plus.text() +
         " RD 12AWG 0.1m\nwire zz.N " + minus.text() + " BK 12AWG 0.1m\n";
}

// Itself, or what shares its copper: the pin of the board that it is plugged to, the rail that its post is on.
bool names(const Analysis& a, const Address& at) {
  const auto& s = *a.solved;
  const auto t = s.bench.terminal(at);
  return std::ranges::any_of(a.findings, [&](const checks::Finding& f) {
    if (f.severity == checks::Severity::Note) return false;
    return std::ranges::any_of(f.subjects, [&](const std::string& subject) {
      const auto address = parseAddress(subject);
      const auto u = address && address->terminal.size() > 0 ? s.bench.terminal(*address) : -1;
      return u >= 0 && s.bench.devices[s.bench.deviceOf(u)].doc.id != "zz" && s.nets.same(t, u);
    });
  });
}

}  // namespace

TEST_CASE("every terminal brought to 60 V or to -12 V is named") {
  // The first good bench that a part stands on, else the first sound one of the batches: its text, and the part's name there.
  std::map<std::string, std::pair<std::string, std::string>> places;
  for (const auto& name : goodNames())
    for (const auto& d : good(name).devices) places.try_emplace(d.part, "from " + name + "\n", d.id);
  for (const auto* batch : kBatches)
    for (const auto& name : namesIn(batch)) {
      if (name.find("-sound") == std::string::npos) continue;
      const auto text = textOf(batch, name) + "\n";
      for (const auto& d : wiredBench(text).devices) places.try_emplace(d.part, text, d.id);
    }
  // Else in the place of a part like it.
  for (const auto& [part, like] : {std::pair{"regulator-78m05", "regulator-7805"},
                                   {"regulator-1117-5v", "regulator-7805"},
                                   {"sbc-header-26-rev1", "sbc-header-26-rev2"}})
    if (const auto it = places.find(like); it != places.end())
      places.try_emplace(part, it->second.first + "swap " + it->second.second + " " + part + "\n", it->second.second);
  const auto* only = std::getenv("BOLD_PART");
  std::map<std::string, int> excused;
  int walked = 0, named = 0, absent = 0;
  std::map<std::string, std::string> silent;
  for (const auto& [id, place] : places) {
    if (only && id != only) continue;
    const auto part = library().find(id);
    const auto& [bench, device] = place;
    for (const auto& t : part->terminals) {
      const auto ground = groundOf(*part, t);
      if (ground.empty()) {
        excused["a part without a ground of its own"] += 2;
        continue;
      }
      for (const auto* volts : {"60 V", "12 V"}) {
        const bool minus = volts[0] == '1';
        if (const auto* why = excuse(*part, t, minus)) {
          ++excused[why];
          continue;
        }
        const Address at{device, t.id}, back{device, ground};
        const auto h = wiredBench(bench + stiff(volts, minus ? back : at, minus ? at : back));
        ++walked;
        if (names(analyseFast(h), at))
          ++named;
        else
          silent[id] += (silent[id].empty() ? "" : " ") + t.id + (minus ? "-" : "+");
      }
    }
  }
  std::string grounded;  // parts that stand nowhere, and have terminals that could be walked
  for (const auto& p : library().search("")) {
    if (places.contains(p->id)) continue;
    ++absent;
    if (std::ranges::any_of(p->terminals, [&](const parts::Terminal& t) { return !groundOf(*p, t).empty() && !excuse(*p, t, false); }))
      grounded += " " + p->id;
  }
  std::string list;
  for (const auto& [id, terminals] : silent) list += "\n  " + id + ": " + terminals;
  std::string why;
  for (const auto& [what, n] : excused) why += "\n  " + std::to_string(n) + " " + what;
  WARN(named << " of " << walked << " named; " << absent << " parts stand on no sound bench, of those with a ground:" << grounded
             << "; excused:" << why << "\nnot named:" << list);
  CHECK(named == walked);
  CHECK(grounded.empty());
}
