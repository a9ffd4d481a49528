#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <map>
#include <set>

#include "support/benches.h"

// Every terminal of every part has a limit: brought to 60 V, and to -12 V, by something that gives way to nothing, it is named.
using namespace bold;
using namespace bold::test;

namespace {

// What a terminal may be without a word; a closed list, and each is counted.
const char* excuse(const parts::Terminal& t) {
  if (t.ground) return "a ground: it is what is measured against";
  if (t.id.starts_with("NC")) return "not connected";
  if (t.phase) return "a phase of a brushless motor";
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

bool names(const Analysis& a, const harness::Harness& h, const Address& at) {
  const auto called = [&] {
    const auto* d = h.device(at.device);
    return d ? (d->name.empty() ? d->id : d->name) : at.device;
  }();
  return std::ranges::any_of(a.findings, [&](const checks::Finding& f) {
    if (f.severity == checks::Severity::Note) return false;
    const bool subject = std::ranges::count(f.subjects, at.text()) > 0;
    const auto* part = library().find(h.device(at.device)->part).get();
    return subject || f.text.find(called + " " + part->find(at.terminal)->label) != std::string::npos;
  });
}

}  // namespace

TEST_CASE("every terminal brought to 60 V or to -12 V is named") {
  // The first good bench that a part stands on.
  std::map<std::string, std::pair<std::string, std::string>> places;
  for (const auto& name : goodNames())
    for (const auto& d : good(name).devices) places.try_emplace(d.part, name, d.id);
  const auto* only = std::getenv("BOLD_PART");
  std::map<std::string, int> excused;
  int walked = 0, named = 0, absent = 0;
  std::map<std::string, std::string> silent;
  for (const auto& [id, place] : places) {
    if (only && id != only) continue;
    const auto part = library().find(id);
    const auto& [bench, device] = place;
    for (const auto& t : part->terminals) {
      if (const auto* why = excuse(t)) {
        ++excused[why];
        continue;
      }
      const auto ground = groundOf(*part, t);
      if (ground.empty()) {
        ++excused["a part without a ground of its own"];
        continue;
      }
      for (const auto* volts : {"60 V", "12 V"}) {
        const bool minus = volts[0] == '1';
        const Address at{device, t.id}, back{device, ground};
        const auto h = wiredBench("from " + bench + "\n" + stiff(volts, minus ? back : at, minus ? at : back));
        ++walked;
        if (names(analyseFast(h), h, at))
          ++named;
        else
          silent[id] += (silent[id].empty() ? "" : " ") + t.id + (minus ? "-" : "+");
      }
    }
  }
  for (const auto& p : library().search("")) absent += places.contains(p->id) ? 0 : 1;
  std::string list;
  for (const auto& [id, terminals] : silent) list += "\n  " + id + ": " + terminals;
  std::string why;
  for (const auto& [what, n] : excused) why += "\n  " + std::to_string(n) + " " + what;
  WARN(named << " of " << walked << " named; " << absent << " parts stand on no good bench; excused:" << why << "\nnot named:" << list);
  CHECK(named == walked);
}
